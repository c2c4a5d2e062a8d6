// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/own_materials.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/number_field.h"
#include "app/stages/stack_field.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace muffle {
namespace {

OwnMaterial copyOf(const CoverMaterial& m, const std::vector<OwnMaterial>& others) {
  OwnMaterial own;
  for (int n = 1;; ++n) {
    own.id = "own-" + std::to_string(n);
    if (std::none_of(others.begin(), others.end(), [&](const OwnMaterial& o) { return o.id == own.id; })) break;
  }
  own.name = OwnMaterialsDialog::tr("%1, own").arg(said(nameOf(m))).toStdString();
  own.emissivity = m.longwave.emissivity;
  own.longwaveTransmittance = m.longwave.transmittance;
  own.solarTransmittance = m.solarTransmittance;
  own.solarReflectance = m.solarReflectance;
  own.resistance_m2K_W = m.resistance_m2K_W;
  own.capacity_J_m2K = m.capacity_J_m2K;
  return own;
}

} // namespace

OwnMaterialsDialog::OwnMaterialsDialog(Document& document, QWidget* parent)
    : QDialog(parent), m_document(document), m_refused(new QLabel(this)), m_from(new QComboBox(this)) {
  setWindowTitle(tr("Materials of your own"));
  resize(620, 520);
  auto* body = new QVBoxLayout(this);
  auto* intro = new QLabel(tr("Set out from the nearest material of the table and put its figures right by the maker's sheet. It can then be chosen "
                              "for any layer, ceiling, partition or bed cover of this plan."),
                           this);
  intro->setWordWrap(true);
  body->addWidget(intro);
  m_cards = addScrolled(*body);
  m_cards->setSpacing(14);
  m_refused->setWordWrap(true);
  body->addWidget(m_refused);
  auto* row = new QHBoxLayout;
  m_from->addItem(tr("set out from…"));
  offerMaterials(*m_from, Materials());
  m_from->setAccessibleName(tr("Set out from a material of the table"));
  row->addWidget(m_from, 1);
  auto* close = new QPushButton(tr("Close"), this);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  row->addWidget(close);
  body->addLayout(row);
  connect(m_from, &QComboBox::activated, this, [this](int i) {
    if (i == 0) return;
    const CoverMaterial* const from = findCoverMaterial(m_from->itemData(i).toString().toStdString());
    m_from->setCurrentIndex(0);
    edit(tr("a material of your own"), [from](std::vector<OwnMaterial>& own) { own.push_back(copyOf(*from, own)); });
  });
  connect(&document, &Document::planChanged, this, &OwnMaterialsDialog::refresh);
  connect(&document, &Document::bookOpened, this, &QDialog::reject);
  refresh();
}

void OwnMaterialsDialog::edit(const QString& name, const std::function<void(std::vector<OwnMaterial>&)>& change) {
  const auto why = m_document.edit(name, [&](Plan& p) { change(p.materials); });
  m_refused->setText(why.value_or(QString()));
  refresh();
}

QWidget* OwnMaterialsDialog::card(std::size_t k) {
  auto* card = new QWidget(this);
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(2);
  auto* name = new QLineEdit(QString::fromStdString(m_document.plan().materials[k].name), card);
  name->setAccessibleName(tr("Name of material %1").arg(k + 1));
  connect(name, &QLineEdit::editingFinished, this, [this, k, name] {
    const std::string typed = name->text().trimmed().toStdString();
    if (typed.empty() || k >= m_document.plan().materials.size() || typed == m_document.plan().materials[k].name) return;
    edit(tr("name a material"), [&](std::vector<OwnMaterial>& own) { own[k].name = typed; });
  });
  grid->addWidget(name, 0, 0);
  auto* remove = new QPushButton(tr("Take away"), card);
  remove->setAccessibleName(tr("Take away material %1").arg(k + 1));
  connect(remove, &QPushButton::clicked, this,
          [this, k] { edit(tr("take a material away"), [k](std::vector<OwnMaterial>& own) { own.erase(own.begin() + static_cast<std::ptrdiff_t>(k)); }); });
  grid->addWidget(remove, 0, 1, Qt::AlignRight);
  const auto field = [&](int row, int column, const QString& label, Quantity q, double OwnMaterial::*member, double max, double nudge, const QString& source) {
    const Find<double> find = [k, member](Plan& p) { return k < p.materials.size() ? &(p.materials[k].*member) : nullptr; };
    grid->addWidget(new NumberField(m_document, NumberField::Spec::at(label, q, find, 0.0, max, nudge, source), card), row, column);
  };
  field(1, 0, tr("Light through"), Quantity::share, &OwnMaterial::solarTransmittance, 1, 0.01, tr("of diffuse daylight, clean and dry"));
  field(1, 1, tr("Light sent back"), Quantity::share, &OwnMaterial::solarReflectance, 1, 0.01, tr("what is neither let through nor sent back warms it"));
  field(2, 0, tr("Radiant heat through"), Quantity::share, &OwnMaterial::longwaveTransmittance, 1, 0.01,
        tr("long-wave: plain polyethylene three quarters, heat-holding film a quarter, glass none"));
  field(2, 1, tr("Radiant heat taken up"), Quantity::share, &OwnMaterial::emissivity, 1, 0.01, tr("emissivity: glass 90 %, bright aluminium 5 to 20 %"));
  field(3, 0, tr("Resistance"), Quantity::resistance, &OwnMaterial::resistance_m2K_W, 50, 0.05, tr("of its body alone, face to face; films have none"));
  field(3, 1, tr("Stores"), Quantity::areaHeat, &OwnMaterial::capacity_J_m2K, 1e7, 100, tr("weight of a square metre times specific heat"));
  return card;
}

void OwnMaterialsDialog::refresh() {
  std::vector<std::string> ids;
  for (const OwnMaterial& m : m_document.plan().materials) ids.push_back(m.id);
  if (ids == m_shown) return;
  m_shown = ids;
  clearCards(*m_cards);
  for (std::size_t k = 0; k < ids.size(); ++k) m_cards->addWidget(card(k));
}

} // namespace muffle
