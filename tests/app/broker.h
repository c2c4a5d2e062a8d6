// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFile>
#include <QProcess>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTest>

namespace muffle {

/// A broker of its own on a free port, for the life of the object.
class Broker {
public:
  explicit Broker(const QString& folder) {
    QTcpServer probe;
    if (!probe.listen(QHostAddress::LocalHost)) return;
    m_port = probe.serverPort();
    probe.close();
    QFile config(folder + QStringLiteral("/broker.conf"));
    if (!config.open(QIODevice::WriteOnly)) return;
    config.write(QStringLiteral("listener %1 127.0.0.1\nallow_anonymous true\nuser root\n").arg(m_port).toUtf8());
    config.close();
    m_process.setStandardErrorFile(QProcess::nullDevice());
    m_process.start(QStringLiteral("/usr/sbin/mosquitto"), {QStringLiteral("-c"), config.fileName()});
    m_process.waitForStarted();
    for (int i = 0; i < 100; ++i) {
      QTcpSocket socket;
      socket.connectToHost(QHostAddress::LocalHost, m_port);
      if (socket.waitForConnected(50)) break;
      QTest::qWait(30);
    }
  }
  ~Broker() {
    m_process.terminate();
    m_process.waitForFinished(3000);
  }
  [[nodiscard]] QString address() const { return QStringLiteral("127.0.0.1:%1").arg(m_port); }

private:
  quint16 m_port = 0;
  QProcess m_process;
};

} // namespace muffle
