// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/rooms_page.h"

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

QHBoxLayout* named(const QString& name, QComboBox* box) {
  auto* across = new QHBoxLayout;
  auto* label = new QLabel(name, box->parentWidget());
  label->setFont(textFont(10));
  across->setSpacing(8);
  across->addWidget(label);
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  box->setMinimumContentsLength(8);
  across->addWidget(box, 1);
  return across;
}

std::vector<std::string> signature(const std::vector<BedCover>& covers) {
  std::vector<std::string> s;
  for (const BedCover& b : covers) s.push_back(b.material + (b.liftedByDay ? " lifted" : ""));
  return s;
}

} // namespace

RoomsPage::RoomsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_cards(new QVBoxLayout), m_empty(new QLabel(this)), m_add(new QPushButton(tr("Cover a bed"), this)),
      m_addBay(new QPushButton(tr("Partition off a warm bay"), this)) {
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
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(m_add);
  buttons->addWidget(m_addBay);
  buttons->addStretch(1);
  body->addLayout(buttons);
  body->addStretch(1);
  auto* caution = new QLabel(
      tr("Never put a lamp, heater or coiled cable under a cover: cloth and film burn. A second heater is more load on wet wiring: a licensed electrician."),
      this);
  caution->setFont(textFont(8.5));
  caution->setWordWrap(true);
  body->addWidget(caution);
  connect(m_addBay, &QPushButton::clicked, this, [this] {
    if (auto why = m_document.edit(tr("partition off a warm bay"), [](Plan& p) {
          WarmBay bay;
          bay.length_m = std::max(0.3, std::round(p.house.shape.length_m * 2.5) / 10.0); // a quarter of it
          constexpr double kUsual_W_m2 = 300.0;                                          // film over it, thirty kelvin of lift
          bay.heater_W = std::max(1000.0, std::round(bay.length_m * p.house.shape.span_m() * kUsual_W_m2 / 500.0) * 500.0);
          p.house.bay = bay;
        }))
      emit m_document.trouble(*why);
  });
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

void RoomsPage::change(const QString& name, const std::function<void(std::vector<BedCover>&)>& what) {
  if (auto why = m_document.edit(name, [&](Plan& p) { what(p.house.bedCovers); })) emit m_document.trouble(*why);
}

QString RoomsPage::resultText(std::size_t k) const {
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

QString RoomsPage::bayText() const {
  const Simulation* run = m_document.result();
  const Units& u = m_document.units();
  if (!run || m_document.selectedNight() < 0 || !run->summary.bay)
    return m_document.log() ? tr("working it out") : tr("import a log of nights to see what it takes");
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.selectedNight())];
  return tr("This night: bay %1, house %2. All winter: held %3 of %4 nights, coldest %5; %6 bought for it a winter.")
      .arg(u.text(Quantity::temperature, n.bayColdest_C), u.text(Quantity::temperature, n.coldest_C))
      .arg(run->summary.bay->held)
      .arg(run->summary.nights)
      .arg(u.text(Quantity::temperature, run->summary.bay->coldest_C), u.text(Quantity::energy, run->summary.bayHeater_kWh / run->summary.winters));
}

QWidget* RoomsPage::bayCard() {
  auto* card = new QWidget(this);
  auto* grid = new QGridLayout(card);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(22);
  grid->setVerticalSpacing(2);
  auto* partition = new QComboBox(card);
  partition->setAccessibleName(tr("Partition of the bay"));
  partition->setFont(textFont(9.5));
  for (const CoverMaterial& m : coverMaterials())
    partition->addItem(QString::fromUtf8(m.name.data(), static_cast<int>(m.name.size())), QString::fromUtf8(m.id.data(), static_cast<int>(m.id.size())));
  partition->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  partition->setCurrentIndex(partition->findData(QString::fromStdString(m_document.plan().house.bay->partition.layers.front().material)));
  connect(partition, &QComboBox::activated, this, [this, partition](int i) {
    const std::string id = partition->itemData(i).toString().toStdString();
    if (auto why = m_document.edit(tr("change the partition"), [&](Plan& p) { p.house.bay->partition.layers.front().material = id; }))
      emit m_document.trouble(*why);
  });
  grid->addLayout(named(tr("Partition"), partition), 0, 0);
  auto* remove = new QPushButton(tr("Take the bay away"), card);
  remove->setFont(textFont(9));
  connect(remove, &QPushButton::clicked, this, [this] {
    if (auto why = m_document.edit(tr("take the bay away"), [](Plan& p) { p.house.bay.reset(); })) emit m_document.trouble(*why);
  });
  grid->addWidget(remove, 0, 1, Qt::AlignRight);
  const auto field = [&](int r, int c, const QString& name, Quantity q, auto of, double min, double max, double nudge, const QString& source) {
    grid->addWidget(new NumberField(m_document,
                                    {name, q, [of](const Plan& p) { return p.house.bay ? of(*p.house.bay) : 0.0; },
                                     [of](Plan& p, double v) {
                                       if (p.house.bay) of(*p.house.bay) = v;
                                     },
                                     min, max, nudge, source},
                                    card),
                    r, c);
  };
  field(
      1, 0, tr("Bay length"), Quantity::length, [](auto& b) -> auto& { return b.length_m; }, 0.3, 299, 0.1, tr("along the ridge, from one end"));
  field(
      1, 1, tr("Bay heater"), Quantity::power, [](auto& b) -> auto& { return b.heater_W; }, 0, 1e6, 250, tr("its own, electric, with a thermostat in the bay"));
  field(
      2, 0, tr("Bay at night"), Quantity::temperature, [](auto& b) -> auto& { return b.setpoints.night_C; }, -30, 40, 0.5,
      tr("what its heater aims at from sunset to sunrise"));
  field(
      2, 1, tr("by day"), Quantity::temperature, [](auto& b) -> auto& { return b.setpoints.day_C; }, -30, 40, 0.5, tr("what its heater aims at by day"));
  field(
      3, 0, tr("Bay must hold"), Quantity::temperature, [](auto& b) -> auto& { return b.setpoints.hold_C; }, -30, 40, 0.5,
      tr("the line its nights are judged by"));
  field(
      3, 1, tr("Bay leaks"), Quantity::airChanges, [](auto& b) -> auto& { return b.airChanges_per_h; }, 0, 60, 0.1,
      tr("air changes an hour with the house, through door and joints"));
  m_bayResult = new QLabel(card);
  m_bayResult->setFont(textFont(9.5));
  m_bayResult->setWordWrap(true);
  grid->addWidget(m_bayResult, 4, 0, 1, 2);
  return card;
}

QWidget* RoomsPage::card(std::size_t k) {
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
  grid->addLayout(named(tr("Cover"), material), 0, 0);
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

void RoomsPage::rebuild() {
  while (QLayoutItem* item = m_cards->takeAt(0)) {
    item->widget()->hide();
    item->widget()->deleteLater(); // it may be the one whose signal brought us here
    delete item;
  }
  m_results.clear();
  m_bayResult = nullptr;
  m_shownBay.reset();
  if (const auto& bay = m_document.plan().house.bay) {
    m_shownBay = bay->partition.layers.front().material;
    m_cards->addWidget(bayCard());
  }
  m_shown = signature(m_document.plan().house.bedCovers);
  for (std::size_t k = 0; k < m_shown.size(); ++k) m_cards->addWidget(card(k));
}

void RoomsPage::refresh() {
  const House& house = m_document.plan().house;
  const auto bay = house.bay ? std::optional(house.bay->partition.layers.front().material) : std::nullopt;
  if (m_shown != signature(house.bedCovers) || m_shownBay != bay) rebuild();
  m_empty->setVisible(m_shown.empty() && !m_shownBay);
  m_addBay->setVisible(!m_shownBay && house.shape.kind != ShapeKind::dome);
  if (m_bayResult) m_bayResult->setText(bayText());
  for (std::size_t k = 0; k < m_results.size(); ++k) m_results[k]->setText(resultText(k));
}

} // namespace muffle
