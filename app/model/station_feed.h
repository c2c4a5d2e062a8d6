// SPDX-License-Identifier: GPL-3.0-or-later
//
// Listens to a station that publishes its readings over MQTT and puts what is new into the log, every few seconds. The connection is
// kept up by libmosquitto on a thread of its own and comes back by itself when the broker does.
#pragma once

#include "app/model/incoming.h"

#include <QObject>
#include <QTimer>

#include <optional>
#include <string>
#include <vector>

struct mosquitto;
struct mosquitto_message;

namespace muffle {

class Document;

/// Where a station publishes: "HOST[:PORT]/TOPIC", an IPv6 address in brackets, such as "localhost/muffle/station" or "[fe80::1]:1883/yard".
struct StationAddress {
  QString host;
  int port = 1883;
  std::string topic; ///< with all that is below it
  static std::optional<StationAddress> from(const QString& text, QString& whyNot);
};

class StationFeed : public QObject {
  Q_OBJECT
public:
  explicit StationFeed(Document& document, QObject* parent = nullptr);
  ~StationFeed() override;
  /// Empty ends it. What still waits is dropped: the book may be another. Says what is wrong if that is no address.
  std::optional<QString> listen(const QString& address);
  /// What has come in and waits goes into the log now.
  void handOver();
  [[nodiscard]] QString address() const { return m_address; }
  /// Who is asked, whether it answers, and when a reading was last heard; empty if no station is listened to.
  [[nodiscard]] QString state() const;
  [[nodiscard]] bool isConnected() const { return m_connected; }
  /// True if nothing was heard for longer than a station is silent, or it does not answer.
  [[nodiscard]] bool isSilent() const;
  /// Readings set aside because their times lie more than a day from now, and one such time.
  [[nodiscard]] qint64 setAside() const { return m_setAside; }
  [[nodiscard]] UtcSeconds oddTime() const { return m_oddTime; }

signals:
  void stateChanged();
  void readingsSetAside();

private:
  static void onConnect(mosquitto*, void* feed, int rc);
  static void onDisconnect(mosquitto*, void* feed, int rc);
  static void onMessage(mosquitto*, void* feed, const mosquitto_message* message);
  void connected(bool is, const QString& why);
  void stop();
  Document& m_document;
  QString m_address, m_whyNot;
  std::string m_topic;
  mosquitto* m_client = nullptr;
  bool m_connected = false;
  qint64 m_asked_s = 0, m_heard_s = 0, m_setAside = 0;
  UtcSeconds m_oddTime = 0;
  QTimer m_timer, m_minute;
  Incoming m_waiting; ///< filled on libmosquitto's thread
};

} // namespace muffle
