// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/controller_card.h"

#include "app/paint/theme.h"
#include "core/control/held_setpoint.h"

#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>

#include <cmath>

namespace muffle {
namespace {

constexpr double kAlike_K = 0.05;    // controllers round
constexpr double kUsualRise_K = 8.0; // from a night's low to its day's high, where nobody says

QString calledBy(const std::string& what) {
  return what == "night"   ? ControllerCard::tr("night")
         : what == "day"   ? ControllerCard::tr("day")
         : what == "vents" ? ControllerCard::tr("vents open")
                           : QString::fromStdString(what);
}

} // namespace

ControllerCard::ControllerCard(Document& document, QWidget* parent)
    : QWidget(parent), m_document(document), m_address(new QLineEdit(this)), m_low(new QLineEdit(this)), m_high(new QLineEdit(this)),
      m_join(new QPushButton(this)), m_send(new QPushButton(tr("Send"), this)), m_words(new QLabel(this)) {
  auto* grid = new QGridLayout(this);
  grid->setContentsMargins(0, 6, 0, 0);
  grid->setHorizontalSpacing(8);
  grid->setVerticalSpacing(4);
  m_address->setPlaceholderText(tr("controller (MQTT): HOST[:PORT]/TOPIC"));
  m_address->setAccessibleName(tr("Address of the controller"));
  m_address->setToolTip(tr("setpoints are sent below TOPIC/set, what it has taken is heard below TOPIC/state"));
  m_low->setPlaceholderText(tr("forecast low"));
  m_low->setAccessibleName(tr("Forecast low"));
  m_high->setPlaceholderText(tr("forecast high"));
  m_high->setAccessibleName(tr("Forecast high"));
  m_send->setToolTip(tr("night and day setpoint and where vents open, as this plan has them"));
  for (QWidget* w : std::initializer_list<QWidget*>{m_address, m_low, m_high, m_join, m_send, m_words}) w->setFont(textFont(9));
  m_words->setWordWrap(true);
  grid->addWidget(m_address, 0, 0, 1, 2);
  grid->addWidget(m_join, 0, 2);
  grid->addWidget(m_low, 1, 0);
  grid->addWidget(m_high, 1, 1);
  grid->addWidget(m_send, 1, 2);
  grid->addWidget(m_words, 2, 0, 1, 3);
  connect(m_join, &QPushButton::clicked, this, [this] { join(m_document.controller().address().isEmpty() ? m_address->text().trimmed() : QString()); });
  connect(m_address, &QLineEdit::returnPressed, this, [this] { join(m_address->text().trimmed()); });
  connect(m_send, &QPushButton::clicked, this, [this] {
    if (!m_document.controller().send(setpoints_C())) emit m_document.trouble(tr("Nothing was sent: the controller does not answer."));
  });
  for (QLineEdit* forecast : {m_low, m_high}) connect(forecast, &QLineEdit::textChanged, this, &ControllerCard::refresh);
  connect(&document.controller(), &ControllerLink::changed, this, &ControllerCard::refresh);
  m_address->setText(document.controllerAddress());
  refresh();
}

QString ControllerCard::words() const { return m_words->text(); }

void ControllerCard::join(const QString& address) {
  if (const auto why = m_document.setController(address)) emit m_document.trouble(*why);
}

double ControllerCard::outside_C(const QLineEdit& forecast, double usual_C) const {
  return m_document.view().units().parse(Quantity::temperature, forecast.text()).value_or(usual_C);
}

std::map<std::string, double> ControllerCard::setpoints_C() const {
  const Plan& plan = m_document.plan();
  const double low_C = outside_C(*m_low, m_document.designLow_C());
  const double high_C = outside_C(*m_high, low_C + kUsualRise_K);
  return {{"night", nightSetpoint_C(plan.setpoints, low_C)}, {"day", daySetpoint_C(plan.setpoints, high_C, low_C)}, {"vents", plan.house.ventOpens_C}};
}

void ControllerCard::refresh() {
  const Units& u = m_document.view().units();
  const auto degrees = [&](double c) { return u.text(Quantity::temperature, c); };
  const ControllerLink& link = m_document.controller();
  const Setpoints& s = m_document.plan().setpoints;
  m_low->setVisible(!s.nightBands.empty() || s.swingAtMost_K.has_value());
  m_high->setVisible(!s.dayBands.empty());
  m_join->setText(link.address().isEmpty() ? tr("Connect") : tr("End"));
  m_send->setVisible(!link.address().isEmpty());
  m_send->setEnabled(link.isConnected());
  if (link.address().isEmpty()) return m_words->setText(QString());
  QStringList lines{link.state()};
  const auto now = setpoints_C();
  for (const auto& [what, value_C] : now) {
    const auto taken = link.taken_C().find(what);
    if (taken == link.taken_C().end()) continue;
    const auto sent = link.sent_C().find(what);
    const bool isSame = std::abs(taken->second - value_C) < kAlike_K;
    QString line = tr("%1: %2 in this plan, the controller holds %3").arg(calledBy(what), degrees(value_C), degrees(taken->second));
    if (!isSame)
      line += sent != link.sent_C().end() && std::abs(sent->second - value_C) < kAlike_K
                  ? tr(", though it was sent: it has limits of its own, or does not listen")
                  : tr(", not sent yet");
    lines << line + QLatin1Char('.');
  }
  if (link.read_C()) lines << tr("It reads %1 in the house.").arg(degrees(*link.read_C()));
  m_words->setText(lines.join(QLatin1Char('\n')));
}

} // namespace muffle
