// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/crops_page.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/dates.h"
#include "app/stages/number_field.h"
#include "app/stages/own_crops.h"
#include "core/plan/crop_stands.h"
#include "core/plan/names.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

constexpr std::size_t kMostCrops = 20; // that a plan may have
constexpr int kPot_px = 100;

QString partWords(CropPart part) {
  switch (part) {
  case CropPart::leaf: return CropsPage::tr("leaf");
  case CropPart::bud: return CropsPage::tr("buds and blossom");
  case CropPart::root: return CropsPage::tr("roots");
  case CropPart::heat: return CropsPage::tr("warmth");
  }
  return {};
}

QString hoursText(const Units& units, double hours) {
  return hours < 1.0 ? CropsPage::tr("%1 min").arg(QLocale().toString(std::lround(60.0 * hours))) : units.text(Quantity::hours, hours);
}

struct RoomOf {
  CropStand::In in;
  int bedCover;
  QString words;
};
std::vector<RoomOf> roomsOf(const Plan& plan) {
  std::vector<RoomOf> rooms{{CropStand::In::house, 1, CropsPage::tr("in the house")}};
  if (plan.house.bay) rooms.push_back({CropStand::In::bay, 1, CropsPage::tr("in %1").arg(said(nameOf(*plan.house.bay)))});
  const std::size_t beds = plan.house.bedCovers.size();
  for (std::size_t b = 0; b < beds; ++b) {
    const QString cover = said(nameOf(plan.house.bedCovers[b]));
    rooms.push_back(
        {CropStand::In::bed, static_cast<int>(b) + 1, CropsPage::tr("under %1").arg(beds > 1 ? QStringLiteral("%1 %2").arg(cover).arg(b + 1) : cover)});
  }
  return rooms;
}

bool hasRoots(const Plan& plan, const CropStand& stand) {
  const Crops crops(plan.ownCrops);
  const CropFacts* const crop = crops.find(stand.crop);
  return crop && !crop->of(CropPart::root).empty();
}

} // namespace

CropsPage::CropsPage(Document& document, QWidget* parent) : QWidget(parent), m_document(document), m_words(new QLabel(this)), m_line(new QPushButton(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  m_words->setFont(textFont(9.5));
  m_words->setWordWrap(true);
  body->addWidget(m_words);
  m_rows = addScrolled(*body);
  m_rows->setSpacing(10);
  auto* foot = new QHBoxLayout;
  auto* add = new QPushButton(tr("Add a crop"), this);
  auto* own = new QPushButton(tr("Crops of your own…"), this);
  for (QPushButton* b : {add, own, m_line}) {
    b->setFont(textFont(9));
    foot->addWidget(b);
  }
  foot->addStretch(1);
  body->addLayout(foot);
  connect(add, &QPushButton::clicked, this, [this] {
    edit(tr("add a crop"), [](Plan& p) {
      if (p.crops.size() < kMostCrops) p.crops.push_back({});
    });
  });
  connect(own, &QPushButton::clicked, this, [this] {
    auto* dialog = new OwnCropsDialog(m_document, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  connect(m_line, &QPushButton::clicked, this, [this] {
    if (const auto line = line_C()) edit(tr("the line by the crops"), [line](Plan& p) { p.setpoints.hold_C = *line; });
  });
}

QString CropsPage::words() const { return m_words->text(); }
QString CropsPage::words(std::size_t stand) const { return stand < m_told.size() ? m_told[stand]->text() : QString(); }

void CropsPage::edit(const QString& step, const std::function<void(Plan&)>& change) {
  if (const auto why = m_document.edit(step, change)) emit m_document.trouble(*why);
}

std::optional<double> CropsPage::line_C() const {
  const Simulation* const run = m_document.results().simulation();
  const Weather* const weather = m_document.readings().weather();
  if (!run || !weather || m_fates.empty()) return std::nullopt;
  const auto line = lineOfCrops_C(m_document.plan(), *run, *weather);
  return line ? std::optional(std::ceil(2.0 * *line - 1e-6) / 2.0) : std::nullopt;
}

void CropsPage::addCrop(std::size_t stand) {
  const Plan& plan = m_document.plan();
  const CropStand& of = plan.crops[stand];
  auto* row = new QWidget(this);
  auto* body = new QVBoxLayout(row);
  body->setContentsMargins(0, 0, 6, 2);
  body->setSpacing(4);
  auto* line = new QHBoxLayout;
  line->setSpacing(8);
  const auto combo = [&](const QString& name) {
    auto* made = new QComboBox(row);
    made->setFont(textFont(9));
    made->setAccessibleName(name);
    made->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon); // long names are cut, not the row
    made->setMinimumContentsLength(6);
    line->addWidget(made, 1);
    return made;
  };
  const auto change = [this, stand](const QString& step, const std::function<void(CropStand&)>& how) {
    edit(step, [stand, how](Plan& p) {
      if (stand < p.crops.size()) how(p.crops[stand]);
    });
  };
  auto* crop = combo(tr("Crop %1").arg(stand + 1));
  const Crops crops(plan.ownCrops);
  for (const CropFacts* facts : crops.all()) {
    const std::string id(facts->id);
    crop->addItem(said(nameOf(*facts)), QString::fromStdString(id));
    if (!facts->range.empty())
      crop->setItemData(crop->count() - 1,
                        QStringLiteral("%1 (%2)").arg(QString::fromStdString(std::string(facts->range)), QString::fromStdString(std::string(facts->source))),
                        Qt::ToolTipRole);
    if (id == of.crop) crop->setCurrentIndex(crop->count() - 1);
  }
  connect(crop, &QComboBox::activated, this, [change, crop](int at) {
    const std::string id = crop->itemData(at).toString().toStdString();
    change(tr("which crop"), [id](CropStand& c) { c.crop = id; });
  });
  const std::vector<RoomOf> rooms = roomsOf(plan);
  auto* room = combo(tr("Crop %1: where it stands").arg(stand + 1));
  for (const RoomOf& r : rooms) {
    room->addItem(r.words);
    if (r.in == of.in && (r.in != CropStand::In::bed || r.bedCover == of.bedCover)) room->setCurrentIndex(room->count() - 1);
  }
  connect(room, &QComboBox::activated, this, [change, rooms](int at) {
    const RoomOf& r = rooms[static_cast<std::size_t>(at)];
    change(tr("where a crop stands"), [in = r.in, bed = r.bedCover](CropStand& c) { c.in = in, c.bedCover = bed; });
  });
  if (hasRoots(plan, of)) {
    auto* roots = combo(tr("Crop %1: its roots").arg(stand + 1));
    roots->addItems({tr("roots in the bed"), tr("roots in pots")});
    roots->setCurrentIndex(of.inPots ? 1 : 0);
    connect(roots, &QComboBox::activated, this, [change](int at) { change(tr("where its roots are"), [at](CropStand& c) { c.inPots = at == 1; }); });
    if (of.inPots) {
      const Find<double> litres = [stand](Plan& p) { return stand < p.crops.size() ? &p.crops[stand].pot_litres : nullptr; };
      auto* pot = new NumberField(
          m_document, NumberField::Spec::at(tr("A pot"), Quantity::water, litres, 0.1, 500.0, 1.0, tr("a bigger one follows the air more slowly")), row);
      pot->setMinimumWidth(kPot_px);
      pot->setAccessibleName(tr("Crop %1: a pot").arg(stand + 1));
      line->addWidget(pot, 1);
    }
  }
  auto* away = new QPushButton(tr("Take out"), row);
  away->setFont(textFont(9));
  away->setAccessibleName(tr("Take out crop %1").arg(stand + 1));
  connect(away, &QPushButton::clicked, this, [this, stand] {
    edit(tr("take a crop out"), [stand](Plan& p) {
      if (stand < p.crops.size()) p.crops.erase(p.crops.begin() + static_cast<std::ptrdiff_t>(stand));
    });
  });
  line->addWidget(away);
  body->addLayout(line);
  auto* words = new QLabel(row);
  words->setFont(textFont(9));
  words->setWordWrap(true);
  body->addWidget(words);
  m_rows->addWidget(row);
  m_told.push_back(words);
}

void CropsPage::rebuild() {
  clearCards(*m_rows);
  m_told.clear();
  for (std::size_t i = 0; i < m_document.plan().crops.size(); ++i) addCrop(i);
}

QString CropsPage::told(const CropFate& fate) const {
  const Units& u = m_document.view().units();
  const auto degrees = [&](double c) { return u.text(Quantity::temperature, c); };
  QStringList lines;
  for (const PartHarm& p : fate.parts) {
    const QString bears = tr("%1: harmed by %2 at %3").arg(partWords(p.part), hoursText(u, p.exposure.for_h), degrees(p.exposure.at_C));
    const QString when = dayText(m_document.planInHand().zone().localDate(p.at), QStringLiteral("d MMM yyyy"));
    lines << (p.times > 0 ? tr("%1. Harmed %2, worst at %3 on %4.").arg(bears, tr("%Ln time(s)", nullptr, p.times), degrees(p.reached_C), when)
                          : tr("%1. Came to %2 on %3, %4 to spare.").arg(bears, degrees(p.reached_C), when, u.text(Quantity::difference, p.margin_K())));
  }
  if (fate.growth)
    if (const Simulation* const run = m_document.results().simulation())
      lines << tr("Grows as much as in %1 days of the best a winter; on %2 days light is what it lacks.")
                   .arg(QLocale().toString(fate.growth->days / run->summary.winters, 'f', 1),
                        QLocale().toString(std::lround(fate.growth->lightShort_d / run->summary.winters)));
  return lines.join(QLatin1Char('\n'));
}

void CropsPage::refresh() {
  const Plan& plan = m_document.plan();
  QStringList now{QString::number(plan.house.bay.has_value()), QString::number(plan.house.bedCovers.size())};
  for (const OwnCrop& own : plan.ownCrops) now << QString::fromStdString(own.id + own.name) << QString::number(own.root_C.has_value());
  for (const CropStand& c : plan.crops)
    now << QString::fromStdString(c.crop) << QString::number(static_cast<int>(c.in)) << QString::number(c.bedCover) << QString::number(c.inPots);
  if (now != m_signature) {
    m_signature = now;
    rebuild();
  }
  const Simulation* const run = m_document.results().simulation();
  const Weather* const weather = m_document.readings().weather();
  const bool isKnown = run && weather && m_document.results().isCurrent() && !run->series.empty();
  m_fates = isKnown ? cropFates(plan, *weather, *run) : std::vector<CropFate>();
  for (QLabel* told : m_told) told->clear();
  int harmed = 0;
  for (const CropFate& fate : m_fates) {
    if (fate.stand < m_told.size()) m_told[fate.stand]->setText(told(fate));
    harmed += fate.times() > 0 ? 1 : 0;
  }
  const auto line = line_C();
  if (plan.crops.empty())
    m_words->setText(tr("Say what stands here, and each logged night is held against what its leaves, buds and roots bear, beside the line to hold."));
  else if (m_fates.empty())
    m_words->setText(weather ? tr("Being worked out.") : tr("Import a log of nights, and what they do to these crops stands here."));
  else if (harmed > 0)
    m_words->setText(tr("Of %Ln crop(s), %1 would have been harmed.", nullptr, static_cast<int>(m_fates.size())).arg(QLocale().toString(harmed)));
  else
    m_words->setText(tr("None of %Ln crop(s) would have been harmed.", nullptr, static_cast<int>(m_fates.size())));
  m_line->setVisible(line.has_value() && std::abs(*line - plan.setpoints.hold_C) > 0.01);
  if (line) m_line->setText(tr("Hold %1, for these crops").arg(m_document.view().units().text(Quantity::temperature, *line)));
  m_line->setToolTip(tr("what harms their leaves and buds first, and as much over it as the air stood above a leaf on the clearest of the cold nights"));
}

} // namespace muffle
