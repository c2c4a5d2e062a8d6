// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/vents_page.h"

#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/caution_label.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace muffle {

VentsPage::VentsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_grid(new QGridLayout), m_rain(new QCheckBox(tr("shut in rain"), this)), m_shelter(new QComboBox(this)),
      m_warmth(new QLabel(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  m_warmth->setFont(textFont(10));
  m_warmth->setWordWrap(true);
  body->addWidget(m_warmth);
  m_grid->setHorizontalSpacing(22);
  m_grid->setVerticalSpacing(3);
  m_grid->setColumnStretch(0, 1);
  m_grid->setColumnStretch(1, 1);
  addScrolled(*body)->addLayout(m_grid);

  const auto whole = [](double House::*member) { return [member](Plan& p) { return &(p.house.*member); }; };
  number(tr("Vents open at"), Quantity::temperature, whole(&House::ventOpens_C), -5, 60, 1, tr("inside: a wax opener begins here"));
  number(tr("fully at"), Quantity::temperature, whole(&House::ventFull_C), -4, 70, 1, tr("and has them fully open here"));
  number(tr("By hand"), Quantity::hours, whole(&House::hoursPerVenting), 0, 12, 0.1,
         tr("hours of work on each day on which you open and shut them; 0 where they open by themselves"));
  number(tr("Open, they change"), Quantity::airChanges, whole(&House::ventAirChanges_per_h), 0, 120, 1,
         tr("air changes an hour with the vents fully open: 10 ridge alone, 20 ridge and sides"));
  number(
      tr("Too warm above"), Quantity::temperature, [](Plan& p) { return &p.setpoints.tooWarm_C; }, 5, 60, 1, tr("hours above it are counted"));

  opening(
      tr("Sides that roll up"), tr("on both sides, along the house without bay and lobby; by hand or motor as it warms"),
      [](const House& h) { return h.rollUp.has_value(); }, [](House& h, bool on) { on ? void(h.rollUp = RollUpSides{}) : h.rollUp.reset(); });
  const auto roll = [](double RollUpSides::*member) { return [member](Plan& p) { return p.house.rollUp ? &((*p.house.rollUp).*member) : nullptr; }; };
  number(tr("Strip they open"), Quantity::length, roll(&RollUpSides::height_m), 0.05, 6, 0.1, tr("its height, fully rolled up"));
  number(tr("Roll from"), Quantity::temperature, roll(&RollUpSides::opens_C), -5, 60, 1, tr("inside"));
  number(tr("up fully at"), Quantity::temperature, roll(&RollUpSides::full_C), -4, 70, 1, tr("inside"));

  opening(
      tr("A fan that blows out"), tr("in the house, with shutters where the air comes in"), [](const House& h) { return h.extractFan.has_value(); },
      [](House& h, bool on) { on ? void(h.extractFan = ExtractFan{}) : h.extractFan.reset(); });
  const auto fan = [](double ExtractFan::*member) { return [member](Plan& p) { return p.house.extractFan ? &((*p.house.extractFan).*member) : nullptr; }; };
  number(tr("It moves"), Quantity::airFlow, fan(&ExtractFan::flow_m3_h), 0, 1e6, 500, tr("by its maker, against the shutters"));
  number(tr("Runs above"), Quantity::temperature, fan(&ExtractFan::above_C), -5, 60, 1, tr("inside; fully a kelvin above"));
  number(tr("It takes"), Quantity::power, fan(&ExtractFan::power_W), 0, 50000, 50, tr("electricity, in the bill"));

  opening(
      tr("A roof that draws back"), tr("by day, in mild air; the blanket, if there is one, with it"), [](const House& h) { return h.retractable.has_value(); },
      [](House& h, bool on) { on ? void(h.retractable = RetractableRoof{}) : h.retractable.reset(); });
  const auto roof = [](double RetractableRoof::*member) {
    return [member](Plan& p) { return p.house.retractable ? &((*p.house.retractable).*member) : nullptr; };
  };
  number(tr("Open above"), Quantity::temperature, roof(&RetractableRoof::outsideAbove_C), -20, 40, 1, tr("outside; it shuts a kelvin below"));
  number(tr("Drawn back"), Quantity::airChanges, roof(&RetractableRoof::airChanges_per_h), 1, 120, 5, tr("air changes an hour"));

  startRow();
  auto* shut = new QLabel(tr("What keeps all of them shut"), this);
  shut->setFont(textFont(10, true));
  m_grid->addWidget(shut, m_row++, 0, 1, 2);
  const auto lock = [](double VentLock::*member) { return [member](Plan& p) { return &(p.house.ventLock.*member); }; };
  using Word = NumberField::Spec::Word;
  number(tr("Vents shut in wind"), Quantity::speed, lock(&VentLock::windAbove_m_s), 0, 60, 1, tr("stronger than this, however warm it is inside"),
         Word{60.0, tr("never")});
  number(tr("Vents shut below"), Quantity::temperature, lock(&VentLock::outsideBelow_C), -40, 40, 1,
         tr("outside: cold air that falls on the crop does more harm than a warm hour"), Word{-40.0, tr("never")});
  m_grid->addWidget(m_rain, m_row, m_column++);
  number(
      tr("Wind gauge stands"), Quantity::length, [](Plan& p) { return &p.site.windHeight_m; }, 0, 100, 0.5,
      tr("above the ground; the wind at the house follows by a power law of open country"), Word{0.0, tr("at the house")});
  m_rain->setFont(textFont(9.5));
  m_rain->setToolTip(tr("where the log has a column of rain"));
  connect(m_rain, &QCheckBox::clicked, this, [this](bool on) { edit(tr("change when vents shut"), [on](House& h) { h.ventLock.inRain = on; }); });

  opening(
      tr("Draughts by a pressure test"), tr("by the area of all leaks, stack and wind (Sherman and Grimsrud), instead of air changes by build and upkeep"),
      [](const House& h) { return h.leakage.has_value(); }, [](House& h, bool on) { on ? void(h.leakage = Leakage{}) : h.leakage.reset(); });
  number(
      tr("Leaks"), Quantity::leakArea, [](Plan& p) { return p.house.leakage ? &p.house.leakage->area_cm2 : nullptr; }, 1, 200000, 20,
      tr("effective area at 4 Pa, of the whole house"));
  m_shelter->addItems({tr("in the open"), tr("trees and sheds about"), tr("behind hedges"), tr("walled in")});
  m_shelter->setFont(textFont(9.5));
  m_shelter->setAccessibleName(tr("How the house lies to the wind"));
  m_grid->addWidget(m_shelter, m_row, m_column);
  connect(m_shelter, &QComboBox::activated, this, [this](int i) {
    edit(tr("how the house lies to the wind"), [i](House& h) {
      if (h.leakage) h.leakage->shelter = static_cast<Shelter>(i);
    });
  });
  body->addWidget(new CautionLabel(ThingKind::vents, this));
}

void VentsPage::edit(const QString& name, const std::function<void(House&)>& change) {
  if (auto why = m_document.edit(name, [&](Plan& p) { change(p.house); })) emit m_document.trouble(*why);
  refresh();
}

void VentsPage::opening(const QString& name, const QString& tip, const std::function<bool(const House&)>& has, const std::function<void(House&, bool)>& put) {
  startRow();
  auto* box = new QCheckBox(name, this);
  box->setFont(textFont(10, true));
  box->setToolTip(tip);
  m_grid->addWidget(box, m_row++, 0, 1, 2);
  m_openings.push_back({box, has});
  connect(box, &QCheckBox::clicked, this, [this, name, put](bool on) { edit(name.toLower(), [&](House& h) { put(h, on); }); });
}

/// A new row, a little below the last.
void VentsPage::startRow() {
  if (m_column != 0) ++m_row;
  m_column = 0;
  m_grid->setRowMinimumHeight(m_row++, 6);
}

void VentsPage::number(const QString& name, Quantity quantity, const Find<double>& of, double min, double max, double nudge, const QString& source,
                       std::optional<NumberField::Spec::Word> word) {
  auto* field = new NumberField(m_document, NumberField::Spec::at(name, quantity, of, min, max, nudge, source, std::move(word)), this);
  m_grid->addWidget(field, m_row, m_column);
  m_column = 1 - m_column;
  if (m_column == 0) ++m_row;
  m_fields.push_back({field, of});
}

QString VentsPage::warmthText() const {
  const Simulation* run = m_document.results().simulation();
  if (!run)
    return m_document.readings().log() ? tr("Working it out.") : tr("Import a log of nights, and the hours in which the house became too warm stand here.");
  const Summary& s = run->summary;
  const Units& u = m_document.view().units();
  const QString line = u.text(Quantity::temperature, m_document.plan().setpoints.tooWarm_C);
  QString text = s.tooWarm_h > 0.0 ? tr("Too warm for %1 of a winter: above %2. At its warmest %3.")
                                         .arg(u.text(Quantity::hours, s.tooWarm_h), line, u.text(Quantity::temperature, s.warmest_C))
                                   : tr("Never above %1 in the logged winters: at its warmest %2.").arg(line, u.text(Quantity::temperature, s.warmest_C));
  constexpr double kTold_kWh = 0.5;
  if (s.fan_kWh > kTold_kWh * s.winters) text += QLatin1Char(' ') + tr("Fans took %1 a winter.").arg(u.text(Quantity::energy, s.fan_kWh / s.winters));
  return text;
}

void VentsPage::refresh() {
  const House& house = m_document.plan().house;
  for (const Opening& o : m_openings) o.box->setChecked(o.has(house));
  for (const Shown& s : m_fields) s.field->setVisible(look(s.of, m_document.plan()) != nullptr);
  m_rain->setChecked(house.ventLock.inRain);
  m_shelter->setVisible(house.leakage.has_value());
  if (house.leakage) m_shelter->setCurrentIndex(static_cast<int>(house.leakage->shelter));
  m_warmth->setText(warmthText());
}

} // namespace muffle
