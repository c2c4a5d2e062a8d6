// SPDX-License-Identifier: GPL-3.0-or-later
//
// A station that publishes: what is heard comes in once, what is odd is set aside, and it is always said how things stand.
#include "tests/app/broker.h"
#include "tests/app/window_fixture.h"

#include <QDateTime>
#include <QFile>
#include <QProcess>
#include <QTcpServer>
#include <QTcpSocket>

namespace muffle {
namespace {

class StationTest : public WindowTest {
protected:
  void TearDown() override { close(); }
  [[nodiscard]] std::size_t readings() const { return document->readings().log() ? document->readings().log()->time.size() : 0; }
  /// Rows of an hour each, as a file that the stand-in plays.
  QString hours(int n) {
    std::string text = "Time,Outside C,House C\n";
    for (int i = 0; i < n; ++i)
      text +=
          "2031-01-" + std::to_string(10 + i / 24) + " " + (i % 24 < 10 ? "0" : "") + std::to_string(i % 24) + ":00," + std::to_string(-4.0 + 0.1 * i) + ",5\n";
    QString path = m_dir.filePath(QStringLiteral("from.csv"));
    EXPECT_TRUE(writeFile(path.toStdString(), text));
    return path;
  }
  static void play(QProcess& station, const QString& from, const Broker& broker, const QStringList& more) {
    station.start(QStringLiteral(MUFFLE_STATION), QStringList{from, QStringLiteral("--publish"), broker.address(), QStringLiteral("--topic"),
                                                              QStringLiteral("yard/station"), QStringLiteral("--pause"), QStringLiteral("5")} +
                                                      more);
    ASSERT_TRUE(station.waitForStarted());
  }
};

TEST(StationAddress, TakesNamesNumbersAndBracketsAndSaysWhatIsWrong) {
  const auto read = [](const char* text) {
    QString why;
    auto a = StationAddress::from(QString::fromUtf8(text), why);
    EXPECT_EQ(a.has_value(), why.isEmpty()) << text;
    return a;
  };
  const auto plain = read("shed.lan/yard/station");
  ASSERT_TRUE(plain);
  EXPECT_EQ(plain->host, QStringLiteral("shed.lan"));
  EXPECT_EQ(plain->port, 1883);
  EXPECT_EQ(plain->topic, "yard/station/#");
  const auto six = read("[fe80::a1%eth0]:8883/yard");
  ASSERT_TRUE(six);
  EXPECT_EQ(six->host, QStringLiteral("fe80::a1%eth0"));
  EXPECT_EQ(six->port, 8883);
  EXPECT_EQ(read("[::1]/yard")->host, QStringLiteral("::1"));
  for (const char* wrong : {"", "nowhere", "host/", "/topic", "fe80::1/yard", "host:0/t", "host:70000/t", "host:x/t", "[::1/t", "a b/t", "h/a#b", "h/a/#/b"})
    EXPECT_FALSE(read(wrong)) << wrong;
}

TEST_F(StationTest, IsHeardAndNothingIsDoubled) {
  open();
  const Broker broker(m_dir.path());
  ASSERT_FALSE(window->listenTo(QStringLiteral("nowhere"))) << "an address without a topic";
  EXPECT_TRUE(window->notice().contains(QStringLiteral("HOST[:PORT]/TOPIC")));
  ASSERT_TRUE(window->listenTo(broker.address() + QStringLiteral("/yard/station")));
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->station().isConnected(); }, 5000));
  EXPECT_TRUE(window->station().state().contains(QStringLiteral("no reading has come yet"))) << window->station().state().toStdString();
  QTest::qWait(400); // the subscription stands
  QProcess station;
  play(station, hours(24), broker, {QStringLiteral("--now"), QStringLiteral("--twice"), QStringLiteral("3")});
  ASSERT_TRUE(QTest::qWaitFor([&] { return readings() == 24; }, 12000)) << readings();
  station.waitForFinished();
  QTest::qWait(2500); // what came twice comes in as nothing new
  EXPECT_EQ(readings(), 24U);
  EXPECT_TRUE(window->station().state().contains(QStringLiteral("last heard just now")));
  EXPECT_NEAR(static_cast<double>(document->readings().log()->find(Role::outside)->raw[1]), -3.9, 1e-5);
  EXPECT_EQ(document->readings().station(), broker.address() + QStringLiteral("/yard/station")) << "kept with the book";
}

TEST_F(StationTest, AWrongClockIsSetAsideAndSaid) {
  open();
  const Broker broker(m_dir.path());
  ASSERT_TRUE(window->listenTo(broker.address() + QStringLiteral("/yard/station")));
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->station().isConnected(); }, 5000));
  QTest::qWait(400);
  QProcess station;
  play(station, hours(6), broker, {}); // of 2031
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->station().setAside() == 12; }, 12000)) << window->station().setAside();
  EXPECT_EQ(readings(), 0U) << "nothing of it is in the log";
  EXPECT_TRUE(window->notice().contains(QString::fromUtf8("12\xC2\xA0readings"))) << window->notice().toStdString();
  EXPECT_TRUE(window->notice().contains(QStringLiteral("2031-01-10")));
  station.waitForFinished();
}

TEST_F(StationTest, OneThatDoesNotAnswerIsSaidSoAndAskedAgain) {
  open();
  quint16 port = 0;
  {
    QTcpServer probe;
    ASSERT_TRUE(probe.listen(QHostAddress::LocalHost));
    port = probe.serverPort();
  }
  ASSERT_TRUE(window->listenTo(QStringLiteral("127.0.0.1:%1/yard").arg(port)));
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->station().state().contains(QStringLiteral("does not answer")); }, 9000))
      << window->station().state().toStdString();
  EXPECT_FALSE(window->station().isConnected());
  QElapsedTimer timer;
  timer.start();
  close();
  EXPECT_LT(timer.elapsed(), 2000) << "closing waits for nobody";
}

TEST_F(StationTest, OneThatTakesTheCallAndSaysNothingDoesNotHoldUpClosing) {
  open();
  QTcpServer mute; // accepts, never answers
  ASSERT_TRUE(mute.listen(QHostAddress::LocalHost));
  ASSERT_TRUE(window->listenTo(QStringLiteral("127.0.0.1:%1/yard").arg(mute.serverPort())));
  QTest::qWait(500);
  EXPECT_FALSE(window->station().isConnected());
  QElapsedTimer timer;
  timer.start();
  close();
  EXPECT_LT(timer.elapsed(), 2000);
}

} // namespace
} // namespace muffle
