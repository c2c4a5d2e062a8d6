// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/place_page.h"
#include "app/model/said.h"

#include "app/model/atlas.h"
#include "app/paint/theme.h"
#include "app/stages/annual_lows_field.h"
#include "app/stages/number_field.h"
#include "app/stages/outline_map.h"
#include "app/stages/town_field.h"
#include "core/site/zones.h"
#include "core/sun/position.h"

#include <QComboBox>
#include <QDate>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QLocale>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTimeZone>
#include <QVBoxLayout>

#include <cmath>

namespace muffle {
namespace {

constexpr double kFarthest_deg = 66.0; // north or south: beyond it there are days without a night
constexpr double kByTown_km = 60.0;    // farther from any town its name says nothing of a place

/// Any year will do; this one has no 29 February, as most.
QString dayWords(double dayOfYear) { return QLocale().toString(QDate(2031, 1, 1).addDays(std::lround(dayOfYear) - 1), PlacePage::tr("d MMMM")); }

/// A day of the year as people write it; nothing where it is none.
std::optional<double> dayFrom(const QString& text) {
  for (const char* form : {"d MMM", "d MMMM", "d. MMM", "d. MMMM", "MMM d", "MMMM d", "d.M.", "yyyy-MM-dd", "MM-dd"}) {
    const QString pattern = QString::fromLatin1(form);
    QDate day = QLocale().toDate(text, pattern);
    if (!day.isValid()) day = QLocale::c().toDate(text, pattern);
    if (day.isValid()) return QDate(2031, day.month(), std::min(day.day(), QDate(2031, day.month(), 1).daysInMonth())).dayOfYear();
  }
  return std::nullopt;
}

QString awayText(const Units& units, double km) {
  constexpr double kMile_km = 1.609344;
  return units.feet ? PlacePage::tr("%1\u00A0miles").arg(km / kMile_km, 0, 'f', 0) : PlacePage::tr("%1\u00A0km").arg(km, 0, 'f', 0);
}

/// Whether two zones show the same time through the year.
bool sameClock(const std::string& one, const std::string& other) {
  const auto a = TimeZone::named(one), b = TimeZone::named(other);
  if (!a || !b) return false;
  for (const char* iso : {"2026-01-15", "2026-04-15", "2026-07-15", "2026-10-15"}) {
    const UtcSeconds at = daysSinceEpoch(*parseIsoDate(iso)) * 86'400;
    if (a->offset_s(at) != b->offset_s(at)) return false;
  }
  return true;
}

} // namespace

PlacePage::PlacePage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_question(new QLabel(this)), m_why(new QLabel(this)), m_sun(new QLabel(this)), m_ground(new QLabel(this)),
      m_lows(new QLabel(this)), m_at(new TownField(this)), m_name(new QLineEdit(this)), m_currency(new QLineEdit(this)), m_firstFrost(new QLineEdit(this)),
      m_lastFrost(new QLineEdit(this)), m_annualLows(new AnnualLowsField(document, this)), m_zone(new QComboBox(this)), m_map(new OutlineMap(document, this)),
      m_takeGround(new QPushButton(tr("Take the log's year"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(6);
  for (QLabel* label : {m_question, m_why, m_sun, m_ground, m_lows}) {
    label->setFont(textFont(label == m_question ? 10 : 9.5));
    label->setWordWrap(true);
    label->setTextFormat(label == m_why ? Qt::PlainText : Qt::RichText); // it repeats what was typed
  }
  body->addWidget(m_question);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(18);
  grid->setVerticalSpacing(4);
  grid->setColumnStretch(0, 1);
  grid->setColumnStretch(1, 1);
  body->addLayout(grid);
  const auto labelled = [&](int row, int column, int span, const QString& name, QWidget* field, const QString& tip) {
    auto* line = new QHBoxLayout;
    auto* label = new QLabel(name, this);
    label->setFont(textFont(9.5));
    label->setMinimumWidth(column == 0 ? 88 : 74);
    label->setBuddy(field);
    line->addWidget(label);
    line->addWidget(field, 1);
    field->setToolTip(tip);
    field->setAccessibleName(name);
    grid->addLayout(line, row, column, 1, span);
  };
  m_at->setPlaceholderText(tr("a town or village, or 45.21 N 3.14 E"));
  labelled(0, 0, 2, tr("It stands at"), m_at,
           tr("a town or village by name, its region or land after a comma; or latitude and longitude: 45.21, 3.14 or 45°12'36\" N 3°8' E"));
  labelled(1, 0, 1, tr("Called"), m_name, tr("the place's name, for print"));
  m_zone->setEditable(true);
  m_zone->setInsertPolicy(QComboBox::NoInsert);
  m_zone->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon); // or the longest zone's name squeezes the left column
  m_zone->setMinimumContentsLength(12);
  for (const QByteArray& id : QTimeZone::availableTimeZoneIds())
    if (id.contains('/') && !id.startsWith("Etc/") && !id.startsWith("posix") && !id.startsWith("right")) m_zone->addItem(QString::fromLatin1(id));
  labelled(1, 1, 1, tr("Clock"), m_zone, tr("time zone, such as Europe/Lisbon or +01:00: what your logger's clock and you go by"));
  labelled(5, 0, 1, tr("First frost"), m_firstFrost, tr("of a usual winter, such as 5 Oct; what the log saw stands there until you say it"));
  labelled(5, 1, 1, tr("Last frost"), m_lastFrost, tr("of a usual winter, such as 12 May; what the log saw stands there until you say it"));
  labelled(6, 0, 1, tr("Winters' lows"), m_annualLows,
           tr("the coldest of each winter you know of: what one winter in ten or twenty brings is worked out from it on the Nights page"));
  m_annualLows->setAccessibleName(tr("The coldest of each winter here"));
  labelled(6, 1, 1, tr("Money"), m_currency, tr("symbol or code, as prices are shown"));
  connect(m_at, &TownField::townChosen, this, [this](const Town& town) { take(town.at, &town, true); });
  connect(m_at, &TownField::coordinatesTyped, this, [this](Coordinates at) { take(at, atlas().towns.nearest(at), m_document.plan().site.name.empty()); });
  connect(m_at, &TownField::unclear, this, [this](const QString& why) { say(why); });
  connect(m_map, &OutlineMap::pinned, this, [this](Coordinates at) {
    if (const Town* town = atlas().towns.nearest(at)) take(town->at, town, true, tr("The pin's nearest town: "));
  });
  connect(m_zone->lineEdit(), &QLineEdit::editingFinished, this, &PlacePage::takeZone);
  connect(m_zone, &QComboBox::activated, this, &PlacePage::takeZone);
  connect(m_name, &QLineEdit::editingFinished, this,
          [this] { takeText(tr("name the place"), m_name->text(), [](Plan& p) -> std::string& { return p.site.name; }); });
  connect(m_currency, &QLineEdit::editingFinished, this,
          [this] { takeText(tr("change the money"), m_currency->text(), [](Plan& p) -> std::string& { return p.prices.currency; }); });
  connect(m_firstFrost, &QLineEdit::editingFinished, this, [this] { takeFrost(m_firstFrost, &Site::firstFrost_day, tr("say when frost begins")); });
  connect(m_lastFrost, &QLineEdit::editingFinished, this, [this] { takeFrost(m_lastFrost, &Site::lastFrost_day, tr("say when frost ends")); });
  connect(m_annualLows, &AnnualLowsField::refused, this, [this](const QString& why) { say(why); });
  connect(m_takeGround, &QPushButton::clicked, this, &PlacePage::takeGround);

  const auto number = [&](int row, int column, const QString& label, Quantity quantity, double Site::*member, double min, double max, double nudge,
                          const QString& source) {
    const Find<double> at = [member](Plan& p) { return &(p.site.*member); };
    grid->addWidget(new NumberField(document, NumberField::Spec::at(label, quantity, at, min, max, nudge, source), this), row, column);
  };
  grid->addWidget(new NumberField(document,
                                  NumberField::Spec::at(
                                      tr("Above the sea"), Quantity::elevation, [](Plan& p) { return &p.site.place.elevation_m; }, -430, 5000, 10,
                                      tr("height of the ground, from a map: thin air carries less heat")),
                                  this),
                  2, 0);
  number(2, 1, tr("Wind, if not logged"), Quantity::speed, &Site::wind_m_s, 0, 30, 0.5, tr("mean at the house: 1 in the lee of trees, 2 open, 4 on a ridge"));
  number(3, 0, tr("Ground, on average"), Quantity::temperature, &Site::groundMean_C, -10, 30, 0.5,
         tr("a couple of metres down: about the air's mean through the year, a degree more under snow"));
  number(3, 1, tr("Ground, swing either way"), Quantity::difference, &Site::groundAmplitude_K, 0, 25, 0.5,
         tr("of the surface between summer and winter: half of what the months' means differ by"));
  grid->addWidget(new NumberField(document,
                                  {tr("Ground coldest, day"), Quantity::count, [](const Plan& p) { return p.site.coldestDay(); },
                                   [](Plan& p, double v) { p.site.groundColdestDay = v; }, 1, 366, 5,
                                   tr("of the year; where nothing was said it is late January, south of the equator late July")},
                                  this),
                  4, 0);
  number(4, 1, tr("Wind gauge stands"), Quantity::length, &Site::windHeight_m, 0, 100, 0.5, tr("above the ground; 0: its wind is that at the house"));
  auto* below = new QHBoxLayout;
  below->setSpacing(14);
  below->addWidget(m_map, 5);
  auto* words = new QVBoxLayout;
  words->setSpacing(5);
  for (QLabel* label : {m_why, m_sun, m_ground}) words->addWidget(label);
  words->addWidget(m_takeGround, 0, Qt::AlignLeft);
  words->addWidget(m_lows);
  words->addStretch(1);
  below->addLayout(words, 4);
  body->addSpacing(2);
  body->addLayout(below, 1);
  setTabOrder(m_at, m_name);
  setTabOrder(m_name, m_zone);
  setFocusProxy(m_at);
}

void PlacePage::take(Coordinates at, const Town* town, bool naming, const QString& aside) {
  if (std::abs(at.latitude_deg) > kFarthest_deg) {
    say(tr("At %1° there are days without a night: places up to 66° north or south can be simulated.").arg(at.latitude_deg, 0, 'g', 4));
    return;
  }
  const bool isNamed = town && distance_km(at, town->at) < kByTown_km;
  const std::string zone = town ? zoneAt(at, *town, atlas().zoneTable) : std::string();
  const bool changesClock = !zone.empty() && TimeZone::named(zone) && !sameClock(zone, m_document.plan().site.timeZone);
  QString said;
  if (isNamed) {
    const double km = distance_km(at, town->at);
    said = aside + (km < 0.5 ? townText(*town) : tr("%1 from %2").arg(awayText(m_document.view().units(), km), townText(*town))) + QStringLiteral(". ");
  }
  if (changesClock)
    said += tr("The clock is now that of %1, the nearest of its land's zones: choose another if yours differs. ").arg(QString::fromStdString(zone));
  said += tr("Its height above the sea is yours to say.");
  if (auto why = m_document.edit(tr("say where the house stands"), [&](Plan& p) {
        p.site.place.latitude_deg = at.latitude_deg;
        p.site.place.longitude_deg = at.longitude_deg;
        p.site.placeAssumed = false;
        if (isNamed && naming) p.site.name = town->name;
        if (changesClock) p.site.timeZone = zone;
      }))
    said = *why;
  refresh();
  say(said);
}

void PlacePage::takeZone() {
  const std::string zone = m_zone->currentText().trimmed().toStdString();
  if (zone == m_document.plan().site.timeZone) return;
  if (const auto known = TimeZone::named(zone); !known) {
    say(said(known.problem(), m_document.view().units()));
    return;
  }
  say({});
  if (auto why = m_document.edit(tr("change the clock"), [&](Plan& p) { p.site.timeZone = zone; })) say(*why);
  refresh();
}

void PlacePage::takeText(const QString& what, const QString& text, std::string& (*of)(Plan&)) {
  Plan now = m_document.plan();
  const std::string typed = text.trimmed().toStdString();
  if (of(now) == typed || (typed.empty() && &of(now) == &now.prices.currency)) return;
  say({});
  if (auto why = m_document.edit(what, [&](Plan& p) { of(p) = typed; })) say(*why);
  refresh();
}

void PlacePage::takeFrost(QLineEdit* field, std::optional<double> Site::*day, const QString& what) {
  if (!field->isModified()) return;
  field->setModified(false);
  const QString typed = field->text().trimmed();
  const auto read = dayFrom(typed);
  if (!typed.isEmpty() && !read) {
    say(tr("\"%1\" is no day of the year. Write it as 5 Oct; empty, it is what the log saw.").arg(typed));
    return;
  }
  say({});
  if (auto why = m_document.edit(what, [&](Plan& p) { p.site.*day = typed.isEmpty() ? std::nullopt : read; })) say(*why);
  refresh();
}

void PlacePage::takeGround() {
  const auto year = airYear(m_document.readings().nights());
  if (!year) return;
  const auto whole = [](double v) { return std::round(v * 10.0) / 10.0; }; // as it is shown
  if (auto why = m_document.edit(tr("take the ground from the log's year"), [&](Plan& p) {
        p.site.groundMean_C = whole(year->mean_C);
        p.site.groundAmplitude_K = whole(year->amplitude_K);
        p.site.groundColdestDay = std::round(year->coldestDay);
      }))
    say(*why);
  refresh();
}

QString PlacePage::sunWords() const {
  const Site& site = m_document.plan().site;
  const auto zone = TimeZone::named(site.timeZone);
  const bool south = site.place.latitude_deg < 0.0;
  const SunDay day = sunDay({2031, south ? 6U : 12U, 21}, site.place);
  if (!zone || !day.rise_utc || !day.set_utc) return {};
  const auto clock = [&](double utc) { return QString::fromStdString(zone->iso(static_cast<UtcSeconds>(utc))).mid(11, 5); };
  const double noon_deg = 90.0 - std::abs(site.place.latitude_deg) - 23.44;
  QString sun = tr("Shortest day: sun from <b>%1</b> to <b>%2</b>, no higher than <b>%3°</b>.")
                    .arg(clock(*day.rise_utc), clock(*day.set_utc), QLocale().toString(noon_deg, 'f', 0));
  // no land's clock is four hours off its sun: then it is not the clock of the place
  const double off_h = std::remainder((*day.rise_utc + *day.set_utc) / 7200.0 + zone->offset_s(static_cast<UtcSeconds>(*day.rise_utc)) / 3600.0 - 12.0, 24.0);
  if (std::abs(off_h) > 4.0 && !site.placeAssumed)
    sun += tr(" <b>Set the clock:</b> by this one the sun would stand highest at %1.").arg(clock((*day.rise_utc + *day.set_utc) / 2.0));
  return sun;
}

QString PlacePage::groundWords(const std::optional<AirYear>& year) const {
  const Site& site = m_document.plan().site;
  const Units& u = m_document.view().units();
  if (year)
    return tr("Ground: over %1 days your log's air has a mean of %2 and swings %3 either way, coldest about %4; deep ground follows it.")
        .arg(year->days)
        .arg(u.text(Quantity::temperature, year->mean_C), u.text(Quantity::difference, year->amplitude_K), dayWords(year->coldestDay));
  const QString assumed = tr("Ground: coldest about %1. ").arg(dayWords(site.coldestDay()));
  return assumed + (m_document.readings().log()
                        ? tr("Your log has less than nine months of the year, too little to read the ground from.")
                        : tr("Its mean and swing are the usual of middle latitudes until you change them or a log of most of a year says better."));
}

void PlacePage::showFrost(QLineEdit* field, std::optional<double> day, const std::vector<LoggedWinter>& winters, std::optional<Date> LoggedWinter::*logged) {
  QString seen = tr("not known");
  for (const LoggedWinter& winter : winters)
    if (winter.*logged)
      seen = QLocale().toString(QDate((winter.*logged)->year, static_cast<int>((winter.*logged)->month), static_cast<int>((winter.*logged)->day)),
                                tr("d MMM yyyy")) +
             tr(", by the log");
  field->setPlaceholderText(seen);
  if (field->hasFocus() && field->isModified()) return;
  field->setText(day ? dayWords(*day) : QString());
  field->setModified(false);
}

void PlacePage::refresh() {
  const Site& site = m_document.plan().site;
  const auto show = [](QLineEdit* edit, const QString& text) {
    if (!edit->hasFocus() || !edit->isModified()) edit->setText(text), edit->setModified(false);
  };
  m_at->show(site.placeAssumed ? QString() : coordinatesText({site.place.latitude_deg, site.place.longitude_deg}));
  m_map->showPlace({site.place.latitude_deg, site.place.longitude_deg}, !site.placeAssumed);
  show(m_name, QString::fromStdString(site.name));
  show(m_currency, QString::fromStdString(m_document.plan().prices.currency));
  const QSignalBlocker quiet(m_zone);
  m_zone->setCurrentText(QString::fromStdString(site.timeZone));
  const auto winters = loggedWinters(m_document.readings().nights(), site.place.latitude_deg);
  showFrost(m_firstFrost, site.firstFrost_day, winters, &LoggedWinter::firstFrost);
  showFrost(m_lastFrost, site.lastFrost_day, winters, &LoggedWinter::lastFrost);
  m_annualLows->refresh();
  m_question->setVisible(site.placeAssumed);
  m_question->setText(tr("<b>Where does the house stand?</b> Sun, night and ground depend on it. Until it is said, nights are judged as at 50° N."));
  m_sun->setText(sunWords());
  const auto year = airYear(m_document.readings().nights());
  m_ground->setText(groundWords(year));
  QStringList lows;
  for (const LoggedWinter& winter : winters)
    lows << tr("%1 in the winter from %2").arg(m_document.view().units().text(Quantity::temperature, winter.low.value)).arg(winter.beginsIn);
  m_lows->setText(tr("Coldest by your log: %1.").arg(lows.join(QStringLiteral(", "))));
  m_lows->setVisible(!lows.isEmpty());
  m_takeGround->setVisible(year && (std::abs(year->mean_C - site.groundMean_C) > 0.06 || std::abs(year->amplitude_K - site.groundAmplitude_K) > 0.06));
  if (m_saidOf != std::tuple(site.place.latitude_deg, site.place.longitude_deg, site.timeZone)) say({}); // it was of another place
}

void PlacePage::say(const QString& words) {
  const Site& site = m_document.plan().site;
  m_saidOf = {site.place.latitude_deg, site.place.longitude_deg, site.timeZone};
  m_why->setText(words);
  m_why->setVisible(!words.isEmpty());
}

} // namespace muffle
