// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/stores_stage.h"

#include "app/stages/number_field.h"
#include "app/stages/plot.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>

#include <cmath>

namespace muffle {

StoresStage::StoresStage(Document& document, QWidget* parent)
    : StagePage(document, parent), m_winter(new Plot(document, this)), m_fields(new QWidget(this)), m_colour(new QComboBox(this)),
      m_add(new QPushButton(tr("Add barrels"), this)), m_remove(new QPushButton(tr("Take them out"), this)), m_words(new QLabel(this)),
      m_caution(new QLabel(this)) {
  m_winter->setAccessibleName(tr("Barrel and air temperature"));
  m_words->setWordWrap(true);
  m_words->setFont(textFont(9.5));
  m_body->addWidget(m_words);
  m_body->addWidget(m_winter, 1);
  auto* grid = new QGridLayout(m_fields);
  grid->setContentsMargins(0, 0, 0, 0);
  grid->setHorizontalSpacing(22);
  const auto first = [](const Plan& p) -> const Barrels& {
    static const Barrels none{};
    return p.barrels.empty() ? none : p.barrels.front();
  };
  const auto set = [](auto change) {
    return [change](Plan& p, double v) {
      if (!p.barrels.empty()) change(p.barrels.front(), v);
    };
  };
  grid->addWidget(
      new NumberField(document,
                      {tr("Barrels"), Quantity::count, [first](const Plan& p) { return static_cast<double>(first(p).count); },
                       set([](Barrels& b, double v) { b.count = static_cast<int>(std::lround(v)); }), 1, 2000, 1, tr("how many stand in the house")},
                      this),
      0, 0);
  grid->addWidget(new NumberField(document,
                                  {tr("Water in one"), Quantity::water, [first](const Plan& p) { return first(p).litres; },
                                   set([](Barrels& b, double v) { b.litres = v; }), 1, 20000, 10, tr("filled, leaving room for ice")},
                                  this),
                  0, 1);
  grid->addWidget(
      new NumberField(document,
                      {tr("Sunlit share"), Quantity::share, [first](const Plan& p) { return first(p).sunShare; },
                       set([](Barrels& b, double v) { b.sunShare = v; }), 0, 1, 0.05, tr("of the silhouette that the sun reaches past crop and benches")},
                      this),
      1, 0);
  m_colour->addItems({tr("black"), tr("blue"), tr("white"), tr("bare steel")});
  m_colour->setAccessibleName(tr("Barrel colour"));
  grid->addWidget(m_colour, 1, 1);
  m_body->addWidget(m_fields);
  auto* row = new QHBoxLayout;
  row->addWidget(m_add);
  row->addWidget(m_remove);
  row->addStretch();
  m_body->addLayout(row);
  m_caution->setFont(textFont(8.5));
  m_caution->setWordWrap(true);
  m_body->addWidget(m_caution);
  m_winter->xAxis->setTicker(QSharedPointer<QCPAxisTicker>(new QCPAxisTickerDateTime));
  static_cast<QCPAxisTickerDateTime*>(m_winter->xAxis->ticker().data())->setDateTimeFormat(QStringLiteral("d MMM\nhh:mm"));
  static_cast<QCPAxisTickerDateTime*>(m_winter->xAxis->ticker().data())->setDateTimeSpec(Qt::UTC);

  connect(m_colour, &QComboBox::activated, this, [this](int i) {
    m_document.edit(tr("change the barrels' colour"), [&](Plan& p) {
      if (!p.barrels.empty()) p.barrels.front().colour = static_cast<BarrelColour>(i);
    });
  });
  connect(m_add, &QPushButton::clicked, this, [this] {
    if (auto why = m_document.edit(tr("add barrels"), [](Plan& p) {
          Barrels b;
          b.x_m = 0.34 * p.house.shape.width_m;
          p.barrels.push_back(b);
        }))
      emit m_document.trouble(*why);
  });
  connect(m_remove, &QPushButton::clicked, this, [this] { m_document.edit(tr("take the barrels out"), [](Plan& p) { p.barrels.clear(); }); });
  refreshOn({&Document::planChanged, &Document::resultChanged, &Document::winterChanged, &Document::selectionChanged, &Document::viewChanged});
}

void StoresStage::refresh() {
  const bool any = !m_document.plan().barrels.empty();
  const Units& u = m_document.units();
  const Theme& t = theme();
  m_caution->setText(tr("Keep barrels off paths and electrics; full ones are too heavy to shift, and they freeze and burst below %1.")
                         .arg(u.text(Quantity::temperature, 0.0)));
  m_fields->setVisible(any);
  m_remove->setVisible(any);
  m_add->setVisible(!any);
  double litres = 0.0;
  for (const Barrels& b : m_document.plan().barrels) litres += b.count * b.litres;
  setHeading(tr("Water barrels"), any ? tr("%1 of water").arg(u.text(Quantity::water, litres)) : tr("none yet"));
  if (any) m_colour->setCurrentIndex(static_cast<int>(m_document.plan().barrels.front().colour));
  const Simulation* run = m_document.result();
  m_winter->setVisible(any && run);
  if (!any) {
    m_words->setText(tr("Dark water takes up the day's sun and gives it back through the night. Add some and see which nights they hold."));
    return;
  }
  if (!run || m_document.selectedNight() < 0 || run->series.empty() || run->series.front().barrels_C.empty()) {
    m_words->setText(tr("Import a log to see how warm they stay."));
    return;
  }
  const NightResult& n = run->nights[static_cast<std::size_t>(m_document.selectedNight())];
  const WinterSeries& s = run->series[n.winter];
  const Winter& w = m_document.weather()->winters[n.winter];
  const double fall = static_cast<double>(s.barrels_C[0][n.from] - s.barrels_C[0][n.to]);
  const double given_kWh = fall * litres * kWaterHeat_J_kgK / 3.6e6;
  double lowest = 1e9;
  for (const auto& series : run->series)
    for (const float c : series.barrels_C[0]) lowest = std::min(lowest, static_cast<double>(c));
  m_words->setText(tr("This night they %1 %2 and their water %3. Coldest in all the nights: %4%5")
                       .arg(given_kWh >= 0 ? tr("gave") : tr("took"), QStringLiteral("%1 kWh").arg(QLocale().toString(std::abs(given_kWh), 'f', 1)),
                            fall >= 0 ? tr("fell %1").arg(u.text(Quantity::difference, fall)) : tr("rose %1").arg(u.text(Quantity::difference, -fall)),
                            u.text(Quantity::temperature, lowest),
                            lowest < 0.0 ? tr(". They froze in part: the ice gave its heat, but full barrels burst.") : QStringLiteral(".")));
  m_winter->clearPlottables();
  m_winter->clearItems();
  m_winter->retheme();
  const double offset = m_document.zone().offset_s(w.time(n.from));
  const auto line = [&](const std::vector<float>& v, const QColor& colour, const QString& name, Qt::PenStyle style) {
    QVector<double> x, y;
    for (std::size_t i = 0; i < v.size(); ++i)
      x.push_back(static_cast<double>(w.time(i)) + offset), y.push_back(u.show(Quantity::temperature, static_cast<double>(v[i])));
    QCPGraph* g = m_winter->line(colour, 2);
    g->setPen(QPen(colour, 2, style));
    g->setName(name);
    g->setData(x, y, true);
  };
  line(s.barrels_C[0], t.lichen, tr("barrels"), Qt::SolidLine);
  line(s.air_C, t.madder, tr("house air"), Qt::SolidLine);
  std::vector<float> outside(w.outside_C.begin(), w.outside_C.end());
  line(outside, t.woad, tr("outside"), Qt::DashLine);
  m_winter->legend->setVisible(true);
  m_winter->legend->setBrush(t.wool);
  m_winter->legend->setBorderPen(Qt::NoPen);
  m_winter->legend->setTextColor(t.ink);
  m_winter->legend->setFont(textFont(8.5));
  m_winter->legend->setFillOrder(QCPLegend::foColumnsFirst);
  m_winter->axisRect()->insetLayout()->setInsetAlignment(0, Qt::AlignTop | Qt::AlignLeft);
  m_winter->yAxis->setLabel(u.unit(Quantity::temperature));
  const double centre = static_cast<double>(w.time((n.from + n.to) / 2)) + offset;
  m_winter->xAxis->setRange(centre - 3 * 86400.0, centre + 3 * 86400.0);
  bool found = false;
  QCPRange all;
  for (int i = 0; i < m_winter->graphCount(); ++i) {
    bool has = false;
    const QCPRange r = m_winter->graph(i)->getValueRange(has, QCP::sdBoth, m_winter->xAxis->range());
    if (has) all = found ? QCPRange(std::min(all.lower, r.lower), std::max(all.upper, r.upper)) : r, found = true;
  }
  if (found) m_winter->yAxis->setRange(all.lower - 0.06 * all.size(), all.upper + 0.25 * all.size());
  m_winter->replot();
}

} // namespace muffle
