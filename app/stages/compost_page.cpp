// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/compost_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/number_field.h"
#include "app/stages/plot.h"
#include "core/run/store_runner.h"
#include "core/store/ingredients.h"

#include <QComboBox>
#include <QDateEdit>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace muffle {
namespace {

constexpr double kHot_C = 40.0;
constexpr double kRootsBear_C = 27.0; // of seedlings; what burns them in a fresh bed is more
constexpr double kRateBand = 1.6;     // of the rate, to either side: what the same recipe does on different yards

QDate dayOf(const CompostPile& pile) {
  const MonthDay d = parseMonthDay(pile.built).value_or(MonthDay{11, 1});
  return {2023, static_cast<int>(d.month), static_cast<int>(d.day)};
}

/// To the degree: no pile is known better.
QString degrees(const Units& u, double t_C) {
  return QStringLiteral("%1 %2").arg(std::lround(u.show(Quantity::temperature, t_C))).arg(u.unit(Quantity::temperature));
}

/// What a pile gives by its mass as built, to ten watts a tonne or its like.
QString heatByMass(const Units& u, double W_per_t) {
  if (!u.feet) return CompostPage::tr("%1 W a tonne").arg(10 * std::lround(W_per_t / 10.0));
  const double ton_t = u.toSi(Quantity::mass, 2000.0) / 1000.0; // of 2000 lb
  return CompostPage::tr("%1 BTU/h a ton").arg(10 * std::lround(1000.0 * u.show(Quantity::power, W_per_t * ton_t) / 10.0));
}

/// What an ingredient may be typed in beside its mass.
std::vector<NumberField::Spec::Measure> measuresOf(const CompostIngredient& i) {
  constexpr double kBag_l = 50.0;
  const double litre_kg = i.bulk_kg_m3 / 1000.0;
  return {{QString::fromUtf8(i.measure), i.litresPerMeasure * litre_kg},
          {QStringLiteral("bag"), kBag_l * litre_kg},
          {QStringLiteral("m3"), i.bulk_kg_m3},
          {QStringLiteral("m³"), i.bulk_kg_m3}};
}

/// In the grower's own measure: "12 barrows".
QString measures(const CompostIngredient& i, double wet_kg) {
  const double n = wet_kg / i.bulk_kg_m3 * 1000.0 / i.litresPerMeasure;
  const QString name = QString::fromUtf8(i.measure);
  return QStringLiteral("%1 %2%3").arg(QLocale().toString(std::max(1.0, std::round(n)), 'f', 0), name, n >= 1.5 ? QStringLiteral("s") : QString());
}

} // namespace

BlendScales::BlendScales(Document& document, QWidget* parent) : QWidget(parent), m_document(document) {
  setAccessibleName(tr("What the blend is like"));
  setToolTip(tr(
      "Two schools: some balance carbon and nitrogen at 25 to 40 to 1, some go by heat alone and pack what is fresh. The curve below is what this pile does."));
}

void BlendScales::show(const Blend& blend) {
  m_blend = blend;
  update();
}

void BlendScales::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::of(m_document.view().isDark());
  struct Scale {
    QString name;
    double value, from, to, goodFrom, goodTo;
    QString shown;
  };
  const auto percent = [](double share) { return QStringLiteral("%1 %").arg(static_cast<int>(std::lround(100.0 * share))); };
  const Scale scales[] = {{tr("water"), m_blend.moisture, 0.2, 0.9, 0.50, 0.65, percent(m_blend.moisture)},
                          {tr("carbon to nitrogen"), m_blend.carbonNitrogen, 0.0, 100.0, 25.0, 40.0, tr("%1 to 1").arg(std::lround(m_blend.carbonNitrogen))},
                          {tr("air between"), m_blend.freeAirSpace, 0.0, 0.8, 0.30, 0.60, percent(m_blend.freeAirSpace)}};
  constexpr double kName = 150.0, kValue = 70.0;
  const double row = height() / 3.0;
  double y = 0.0;
  for (const Scale& s : scales) {
    p.setFont(textFont(9.5));
    p.setPen(t.ink);
    p.drawText(QRectF(0, y, kName - 8, row), static_cast<int>(Qt::AlignVCenter), s.name);
    const double left = kName, wide = width() - kName - kValue;
    const auto x = [&](double v) { return left + wide * std::clamp((v - s.from) / (s.to - s.from), 0.0, 1.0); };
    const double middle = y + row / 2.0;
    p.setPen(QPen(t.seam, 1));
    p.drawLine(QPointF(left, middle), QPointF(left + wide, middle));
    p.setPen(Qt::NoPen);
    p.setBrush(t.lichen);
    p.drawRect(QRectF(x(s.goodFrom), middle - 3.0, x(s.goodTo) - x(s.goodFrom), 6.0));
    const bool good = s.value >= s.goodFrom && s.value <= s.goodTo;
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(good ? t.lichen : t.madder);
    QPolygonF marker{QPointF(x(s.value), middle - 4.0), QPointF(x(s.value) - 5.0, middle - 12.0), QPointF(x(s.value) + 5.0, middle - 12.0)};
    p.drawPolygon(marker);
    p.setFont(textFont(9.5, true));
    p.setPen(t.ink);
    p.drawText(QRectF(width() - kValue, y, kValue, row), static_cast<int>(Qt::AlignVCenter | Qt::AlignRight), s.shown);
    y += row;
  }
}

SeriesBar::SeriesBar(Document& document, QWidget* parent) : QWidget(parent), m_document(document) { setAccessibleName(tr("Piles over the season")); }

void SeriesBar::show(const CompostPile& pile, const PileCourse& course) {
  m_pile = pile;
  m_hotFrom_d = m_hotTo_d = 0.0;
  for (std::size_t i = 0; i < course.day.size(); ++i) {
    if (course.core_C[i] < kHot_C) continue;
    if (m_hotTo_d == 0.0) m_hotFrom_d = course.day[i];
    m_hotTo_d = course.day[i];
  }
  update();
}

void SeriesBar::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const Theme& t = Theme::of(m_document.view().isDark());
  const QDate first(2023, 9, 1), last(2024, 5, 1);
  QDate built = dayOf(m_pile);
  if (built.month() < 7) built = built.addYears(1);
  const double days = static_cast<double>(first.daysTo(last));
  const auto x = [&](double day) { return width() * std::clamp(day / days, 0.0, 1.0); };
  p.setFont(textFont(8.5));
  for (QDate month = first; month < last; month = month.addMonths(1)) {
    const double at = x(static_cast<double>(first.daysTo(month)));
    p.setPen(QPen(t.seam, 1));
    p.drawLine(QPointF(at, 0), QPointF(at, height() - 15));
    p.setPen(t.fleece);
    p.drawText(QRectF(at + 3, height() - 15, 60, 15), static_cast<int>(Qt::AlignVCenter), QLocale().standaloneMonthName(month.month(), QLocale::ShortFormat));
  }
  const double lane = (height() - 18.0) / 2.0;
  for (int k = 0; k < m_pile.piles; ++k) {
    const double start = static_cast<double>(first.daysTo(built)) + k * m_pile.everyDays;
    const double end = k + 1 < m_pile.piles ? start + m_pile.everyDays : days;
    const double top = 1.0 + (k % 2) * lane;
    p.setPen(QPen(t.ink, 1));
    p.setBrush(t.oat);
    p.drawRect(QRectF(x(start), top, std::max(x(end) - x(start), 2.0), lane - 3.0));
    const double hotTo = std::min(start + m_hotTo_d, end);
    if (m_hotTo_d > 0.0 && hotTo > start + m_hotFrom_d) {
      p.setBrush(QBrush(t.madder, Qt::BDiagPattern));
      p.drawRect(QRectF(x(start + m_hotFrom_d), top, x(hotTo) - x(start + m_hotFrom_d), lane - 3.0));
    }
  }
}

CompostPage::CompostPage(Document& document, StoreChoice& choice, QWidget* parent)
    : QWidget(parent), m_document(document), m_choice(choice), m_bench(new QWidget(this)), m_more(new QComboBox(this)), m_built(new QDateEdit(this)),
      m_scales(new BlendScales(document, this)), m_series(new SeriesBar(document, this)), m_plot(new Plot(document, this)), m_words(new QLabel(this)),
      m_needs(new QLabel(this)), m_fit(new QPushButton(tr("Fit it to its log"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(5);
  m_words->setFont(textFont(9.5));
  m_words->setWordWrap(true);
  body->addWidget(m_words);
  m_rows = new QVBoxLayout(m_bench);
  m_rows->setContentsMargins(0, 0, 0, 0);
  m_rows->setSpacing(2);
  body->addWidget(m_bench);
  auto* row = new QHBoxLayout;
  m_more->addItem(tr("Put something else in"));
  for (const CompostIngredient& i : compostIngredients()) m_more->addItem(said(nameOf(i)), QString::fromUtf8(i.id));
  m_more->setAccessibleName(tr("Ingredient to add"));
  m_more->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  m_more->setMinimumContentsLength(18);
  row->addWidget(m_more);
  m_fit->setToolTip(tr("moves the pile's rate until its temperature agrees with the thermometer in it"));
  row->addWidget(m_fit);
  row->addStretch();
  connect(m_fit, &QPushButton::clicked, this, &CompostPage::fit);
  auto* builtLabel = new QLabel(tr("First built"), this);
  builtLabel->setFont(textFont(9.5));
  row->addWidget(builtLabel);
  m_built->setDisplayFormat(QStringLiteral("d MMMM"));
  m_built->setAccessibleName(tr("Day on which the first pile is built"));
  row->addWidget(m_built);
  body->addLayout(row);
  m_scales->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
  m_series->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
  body->addWidget(m_scales);
  m_plot->setAccessibleName(tr("Temperature inside the pile over the weeks"));
  m_plot->setMinimumHeight(120);
  body->addWidget(m_plot, 1);
  body->addWidget(m_series);
  m_needs->setFont(textFont(9));
  m_needs->setWordWrap(true);
  body->addWidget(m_needs);
  connect(m_more, &QComboBox::activated, this, [this](int i) {
    if (i > 0) {
      const std::string id = m_more->itemData(i).toString().toStdString();
      edit(tr("add %1").arg(m_more->itemText(i)), [&](CompostPile& p) {
        constexpr double kSome_kg = 100.0;
        p.recipe.push_back({id, kSome_kg, {}});
      });
    }
    m_more->setCurrentIndex(0);
  });
  connect(m_built, &QDateEdit::dateChanged, this, [this](const QDate& date) {
    edit(tr("change the day the pile is built"), [&](CompostPile& p) { p.built = date.toString(QStringLiteral("MM-dd")).toStdString(); });
  });
  connect(&m_choice, &StoreChoice::chosen, this, [this] { refresh(); });
}

QString CompostPage::words() const { return m_words->text() + QLatin1Char('\n') + m_needs->text(); }

void CompostPage::edit(const QString& name, const std::function<void(CompostPile&)>& change) {
  const auto store = m_choice.of(StoreKind::compost);
  if (!store) return;
  if (auto why = m_document.edit(name, [&](Plan& p) { change(p.compost[store->index]); })) {
    emit m_document.trouble(*why);
    refresh();
  }
}

void CompostPage::rebuild(const CompostPile& pile, std::size_t index) {
  QString signature = QString::number(index);
  for (const PileIngredient& i : pile.recipe) signature += QString::fromStdString(i.ingredient);
  signature += QString::number(static_cast<int>(m_document.view().units().feet));
  if (signature != m_shown) {
    m_shown = signature;
    clearCards(*m_rows);
    m_notes.clear();
    const auto field = [&](QWidget* parent, const QString& label, const Find<double>& find, double low, double high, double nudge, const QString& source,
                           std::vector<NumberField::Spec::Measure> also = {}) {
      auto spec = NumberField::Spec::at(label, Quantity::mass, find, low, high, nudge, source);
      spec.measures = std::move(also);
      return new NumberField(m_document, std::move(spec), parent);
    };
    for (std::size_t k = 0; k < pile.recipe.size(); ++k) {
      const CompostIngredient* known = findIngredient(pile.recipe[k].ingredient);
      if (!known) continue;
      auto* line = new QWidget(m_bench);
      auto* along = new QHBoxLayout(line);
      along->setContentsMargins(0, 0, 0, 0);
      along->addWidget(field(
                           line, said(nameOf(*known)),
                           [index, k](Plan& p) -> double* {
                             return index < p.compost.size() && k < p.compost[index].recipe.size() ? &p.compost[index].recipe[k].wet_kg : nullptr;
                           },
                           0.0, 1e6, 10.0,
                           tr("by weight, or as 12 %1s, bags of 50 litres or m³; %2").arg(QString::fromUtf8(known->measure), QString::fromUtf8(known->source)),
                           measuresOf(*known)),
                       3);
      auto* note = new QLabel(line);
      note->setObjectName(QStringLiteral("measures"));
      note->setFont(textFont(9));
      along->addWidget(note, 2);
      m_notes.push_back(note);
      addSignButton(*along, line, QStringLiteral("−"), tr("Leave %1 out").arg(said(nameOf(*known))), pile.recipe.size() > 1, this, [this, k] {
        edit(tr("leave an ingredient out"), [k](CompostPile& p) { p.recipe.erase(p.recipe.begin() + static_cast<std::ptrdiff_t>(k)); });
      });
      m_rows->addWidget(line);
    }
    auto* water = new QWidget(m_bench);
    auto* along = new QHBoxLayout(water);
    along->setContentsMargins(0, 0, 0, 0);
    along->addWidget(field(
                         water, tr("water poured on"), [index](Plan& p) -> double* { return index < p.compost.size() ? &p.compost[index].water_kg : nullptr; },
                         0.0, 1e5, 10.0, tr("while building; a kilogram is a litre")),
                     3);
    along->addStretch(2);
    m_rows->addWidget(water);
  }
  for (std::size_t k = 0; k < std::min(m_notes.size(), pile.recipe.size()); ++k)
    if (const CompostIngredient* known = findIngredient(pile.recipe[k].ingredient))
      m_notes[k]->setText(tr("%1, C:N %2").arg(measures(*known, pile.recipe[k].wet_kg)).arg(std::lround(known->carbonNitrogen)));
}

QString CompostPage::safeToPlant(std::size_t place) const {
  const Simulation* run = m_document.results().simulation();
  if (!run || run->series.empty()) return {};
  for (std::size_t w = 0; w < run->series.size(); ++w) {
    if (place >= run->series[w].stores.size() || run->series[w].stores[place].temperature_C.size() < 2) continue;
    const auto& core = run->series[w].stores[place].temperature_C[0];
    const auto& root = run->series[w].stores[place].temperature_C[1];
    const Winter& winter = m_document.readings().weather()->winters[w];
    std::size_t last = 0;
    bool everHot = false;
    for (std::size_t i = 0; i < root.size(); ++i)
      if (!std::isnan(core[i]) && root[i] > static_cast<float>(kRootsBear_C)) last = i, everHot = true;
    const Units& u = m_document.view().units();
    if (!everHot) return tr("The soil at the roots stays below %1: plant when you like.").arg(degrees(u, kRootsBear_C));
    if (last + 1 >= root.size()) return tr("The soil at the roots is above %1 to the log's end: do not plant yet.").arg(degrees(u, kRootsBear_C));
    const QDate day = QDateTime::fromSecsSinceEpoch(winter.time(last + 1), Qt::UTC).date();
    return tr("Safe to plant from %1, when the soil at the roots stays below %2.")
        .arg(QLocale().toString(day, QStringLiteral("d MMMM")), degrees(u, kRootsBear_C));
  }
  return {};
}

void CompostPage::draw(const CompostPile& pile, const Blend& blend) {
  const Units& u = m_document.view().units();
  const Theme& t = Theme::of(m_document.view().isDark());
  PileTrial trial;
  if (const Weather* weather = m_document.readings().weather(); weather && !weather->winters.empty()) {
    const auto mean = [](const auto& v) { return std::accumulate(v.begin(), v.end(), 0.0) / static_cast<double>(v.size()); };
    trial.air_C = mean(weather->winters.front().outside_C);
    const Simulation* run = m_document.results().simulation();
    if (pile.place == PilePlace::hotBed && run && !run->series.empty()) trial.air_C = mean(run->series.front().air_C);
  }
  const PileCourse course = pileCourse(pile, trial);
  PileTrial slow = trial, quick = trial;
  slow.k20Factor = 1.0 / kRateBand;
  quick.k20Factor = kRateBand;
  const PileCourse low = pileCourse(pile, slow), high = pileCourse(pile, quick);
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->retheme();
  const auto line = [&](const std::vector<double>& celsius, const QColor& colour, const QString& name, double width) {
    QVector<double> x, y;
    for (std::size_t i = 0; i < celsius.size(); ++i) x << course.day[i], y << u.show(Quantity::temperature, celsius[i]);
    QCPGraph* g = m_plot->addGraph();
    g->setPen(width > 0.0 ? QPen(colour, width) : QPen(Qt::NoPen));
    g->setName(name);
    g->setData(x, y, true);
    return g;
  };
  std::vector<double> bottom, top;
  for (std::size_t i = 0; i < course.core_C.size(); ++i) {
    bottom.push_back(std::min({low.core_C[i], high.core_C[i], course.core_C[i]}));
    top.push_back(std::max({low.core_C[i], high.core_C[i], course.core_C[i]}));
  }
  QCPGraph* under = line(bottom, t.weld, tr("yards differ"), 0.0);
  QCPGraph* over = line(top, t.weld, {}, 0.0);
  QColor band = t.weld;
  band.setAlphaF(0.35F);
  over->setBrush(band);
  over->setChannelFillGraph(under);
  over->removeFromLegend();
  under->removeFromLegend();
  line(course.core_C, t.madder, tr("alone in your winter's mean; band: yards differ"), 2.0);
  // what it does in this plan, where it gives its heat to the house
  const auto store = m_choice.of(StoreKind::compost);
  const auto all = storesOf(m_document.plan());
  const auto place = static_cast<std::size_t>(std::find_if(all.begin(), all.end(), [&](const StoreRef& s) { return s.id == store->id; }) - all.begin());
  const Simulation* run = m_document.results().simulation();
  if (run && !run->series.empty() && place < run->series.front().stores.size()) {
    const auto& core = run->series.front().stores[place].temperature_C[0];
    const Winter& winter = m_document.readings().weather()->winters.front();
    const UtcSeconds built = firstBuilt(pile, winter.start, m_document.plan().site.place.latitude_deg);
    QVector<double> x, y;
    for (std::size_t i = 0; i < core.size(); i += 18) {
      const double day = static_cast<double>(winter.time(i) - built) / 86400.0;
      if (!std::isnan(core[i]) && day >= 0.0 && (pile.piles == 1 || day < pile.everyDays))
        x << day, y << u.show(Quantity::temperature, static_cast<double>(core[i]));
    }
    QCPGraph* g = m_plot->addGraph();
    g->setPen(QPen(t.lichen, 2.0, Qt::DashLine));
    g->setName(tr("in this plan, drawn upon"));
    g->setData(x, y, true);
  }
  m_plot->legendAbove();
  m_plot->xAxis->setLabel(tr("days since it was built"));
  m_plot->yAxis->setLabel(u.unit(Quantity::temperature));
  m_plot->rescaleAxes();
  m_plot->xAxis->setRange(0.0, 90.0);
  m_plot->yAxis->scaleRange(1.1);
  // when to see to it
  const auto day = [&](const auto& when) {
    for (std::size_t i = 0; i < course.day.size(); ++i)
      if (when(i)) return course.day[i];
    return -1.0;
  };
  const PileSize size = pileSize(pile, blend);
  const double topUp = day([&](std::size_t i) { return course.settled_m[i] > 0.25 * size.height_m; });
  const double dry = day([&](std::size_t i) { return course.moisture[i] < 0.45; });
  const auto mark = [&](double at, const QString& says, double up) {
    if (at < 0.0) return;
    auto* upright = new QCPItemStraightLine(m_plot);
    upright->point1->setCoords(at, 0.0);
    upright->point2->setCoords(at, 1.0);
    upright->setPen(QPen(t.fleece, 1.2, Qt::DashLine));
    auto* text = new QCPItemText(m_plot);
    text->position->setTypeY(QCPItemPosition::ptAxisRectRatio);
    text->position->setCoords(at, up);
    text->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
    text->setPadding(QMargins(4, 0, 0, 0));
    text->setText(says);
    text->setFont(textFont(8.5));
    text->setColor(t.ink);
  };
  mark(topUp, tr("top up"), 0.03);
  mark(dry, tr("water it"), 0.15);
  m_plot->replot();
  m_series->show(pile, course);

  const auto remark = [&](BlendRemark r) {
    switch (r) {
    case BlendRemark::tooWet: return tr("It is too wet: air cannot pass. Straw or leaves would open it.");
    case BlendRemark::tooDry: return tr("It is too dry to rot well: pour water on.");
    case BlendRemark::tooDense: return tr("There is too little air in it: mix in something coarse.");
    case BlendRemark::littleNitrogen: return tr("Little nitrogen: it lights slowly and lasts.");
    case BlendRemark::muchNitrogen: return tr("Much nitrogen: it lights fast, smells of ammonia and is soon spent.");
    case BlendRemark::littleToBurn: return tr("Little in it rots within a season.");
    case BlendRemark::small: return tr("It is small: frost may keep it from lighting.");
    }
    return QString();
  };
  QStringList words{tr("%1 stand %2 high. Alone it peaks at %3, stays above %4 for %5 days and gives %6.")
                        .arg(u.text(Quantity::mass, blend.wet_kg), u.text(Quantity::length, size.height_m), degrees(u, course.peak_C), degrees(u, kHot_C))
                        .arg(std::lround(course.daysAbove40_d))
                        .arg(heatByMass(u, course.sustained_W_per_t))};
  const auto found = remarks(blend);
  for (std::size_t i = 0; i < std::min<std::size_t>(found.size(), 2); ++i) words << remark(found[i]);
  if (pile.place == PilePlace::hotBed) words << safeToPlant(place);
  m_words->setText(words.join(QLatin1Char(' ')));
  const long every = std::lround(std::floor(course.daysAbove40_d));
  QStringList needs{(pile.piles == 1 ? tr("It takes %1 and %2 of work.") : tr("All %3 take %1 and %2 of work."))
                        .arg(u.text(Quantity::volume, pile.piles * blend.volume_m3), u.text(Quantity::hours, pile.piles * pile.hoursToBuild))};
  if (pile.piles > 1) needs.front() = needs.front().arg(pile.piles);
  if (every > 5) needs << tr("A new one every %1 days keeps one hot.").arg(every);
  m_needs->setText(needs.join(QLatin1Char(' ')));
}

void CompostPage::fit() {
  const auto store = m_choice.of(StoreKind::compost);
  if (!store || !m_document.readings().log() || !m_document.readings().weather()) return;
  m_fit->setEnabled(false);
  const std::size_t pile = store->index;
  m_job.start([plan = m_document.plan(), log = *m_document.readings().log(), weather = m_document.readings().sharedWeather(),
               pile](const auto& progress, const auto* stop) { return fitPile(plan, log, weather, pile, progress, stop); },
              [this](Result<PileFit> found) {
                m_fit->setEnabled(true);
                m_fit->setText(tr("Fit it to its log"));
                if (!found) {
                  emit m_document.trouble(said(found.problem(), m_document.view().units()));
                  return;
                }
                edit(tr("fit the pile to its log"), [&](CompostPile& p) { p.k20Factor = found->k20Factor; });
                emit m_document.told(tr("The pile rots %1 times as fast as its recipe says: its temperature is now %2 off, before it was %3.")
                                         .arg(QLocale().toString(found->k20Factor, 'f', 2),
                                              m_document.view().units().text(Quantity::difference, found->after_K),
                                              m_document.view().units().text(Quantity::difference, found->before_K)));
              },
              [this](std::size_t done, std::size_t of) { m_fit->setText(tr("%1 of %2").arg(done).arg(of)); });
}

void CompostPage::refresh() {
  const auto store = m_choice.of(StoreKind::compost);
  m_fit->hide();
  const QList<QWidget*> parts{m_bench, m_more, m_built, m_scales, m_series, m_plot, m_needs};
  for (QWidget* w : parts) w->setVisible(store.has_value());
  if (!store) {
    m_words->setText(
        tr("A pile of manure, straw and leaves is a heater that ages: weeks of warmth, then less, and then soil. Add compost among your stores, and "
           "mix it here."));
    return;
  }
  const CompostPile& pile = m_document.plan().compost[store->index];
  m_fit->setVisible(m_document.readings().log() && pileChannel(*m_document.readings().log(), store->index));
  {
    const QSignalBlocker quiet(m_built);
    m_built->setDate(dayOf(pile));
  }
  rebuild(pile, store->index);
  const Blend blend = blendOf(pile);
  m_scales->show(blend);
  draw(pile, blend);
}

} // namespace muffle
