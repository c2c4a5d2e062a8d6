// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/earlier_states.h"
#include "app/model/said.h"

#include "app/model/units.h"
#include "app/paint/theme.h"
#include "core/plan/names.h"
#include "core/plan/plan_json.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QLocale>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <map>

namespace muffle {
namespace {

/// Fields that differ, at any depth.
int differing(const Json& a, const Json& b) {
  if (a == b) return 0;
  if (a.is_object() && b.is_object()) {
    int n = 0;
    for (const auto& [key, value] : a.items()) n += b.contains(key) ? differing(value, b.at(key)) : 1;
    for (const auto& [key, value] : b.items()) n += a.contains(key) ? 0 : 1;
    return n;
  }
  if (a.is_array() && b.is_array() && a.size() == b.size()) {
    int n = 0;
    for (std::size_t i = 0; i < a.size(); ++i) n += differing(a[i], b[i]);
    return n;
  }
  return 1;
}

QString partOfPlan(const std::string& key, const std::string& ofHouse) {
  static const std::map<std::string, const char*> house{
      {"shape", QT_TRANSLATE_NOOP("muffle::EarlierStates", "shape")},          {"roof", QT_TRANSLATE_NOOP("muffle::EarlierStates", "covers")},
      {"sides", QT_TRANSLATE_NOOP("muffle::EarlierStates", "covers")},         {"ends", QT_TRANSLATE_NOOP("muffle::EarlierStates", "covers")},
      {"floor", QT_TRANSLATE_NOOP("muffle::EarlierStates", "floor")},          {"bay", QT_TRANSLATE_NOOP("muffle::EarlierStates", "rooms")},
      {"lobby", QT_TRANSLATE_NOOP("muffle::EarlierStates", "rooms")},          {"roof_void", QT_TRANSLATE_NOOP("muffle::EarlierStates", "rooms")},
      {"bed_covers", QT_TRANSLATE_NOOP("muffle::EarlierStates", "bed covers")}};
  static const std::map<std::string, const char*> plan{{"name", QT_TRANSLATE_NOOP("muffle::EarlierStates", "name")},
                                                       {"site", QT_TRANSLATE_NOOP("muffle::EarlierStates", "place")},
                                                       {"setpoints", QT_TRANSLATE_NOOP("muffle::EarlierStates", "setpoints")},
                                                       {"heaters", QT_TRANSLATE_NOOP("muffle::EarlierStates", "heaters")},
                                                       {"measures", QT_TRANSLATE_NOOP("muffle::EarlierStates", "measures")},
                                                       {"prices", QT_TRANSLATE_NOOP("muffle::EarlierStates", "prices")},
                                                       {"calibration", QT_TRANSLATE_NOOP("muffle::EarlierStates", "calibration")},
                                                       {"ask", QT_TRANSLATE_NOOP("muffle::EarlierStates", "what is asked")}};
  const auto named = [](const auto& table, const std::string& k, const char* other) {
    const auto found = table.find(k);
    return QCoreApplication::translate("muffle::EarlierStates", found == table.end() ? other : found->second);
  };
  if (key == "house") return named(house, ofHouse, QT_TRANSLATE_NOOP("muffle::EarlierStates", "draughts and vents"));
  return named(plan, key, QT_TRANSLATE_NOOP("muffle::EarlierStates", "stores"));
}

} // namespace

QString differenceBetween(const Plan& a, const Plan& b) {
  const Json x = planToJson(a), y = planToJson(b);
  QStringList order;
  std::map<QString, int> counted;
  const auto note = [&](const QString& part, int n) {
    if (n == 0) return;
    if (counted[part] == 0) order << part;
    counted[part] += n;
  };
  const auto walk = [&](const Json& from, const Json& to, auto partOf) {
    for (const auto& [key, value] : from.items()) note(partOf(key), to.contains(key) ? differing(value, to.at(key)) : 1);
    for (const auto& [key, value] : to.items())
      if (!from.contains(key)) note(partOf(key), 1);
  };
  Json outerX = x, outerY = y;
  outerX.erase("house");
  outerY.erase("house");
  walk(outerX, outerY, [](const std::string& key) { return partOfPlan(key, {}); });
  walk(x.at("house"), y.at("house"), [](const std::string& key) { return partOfPlan("house", key); });
  QStringList parts;
  for (const QString& part : order)
    parts << (counted[part] == 1 ? part : QCoreApplication::translate("muffle::EarlierStates", "%1 (%Ln field(s))", nullptr, counted[part]).arg(part));
  return parts.join(QStringLiteral(", "));
}

EarlierStatesDialog::EarlierStatesDialog(Document& document, QWidget* parent)
    : QDialog(parent), m_document(document), m_states(document.book().earlierStates()), m_list(new QTreeWidget(this)), m_words(new QLabel(this)) {
  setWindowTitle(tr("Earlier states of this book"));
  resize(760, 460);
  auto* body = new QVBoxLayout(this);
  auto* what = new QLabel(tr("The last ten states are kept, then one of each day for two weeks and one of each month for a year, and the snapshots you asked "
                             "for. Bringing one back is a step that can be undone."),
                          this);
  what->setWordWrap(true);
  what->setFont(textFont(9.5));
  body->addWidget(what);
  m_list->setHeaderLabels({tr("When"), tr("State"), tr("Plan"), tr("Log")});
  m_list->setRootIsDecorated(false);
  m_list->setAccessibleName(tr("Earlier states, newest first"));
  const QLocale locale(QLocale::English);
  for (const Snapshot& s : m_states) {
    const auto json = parseJson(s.planJson);
    const std::string name = json ? json->value("name", "") : "";
    const QString plan = !json ? tr("damaged") : name.empty() ? said(nameOf(Plan{})) : QString::fromStdString(name);
    QString log = tr("none");
    if (s.logRows > 0) log = tr("%1, %2").arg(QString::fromStdString(s.logName), tr("%Ln row(s)", nullptr, static_cast<int>(s.logRows)));
    if (s.logRows > 0 && s.log == 0) log = tr("%1 (no longer kept)").arg(QString::fromStdString(s.logName));
    auto* item = new QTreeWidgetItem(
        m_list, {locale.toString(QDateTime::fromSecsSinceEpoch(s.at), QStringLiteral("d MMM yyyy  hh:mm")), QString::fromStdString(s.name), plan, log});
    if (s.byHand) item->setFont(1, textFont(10, true));
  }
  for (int column = 0; column < 4; ++column) m_list->resizeColumnToContents(column);
  m_list->setColumnWidth(1, std::min(m_list->columnWidth(1), 260));
  body->addWidget(m_list, 1);
  m_words->setWordWrap(true);
  m_words->setTextFormat(Qt::PlainText);
  m_words->setMinimumHeight(36);
  body->addWidget(m_words);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  m_back = buttons->addButton(tr("Bring it back"), QDialogButtonBox::ActionRole);
  m_compare = buttons->addButton(tr("Compare with the plan in hand"), QDialogButtonBox::ActionRole);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(m_back, &QPushButton::clicked, this, &EarlierStatesDialog::bringBack);
  connect(m_compare, &QPushButton::clicked, this, &EarlierStatesDialog::compare);
  connect(m_list, &QTreeWidget::currentItemChanged, this, &EarlierStatesDialog::showChosen);
  connect(m_list, &QTreeWidget::itemDoubleClicked, this, &EarlierStatesDialog::bringBack);
  body->addWidget(buttons);
  if (!m_states.empty()) m_list->setCurrentItem(m_list->topLevelItem(0));
  showChosen();
}

const Snapshot* EarlierStatesDialog::chosen() const {
  const int row = m_list->indexOfTopLevelItem(m_list->currentItem());
  return row < 0 || row >= static_cast<int>(m_states.size()) ? nullptr : &m_states[static_cast<std::size_t>(row)];
}

void EarlierStatesDialog::showChosen() {
  const Snapshot* s = chosen();
  m_back->setEnabled(s && !m_document.book().isFollowingWindow());
  m_compare->setEnabled(s != nullptr);
  if (!s) {
    m_words->setText(tr("None is kept yet. A state is kept when a book is opened, before a log is imported or another plan is taken, and while you work."));
    return;
  }
  const auto json = parseJson(s->planJson);
  const auto plan = json ? planFromJson(*json) : Result<Plan>(json.problems());
  if (!plan) {
    m_words->setText(said(plan.problem(), m_document.view().units()));
    m_back->setEnabled(false);
    m_compare->setEnabled(false);
    return;
  }
  const QString differs = differenceBetween(m_document.plan(), *plan);
  QStringList words{differs.isEmpty() ? tr("The plan is the same as the one in hand.") : tr("The plan differs from the one in hand in: %1.").arg(differs)};
  const auto rowsNow = m_document.readings().log() ? static_cast<qint64>(m_document.readings().log()->time.size()) : 0;
  if (s->logRows > 0 && s->log == 0)
    words << tr("Its log is no longer kept: the log in hand stays.");
  else if (s->logRows == 0 && rowsNow > 0)
    words << tr("There was no log yet: the one in hand goes.");
  else if (s->logRows != rowsNow)
    words << tr("Its log has %1, the one in hand %2.").arg(tr("%Ln row(s)", nullptr, static_cast<int>(s->logRows)), tr("%Ln row(s)", nullptr, static_cast<int>(rowsNow)));
  m_words->setText(words.join(QLatin1Char(' ')));
}

void EarlierStatesDialog::bringBack() {
  const Snapshot* s = chosen();
  if (!s) return;
  if (const auto why = m_document.bringBack(*s)) {
    m_words->setText(*why);
    return;
  }
  accept();
}

void EarlierStatesDialog::compare() {
  const Snapshot* s = chosen();
  if (!s) return;
  const auto json = parseJson(s->planJson);
  const auto plan = json ? planFromJson(*json) : Result<Plan>(json.problems());
  if (!plan) return;
  m_document.compareWith(*plan, QString::fromStdString(s->name));
  accept();
}

} // namespace muffle
