// SPDX-License-Identifier: GPL-3.0-or-later
//
// The cautions that go with what is chosen beside them, small and always in sight.
#pragma once

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "core/plan/cautions.h"

#include <QLabel>
#include <QStringList>

namespace muffle {

class CautionLabel : public QLabel {
public:
  explicit CautionLabel(QWidget* parent) : QLabel(parent) {
    setWordWrap(true);
    setFont(textFont(8.5));
    setObjectName(QStringLiteral("caution"));
    setAccessibleName(QLabel::tr("Caution"));
  }
  /// Where things of a kind are chosen.
  CautionLabel(ThingKind about, QWidget* parent) : CautionLabel(parent) { state(cautionsAbout(about)); }

  void state(const std::vector<Caution>& cautions) {
    QStringList sentences;
    for (const Caution& c : cautions) sentences << said(textOf(c));
    setText(sentences.join(QLatin1Char(' ')));
    setVisible(!cautions.empty());
  }
};

} // namespace muffle
