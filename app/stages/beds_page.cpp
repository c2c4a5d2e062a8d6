// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/beds_page.h"

#include "app/paint/theme.h"
#include "app/stages/number_field.h"
#include "core/material/materials.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace muffle {
namespace {

constexpr std::size_t kMostKinds = 12;
constexpr const char* kCloths[] = {"fleece", "pe-film", "pe-film-ir", "bubble-wrap", "clear-screen", "woven-blanket", "quilt"};

std::vector<std::string> signature(const std::vector<BedCover>& covers) {
  std::vector<std::string> s;
  for (const BedCover& b : covers) s.push_back(b.material + (b.liftedByDay ? " lifted" : ""));
  return s;
}

} // namespace

BedsPage::BedsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_cards(new QVBoxLayout), m_empty(new QLabel(this)), m_add(new QPushButton(tr("Cover a bed"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(10);
  m_empty->setText(
      tr("A low tunnel over a bed is a room within the house: warmed by its own soil, sheltered from the sky. Cover a bed, and its air is simulated "
         "beside the air of the house."));
  m_empty->setWordWrap(true);
  m_empty->setFont(textFont(10));
  body->addWidget(m_empty);
  m_cards->setSpacing(12);
  body->addLayout(m_cards);
  body->addWidget(m_add, 0, Qt::AlignLeft);
  body->addStretch(1);
  auto* caution = new QLabel(tr("Never put a lamp, heater or coiled cable under a cover: cloth and film burn."), this);
  caution->setFont(textFont(8.5));
  caution->setWordWrap(true);
  body->addWidget(caution);
  connect(m_add, &QPushButton::clicked, this, [this] {
    const auto& covers = m_document.plan().house.bedCovers;
    if (covers.size() >= kMostKinds) {
      emit m_document.trouble(tr("At most %1 kinds of bed cover fit in a plan.").arg(kMostKinds));
      return;
    }
    change(tr("cover a bed"), [this](std::vector<BedCover>& v) {
      const HouseShape& s = m_document.plan().house.shape;
      BedCover b;
      b.width_m = std::min(b.width_m, 0.4 * s.span_m());
      b.length_m = std::min(b.length_m, std::floor(0.8 * (s.kind == ShapeKind::dome ? s.width_m : s.length_m) * 10.0) / 10.0);
      b.height_m = std::min(b.height_m, std::floor(0.4 * s.ridge_m * 10.0) / 10.0);
      b.x_m = -0.25 * s.span_m() + 1.3 * static_cast<double>(v.size());
      v.push_back(b);
    });
  });
}

void BedsPage::change(const QString& name, const std::function<void(std::vector<BedCover>&)>& what) {
  if (auto why = m_document.edit(name, [&](Plan& p) { what(p.house.bedCovers); })) emit m_document.trouble(*why);
}

QString BedsPage::resultText(std::size_t k) const {
  const Simulation* run = m_document.result();
  const Units& u = m_document.units();
  if (!run || m_document.selectedNight() < 0 || k >= run->summary.beds.size())
    return m_document.log() ? tr("working it out") : tr("import a log of nights to see what it keeps");
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.selectedNight())];
  if (k >= n.bedColdest_C.size()) return tr("working it out");
  return tr("This night: under it %1, in the house %2, so %3 more. All winter: held %4 of %5 nights, coldest %6.")
      .arg(u.text(Quantity::temperature, n.bedColdest_C[k]), u.text(Quantity::temperature, n.coldest_C),
           u.text(Quantity::difference, n.bedColdest_C[k] - n.coldest_C))
      .arg(run->summary.beds[k].held)
      .arg(run->summary.nights)
      .arg(u.text(Quantity::temperature, run->summary.beds[k].coldest_C));
}

QWidget* BedsPage::card(std::size_t k) {
  auto* card = new QWidget(this);
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(2);
  const auto field = [&](int r, int c, const QString& name, Quantity q, auto BedCover::*member, double min, double max, double nudge, const QString& source) {
    grid->addWidget(
        new NumberField(m_document,
                        {name, q, [k, member](const Plan& p) { return k < p.house.bedCovers.size() ? static_cast<double>(p.house.bedCovers[k].*member) : 0.0; },
                         [k, member](Plan& p, double v) {
                           auto& target = p.house.bedCovers[k].*member;
                           target = static_cast<std::remove_reference_t<decltype(target)>>(
                               std::is_integral_v<std::remove_reference_t<decltype(target)>> ? std::round(v) : v);
                         },
                         min, max, nudge, source},
                        card),
        r, c);
  };
  auto* material = new QComboBox(card);
  material->setAccessibleName(tr("Cover of bed %1").arg(k + 1));
  material->setFont(textFont(9.5));
  const BedCover& bed = m_document.plan().house.bedCovers[k];
  const auto offer = [&](std::string_view id) {
    const CoverMaterial& m = *findCoverMaterial(id);
    const QString key = QString::fromUtf8(m.id.data(), static_cast<int>(m.id.size()));
    if (material->findData(key) < 0) material->addItem(QString::fromUtf8(m.name.data(), static_cast<int>(m.name.size())), key);
  };
  for (const char* id : kCloths) offer(id);
  offer(bed.material);
  material->setCurrentIndex(material->findData(QString::fromStdString(bed.material)));
  connect(material, &QComboBox::activated, this, [this, k, material](int i) {
    const std::string id = material->itemData(i).toString().toStdString();
    change(tr("change a bed's cover"), [&](std::vector<BedCover>& v) { v[k].material = id; });
  });
  grid->addWidget(material, 0, 0);
  auto* lifted = new QCheckBox(tr("lifted by day"), card);
  lifted->setFont(textFont(9.5));
  lifted->setChecked(bed.liftedByDay);
  lifted->setToolTip(tr("its ends open from sunrise to sunset, forty air changes an hour"));
  connect(lifted, &QCheckBox::toggled, this,
          [this, k](bool on) { change(tr("lift the cover by day"), [&](std::vector<BedCover>& v) { v[k].liftedByDay = on; }); });
  auto* right = new QHBoxLayout;
  right->addWidget(lifted);
  right->addStretch(1);
  auto* remove = new QPushButton(tr("Take away"), card);
  remove->setFont(textFont(9));
  remove->setAccessibleName(tr("Take away bed cover %1").arg(k + 1));
  connect(remove, &QPushButton::clicked, this,
          [this, k] { change(tr("take a bed cover away"), [&](std::vector<BedCover>& v) { v.erase(v.begin() + static_cast<std::ptrdiff_t>(k)); }); });
  right->addWidget(remove);
  grid->addLayout(right, 0, 1);
  field(1, 0, tr("Bed width"), Quantity::length, &BedCover::width_m, 0.2, 20, 0.1, tr("your measurement, at the ground"));
  field(1, 1, tr("Bed length"), Quantity::length, &BedCover::length_m, 0.2, 300, 0.1, tr("your measurement"));
  field(2, 0, tr("Height"), Quantity::length, &BedCover::height_m, 0.1, 3, 0.05, tr("of the hoops' top; the section is half an ellipse"));
  field(2, 1, tr("Alike"), Quantity::count, &BedCover::count, 1, 200, 1, tr("how many beds are covered so"));
  field(3, 0, tr("Cover leaks"), Quantity::airChanges, &BedCover::airChanges_per_h, 0, 60, 0.5,
        tr("an hour with the house, tucked in: 1 sealed with soil, 2 weighted down, 6 loose"));
  auto* result = new QLabel(card);
  result->setFont(textFont(9.5));
  result->setWordWrap(true);
  grid->addWidget(result, 4, 0, 1, 2);
  m_results.push_back(result);
  return card;
}

void BedsPage::rebuild() {
  while (QLayoutItem* item = m_cards->takeAt(0)) {
    item->widget()->hide();
    item->widget()->deleteLater(); // it may be the one whose signal brought us here
    delete item;
  }
  m_results.clear();
  m_shown = signature(m_document.plan().house.bedCovers);
  for (std::size_t k = 0; k < m_shown.size(); ++k) m_cards->addWidget(card(k));
}

void BedsPage::refresh() {
  if (m_shown != signature(m_document.plan().house.bedCovers)) rebuild();
  m_empty->setVisible(m_shown.empty());
  for (std::size_t k = 0; k < m_results.size(); ++k) m_results[k]->setText(resultText(k));
}

} // namespace muffle
