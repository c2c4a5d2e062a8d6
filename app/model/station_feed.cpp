// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/station_feed.h"

#include "app/model/document.h"
#include "core/log/merge.h"
#include "core/log/message.h"

#include <QDateTime>
#include <QMutexLocker>

#include <mosquitto.h>

namespace muffle {
namespace {

constexpr int kHandOver_ms = 2000; // readings of so long go into the log together
constexpr int kKeepAlive_s = 30;
constexpr int kPort = 1883;

} // namespace

StationFeed::StationFeed(Document& document, QObject* parent) : QObject(parent), m_document(document) {
  mosquitto_lib_init();
  m_timer.setInterval(kHandOver_ms);
  connect(&m_timer, &QTimer::timeout, this, &StationFeed::handOver);
}

StationFeed::~StationFeed() { stop(); }

void StationFeed::stop() {
  m_timer.stop();
  if (!m_client) return;
  mosquitto_disconnect(m_client);
  mosquitto_loop_stop(m_client, true);
  mosquitto_destroy(m_client);
  m_client = nullptr;
}

std::optional<QString> StationFeed::listen(const QString& address) {
  stop();
  m_waiting.clear(); // the thread that filled it has ended
  setConnected(false);
  m_address.clear();
  if (address.isEmpty()) return std::nullopt;
  const QString host = address.section(QLatin1Char('/'), 0, 0).section(QLatin1Char(':'), 0, 0), topic = address.section(QLatin1Char('/'), 1);
  const QString portText = address.section(QLatin1Char('/'), 0, 0).section(QLatin1Char(':'), 1);
  bool ok = true;
  const int port = portText.isEmpty() ? kPort : portText.toInt(&ok);
  if (host.isEmpty() || topic.isEmpty() || !ok || port < 1 || port > 65535)
    return tr("\"%1\" is no station's address: HOST[:PORT]/TOPIC is allowed, such as localhost/muffle/station").arg(address);
  m_topic = (topic.endsWith(QLatin1Char('#')) ? topic : topic + QStringLiteral("/#")).toStdString();
  if (mosquitto_sub_topic_check(m_topic.c_str()) != MOSQ_ERR_SUCCESS) return tr("\"%1\" is no topic").arg(topic);
  m_client = mosquitto_new(nullptr, true, this);
  if (!m_client) return tr("out of memory");
  mosquitto_connect_callback_set(m_client, &StationFeed::onConnect);
  mosquitto_disconnect_callback_set(m_client, &StationFeed::onDisconnect);
  mosquitto_message_callback_set(m_client, &StationFeed::onMessage);
  mosquitto_reconnect_delay_set(m_client, 1, 30, true);
  mosquitto_connect_async(m_client, host.toUtf8().constData(), port, kKeepAlive_s); // one that does not answer is asked again by the loop
  mosquitto_loop_start(m_client);
  m_address = address;
  m_timer.start();
  return std::nullopt;
}

void StationFeed::onConnect(mosquitto* client, void* feed, int rc) {
  auto* self = static_cast<StationFeed*>(feed);
  if (rc == 0) mosquitto_subscribe(client, nullptr, self->m_topic.c_str(), 1);
  QMetaObject::invokeMethod(
      self, [self, rc] { self->setConnected(rc == 0); }, Qt::QueuedConnection);
}

void StationFeed::onDisconnect(mosquitto*, void* feed, int) {
  auto* self = static_cast<StationFeed*>(feed);
  QMetaObject::invokeMethod(
      self, [self] { self->setConnected(false); }, Qt::QueuedConnection);
}

/// On libmosquitto's thread. What is no reading is passed over: a station says other things too.
void StationFeed::onMessage(mosquitto*, void* feed, const mosquitto_message* message) {
  auto* self = static_cast<StationFeed*>(feed);
  const std::string_view text(static_cast<const char*>(message->payload), static_cast<std::size_t>(message->payloadlen));
  auto log = readMessage(message->topic, text, QDateTime::currentSecsSinceEpoch());
  if (!log) return;
  const QMutexLocker lock(&self->m_mutex);
  self->m_waiting.push_back(std::move(*log));
}

void StationFeed::setConnected(bool connected) {
  if (m_connected == connected) return;
  m_connected = connected;
  emit connectedChanged(connected);
}

void StationFeed::handOver() {
  std::vector<Log> waiting;
  {
    const QMutexLocker lock(&m_mutex);
    waiting.swap(m_waiting);
  }
  if (waiting.empty()) return;
  Log all = std::move(waiting.front());
  for (std::size_t i = 1; i < waiting.size(); ++i) all = mergeLogs(all, waiting[i]).log;
  all.name = m_address.toStdString();
  m_document.followed(all);
}

} // namespace muffle
