// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/kept_together.h"
#include "app/model/units.h"

#include <QCoreApplication>

#include <gtest/gtest.h>

namespace muffle {
namespace {

TEST(KeptTogether, NoNumberIsPartedFromItsUnit) {
  const KeptTogether kept;
  const QChar joined(QChar::Nbsp);
  const auto of = [&](const char* sentence) { return kept.translate("", sentence, nullptr, -1); };
  EXPECT_EQ(of("heater %1 kWh over %2 nights"),
            QStringLiteral("heater %1%3kWh over %2%3nights").arg(QStringLiteral("%1"), QStringLiteral("%2"), QString(joined)));
  EXPECT_TRUE(of("rises %1 %2 a winter").contains(QStringLiteral("%1") + joined + QStringLiteral("%2"))) << "an amount and its money";
  EXPECT_TRUE(of("damp, 90 % and more").contains(QStringLiteral("90") + joined + QStringLiteral("%")));
  EXPECT_TRUE(of("after 4 days").contains(QStringLiteral("4") + joined));
  EXPECT_TRUE(of("held %1 of %2").isNull()) << "nothing to keep together: as it was";
  EXPECT_TRUE(of("Where it stands").isNull());
  EXPECT_TRUE(of("%1 held, %2 more").isNull()) << "\"more\" is no metre";
}

TEST(KeptTogether, OneIsOneAndMoreAreMore) {
  const auto barrels = [](int n) { return QCoreApplication::translate("", "%Ln barrel(s)", nullptr, n); };
  EXPECT_EQ(barrels(1), QStringLiteral("1\u00A0barrel"));
  EXPECT_EQ(barrels(0), QStringLiteral("0\u00A0barrels"));
  EXPECT_EQ(barrels(12), QStringLiteral("12\u00A0barrels"));
}

} // namespace
} // namespace muffle
