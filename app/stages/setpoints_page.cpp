// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/setpoints_page.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/controller_card.h"
#include "app/stages/number_field.h"
#include "app/stages/plot.h"
#include "app/stages/room_choice.h"
#include "core/plan/dormant.h"
#include "core/plan/heaters.h"
#include "core/results/day_swings.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {

template <class Band> struct SetpointsPage::Side {
  QString title, fixed, follows; ///< what it is of, and the two ways
  QString outside, head;         ///< of a band's field, and over its column
  std::vector<Band> Setpoints::*bands;
  double Setpoints::*setpoint_C;
};

namespace {

constexpr std::size_t kMostBands = 8;
constexpr double kMild_K = 10.0, kMore_K = 3.0; ///< the second band of a beginner: so much milder outside, so much warmer inside
constexpr double kNoLimit_K = 40.0;             ///< of the swing, in its field
constexpr int kBandField_px = 110, kPlotHeight_px = 156;
constexpr double kUsualDay_h = 7.0, kUsualNight_h = 18.0;

double coldest_C(const std::vector<AskedSetpoint>& asked) {
  double least_C = asked.front().setpoint_C;
  for (const AskedSetpoint& a : asked) least_C = std::min(least_C, a.setpoint_C);
  return least_C;
}
double warmest_C(const std::vector<AskedSetpoint>& asked) {
  double most_C = asked.front().setpoint_C;
  for (const AskedSetpoint& a : asked) most_C = std::max(most_C, a.setpoint_C);
  return most_C;
}
double mean_C(const std::vector<AskedSetpoint>& asked) {
  double sum = 0.0;
  for (const AskedSetpoint& a : asked) sum += a.setpoint_C;
  return sum / static_cast<double>(asked.size());
}

} // namespace

SetpointsPage::SetpointsPage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_room(new RoomChoice(document, tr("Whose setpoints"), this)), m_words(new QLabel(this)),
      m_plot(new Plot(document, this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->addWidget(m_room, 0, Qt::AlignLeft);
  m_words->setFont(textFont(9.5));
  m_words->setWordWrap(true);
  body->addWidget(m_words);
  m_cards = addScrolled(*body);
  m_plot->setFixedHeight(kPlotHeight_px);
  m_plot->setAccessibleName(tr("Setpoints by the forecast"));
  m_plot->legendAbove();
  m_plot->numbersAreLong = true;
  body->addWidget(m_plot);
  connect(m_room, &RoomChoice::chosen, this, &SetpointsPage::refresh);
}

QString SetpointsPage::words() const { return m_words->text(); }

Find<Setpoints> SetpointsPage::setpoints() const {
  if (m_room->room() == HeaterPlace::Of::house) return [](Plan& p) { return &p.setpoints; };
  return [](Plan& p) { return p.house.bay ? &p.house.bay->setpoints : nullptr; };
}

void SetpointsPage::edit(const QString& step, const std::function<void(Setpoints&)>& change) {
  const auto why = m_document.edit(step, [&](Plan& p) {
    if (Setpoints* of = setpoints()(p)) change(*of);
  });
  if (why) emit m_document.trouble(*why);
}

template <class Band> void SetpointsPage::follow(const Side<Band>& side, bool weather) {
  const double vents_C = m_document.plan().house.ventOpens_C, low_C = std::round(m_document.designLow_C());
  edit(tr("setpoints that follow the weather"), [&](Setpoints& s) {
    auto& bands = s.*side.bands;
    double& fixed_C = s.*side.setpoint_C;
    if (!weather) {
      if (!bands.empty()) fixed_C = bands.front().setpoint_C; // as on the coldest
      bands.clear();
    } else if (bands.empty()) {
      bands.push_back({low_C, fixed_C});
      bands.push_back({low_C + kMild_K, std::max(fixed_C, std::min(fixed_C + kMore_K, vents_C))});
    }
  });
}

template <class Band> void SetpointsPage::addBand(QVBoxLayout& column, const Side<Band>& side, std::size_t at) {
  auto* row = new QWidget(this);
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(6);
  const auto find = setpoints();
  const auto field = [&](const QString& label, double SetpointBand::*member, double low, double high, const QString& source) {
    const Find<double> value = [=, bands = side.bands](Plan& p) -> double* {
      Setpoints* s = find(p);
      return s && at < (s->*bands).size() ? &((s->*bands)[at].*member) : nullptr;
    };
    // what the column is stands over it
    auto* made = new NumberField(m_document, NumberField::Spec::at({}, Quantity::temperature, value, low, high, 0.5, source), row);
    made->setFixedWidth(kBandField_px);
    made->setAccessibleName(tr("%1, band %2: %3").arg(side.title).arg(at + 1).arg(label));
    line->addWidget(made);
  };
  field(side.outside, &SetpointBand::outside_C, -60.0, 40.0, tr("outside, as it is forecast; between two bands the setpoint changes in a straight line"));
  field(tr("hold"), &SetpointBand::setpoint_C, -30.0, 40.0, tr("the setpoint then; beyond the last band it stays"));
  const Setpoints* s = look(find, m_document.plan());
  addSignButton(*line, row, QStringLiteral("−"), tr("take this band out"), (s->*side.bands).size() > 1, this, [this, at, bands = side.bands] {
    edit(tr("take a band out"), [&](Setpoints& of) {
      if (at < (of.*bands).size()) (of.*bands).erase((of.*bands).begin() + static_cast<std::ptrdiff_t>(at));
    });
  });
  line->addStretch(1);
  column.addWidget(row);
}

template <class Band> void SetpointsPage::addSide(QVBoxLayout& column, const Side<Band>& side) {
  const auto find = setpoints();
  const Setpoints& now = *look(find, m_document.plan());
  auto* title = new QLabel(side.title, this);
  title->setFont(textFont(10, true));
  column.addWidget(title);
  auto* way = new QComboBox(this);
  way->setFont(textFont(9));
  way->setAccessibleName(side.title);
  way->addItems({side.fixed, side.follows});
  way->setCurrentIndex((now.*side.bands).empty() ? 0 : 1);
  connect(way, &QComboBox::activated, this, [this, side](int chosen) { follow(side, chosen == 1); });
  column.addWidget(way);
  if ((now.*side.bands).empty()) {
    const Find<double> value = [find, member = side.setpoint_C](Plan& p) -> double* {
      Setpoints* s = find(p);
      return s ? &(s->*member) : nullptr;
    };
    auto* field = new NumberField(m_document, NumberField::Spec::at(tr("hold"), Quantity::temperature, value, -30.0, 40.0, 0.5, side.title), this);
    field->setAccessibleName(tr("%1: %2").arg(side.title, tr("hold")));
    column.addWidget(field);
  }
  if (!(now.*side.bands).empty()) {
    auto* heads = new QHBoxLayout;
    heads->setSpacing(6);
    for (const QString& head : {side.head, tr("hold")}) {
      auto* words = new QLabel(head, this);
      words->setFont(textFont(9));
      words->setFixedWidth(kBandField_px);
      words->setAlignment(Qt::AlignRight);
      heads->addWidget(words);
    }
    heads->addStretch(1);
    column.addLayout(heads);
  }
  for (std::size_t i = 0; i < (now.*side.bands).size(); ++i) addBand(column, side, i);
  if (const std::size_t bands = (now.*side.bands).size(); bands > 0 && bands < kMostBands) {
    auto* more = new QPushButton(tr("Another band"), this);
    more->setFont(textFont(9));
    more->setAccessibleName(tr("%1: %2").arg(side.title, more->text()));
    connect(more, &QPushButton::clicked, this, [this, list = side.bands] {
      edit(tr("another band"), [&](Setpoints& of) { // beyond the mildest, as it is held there
        const Band last = (of.*list).back();
        constexpr double kNext_K = 5.0;
        (of.*list).push_back({last.outside_C + kNext_K, last.setpoint_C});
      });
    });
    column.addWidget(more, 0, Qt::AlignLeft);
  }
  column.addStretch(1);
}

/// By the sun or by the clock, and what may lie between night and day.
void SetpointsPage::addWhen(QGridLayout& grid) {
  const auto find = setpoints();
  const Setpoints& now = *look(find, m_document.plan());
  const bool byClock = now.dayFrom_h && now.nightFrom_h;
  auto* way = new QComboBox(this);
  way->setFont(textFont(9));
  way->setAccessibleName(tr("Day and night"));
  way->addItems({tr("day from sunrise to sunset"), tr("day by the clock")});
  way->setCurrentIndex(byClock ? 1 : 0);
  connect(way, &QComboBox::activated, this, [this](int chosen) {
    edit(tr("day and night by the sun or the clock"), [&](Setpoints& s) {
      s.dayFrom_h = chosen == 1 ? std::optional(s.dayFrom_h.value_or(kUsualDay_h)) : std::nullopt;
      s.nightFrom_h = chosen == 1 ? std::optional(s.nightFrom_h.value_or(kUsualNight_h)) : std::nullopt;
    });
  });
  int place = 0; // two beside one another
  const auto put = [&](QWidget* made) {
    grid.addWidget(made, place / 2, place % 2);
    ++place;
  };
  const auto field = [&](NumberField::Spec spec) { put(new NumberField(m_document, std::move(spec), this)); };
  const auto hours = [&](const QString& label, std::optional<double> Setpoints::*member) {
    const auto get = [find, member](const Plan& p) {
      const Setpoints* s = look(find, p);
      return s ? (s->*member).value_or(0.0) : 0.0;
    };
    const auto set = [find, member](Plan& p, double v) {
      if (Setpoints* s = find(p)) s->*member = v;
    };
    field({label, Quantity::hours, get, set, 0.0, 24.0, 0.25, tr("by the clock of the place")});
  };
  const auto number = [&](double Setpoints::*member) -> Find<double> {
    return [find, member](Plan& p) -> double* {
      Setpoints* s = find(p);
      return s ? &(s->*member) : nullptr;
    };
  };
  put(way);
  if (byClock) {
    field(NumberField::Spec::at(tr("Ramp"), Quantity::hours, number(&Setpoints::ramp_h), 0.0, 12.0, 0.25,
                                tr("in which one setpoint becomes the other; 0: at once")));
    hours(tr("Day from"), &Setpoints::dayFrom_h);
    hours(tr("Night from"), &Setpoints::nightFrom_h);
  } else {
    ++place;
  }
  const auto swing = [find](const Plan& p) {
    const Setpoints* s = look(find, p);
    return s ? s->swingAtMost_K.value_or(kNoLimit_K) : kNoLimit_K;
  };
  const auto setSwing = [find](Plan& p, double v) {
    if (Setpoints* s = find(p)) s->swingAtMost_K = v < kNoLimit_K ? std::optional(v) : std::nullopt;
  };
  field({tr("Day above night"), Quantity::difference, swing, setSwing, 0.0, kNoLimit_K, 0.5,
         tr("at most: where the day setpoint would stand higher over the night's it is lowered"), NumberField::Spec::Word{kNoLimit_K, tr("no limit")}});
  field(NumberField::Spec::at(tr("Too warm above"), Quantity::temperature, number(&Setpoints::tooWarm_C), 5.0, 60.0, 1.0, tr("hours above it are counted")));
}

/// The air or the leaves; and a button for stock that is to rest.
void SetpointsPage::addFelt(QGridLayout& grid, int row) {
  const auto find = setpoints();
  auto* felt = new QComboBox(this);
  felt->setFont(textFont(9));
  felt->setAccessibleName(tr("What is held"));
  felt->addItems({tr("hold the air"), tr("hold the leaves")});
  felt->setToolTip(tr("on clear nights leaves are colder than the air about them; a thermostat among them holds them, and the air stands above it"));
  felt->setCurrentIndex(look(find, m_document.plan())->felt == HeldTemperature::leaf ? 1 : 0);
  connect(felt, &QComboBox::activated, this,
          [this](int chosen) { edit(tr("what is held"), [&](Setpoints& s) { s.felt = chosen == 1 ? HeldTemperature::leaf : HeldTemperature::air; }); });
  grid.addWidget(felt, row, 0);
  auto* rest = new QPushButton(tr("Cool and even"), this);
  rest->setFont(textFont(9));
  rest->setToolTip(
      tr("for stock that is to rest: as cold by day as by night, aired early, so that it neither thaws and freezes nor wakes. Undo takes it back"));
  connect(rest, &QPushButton::clicked, this, [this] {
    if (const auto why = m_document.edit(tr("cool and even"), [](Plan& p) { keepDormant(p); })) emit m_document.trouble(*why);
  });
  grid.addWidget(rest, row, 1);
}

void SetpointsPage::rebuild() {
  clearCards(*m_cards);
  m_controller = nullptr;
  if (!look(setpoints(), m_document.plan())) return;
  auto* both = new QWidget(this);
  auto* row = new QHBoxLayout(both);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(18);
  auto* atNight = new QVBoxLayout;
  auto* byDay = new QVBoxLayout;
  for (QVBoxLayout* column : {atNight, byDay}) {
    column->setSpacing(4);
    row->addLayout(column, 1);
  }
  addSide(*atNight, Side<NightBand>{tr("At night"), tr("one setpoint"), tr("by the forecast low"), tr("low"), tr("at a low of"), &Setpoints::nightBands,
                                    &Setpoints::night_C});
  addSide(*byDay,
          Side<DayBand>{tr("By day"), tr("one setpoint"), tr("by the forecast high"), tr("high"), tr("at a high of"), &Setpoints::dayBands, &Setpoints::day_C});
  m_cards->addWidget(both);
  auto* when = new QWidget(this);
  auto* grid = new QGridLayout(when);
  grid->setContentsMargins(0, 4, 0, 0);
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(4);
  addWhen(*grid);
  if (m_room->room() == HeaterPlace::Of::house) addFelt(*grid, grid->rowCount());
  m_cards->addWidget(when);
  if (m_room->room() == HeaterPlace::Of::house) m_cards->addWidget(m_controller = new ControllerCard(m_document, this));
}

QString SetpointsPage::told(const Setpoints& of, const std::vector<AskedSetpoint>& nights, const std::vector<AskedSetpoint>& days) const {
  const Units& u = m_document.view().units();
  const auto degrees = [&](double c) { return u.text(Quantity::temperature, c); };
  const auto follows = [&](const std::vector<AskedSetpoint>& asked, const QString& one, const QString& several) {
    constexpr double kSame_K = 0.05;
    const double least_C = coldest_C(asked), most_C = warmest_C(asked);
    return most_C - least_C < kSame_K ? one.arg(degrees(least_C)) : several.arg(degrees(least_C), degrees(most_C), degrees(mean_C(asked)));
  };
  if (nights.empty() || days.empty()) return tr("Import a log of nights, and what the setpoints come to over them stands here.");
  QString words =
      follows(nights, tr("Over the logged nights %1 is asked for every night"), tr("Over the logged nights %1 to %2 is asked for at night, %3 on average"));
  words += follows(days, tr(", and %1 every day."), tr(", and %1 to %2 by day, %3 on average."));
  if (heaterPower_W(m_document.plan(), {m_room->room()}) <= 0.0) words += QLatin1Char(' ') + tr("No heater stands there to hold it.");
  const auto colder = std::count_if(nights.begin(), nights.end(), [&](const AskedSetpoint& n) { return n.setpoint_C < of.hold_C; });
  if (colder > 0) words += QLatin1Char(' ') + tr("On %Ln night(s) it lies below the line that must hold.", nullptr, static_cast<int>(colder));
  return words + evenness(of);
}

/// How evenly the house was kept by them, of the run in sight.
QString SetpointsPage::evenness(const Setpoints& of) const {
  const Simulation* run = m_document.results().simulation();
  const Weather* weather = m_document.readings().weather();
  if (!run || m_room->room() != HeaterPlace::Of::house) return {};
  DaySwings swings;
  for (std::size_t w = 0; w < run->series.size() && w < weather->winters.size(); ++w) swings.add(run->series[w].air_C, weather->winters[w].step_s);
  const Units& u = m_document.view().units();
  const double winters = run->summary.winters;
  QString words = QLatin1Char(' ') + tr("From night to day the air swings %1 on average, at most %2")
                                         .arg(u.text(Quantity::difference, swings.mean_K()), u.text(Quantity::difference, swings.most_K()));
  words += tr("; it thaws %Ln time(s) a winter", nullptr, static_cast<int>(std::lround(swings.thawings() / winters)));
  return words + tr(" and is above %1 for %2.").arg(u.text(Quantity::temperature, of.tooWarm_C), u.text(Quantity::hours, run->summary.tooWarm_h / winters));
}

void SetpointsPage::draw(const Setpoints& of, const std::vector<AskedSetpoint>& nights, const std::vector<AskedSetpoint>& days) {
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->retheme();
  m_plot->xAxis->grid()->setZeroLinePen(Qt::NoPen);
  m_plot->yAxis->grid()->setZeroLinePen(Qt::NoPen);
  const auto dots = [&](const std::vector<AskedSetpoint>& asked, const QString& name, const QColor& colour, QCPScatterStyle::ScatterShape shape) {
    QVector<double> x, y;
    for (const AskedSetpoint& a : asked) {
      x << u.show(Quantity::temperature, a.outside_C);
      y << u.show(Quantity::temperature, a.setpoint_C);
    }
    QCPGraph* graph = m_plot->addGraph();
    graph->setName(name);
    graph->setLineStyle(QCPGraph::lsNone);
    graph->setScatterStyle(QCPScatterStyle(shape, QPen(colour, 1.2), Qt::NoBrush, 5));
    graph->setData(x, y);
  };
  dots(days, tr("days, by their high"), t.weld, QCPScatterStyle::ssDiamond);
  dots(nights, tr("nights, by their low"), t.madder, QCPScatterStyle::ssCircle);
  m_plot->rescaleAxes();
  QCPGraph* line = m_plot->addGraph();
  line->setName(tr("line to hold"));
  line->setPen(QPen(t.woad, 1.4, Qt::DashLine));
  const double hold = u.show(Quantity::temperature, of.hold_C);
  line->setData({m_plot->xAxis->range().lower, m_plot->xAxis->range().upper}, {hold, hold}, true);
  m_plot->yAxis->rescale();
  const double least = u.fahrenheit ? 9.0 : 5.0; // a straight line is not to look like a slope of rounding
  if (m_plot->yAxis->range().size() < least) m_plot->yAxis->setRange(m_plot->yAxis->range().center(), least, Qt::AlignCenter);
  m_plot->yAxis->scaleRange(1.15);
  m_plot->xAxis->scaleRange(1.04);
  m_plot->xAxis->setLabel(tr("outside, %1").arg(u.unit(Quantity::temperature)));
  m_plot->yAxis->setLabel(tr("asked for, %1").arg(u.unit(Quantity::temperature)));
  m_plot->legendAbove();
  m_plot->numbers = [this, nights, days] {
    const Units& units = m_document.view().units();
    QString csv = QStringLiteral("of,outside_%1,setpoint_%1\n").arg(units.fahrenheit ? QLatin1Char('F') : QLatin1Char('C'));
    const auto rows = [&](const char* what, const std::vector<AskedSetpoint>& asked) {
      for (const AskedSetpoint& a : asked)
        csv += QStringLiteral("%1,%2,%3\n")
                   .arg(QLatin1String(what))
                   .arg(units.show(Quantity::temperature, a.outside_C), 0, 'f', 2)
                   .arg(units.show(Quantity::temperature, a.setpoint_C), 0, 'f', 2);
    };
    rows("night", nights);
    rows("day", days);
    return csv;
  };
  m_plot->replot(QCustomPlot::rpQueuedReplot);
}

void SetpointsPage::refresh() {
  const Plan& plan = m_document.plan();
  const Setpoints* of = look(setpoints(), plan);
  const QStringList now =
      !of ? QStringList()
          : QStringList{QString::number(static_cast<int>(m_room->room())), QString::number(of->nightBands.size()), QString::number(of->dayBands.size()),
                        QString::number(of->dayFrom_h && of->nightFrom_h), QString::number(static_cast<int>(of->felt))};
  if (now != m_signature) {
    m_signature = now;
    rebuild();
  }
  if (!of) return;
  if (m_controller) m_controller->refresh();
  const Weather* weather = m_document.readings().weather();
  const auto zone = TimeZone::named(plan.site.timeZone);
  std::vector<AskedSetpoint> nights, days;
  if (weather && zone) {
    nights = askedNights(*of, *weather, *zone);
    days = askedDays(*of, *weather, *zone);
  }
  m_words->setText(told(*of, nights, days));
  m_plot->setVisible(!nights.empty());
  if (!nights.empty()) draw(*of, nights, days);
}

} // namespace muffle
