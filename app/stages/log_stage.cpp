// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/log_stage.h"

#include <QLabel>
#include <QLocale>

#include <cmath>

namespace muffle {

Knot LogStage::knot(const Document& document) {
  if (!document.readings().log()) return {tr("no readings yet"), 0.0};
  int gaps = 0, other = 0;
  for (const LogProblem& problem : document.readings().problems()) {
    if (problem.kind != "gap")
      ++other;
    else if (problem.to - problem.from < 30 * 86400)
      ++gaps;
  }
  const std::size_t winters = document.readings().weather() ? document.readings().weather()->winters.size() : 0;
  const QStringList parts{tr("%Ln winter(s)", nullptr, static_cast<int>(winters)), tr("%Ln gap(s)", nullptr, static_cast<int>(gaps)),
                          tr("%Ln fault(s)", nullptr, static_cast<int>(other))};
  return {parts.join(QStringLiteral(", ")), 1.0};
}

LogStage::LogStage(const Bench& bench)
    : StagePage(bench.document), m_pages(new PageStrip(bench.document, this)), m_readings(new ReadingsPage(bench.document, this)),
      m_nights(new NightsPage(bench.document, this)), m_measured(new MeasuredPage(bench.document, this)), m_empty(new QLabel(this)) {
  Document& document = bench.document;
  m_empty->setWordWrap(true);
  m_empty->setFont(textFont(9.5));
  m_empty->setText(
      tr("Drop a logger's CSV on the window, or import one: time, outside and inside temperature are enough. The reading is previewed before anything "
         "is kept. A max/min thermometer will do as well: write its readings down by hand."));
  m_body->addWidget(m_empty);
  m_body->addWidget(m_pages, 1);
  m_pages->add(tr("Readings"), m_readings);
  m_pages->add(tr("Nights"), m_nights);
  m_pages->add(tr("The house, measured"), m_measured);
  connect(m_pages, &PageStrip::turned, this, &LogStage::refresh);
  connect(m_readings, &ReadingsPage::importAsked, this, bench.importLog);
  connect(m_readings, &ReadingsPage::followAsked, this, bench.followFile);
  connect(m_readings, &ReadingsPage::byHandAsked, this, bench.writeByHand);
  connect(&document, &Document::logChanged, this, &LogStage::head);
  head();
  refreshOn({&Document::logChanged, &Document::planChanged, &Document::viewChanged, &Document::selectionChanged});
}

namespace {
/// Of loggers that write every few seconds to sheets with a row a day.
QString stepText(double step_s) {
  constexpr double kMinutesFrom_s = 600.0, kHoursFrom_s = 7200.0; // rounded to them; whole ones are said as such below
  if (step_s >= kHoursFrom_s) return LogStage::tr("%1 h").arg(std::lround(step_s / 3600.0));
  if (step_s >= kMinutesFrom_s || std::fmod(step_s, 60.0) == 0.0) return LogStage::tr("%1 min").arg(std::lround(step_s / 60.0));
  return LogStage::tr("%1 s").arg(std::lround(step_s));
}
} // namespace

/// The step is a median over all readings: once a log.
void LogStage::head() {
  const Log* log = m_document.readings().log();
  m_empty->setVisible(!log);
  if (!log) return setHeading(tr("The log"), tr("no readings yet"));
  const QString count = QLocale().toString(static_cast<qlonglong>(log->time.size()));
  const double step_s = m_document.readings().step_s();
  setHeading(tr("The log"), step_s > 0 ? tr("%1 readings, every %2").arg(count, stepText(step_s)) : tr("%1 readings").arg(count));
}

void LogStage::refresh() {
  switch (static_cast<Page>(m_pages->shown())) {
  case Page::readings: return m_readings->refresh();
  case Page::nights: return m_nights->refresh();
  case Page::measured: return m_measured->refresh();
  }
}

} // namespace muffle
