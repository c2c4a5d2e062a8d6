// SPDX-License-Identifier: GPL-3.0-or-later
//
// A house's controller over MQTT: setpoints are sent to it, and what it says it has taken comes back. It is told, never trusted: what it holds is shown beside
// what was sent.
//   TOPIC/set/night "4.0 C"  is sent        TOPIC/state/night "4.0 C"  comes back
#pragma once

#include <QObject>
#include <QString>

#include <map>
#include <optional>
#include <string>

struct mosquitto;
struct mosquitto_message;

namespace muffle {

class ControllerLink : public QObject {
  Q_OBJECT
public:
  explicit ControllerLink(QObject* parent = nullptr);
  ~ControllerLink() override;
  /// As StationAddress reads it; empty ends it. Says what is wrong if that is no address.
  std::optional<QString> connectTo(const QString& address);
  [[nodiscard]] QString address() const { return m_address; }
  [[nodiscard]] bool isConnected() const { return m_connected; }
  /// Who is asked and whether it answers; empty without one.
  [[nodiscard]] QString state() const;

  /// By name: "night", "day", "vents". False where it is not connected; nothing is sent later by itself.
  bool send(const std::map<std::string, double>& setpoints_C);
  /// What was sent last, and what the controller says it has.
  [[nodiscard]] const std::map<std::string, double>& sent_C() const { return m_sent_C; }
  [[nodiscard]] const std::map<std::string, double>& taken_C() const { return m_taken_C; }
  /// Of the house's air, as it reads it.
  [[nodiscard]] std::optional<double> read_C() const { return m_read_C; }

signals:
  void changed();

private:
  static void onConnect(mosquitto*, void* link, int rc);
  static void onDisconnect(mosquitto*, void* link, int rc);
  static void onMessage(mosquitto*, void* link, const mosquitto_message* message);
  void connected(bool is, const QString& why);
  void took(const std::string& what, double value_C);
  void stop();

  QString m_address, m_whyNot;
  std::string m_topic; ///< without what is below it
  mosquitto* m_client = nullptr;
  bool m_connected = false;
  std::map<std::string, double> m_sent_C, m_taken_C;
  std::optional<double> m_read_C;
};

} // namespace muffle
