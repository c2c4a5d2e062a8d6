// SPDX-License-Identifier: GPL-3.0-or-later
//
// Listens to a station that publishes its readings over MQTT and puts what is new into the log, every few seconds. The connection is
// kept up by libmosquitto on a thread of its own and comes back by itself when the broker does.
#pragma once

#include "core/log/log.h"

#include <QMutex>
#include <QObject>
#include <QTimer>

#include <memory>
#include <optional>
#include <string>
#include <vector>

struct mosquitto;
struct mosquitto_message;

namespace muffle {

class Document;

class StationFeed : public QObject {
  Q_OBJECT
public:
  explicit StationFeed(Document& document, QObject* parent = nullptr);
  ~StationFeed() override;
  /// "HOST[:PORT]/TOPIC", such as "localhost/muffle/station"; empty ends it. What still waits is dropped: the book may be another. Says what is wrong if that
  /// is no address.
  std::optional<QString> listen(const QString& address);
  /// What has come in and waits goes into the log now.
  void handOver();
  [[nodiscard]] QString address() const { return m_address; }
  [[nodiscard]] bool isConnected() const { return m_connected; }

signals:
  void connectedChanged(bool connected);

private:
  static void onConnect(mosquitto*, void* feed, int rc);
  static void onDisconnect(mosquitto*, void* feed, int rc);
  static void onMessage(mosquitto*, void* feed, const mosquitto_message* message);
  void setConnected(bool connected);
  void stop();
  Document& m_document;
  QString m_address;
  std::string m_topic;
  mosquitto* m_client = nullptr;
  bool m_connected = false;
  QTimer m_timer;
  QMutex m_mutex;
  std::vector<Log> m_waiting; ///< under m_mutex
};

} // namespace muffle
