// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/change_page.h"

#include "app/paint/theme.h"
#include "app/stages/measures_editor.h"
#include "core/plan/plan_json.h"
#include "core/sizing/usual_measures.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QElapsedTimer>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

enum class Order { nights, money, heat };

std::string textOf(const Plan& plan) { return planToJson(plan).dump(); }

QString signedText(double value, const QString& text) {
  return (value > 0.0 ? QStringLiteral("+") : value < 0.0 ? QStringLiteral("\u2212") : QString()) + text;
}

} // namespace

ChangePage::ChangePage(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_order(new QComboBox(this)), m_state(new QLabel(this)), m_note(new QLabel(this)), m_rows(new QGridLayout) {
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
  m_rows->setHorizontalSpacing(8);
  m_rows->setVerticalSpacing(3);
  m_rows->setColumnStretch(0, 1);
  body->addLayout(m_rows);
  body->addStretch(1);
  m_note->setFont(textFont(8.5));
  m_note->setWordWrap(true);
  m_note->setText(
      tr("Prices and hours are those of your measures in Cost where you have them, else usual ones: change them there. A change built in is one step to undo. "
         "Heaters and wiring in a wet house: residual-current protection and a licensed electrician."));
  body->addWidget(m_note);
  connect(m_order, &QComboBox::activated, this, [this] { rebuild(); });
}

bool ChangePage::isCurrent() const { return m_list && m_weather == m_document.sharedWeather() && m_askedText == textOf(m_document.plan()); }

void ChangePage::refresh() {
  if (!m_document.weather()) {
    m_state->setText(tr("Import a log of nights, and what each change would buy over them is listed here."));
    return;
  }
  if (isCurrent()) {
    rebuild();
    return;
  }
  if (isVisible() && m_document.isCurrent()) start();
}

void ChangePage::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void ChangePage::start() {
  const std::string text = textOf(m_document.plan());
  if (m_job.isWorking() && text == m_askedText && m_weather == m_document.sharedWeather()) return;
  m_weather = m_document.sharedWeather();
  m_askedText = text;
  m_asked = m_document.plan();
  m_asked.measures = changesToTry(m_asked);
  m_state->setText(tr("Trying each change over all logged nights."));
  m_job.start(
      [plan = m_asked, weather = m_weather](const auto& progress) {
        return oneChangeEach(plan, weather, {0, progress});
      },
      [this](Result<Sizing> list) { show(std::move(list)); },
      [this](std::size_t done, std::size_t of) { m_state->setText(tr("Trying each change over all logged nights: %1 of %2.").arg(done).arg(of)); });
}

void ChangePage::show(Result<Sizing> list) {
  if (!list) {
    m_state->setText(QString::fromStdString(list.problem().text()));
    return;
  }
  m_list = std::make_shared<Sizing>(std::move(*list));
  if (isCurrent())
    rebuild();
  else
    refresh();
}

void ChangePage::build(std::size_t package) {
  if (!isCurrent()) return;
  const SizedPackage& chosen = m_list->packages[package];
  Plan after = buildPackage(m_asked, chosen.choice).plan;
  after.measures = m_document.plan().measures;
  if (auto why = m_document.edit(nameOf(chosen), [&](Plan& p) { p = after; })) emit m_document.trouble(*why);
}

QString ChangePage::nameOf(const SizedPackage& package) const {
  const auto chosen = std::find_if(package.choice.begin(), package.choice.end(), [](int c) { return c >= 0; });
  if (chosen == package.choice.end()) return QString::fromStdString(package.label);
  const Measure& m = m_asked.measures[static_cast<std::size_t>(chosen - package.choice.begin())];
  const QString name = QString::fromStdString(m.name);
  if (m.levels.empty()) return name;
  const QString size = m_document.units().text(levelQuantity(m.kind), m.levels[static_cast<std::size_t>(*chosen)]);
  if (m.kind == MeasureKind::barrels) return size + QLatin1Char(' ') + name;
  return name + (m.kind == MeasureKind::sealing ? tr(" to ") : m.kind == MeasureKind::hardier ? QStringLiteral(", ") : QStringLiteral(" ")) + size;
}

void ChangePage::rebuild() {
  while (QLayoutItem* item = m_rows->takeAt(0)) {
    item->widget()->hide();
    item->widget()->deleteLater();
    delete item;
  }
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
  const Units& u = m_document.units();
  const auto cell = [&](int row, int column, const QString& text, bool bold = false, bool right = true) {
    auto* l = new QLabel(text, this);
    l->setFont(textFont(row == 0 ? 8.5 : 9.5, bold));
    if (right) l->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    m_rows->addWidget(l, row, column);
    return l;
  };
  const QString headings[] = {tr("one change"), tr("nights"), u.unit(Quantity::energy), tr("%1 a winter").arg(QString::fromStdString(m_asked.prices.currency)),
                              tr("hours")};
  for (int c = 0; c < 5; ++c) cell(0, c, headings[c], false, c > 0);
  int row = 1;
  for (const std::size_t i : order) {
    const SizedPackage& p = at(i);
    const int nights = p.held - now.held;
    const double heat = p.heater_kWh - now.heater_kWh;
    const double money = p.cost.total() - now.cost.total();
    const double hours = p.cost.hours - now.cost.hours;
    auto* name = cell(row, 0, nameOf(p), false, false);
    name->setMinimumWidth(120);
    name->setWordWrap(true);
    name->setToolTip(tr("%1: %2 of %3 nights held, coldest %4, %5 a winter")
                         .arg(nameOf(p))
                         .arg(p.held)
                         .arg(p.nights)
                         .arg(u.text(Quantity::temperature, p.coldest_C), u.text(Quantity::energy, p.heater_kWh)));
    cell(row, 1, nights == 0 ? tr("as now") : signedText(nights, QString::number(std::abs(nights))), nights > 0);
    cell(row, 2, signedText(std::round(heat), u.number(Quantity::energy, std::abs(heat))));
    cell(row, 3, signedText(std::round(money), u.number(Quantity::money, std::abs(money))), money < -0.5);
    cell(row, 4, signedText(std::round(hours), u.number(Quantity::hours, std::round(std::abs(hours)))));
    auto* button = new QPushButton(tr("Do it"), this);
    button->setFont(textFont(9));
    button->setAccessibleName(tr("Build in: %1").arg(nameOf(p)));
    connect(button, &QPushButton::clicked, this, [this, i] { build(i); });
    m_rows->addWidget(button, row, 5);
    ++row;
  }
  m_state->setText(tr("Holds %1 of %2 nights as it stands. Each line changes one thing.").arg(now.held).arg(now.nights));
}

bool ChangePage::waitForList(int timeout_ms) {
  QElapsedTimer timer;
  timer.start();
  while (!isCurrent() && timer.elapsed() < timeout_ms) QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
  return isCurrent();
}

} // namespace muffle
