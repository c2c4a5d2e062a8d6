// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/place_page.h"

#include "app/paint/theme.h"
#include "app/stages/number_field.h"
#include "core/site/coordinates.h"
#include "core/sun/position.h"

#include <QComboBox>
#include <QDate>
#include <QGridLayout>
#include <QLabel>
#include <QLocale>
#include <QSignalBlocker>
#include <QTimeZone>
#include <QVBoxLayout>

#include <cmath>

namespace muffle {
namespace {

constexpr double kFarthest_deg = 66.0; // north or south: beyond it there are days without a night

QString coordinatesText(const Place& at) {
  const auto part = [](double degrees, const QString& plus, const QString& minus) {
    return QStringLiteral("%1° %2").arg(QLocale::c().toString(std::abs(degrees), 'g', 7), degrees < 0 ? minus : plus);
  };
  return part(at.latitude_deg, PlacePage::tr("N"), PlacePage::tr("S")) + QStringLiteral("  ") + part(at.longitude_deg, PlacePage::tr("E"), PlacePage::tr("W"));
}

} // namespace

PlacePage::PlacePage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_question(new QLabel(this)), m_why(new QLabel(this)), m_sun(new QLabel(this)), m_at(new QLineEdit(this)),
      m_name(new QLineEdit(this)), m_currency(new QLineEdit(this)), m_zone(new QComboBox(this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(8);
  for (QLabel* label : {m_question, m_why, m_sun}) {
    label->setFont(textFont(10));
    label->setWordWrap(true);
  }
  body->addWidget(m_question);
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(18);
  grid->setVerticalSpacing(6);
  grid->setColumnStretch(0, 1);
  grid->setColumnStretch(1, 1);
  body->addLayout(grid);
  const auto labelled = [&](int row, int column, int span, const QString& name, QWidget* field, const QString& tip) {
    auto* line = new QHBoxLayout;
    auto* label = new QLabel(name, this);
    label->setFont(textFont(9.5));
    label->setMinimumWidth(column == 0 ? 88 : 48);
    label->setBuddy(field);
    line->addWidget(label);
    line->addWidget(field, 1);
    field->setToolTip(tip);
    field->setAccessibleName(name);
    grid->addLayout(line, row, column, 1, span);
  };
  m_at->setPlaceholderText(tr("45.21 N 3.14 E, or pasted from a map"));
  labelled(0, 0, 2, tr("It stands at"), m_at, tr("latitude and longitude in any common form: 45.21, 3.14 or 45°12'36\" N 3°8' E"));
  labelled(1, 0, 1, tr("Called"), m_name, tr("the place's name, for print"));
  m_zone->setEditable(true);
  m_zone->setInsertPolicy(QComboBox::NoInsert);
  m_zone->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon); // or the longest zone's name squeezes the left column
  m_zone->setMinimumContentsLength(12);
  for (const QByteArray& id : QTimeZone::availableTimeZoneIds())
    if (id.contains('/') && !id.startsWith("Etc/") && !id.startsWith("posix") && !id.startsWith("right")) m_zone->addItem(QString::fromLatin1(id));
  labelled(1, 1, 1, tr("Clock"), m_zone, tr("time zone, such as Europe/Lisbon or +01:00: what your logger's clock and you go by"));
  labelled(5, 0, 1, tr("Money"), m_currency, tr("symbol or code, as prices are shown"));
  connect(m_at, &QLineEdit::editingFinished, this, &PlacePage::takeCoordinates);
  connect(m_zone->lineEdit(), &QLineEdit::editingFinished, this, &PlacePage::takeZone);
  connect(m_zone, &QComboBox::activated, this, &PlacePage::takeZone);
  connect(m_name, &QLineEdit::editingFinished, this,
          [this] { takeText(tr("name the place"), m_name->text(), [](Plan& p) -> std::string& { return p.site.name; }); });
  connect(m_currency, &QLineEdit::editingFinished, this,
          [this] { takeText(tr("change the money"), m_currency->text(), [](Plan& p) -> std::string& { return p.prices.currency; }); });

  const auto number = [&](int row, int column, const QString& label, Quantity quantity, double Site::*member, double min, double max, double nudge,
                          const QString& source) {
    const Find<double> at = [member](Plan& p) { return &(p.site.*member); };
    grid->addWidget(new NumberField(document, NumberField::Spec::at(label, quantity, at, min, max, nudge, source), this), row, column);
  };
  grid->addWidget(new NumberField(document, NumberField::Spec::at(tr("Above the sea"), Quantity::elevation, [](Plan& p) { return &p.site.place.elevation_m; }, -430, 5000, 10,
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
  m_sun->setTextFormat(Qt::RichText);
  setTabOrder(m_at, m_name);
  setTabOrder(m_name, m_zone);
  setFocusProxy(m_at);
  body->addSpacing(4);
  body->addWidget(m_sun);
  body->addWidget(m_why);
  body->addStretch(1);
}

void PlacePage::takeCoordinates() {
  if (!m_at->isModified()) return;
  m_at->setModified(false);
  const auto read = parseCoordinates(m_at->text().toStdString());
  if (!read || std::abs(read->latitude_deg) > kFarthest_deg) {
    m_why->setText(read ? tr("At %1° there are days without a night: places up to 66° north or south can be simulated.").arg(read->latitude_deg, 0, 'g', 4)
                        : QString::fromStdString(read.problem().text()));
    return;
  }
  if (auto why = m_document.edit(tr("say where the house stands"), [&](Plan& p) {
        p.site.place.latitude_deg = read->latitude_deg;
        p.site.place.longitude_deg = read->longitude_deg;
        p.site.placeAssumed = false;
      }))
    m_why->setText(*why);
  refresh();
}

void PlacePage::takeZone() {
  const std::string zone = m_zone->currentText().trimmed().toStdString();
  if (zone == m_document.plan().site.timeZone) return;
  if (const auto known = TimeZone::named(zone); !known) {
    m_why->setText(QString::fromStdString(known.problem().text()));
    return;
  }
  if (auto why = m_document.edit(tr("change the clock"), [&](Plan& p) { p.site.timeZone = zone; })) m_why->setText(*why);
  refresh();
}

void PlacePage::takeText(const QString& what, const QString& text, std::string& (*of)(Plan&)) {
  Plan now = m_document.plan();
  const std::string typed = text.trimmed().toStdString();
  if (of(now) == typed || (typed.empty() && &of(now) == &now.prices.currency)) return;
  if (auto why = m_document.edit(what, [&](Plan& p) { of(p) = typed; })) m_why->setText(*why);
  refresh();
}

void PlacePage::refresh() {
  const Site& site = m_document.plan().site;
  const auto show = [](QLineEdit* edit, const QString& text) {
    if (!edit->hasFocus() || !edit->isModified()) edit->setText(text), edit->setModified(false);
  };
  show(m_at, site.placeAssumed ? QString() : coordinatesText(site.place));
  show(m_name, QString::fromStdString(site.name));
  show(m_currency, QString::fromStdString(m_document.plan().prices.currency));
  const QSignalBlocker quiet(m_zone);
  m_zone->setCurrentText(QString::fromStdString(site.timeZone));
  m_question->setVisible(site.placeAssumed);
  m_question->setText(tr("<b>Where does the house stand?</b> Sun, night and ground depend on it. Until it is said, nights are judged as at 50° N."));
  // what the place makes of a midwinter day, to see that it is right
  const auto zone = TimeZone::named(site.timeZone);
  const bool south = site.place.latitude_deg < 0.0;
  const SunDay day = sunDay({2031, south ? 6U : 12U, 21}, site.place);
  QString sun;
  if (zone && day.rise_utc && day.set_utc) {
    const auto clock = [&](double utc) { return QString::fromStdString(zone->iso(static_cast<UtcSeconds>(utc))).mid(11, 5); };
    const double noon_deg = 90.0 - std::abs(site.place.latitude_deg) - 23.44;
    sun = tr("On the shortest day the sun comes up there at <b>%1</b> and sets at <b>%2</b>, no higher than <b>%3°</b>.")
              .arg(clock(*day.rise_utc), clock(*day.set_utc), QLocale().toString(noon_deg, 'f', 0));
    // no land's clock is four hours off its sun: then it is not the clock of the place
    const double off_h = std::remainder((*day.rise_utc + *day.set_utc) / 7200.0 + zone->offset_s(static_cast<UtcSeconds>(*day.rise_utc)) / 3600.0 - 12.0, 24.0);
    if (std::abs(off_h) > 4.0 && !site.placeAssumed)
      sun += tr(" <b>Set the clock:</b> by this one the sun would stand highest at %1.").arg(clock((*day.rise_utc + *day.set_utc) / 2.0));
  }
  m_sun->setText(sun);
  m_why->setText(site.placeAssumed ? tr("Ground, wind and money are the usual of middle latitudes until you change them.")
                                   : tr("The ground is coldest about %1. It follows the year's wave of the place; the weeks before a log are run through it.")
                                         .arg(QLocale().toString(QDate(2031, 1, 1).addDays(std::lround(site.coldestDay()) - 1), tr("d MMMM"))));
}

} // namespace muffle
