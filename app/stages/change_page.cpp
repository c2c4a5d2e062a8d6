// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/change_page.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "app/stages/caution_label.h"
#include "app/stages/measures_editor.h"
#include "core/plan/plan_json.h"
#include "core/sizing/usual_measures.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

enum class Order { nights, money, heat };
constexpr int kPackage = Qt::UserRole; // index into the list

QString signedText(double value, const QString& text) {
  return (value > 0.0 ? QStringLiteral("+") : value < 0.0 ? QStringLiteral("\u2212") : QString()) + text;
}

} // namespace

ChangePage::ChangePage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_order(new QComboBox(this)), m_state(new QLabel(this)), m_note(new QLabel(this)),
      m_caution(new CautionLabel(this)), m_tree(new QTreeWidget(this)), m_build(new QPushButton(tr("Build it in"), this)) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(8);
  auto* head = new QHBoxLayout;
  m_state->setFont(textFont(10));
  m_state->setWordWrap(true);
  head->addWidget(m_state, 1);
  m_order->addItems({tr("by nights held"), tr("by money"), tr("by heat saved")});
  m_order->setFont(textFont(9.5));
  m_order->setAccessibleName(tr("Order of the list"));
  head->addWidget(m_order);
  body->addLayout(head);
  m_tree->setAccessibleName(tr("What each change would buy"));
  m_tree->setRootIsDecorated(false);
  m_tree->setUniformRowHeights(true);
  m_tree->setFont(textFont(9.5));
  m_tree->setColumnCount(5);
  m_tree->header()->setStretchLastSection(false);
  m_tree->header()->setSectionResizeMode(0, QHeaderView::Stretch);
  for (int column = 1; column < 5; ++column) m_tree->header()->setSectionResizeMode(column, QHeaderView::ResizeToContents);
  body->addWidget(m_tree, 1);
  auto* foot = new QHBoxLayout;
  foot->addWidget(m_build);
  foot->addStretch();
  body->addLayout(foot);
  m_build->setEnabled(false);
  m_build->setToolTip(tr("the chosen line becomes part of the plan: one step to undo"));
  connect(m_build, &QPushButton::clicked, this, &ChangePage::build);
  connect(m_tree, &QTreeWidget::itemActivated, this, &ChangePage::build);
  connect(m_tree, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
    m_build->setEnabled(item != nullptr);
    m_caution->state(item && m_list ? cautionsFor(m_document.plan(), measuresOf(m_list->packages[item->data(0, kPackage).toULongLong()]))
                                    : std::vector<Caution>());
  });
  m_note->setFont(textFont(8.5));
  m_note->setWordWrap(true);
  m_note->setText(tr(
      "Prices and hours are those of your measures in Cost where you have them, else usual ones: change them there. A change built in is one step to undo."));
  body->addWidget(m_note);
  body->addWidget(m_caution);
  connect(m_order, &QComboBox::activated, this, [this] { rebuild(); });
}

bool ChangePage::isCurrent() const { return m_list && m_weather == m_document.readings().sharedWeather() && m_askedOf == m_document.plan(); }

void ChangePage::refresh() {
  if (!m_document.readings().weather()) {
    m_state->setText(tr("Import a log of nights, and what each change would buy over them is listed here."));
    return;
  }
  if (isCurrent()) {
    rebuild();
    return;
  }
  if (isVisible() && m_document.results().isCurrent()) start();
}

void ChangePage::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void ChangePage::start() {
  if (m_job.isWorking() && m_askedOf == m_document.plan() && m_weather == m_document.readings().sharedWeather()) return;
  m_weather = m_document.readings().sharedWeather();
  m_askedOf = m_document.plan();
  m_asked = m_document.plan();
  m_asked.measures = changesToTry(m_asked);
  m_state->setText(tr("Trying each change over all logged nights."));
  m_job.start([plan = m_asked, weather = m_weather](const auto& progress, const auto* stop) { return oneChangeEach(plan, weather, countedBy(progress, stop)); },
              [this](Result<Sizing> list) { show(std::move(list)); },
              [this](std::size_t done, std::size_t of) { m_state->setText(tr("Trying each change over all logged nights: %1 of %2.").arg(done).arg(of)); });
}

void ChangePage::show(Result<Sizing> list) {
  if (!list) {
    m_state->setText(said(list.problem(), m_document.view().units()));
    return;
  }
  m_list = std::make_shared<Sizing>(std::move(*list));
  if (isCurrent())
    rebuild();
  else
    refresh();
}

void ChangePage::build() {
  const QTreeWidgetItem* item = m_tree->currentItem();
  if (!item || !isCurrent()) return;
  const SizedPackage& chosen = m_list->packages[item->data(0, kPackage).toULongLong()];
  Plan after = buildPackage(m_asked, chosen.choice).plan;
  after.measures = m_document.plan().measures;
  if (auto why = m_document.edit(nameOf(chosen), [&](Plan& p) { p = after; })) emit m_document.trouble(*why);
}

std::vector<Measure> ChangePage::measuresOf(const SizedPackage& package) const {
  std::vector<Measure> chosen;
  for (std::size_t i = 0; i < package.choice.size() && i < m_asked.measures.size(); ++i)
    if (package.choice[i] >= 0) chosen.push_back(m_asked.measures[i]);
  return chosen;
}

QString ChangePage::nameOf(const SizedPackage& package) const { return said(package.label, m_document.view().units()); }

void ChangePage::rebuild() {
  m_tree->clear();
  if (!m_list) return;
  const SizedPackage& now = m_list->packages.front();
  std::vector<std::size_t> order;
  for (std::size_t i = 1; i < m_list->packages.size(); ++i) order.push_back(i);
  const auto by = static_cast<Order>(m_order->currentIndex());
  const auto at = [&](std::size_t i) -> const SizedPackage& { return m_list->packages[i]; };
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    if (by == Order::nights && at(a).held != at(b).held) return at(a).held > at(b).held;
    if (by == Order::heat && at(a).heater_kWh != at(b).heater_kWh) return at(a).heater_kWh < at(b).heater_kWh;
    return at(a).cost.total() < at(b).cost.total();
  });
  const Units& u = m_document.view().units();
  m_tree->setHeaderLabels(
      {tr("one change"), tr("nights"), u.unit(Quantity::energy), tr("%1 a winter").arg(QString::fromStdString(m_asked.prices.currency)), tr("hours")});
  for (int column = 1; column < 5; ++column) m_tree->headerItem()->setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
  QList<QTreeWidgetItem*> items;
  for (const std::size_t i : order) {
    const SizedPackage& p = at(i);
    const int nights = p.held - now.held;
    const double heat = p.heater_kWh - now.heater_kWh;
    const double money = p.cost.total() - now.cost.total();
    const double hours = p.cost.hours - now.cost.hours;
    auto* item = new QTreeWidgetItem({nameOf(p), nights == 0 ? tr("as now") : signedText(nights, QString::number(std::abs(nights))),
                                      signedText(std::round(heat), u.number(Quantity::energy, std::abs(heat))),
                                      signedText(std::round(money), u.number(Quantity::money, std::abs(money))),
                                      signedText(std::round(hours), u.number(Quantity::hours, std::round(std::abs(hours))))});
    item->setData(0, kPackage, static_cast<qulonglong>(i));
    item->setToolTip(0, tr("%1: %2 of %3 nights held, coldest %4, %5 a winter")
                            .arg(nameOf(p))
                            .arg(p.held)
                            .arg(p.nights)
                            .arg(u.text(Quantity::temperature, p.coldest_C), u.text(Quantity::energy, p.heater_kWh)));
    for (int column = 1; column < 5; ++column) item->setTextAlignment(column, Qt::AlignRight | Qt::AlignVCenter);
    QFont strong = textFont(9.5);
    strong.setBold(true);
    if (nights > 0) item->setFont(1, strong);
    if (money < -0.5) item->setFont(3, strong);
    items << item;
  }
  m_tree->addTopLevelItems(items);
  m_state->setText(tr("Holds %1 of %2 nights as it stands. Each line changes one thing.").arg(now.held).arg(now.nights));
}

} // namespace muffle
