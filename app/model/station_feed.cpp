// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/station_feed.h"

#include "app/model/document.h"
#include "core/log/merge.h"
#include "core/log/message.h"

#include <QDateTime>
#include <QRegularExpression>

#include <mosquitto.h>

#include <algorithm>
#include <cerrno>
#include <cstring>

namespace muffle {
namespace {

constexpr int kHandOver_ms = 2000; // readings of so long go into the log together
constexpr int kKeepAlive_s = 30;
constexpr qint64 kSilent_s = 15 * 60; // stations speak every few minutes
constexpr UtcSeconds kMostFromNow_s = 86400;

QString ago(qint64 seconds) {
  if (seconds < 90) return StationFeed::tr("just now");
  if (seconds < 2 * 3600) return StationFeed::tr("%1 min ago").arg(seconds / 60);
  return StationFeed::tr("%1 h ago").arg(seconds / 3600);
}

} // namespace

std::optional<StationAddress> StationAddress::from(const QString& text, QString& whyNot) {
  // brackets hold an IPv6 address, whose colons are its own
  static const QRegularExpression form(QStringLiteral(R"(^(\[([0-9A-Fa-f:.%\w-]+)\]|([^\[\]:/\s]+))(:(\d{1,5}))?/(.+)$)"));
  const auto match = form.match(text);
  const int port = match.captured(5).isEmpty() ? StationAddress().port : match.captured(5).toInt();
  if (!match.hasMatch() || port < 1 || port > 65535) {
    whyNot = StationFeed::tr("\"%1\" is no station's address: HOST[:PORT]/TOPIC is allowed, an IPv6 address in brackets, such as localhost/muffle/station or "
                             "[fe80::1]:1883/yard")
                 .arg(text);
    return std::nullopt;
  }
  QString topic = match.captured(6);
  if (!topic.endsWith(QLatin1Char('#'))) topic += QStringLiteral("/#");
  if (mosquitto_sub_topic_check(topic.toUtf8().constData()) != MOSQ_ERR_SUCCESS) {
    whyNot = StationFeed::tr("\"%1\" is no topic: words between strokes are allowed, + for any one word, # at the end for all below").arg(match.captured(6));
    return std::nullopt;
  }
  return StationAddress{match.captured(2).isEmpty() ? match.captured(3) : match.captured(2), port, topic.toStdString()};
}

StationFeed::StationFeed(Document& document, QObject* parent) : QObject(parent), m_document(document) {
  mosquitto_lib_init();
  m_timer.setInterval(kHandOver_ms);
  connect(&m_timer, &QTimer::timeout, this, &StationFeed::handOver);
  m_minute.setInterval(30000); // "3 min ago" grows
  connect(&m_minute, &QTimer::timeout, this, &StationFeed::stateChanged);
}

StationFeed::~StationFeed() { stop(); }

void StationFeed::stop() {
  m_timer.stop();
  m_minute.stop();
  if (!m_client) return;
  mosquitto_disconnect(m_client);
  mosquitto_loop_stop(m_client, true);
  mosquitto_destroy(m_client);
  m_client = nullptr;
}

std::optional<QString> StationFeed::listen(const QString& address) {
  stop();
  (void)m_waiting.takeAll(); // of another address, or for another book
  m_connected = false;
  m_address.clear();
  m_whyNot.clear();
  m_heard_s = m_setAside = 0;
  emit stateChanged();
  if (address.isEmpty()) return std::nullopt;
  QString whyNot;
  const auto station = StationAddress::from(address, whyNot);
  if (!station) return whyNot;
  m_topic = station->topic;
  m_client = mosquitto_new(nullptr, true, this);
  if (!m_client) return tr("out of memory");
  mosquitto_connect_callback_set(m_client, &StationFeed::onConnect);
  mosquitto_disconnect_callback_set(m_client, &StationFeed::onDisconnect);
  mosquitto_message_callback_set(m_client, &StationFeed::onMessage);
  mosquitto_reconnect_delay_set(m_client, 1, 30, true);
  m_asked_s = QDateTime::currentSecsSinceEpoch();
  // the first call is made here and not waited for; one that does not answer is asked again by the loop
  if (const int rc = mosquitto_connect_async(m_client, station->host.toUtf8().constData(), station->port, kKeepAlive_s); rc != MOSQ_ERR_SUCCESS)
    m_whyNot = QString::fromUtf8(rc == MOSQ_ERR_ERRNO ? std::strerror(errno) : mosquitto_strerror(rc));
  mosquitto_loop_start(m_client);
  m_address = address;
  m_timer.start();
  m_minute.start();
  emit stateChanged();
  return std::nullopt;
}

QString StationFeed::state() const {
  if (m_address.isEmpty()) return {};
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  if (!m_connected) {
    const QString heard = m_heard_s ? tr(", last heard %1").arg(ago(now - m_heard_s)) : QString();
    return m_whyNot.isEmpty() && now - m_asked_s < 5 ? tr("Asking %1.").arg(m_address)
           : m_whyNot.isEmpty()                      ? tr("%1 does not answer%2; it is asked again.").arg(m_address, heard)
                                                     : tr("%1 does not answer (%2)%3; it is asked again.").arg(m_address, m_whyNot, heard);
  }
  if (!m_heard_s) return tr("%1 answers; no reading has come yet.").arg(m_address);
  return tr("%1: last heard %2.").arg(m_address, ago(now - m_heard_s));
}

bool StationFeed::isSilent() const {
  if (m_address.isEmpty()) return false;
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  return !m_connected ? now - m_asked_s >= 5 : now - std::max(m_heard_s, m_asked_s) > kSilent_s;
}

void StationFeed::onConnect(mosquitto* client, void* feed, int rc) {
  auto* self = static_cast<StationFeed*>(feed);
  if (rc == 0) mosquitto_subscribe(client, nullptr, self->m_topic.c_str(), 1);
  const QString why = rc == 0 ? QString() : QString::fromUtf8(mosquitto_connack_string(rc));
  QMetaObject::invokeMethod(
      self, [self, rc, why] { self->connected(rc == 0, why); }, Qt::QueuedConnection);
}

void StationFeed::onDisconnect(mosquitto*, void* feed, int rc) {
  auto* self = static_cast<StationFeed*>(feed);
  const QString why = rc == 0 ? QString() : QString::fromUtf8(mosquitto_strerror(rc));
  QMetaObject::invokeMethod(
      self, [self, why] { self->connected(false, why); }, Qt::QueuedConnection);
}

/// On libmosquitto's thread. What is no reading is passed over: a station says other things too.
void StationFeed::onMessage(mosquitto*, void* feed, const mosquitto_message* message) {
  auto* self = static_cast<StationFeed*>(feed);
  const std::string_view text(static_cast<const char*>(message->payload), static_cast<std::size_t>(message->payloadlen));
  auto log = readMessage(message->topic, text, QDateTime::currentSecsSinceEpoch());
  if (!log) return;
  self->m_waiting.put(std::move(*log));
}

void StationFeed::connected(bool is, const QString& why) {
  if (m_address.isEmpty()) return; // ended meanwhile
  m_connected = is;
  m_whyNot = why;
  emit stateChanged();
}

void StationFeed::handOver() {
  std::vector<Log> waiting = m_waiting.takeAll();
  if (waiting.empty()) return;
  // a station whose clock is wrong would put its readings where nobody looks, or make winters of 1970
  const qint64 now = QDateTime::currentSecsSinceEpoch();
  const auto before = m_setAside;
  std::erase_if(waiting, [&](const Log& log) {
    const bool odd = std::abs(log.time.front() - now) > kMostFromNow_s;
    if (odd) ++m_setAside, m_oddTime = log.time.front();
    return odd;
  });
  if (m_setAside != before) emit readingsSetAside();
  if (waiting.empty()) return;
  m_heard_s = now;
  emit stateChanged();
  Log all = std::move(waiting.front());
  for (std::size_t i = 1; i < waiting.size(); ++i) all = mergeLogs(all, waiting[i]).log;
  all.name = m_address.toStdString();
  m_document.readings().followed(all);
}

} // namespace muffle
