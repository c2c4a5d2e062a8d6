// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/stack_field.h"

#include "app/model/said.h"
#include "app/model/text.h"
#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "core/assemble/covers.h"
#include "core/material/materials.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <cmath>

namespace muffle {
namespace {

constexpr std::size_t kMostLayers = 3;

} // namespace

QString aboutMaterial(const CoverMaterial& m) {
  return StackField::tr("%1\nlets %2 % of light and %3 % of radiant heat through, takes up %4 % of radiant heat; resistance %5 m²K/W\nseen: %6\nsource: %7")
      .arg(said(nameOf(m)))
      .arg(std::lround(100 * m.solarTransmittance))
      .arg(std::lround(100 * m.longwave.transmittance))
      .arg(std::lround(100 * m.longwave.emissivity))
      .arg(m.resistance_m2K_W, 0, 'g', 3)
      .arg(text(m.range), text(m.source));
}

void offerMaterials(QComboBox& box, const Materials& materials) {
  for (const CoverMaterial* m : materials.all()) {
    box.addItem(said(nameOf(*m)), text(m->id));
    box.setItemData(box.count() - 1, aboutMaterial(*m), Qt::ToolTipRole);
  }
}

StackField::StackField(Document& document, QString name, Find<Skin> of, FaceGroup lies, QWidget* parent)
    : QWidget(parent), m_document(document), m_name(std::move(name)), m_of(std::move(of)), m_lies(lies), m_rows(new QVBoxLayout), m_sum(new QLabel(this)) {
  auto* down = new QVBoxLayout(this);
  down->setContentsMargins(0, 0, 0, 0);
  down->setSpacing(2);
  m_rows->setSpacing(2);
  down->addLayout(m_rows);
  m_sum->setFont(textFont(8.5));
  down->addWidget(m_sum);
  refresh();
}

void StackField::change(const QString& name, const std::function<void(Skin&)>& what) {
  if (auto why = m_document.edit(name, [&](Plan& p) {
        if (Skin* skin = m_of(p)) what(*skin);
      }))
    emit m_document.trouble(*why);
}

void StackField::rebuild(const Skin& skin) {
  clearCards(*m_rows);
  m_shown = skin;
  m_shownOwn = m_document.plan().materials;
  for (std::size_t l = 0; l < skin.layers.size(); ++l) {
    auto* row = new QWidget(this);
    auto* across = new QHBoxLayout(row);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(4);
    auto* label = new QLabel(l == 0 ? m_name : QString(), row);
    label->setFont(textFont(10));
    label->setMinimumWidth(64);
    across->addWidget(label);
    auto* box = new QComboBox(row);
    box->setFont(textFont(9.5));
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
    box->setAccessibleName(tr("%1, layer %2").arg(m_name).arg(l + 1));
    offerMaterials(*box, m_document.planInHand().materials());
    box->setCurrentIndex(box->findData(QString::fromStdString(skin.layers[l].material)));
    connect(box, &QComboBox::activated, this, [this, l, box](int i) {
      const std::string id = box->itemData(i).toString().toStdString();
      change(tr("change a layer"), [&](Skin& s) { s.layers[l].material = id; });
    });
    across->addWidget(box, 1);
    addSignButton(*across, row, QStringLiteral("+"), tr("another layer after this one"), skin.layers.size() < kMostLayers, this, [this, l] {
      change(tr("add a layer"), [&](Skin& s) { s.layers.insert(s.layers.begin() + static_cast<std::ptrdiff_t>(l) + 1, s.layers[l]); });
    });
    addSignButton(*across, row, QStringLiteral("×"), tr("remove this layer"), skin.layers.size() > 1, this,
                  [this, l] { change(tr("remove a layer"), [&](Skin& s) { s.layers.erase(s.layers.begin() + static_cast<std::ptrdiff_t>(l)); }); });
    m_rows->addWidget(row);
  }
}

void StackField::refresh() {
  const Plan& plan = m_document.plan();
  const Skin* const skin = look(m_of, plan);
  if (!skin) return;
  if (!(m_shown == *skin) || m_shownOwn != plan.materials) rebuild(*skin);
  if (const auto u = skinU_W_m2K(*skin, m_lies, {}, m_document.planInHand().materials()))
    m_sum->setText(tr("as a skin to the weather it would let %1 through; %2 % of light")
                       .arg(m_document.view().units().text(Quantity::uValue, *u))
                       .arg(std::lround(100.0 * skinOptics(*skin, m_document.planInHand().materials()).transmittance)));
}

} // namespace muffle
