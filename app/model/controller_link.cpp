// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/controller_link.h"

#include "app/model/station_feed.h"
#include "core/log/message.h"

#include <QDateTime>

#include <fmt/format.h>
#include <mosquitto.h>

#include <cerrno>
#include <cmath>
#include <cstring>

namespace muffle {
namespace {
constexpr int kAlive_s = 30;
}

ControllerLink::ControllerLink(QObject* parent) : QObject(parent) { mosquitto_lib_init(); }

ControllerLink::~ControllerLink() { stop(); }

void ControllerLink::stop() {
  if (!m_client) return;
  mosquitto_disconnect(m_client);
  mosquitto_loop_stop(m_client, true);
  mosquitto_destroy(m_client);
  m_client = nullptr;
}

std::optional<QString> ControllerLink::connectTo(const QString& address) {
  stop();
  m_connected = false;
  m_address.clear();
  m_whyNot.clear();
  m_sent_C.clear();
  m_taken_C.clear();
  m_read_C.reset();
  emit changed();
  if (address.isEmpty()) return std::nullopt;
  QString whyNot;
  const auto controller = StationAddress::from(address, whyNot);
  if (!controller) return whyNot;
  m_topic = controller->topic.substr(0, controller->topic.size() - 2); // its "/#"
  if (m_topic.find_first_of("+#") != std::string::npos) return tr("\"%1\" names more than one topic: a controller has one of its own").arg(address);
  m_client = mosquitto_new(nullptr, true, this);
  if (!m_client) return tr("out of memory");
  mosquitto_connect_callback_set(m_client, &ControllerLink::onConnect);
  mosquitto_disconnect_callback_set(m_client, &ControllerLink::onDisconnect);
  mosquitto_message_callback_set(m_client, &ControllerLink::onMessage);
  mosquitto_reconnect_delay_set(m_client, 1, 30, true);
  if (const int rc = mosquitto_connect_async(m_client, controller->host.toUtf8().constData(), controller->port, kAlive_s); rc != MOSQ_ERR_SUCCESS)
    m_whyNot = QString::fromUtf8(rc == MOSQ_ERR_ERRNO ? std::strerror(errno) : mosquitto_strerror(rc));
  mosquitto_loop_start(m_client);
  m_address = address;
  emit changed();
  return std::nullopt;
}

QString ControllerLink::state() const {
  if (m_address.isEmpty()) return {};
  if (m_connected) return m_taken_C.empty() ? tr("%1 answers; the controller has not said what it holds.").arg(m_address) : tr("%1 answers.").arg(m_address);
  return m_whyNot.isEmpty() ? tr("%1 does not answer; it is asked again.").arg(m_address)
                            : tr("%1 does not answer (%2); it is asked again.").arg(m_address, m_whyNot);
}

bool ControllerLink::send(const std::map<std::string, double>& setpoints_C) {
  if (!m_connected) return false;
  for (const auto& [what, value_C] : setpoints_C) {
    const std::string topic = m_topic + "/set/" + what, text = fmt::format("{:.2f} C", value_C);
    if (mosquitto_publish(m_client, nullptr, topic.c_str(), static_cast<int>(text.size()), text.data(), 1, true) != MOSQ_ERR_SUCCESS) return false;
  }
  m_sent_C = setpoints_C;
  emit changed();
  return true;
}

void ControllerLink::onConnect(mosquitto* client, void* link, int rc) {
  auto* self = static_cast<ControllerLink*>(link);
  if (rc == 0)
    for (const char* below : {"/state/#", "/room:house"}) mosquitto_subscribe(client, nullptr, (self->m_topic + below).c_str(), 1);
  const QString why = rc == 0 ? QString() : QString::fromUtf8(mosquitto_connack_string(rc));
  QMetaObject::invokeMethod(
      self, [self, rc, why] { self->connected(rc == 0, why); }, Qt::QueuedConnection);
}

void ControllerLink::onDisconnect(mosquitto*, void* link, int rc) {
  auto* self = static_cast<ControllerLink*>(link);
  const QString why = rc == 0 ? QString() : QString::fromUtf8(mosquitto_strerror(rc));
  QMetaObject::invokeMethod(
      self, [self, why] { self->connected(false, why); }, Qt::QueuedConnection);
}

/// On libmosquitto's thread. What is neither a reading nor a state is passed over.
void ControllerLink::onMessage(mosquitto*, void* link, const mosquitto_message* message) {
  auto* self = static_cast<ControllerLink*>(link);
  const std::string topic = message->topic, stem = self->m_topic + "/state/";
  const std::string text(static_cast<const char*>(message->payload), static_cast<std::size_t>(message->payloadlen));
  const bool isState = topic.starts_with(stem);
  std::optional<double> value_C;
  if (isState) {
    bool ok = false;
    const double read = QString::fromStdString(text).section(QLatin1Char(' '), 0, 0).toDouble(&ok);
    if (ok && std::isfinite(read)) value_C = read;
  } else if (const auto log = readMessage(topic, text, QDateTime::currentSecsSinceEpoch()); log && !log->channels.empty() && !log->channels[0].raw.empty()) {
    value_C = static_cast<double>(log->channels[0].raw[0]);
  }
  if (!value_C) return;
  QMetaObject::invokeMethod(
      self, [self, what = isState ? topic.substr(stem.size()) : std::string(), value_C] { self->took(what, *value_C); }, Qt::QueuedConnection);
}

void ControllerLink::connected(bool is, const QString& why) {
  if (m_address.isEmpty()) return; // ended meanwhile
  m_connected = is;
  m_whyNot = why;
  if (!is) m_taken_C.clear();
  emit changed();
}

void ControllerLink::took(const std::string& what, double value_C) {
  if (m_address.isEmpty()) return;
  if (what.empty())
    m_read_C = value_C;
  else
    m_taken_C[what] = value_C;
  emit changed();
}

} // namespace muffle
