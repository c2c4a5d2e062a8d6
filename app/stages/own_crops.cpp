// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/own_crops.h"

#include "app/model/said.h"
#include "app/stages/cards.h"
#include "app/stages/number_field.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace muffle {
namespace {

constexpr double kNoCold_C = -60.0, kNoHeat_C = 60.0; // beyond which nothing is taken to harm it

std::optional<double> first_C(const std::vector<Exposure>& of) { return of.empty() ? std::nullopt : std::optional(of.front().at_C); }

OwnCrop copyOf(const CropFacts& crop, const std::vector<OwnCrop>& others) {
  OwnCrop own;
  for (int n = 1;; ++n) {
    own.id = "own-" + std::to_string(n);
    if (std::none_of(others.begin(), others.end(), [&](const OwnCrop& o) { return o.id == own.id; })) break;
  }
  own.name = OwnCropsDialog::tr("%1, own").arg(said(nameOf(crop))).toStdString();
  own.leaf_C = first_C(crop.of(CropPart::leaf));
  own.bud_C = first_C(crop.of(CropPart::bud));
  own.root_C = first_C(crop.of(CropPart::root));
  own.heat_C = first_C(crop.of(CropPart::heat));
  for (const auto& part : crop.harmed)
    if (!part.empty()) own.for_h = std::max(0.5, part.front().for_h);
  if (crop.growth) own.growth = *crop.growth;
  return own;
}

} // namespace

OwnCropsDialog::OwnCropsDialog(Document& document, QWidget* parent)
    : QDialog(parent), m_document(document), m_refused(new QLabel(this)), m_from(new QComboBox(this)) {
  setWindowTitle(tr("Crops of your own"));
  resize(640, 520);
  auto* body = new QVBoxLayout(this);
  auto* intro = new QLabel(tr("Set out from the nearest crop of the table and put its figures right by what you have seen harm it. It can then stand in "
                              "any room of this plan."),
                           this);
  intro->setWordWrap(true);
  body->addWidget(intro);
  m_cards = addScrolled(*body);
  m_cards->setSpacing(14);
  m_refused->setWordWrap(true);
  body->addWidget(m_refused);
  auto* row = new QHBoxLayout;
  m_from->addItem(tr("set out from…"));
  for (const CropFacts& crop : cropTable()) m_from->addItem(said(nameOf(crop)), QString::fromLatin1(crop.id.data(), static_cast<qsizetype>(crop.id.size())));
  m_from->setAccessibleName(tr("Set out from a crop of the table"));
  row->addWidget(m_from, 1);
  auto* close = new QPushButton(tr("Close"), this);
  connect(close, &QPushButton::clicked, this, &QDialog::accept);
  row->addWidget(close);
  body->addLayout(row);
  connect(m_from, &QComboBox::activated, this, [this](int i) {
    if (i == 0) return;
    const Crops table;
    const CropFacts* const from = table.find(m_from->itemData(i).toString().toStdString());
    m_from->setCurrentIndex(0);
    edit(tr("a crop of your own"), [from](Plan& p) { p.ownCrops.push_back(copyOf(*from, p.ownCrops)); });
  });
  connect(&document, &Document::planChanged, this, &OwnCropsDialog::refresh);
  connect(&document, &Document::bookOpened, this, &QDialog::reject);
  refresh();
}

void OwnCropsDialog::edit(const QString& name, const std::function<void(Plan&)>& change) {
  const auto why = m_document.edit(name, change);
  m_refused->setText(why.value_or(QString()));
  refresh();
}

QWidget* OwnCropsDialog::card(std::size_t k) {
  auto* card = new QWidget(this);
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(2);
  auto* name = new QLineEdit(QString::fromStdString(m_document.plan().ownCrops[k].name), card);
  name->setAccessibleName(tr("Name of crop %1").arg(k + 1));
  connect(name, &QLineEdit::editingFinished, this, [this, k, name] {
    const std::string typed = name->text().trimmed().toStdString();
    if (typed.empty() || k >= m_document.plan().ownCrops.size() || typed == m_document.plan().ownCrops[k].name) return;
    edit(tr("name a crop"), [&](Plan& p) { p.ownCrops[k].name = typed; });
  });
  grid->addWidget(name, 0, 0);
  auto* remove = new QPushButton(tr("Take away"), card);
  remove->setAccessibleName(tr("Take away crop %1").arg(k + 1));
  connect(remove, &QPushButton::clicked, this, [this, k] { // with it where it stands
    edit(tr("take a crop away"), [k](Plan& p) {
      std::erase_if(p.crops, [&](const CropStand& c) { return c.crop == p.ownCrops[k].id; });
      p.ownCrops.erase(p.ownCrops.begin() + static_cast<std::ptrdiff_t>(k));
    });
  });
  grid->addWidget(remove, 0, 1, Qt::AlignRight);
  const auto put = [&](int row, int column, NumberField::Spec spec) { grid->addWidget(new NumberField(m_document, std::move(spec), card), row, column); };
  const auto harm = [&](int row, int column, const QString& label, std::optional<double> OwnCrop::*member, double none_C, const QString& source) {
    const auto get = [=](const Plan& p) { return k < p.ownCrops.size() ? (p.ownCrops[k].*member).value_or(none_C) : none_C; };
    const auto set = [=](Plan& p, double v) {
      if (k < p.ownCrops.size()) p.ownCrops[k].*member = v == none_C ? std::nullopt : std::optional(v);
    };
    const bool isHeat = none_C > 0.0;
    put(row, column,
        {label, Quantity::temperature, get, set, isHeat ? 0.0 : none_C, isHeat ? none_C : 30.0, 0.5, source, NumberField::Spec::Word{none_C, tr("nothing")}});
  };
  harm(1, 0, tr("Leaf harmed at"), &OwnCrop::leaf_C, kNoCold_C, tr("of the leaf itself, which on clear nights is colder than the air"));
  harm(1, 1, tr("Bud harmed at"), &OwnCrop::bud_C, kNoCold_C, tr("buds, blossoms and fruit"));
  harm(2, 0, tr("Root harmed at"), &OwnCrop::root_C, kNoCold_C, tr("in the bed's soil, or in its pot"));
  harm(2, 1, tr("Too hot at"), &OwnCrop::heat_C, kNoHeat_C, tr("of the air by day"));
  const auto own = [k](double OwnCrop::*member) -> Find<double> { return [=](Plan& p) { return k < p.ownCrops.size() ? &(p.ownCrops[k].*member) : nullptr; }; };
  const auto growth = [k](double GrowthResponse::*member) -> Find<double> {
    return [=](Plan& p) { return k < p.ownCrops.size() ? &(p.ownCrops[k].growth.*member) : nullptr; };
  };
  put(3, 0, NumberField::Spec::at(tr("After hours"), Quantity::hours, own(&OwnCrop::for_h), 0.1, 240.0, 0.5, tr("on end at that or beyond")));
  put(3, 1,
      NumberField::Spec::at(tr("Light enough"), Quantity::count, growth(&GrowthResponse::enoughLight_mol_m2), 1.0, 60.0, 1.0,
                            tr("mol/m² of a day: leaves 12, fruit 20")));
  put(4, 0, NumberField::Spec::at(tr("Grows from"), Quantity::temperature, growth(&GrowthResponse::base_C), -5.0, 30.0, 1.0, tr("no growth below")));
  put(4, 1, NumberField::Spec::at(tr("Best at"), Quantity::temperature, growth(&GrowthResponse::best_C), 0.0, 40.0, 1.0, tr("grows fastest")));
  put(5, 0, NumberField::Spec::at(tr("Up to"), Quantity::temperature, growth(&GrowthResponse::tooWarm_C), 1.0, 50.0, 1.0, tr("no growth above")));
  return card;
}

void OwnCropsDialog::refresh() {
  std::vector<std::string> ids;
  for (const OwnCrop& c : m_document.plan().ownCrops) ids.push_back(c.id);
  if (ids == m_shown) return;
  m_shown = ids;
  clearCards(*m_cards);
  for (std::size_t k = 0; k < ids.size(); ++k) m_cards->addWidget(card(k));
}

} // namespace muffle
