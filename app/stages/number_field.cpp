// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/number_field.h"

#include "app/paint/theme.h"

#include <QKeyEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace muffle {

NumberField::NumberField(Document& document, Spec spec, QWidget* parent)
    : QWidget(parent), m_document(document), m_spec(std::move(spec)), m_editor(new QLineEdit(this)) {
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::IBeamCursor);
  setAccessibleName(m_spec.label);
  setObjectName(m_spec.label);
  m_editor->hide();
  m_editor->setAccessibleName(m_spec.label);
  m_editor->installEventFilter(this);
  connect(m_editor, &QLineEdit::returnPressed, this, &NumberField::commit);
  const auto refresh = [this] {
    const Units& u = m_document.view().units();
    setToolTip(tr("%1\nallowed: %2 to %3").arg(m_spec.source, u.text(m_spec.quantity, m_spec.min), u.text(m_spec.quantity, m_spec.max)));
    update();
  };
  connect(&document, &Document::planChanged, this, refresh);
  connect(&document, &Document::viewChanged, this, refresh);
  refresh();
}

NumberField::Spec NumberField::Spec::at(QString label, Quantity quantity, const Find<double>& find, double min, double max, double nudge, QString source,
                                        std::optional<Word> word) {
  const auto get = [find](const Plan& plan) {
    const double* value = look(find, plan);
    return value ? *value : 0.0;
  };
  const auto set = [find](Plan& plan, double v) {
    if (double* value = find(plan)) *value = v;
  };
  return {std::move(label), quantity, get, set, min, max, nudge, std::move(source), std::move(word)};
}

QString NumberField::shown() const {
  const double si = m_spec.get(m_document.plan());
  return m_spec.word && m_spec.word->value == si ? m_spec.word->says : m_document.view().units().text(m_spec.quantity, si);
}

QRect NumberField::valueRect() const { return {width() - 108, 1, 106, 26}; }

void NumberField::paintEvent(QPaintEvent*) {
  QPainter p(this);
  const Theme& t = Theme::of(m_document.view().isDark());
  p.setFont(textFont(10));
  p.setPen(t.ink);
  p.drawText(QRect(2, 0, width() - 112, 28), static_cast<int>(Qt::AlignVCenter | Qt::AlignLeft), m_spec.label);
  if (!m_editor->isVisible()) {
    const QRect r = valueRect();
    if (hasFocus()) {
      p.setPen(QPen(t.madder, 1.5));
      p.drawRoundedRect(r, 3, 3);
    } else {
      p.setPen(QPen(t.seam, 1, Qt::DotLine));
      p.drawLine(r.bottomLeft() + QPoint(20, -2), r.bottomRight() + QPoint(-4, -2));
    }
    p.setFont(textFont(10.5, true));
    p.setPen(t.ink);
    p.drawText(r.adjusted(4, 0, -6, 0), static_cast<int>(Qt::AlignVCenter | Qt::AlignRight), shown());
  }
  if (!m_error.isEmpty()) {
    p.setFont(textFont(8.5));
    p.setPen(t.madder);
    p.drawText(QRect(2, 28, width() - 4, 32), static_cast<int>(Qt::TextWordWrap | Qt::AlignRight), m_error);
  }
}

void NumberField::refuse(const QString& why) {
  m_error = why;
  updateGeometry();
  update();
}

void NumberField::put(double si, bool merge) {
  const Units& u = m_document.view().units();
  if (!(si >= m_spec.min && si <= m_spec.max)) {
    refuse(tr("%1 is not possible: %2 to %3").arg(u.text(m_spec.quantity, si), u.text(m_spec.quantity, m_spec.min), u.text(m_spec.quantity, m_spec.max)));
    return;
  }
  const auto set = m_spec.set;
  if (const auto why = m_document.edit(
          tr("change %1").arg(m_spec.label.toLower()), [&](Plan& p) { set(p, si); }, merge ? static_cast<int>(qHash(m_spec.label) & 0xFFFF) + 100 : -1))
    refuse(*why);
  else
    refuse({});
}

void NumberField::beginTyping() {
  m_editor->setGeometry(valueRect());
  m_editor->setFont(textFont(10.5));
  m_editor->setAlignment(Qt::AlignRight);
  m_editor->setText(shown());
  m_editor->show();
  m_editor->setFocus();
  m_editor->selectAll();
  update();
}

std::optional<double> NumberField::inMeasures(const QString& typed) const {
  for (const Spec::Measure& m : m_spec.measures) {
    for (const QString& name : {m.name + QLatin1Char('s'), m.name}) {
      if (!typed.trimmed().endsWith(name, Qt::CaseInsensitive)) continue;
      if (const auto n = m_document.view().units().parse(Quantity::count, typed.trimmed().chopped(name.size()).trimmed())) return *n * m.each;
    }
  }
  return std::nullopt;
}

void NumberField::commit() {
  if (!m_editor->isVisible()) return;
  const bool isWord = m_spec.word && m_editor->text().trimmed().compare(m_spec.word->says, Qt::CaseInsensitive) == 0;
  const auto counted = inMeasures(m_editor->text());
  const auto value = isWord ? std::optional(m_spec.word->value) : counted ? counted : m_document.view().units().parse(m_spec.quantity, m_editor->text());
  const bool untouched = m_editor->text() == shown();
  m_editor->hide();
  setFocus();
  if (untouched) // the value behind it may have more digits than are shown
    refuse({});
  else if (!value)
    refuse(tr("\"%1\" cannot be read; type a number such as %2")
               .arg(m_editor->text().left(20), m_document.view().units().text(m_spec.quantity, m_spec.get(m_document.plan()))));
  else
    put(*value, false);
}

void NumberField::mousePressEvent(QMouseEvent*) { beginTyping(); }

void NumberField::wheelEvent(QWheelEvent* e) {
  if (!hasFocus()) { // a passing wheel scrolls the page, it does not change numbers
    e->ignore();
    return;
  }
  put(m_spec.get(m_document.plan()) + (e->angleDelta().y() > 0 ? m_spec.nudge : -m_spec.nudge), true);
}

void NumberField::keyPressEvent(QKeyEvent* e) {
  if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter || e->key() == Qt::Key_F2)
    beginTyping();
  else if (e->key() == Qt::Key_Up)
    put(m_spec.get(m_document.plan()) + m_spec.nudge, true);
  else if (e->key() == Qt::Key_Down)
    put(m_spec.get(m_document.plan()) - m_spec.nudge, true);
  else if (const QString typed = e->text();
           typed.size() == 1 && !(e->modifiers() & ~(Qt::ShiftModifier | Qt::KeypadModifier)) && (typed[0].isDigit() || QStringLiteral("-.,").contains(typed)))
    beginTyping(), m_editor->setText(typed); // a number typed on it takes the place of the one that stands there
  else
    QWidget::keyPressEvent(e);
}

bool NumberField::eventFilter(QObject* o, QEvent* e) {
  if (o == m_editor && e->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(e)->key() == Qt::Key_Escape) {
    m_editor->hide();
    setFocus();
    return true;
  }
  if (o == m_editor && e->type() == QEvent::FocusOut) commit();
  return QWidget::eventFilter(o, e);
}

} // namespace muffle
