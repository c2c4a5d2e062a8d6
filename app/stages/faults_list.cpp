// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/faults_list.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "core/log/flags.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include <map>

namespace muffle {
namespace {

constexpr int kProblem = Qt::UserRole;         // index into Document::logProblems(); -1 for a kind
constexpr std::int64_t kSummer_s = 30 * 86400; // a gap as long is the time between two winters

QString kindText(const LogProblem& p) {
  static const std::map<std::string, const char*> kFaultNames{{"out of range", QT_TRANSLATE_NOOP("muffle::FaultsList", "no sensor reads this")},
                                                              {"spike", QT_TRANSLATE_NOOP("muffle::FaultsList", "spikes")},
                                                              {"stuck", QT_TRANSLATE_NOOP("muffle::FaultsList", "a sensor that hangs")},
                                                              {"unit", QT_TRANSLATE_NOOP("muffle::FaultsList", "written in °F")},
                                                              {"sun on the sensor", QT_TRANSLATE_NOOP("muffle::FaultsList", "sun on the sensor")},
                                                              {"swapped", QT_TRANSLATE_NOOP("muffle::FaultsList", "two sensors changed over")},
                                                              {"drift", QT_TRANSLATE_NOOP("muffle::FaultsList", "two sensors drift apart")},
                                                              {"clock", QT_TRANSLATE_NOOP("muffle::FaultsList", "the logger's clock")},
                                                              {"placement", QT_TRANSLATE_NOOP("muffle::FaultsList", "where a sensor hangs")},
                                                              {"duplicate", QT_TRANSLATE_NOOP("muffle::FaultsList", "rows given twice")},
                                                              {"set aside", QT_TRANSLATE_NOOP("muffle::FaultsList", "set aside by you")},
                                                              {"gap", QT_TRANSLATE_NOOP("muffle::FaultsList", "no readings")}};
  const auto name = kFaultNames.find(p.kind);
  return name == kFaultNames.end() ? QString::fromStdString(p.kind) : FaultsList::tr(name->second);
}

QString verdictText(Verdict v) {
  switch (v) {
  case Verdict::accepted: return FaultsList::tr("agreed");
  case Verdict::dismissed: return FaultsList::tr("used after all");
  default: return {};
  }
}

/// Can be answered: it is about readings that are there.
bool canBeAnswered(const LogProblem& p) { return p.index >= 0 && p.flag != Flag::byHand; }

/// Else it is a remark, and the readings count anyway.
bool setsReadingsAside(const LogProblem& p) { return p.flag != Flag::none && p.flag != Flag::drift && p.flag != Flag::clock; }

} // namespace

FaultsList::FaultsList(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_tree(new QTreeWidget(this)), m_buttons(new QHBoxLayout), m_leftOut(new QLabel(this)),
      m_agree(new QPushButton(tr("It is so"), this)), m_use(new QPushButton(tr("Use these readings"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(4);
  m_tree->setAccessibleName(tr("What was found in the log"));
  m_tree->setHeaderLabels({tr("found"), tr("sensor"), tr("readings"), tr("you said")});
  m_tree->setUniformRowHeights(true);
  m_tree->setMinimumHeight(70);
  m_tree->setFont(textFont(9));
  m_tree->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  for (const int column : {1, 2, 3}) m_tree->header()->setSectionResizeMode(column, QHeaderView::ResizeToContents);
  m_tree->header()->setStretchLastSection(false);
  body->addWidget(m_tree, 1);
  m_leftOut->setWordWrap(true);
  m_leftOut->setFont(textFont(9));
  body->addWidget(m_leftOut);
  m_agree->setToolTip(tr("what was found is right; of a whole kind if its line is chosen"));
  m_use->setToolTip(tr("what was found is wrong: the readings count as they are; of a whole kind if its line is chosen"));
  m_buttons->addWidget(m_agree);
  m_buttons->addWidget(m_use);
  m_buttons->addStretch();
  body->addLayout(m_buttons);
  connect(m_agree, &QPushButton::clicked, this, [this] { say(Verdict::accepted, tr("agree with what was found")); });
  connect(m_use, &QPushButton::clicked, this, [this] { say(Verdict::dismissed, tr("use readings after all")); });
  connect(m_tree, &QTreeWidget::currentItemChanged, this, [this] {
    choiceChanged();
    if (const auto some = chosen(); !some.empty()) emit pointed(some.front().from, some.front().to);
  });
}

void FaultsList::addButton(QPushButton* button) { m_buttons->addWidget(button); }

void FaultsList::refresh() {
  const QSignalBlocker quiet(m_tree);
  // the same line stays chosen
  const auto* before = m_tree->currentItem();
  const QString keep = before ? before->text(0) : QString();
  std::map<QString, bool> open;
  for (int i = 0; i < m_tree->topLevelItemCount(); ++i)
    open[m_tree->topLevelItem(i)->data(0, Qt::UserRole + 1).toString()] = m_tree->topLevelItem(i)->isExpanded();
  m_tree->clear();
  const auto& problems = m_document.readings().problems();
  const TimeZone zone = m_document.planInHand().zone();
  std::vector<QString> order;
  std::map<QString, QTreeWidgetItem*> kinds;
  std::map<QString, long> readings;
  for (std::size_t i = 0; i < problems.size(); ++i) {
    const LogProblem& p = problems[i];
    if (p.index < 0 && p.flag == Flag::none && p.to - p.from > kSummer_s) continue;
    const QString kind = kindText(p);
    auto& top = kinds[kind];
    if (!top) {
      top = new QTreeWidgetItem(m_tree);
      top->setData(0, kProblem, -1);
      top->setData(0, Qt::UserRole + 1, kind);
      top->setToolTip(0, said(p.why, m_document.view().units()));
      order.push_back(kind);
    }
    readings[kind] += p.count;
    auto* item = new QTreeWidgetItem(top);
    const std::string from = zone.iso(p.from), to = zone.iso(p.to);
    const bool oneDay = from.substr(0, 10) == to.substr(0, 10);
    item->setText(0, QStringLiteral("%1 %2 – %3")
                         .arg(QString::fromStdString(from.substr(0, 10)), QString::fromStdString(from.substr(11, 5)),
                              QString::fromStdString(oneDay ? to.substr(11, 5) : to.substr(0, 10) + " " + to.substr(11, 5))));
    item->setText(1, QString::fromStdString(p.channel));
    item->setText(2, QLocale().toString(static_cast<qlonglong>(p.count)));
    item->setText(3, verdictText(p.verdict));
    item->setToolTip(0, said(p.why, m_document.view().units()));
    item->setTextAlignment(2, Qt::AlignRight | Qt::AlignVCenter);
    item->setData(0, kProblem, static_cast<int>(i));
  }
  for (const QString& kind : order) {
    auto* top = kinds[kind];
    top->setText(0, top->childCount() == 1 ? kind : tr("%1, %Ln time(s)", nullptr, top->childCount()).arg(kind));
    top->setText(2, QLocale().toString(static_cast<qlonglong>(readings[kind])));
    top->setTextAlignment(2, Qt::AlignRight | Qt::AlignVCenter);
    QString said = top->child(0)->text(3);
    for (int c = 1; c < top->childCount(); ++c)
      if (top->child(c)->text(3) != said) said = tr("some");
    top->setText(3, said);
    top->setExpanded(open[kind]);
    for (QTreeWidgetItem* item : {top, top->child(0)})
      if (item->text(0) == keep) m_tree->setCurrentItem(item);
    for (int c = 0; c < top->childCount(); ++c)
      if (top->child(c)->text(0) == keep) m_tree->setCurrentItem(top->child(c));
  }
  m_leftOut->setText(leftOutText());
  choiceChanged();
}

QString FaultsList::leftOutText() const {
  const Log* log = m_document.readings().log();
  if (!log) return {};
  int left = 0, all = 0;
  std::map<QString, int> why;
  for (const Night& n : m_document.readings().nights()) {
    ++all;
    if (n.complete) continue;
    ++left;
    const LogProblem* p = whyLeftOut(n, *log, m_document.readings().problems());
    ++why[p ? kindText(*p) : tr("the log begins or ends")];
  }
  if (left == 0) return tr("All %1 count. Short gaps are bridged, long ones never.").arg(tr("%Ln night(s)", nullptr, static_cast<int>(all)));
  QStringList reasons;
  for (const auto& [reason, n] : why) reasons << tr("%1 for \"%2\"").arg(n).arg(reason);
  return tr("%1 of %2 nights are left out of every judgement: %3.").arg(left).arg(all).arg(reasons.join(QStringLiteral(", ")));
}

std::vector<LogProblem> FaultsList::chosen() const {
  std::vector<LogProblem> some;
  const auto* item = m_tree->currentItem();
  if (!item) return some;
  const auto& problems = m_document.readings().problems();
  const auto take = [&](const QTreeWidgetItem* i) {
    const int index = i->data(0, kProblem).toInt();
    if (index >= 0 && index < static_cast<int>(problems.size())) some.push_back(problems[static_cast<std::size_t>(index)]);
  };
  if (item->childCount() == 0) take(item);
  for (int c = 0; c < item->childCount(); ++c) take(item->child(c));
  return some;
}

void FaultsList::choiceChanged() {
  const auto some = chosen();
  bool answers = !some.empty(), agreed = true, used = true;
  for (const LogProblem& p : some) {
    answers = answers && canBeAnswered(p);
    agreed = agreed && p.verdict == Verdict::accepted;
    used = used && p.verdict == Verdict::dismissed;
  }
  m_agree->setEnabled(answers && !agreed);
  m_use->setEnabled(answers && !used && setsReadingsAside(some.front()));
}

void FaultsList::say(Verdict verdict, const QString& name) {
  std::vector<Decision> decisions;
  for (const LogProblem& p : chosen())
    if (canBeAnswered(p) && p.verdict != verdict) decisions.push_back({verdict, p.flag, p.index, p.from, p.to});
  m_document.readings().decide(name, decisions);
}

} // namespace muffle
