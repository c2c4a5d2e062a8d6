// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/aids_dialog.h"

#include "app/model/said.h"
#include "app/paint/theme.h"

#include <QDialogButtonBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace muffle {

AidsDialog::AidsDialog(QWidget* parent)
    : QDialog(parent), m_list(new QListWidget(this)), m_what(new QLabel(this)), m_answer(new QLabel(this)), m_form(new QFormLayout) {
  setWindowTitle(tr("Measuring aids"));
  resize(820, 460);
  auto* halves = new QHBoxLayout(this);
  m_list->setAccessibleName(tr("Measuring aids"));
  m_list->setWordWrap(true);
  m_list->setSpacing(3);
  for (const Aid& aid : aids()) m_list->addItem(said(whatOf(aid)));
  halves->addWidget(m_list, 4);
  auto* right = new QVBoxLayout;
  m_what->setWordWrap(true);
  m_what->setFont(titleFont(12.5));
  right->addWidget(m_what);
  right->addLayout(m_form);
  m_answer->setWordWrap(true);
  QFont strong = textFont(12.5);
  strong.setBold(true);
  m_answer->setFont(strong);
  m_answer->setTextInteractionFlags(Qt::TextSelectableByMouse);
  m_answer->setAccessibleName(tr("Answer"));
  right->addSpacing(8);
  right->addWidget(m_answer);
  right->addStretch(1);
  auto* help =
      new QLabel(tr("Write a reading with any unit, and behind +- what it may be off by: \"310 +-15 L/h\". The answer's ± is one standard uncertainty."), this);
  help->setWordWrap(true);
  help->setFont(textFont(9));
  right->addWidget(help);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  right->addWidget(buttons);
  halves->addLayout(right, 7);
  connect(m_list, &QListWidget::currentRowChanged, this, &AidsDialog::showAid);
  m_list->setCurrentRow(0);
}

void AidsDialog::showAid(int at) {
  if (at < 0 || at >= static_cast<int>(aids().size())) return;
  m_aid = at;
  m_list->setCurrentRow(at);
  const Aid& aid = aids()[static_cast<std::size_t>(at)];
  while (m_form->rowCount() > 0) m_form->removeRow(0);
  m_fields.clear();
  m_what->setText(said(whatOf(aid)));
  m_what->setToolTip(said(formulaOf(aid)));
  for (const AidInput& input : aid.inputs) {
    auto* both = new QWidget(this);
    auto* down = new QVBoxLayout(both);
    down->setContentsMargins(0, 0, 0, 0);
    down->setSpacing(1);
    auto* edit = new QLineEdit(QString::fromUtf8(input.typical), both);
    edit->setObjectName(QString::fromUtf8(input.key));
    edit->setAccessibleName(said(whatOf(aid, input.key)));
    auto* remark = new QLabel(both);
    remark->setWordWrap(true);
    remark->setFont(textFont(8.5));
    remark->hide();
    down->addWidget(edit);
    down->addWidget(remark);
    auto* label = new QLabel(said(whatOf(aid, input.key)), this);
    label->setWordWrap(true);
    label->setFixedWidth(210);
    label->setBuddy(edit);
    m_form->addRow(label, both);
    m_fields.push_back({edit, remark});
    connect(edit, &QLineEdit::textChanged, this, &AidsDialog::answerNow);
  }
  answerNow();
}

QLineEdit* AidsDialog::field(const QString& key) {
  for (const Field& f : m_fields)
    if (f.edit->objectName() == key) return f.edit;
  return nullptr;
}

QString AidsDialog::answer() const { return m_answer->text(); }

void AidsDialog::answerNow() {
  const Aid& aid = aids()[static_cast<std::size_t>(m_aid)];
  std::vector<Measured> inputs;
  const auto remark = [](const Field& f, const Problem& p) {
    f.remark->setText(tr("%1, %2").arg(said(p.what), said(p.allowed)));
    f.remark->show();
  };
  for (std::size_t i = 0; i < m_fields.size(); ++i) {
    m_fields[i].remark->hide();
    const auto read = readMeasured(m_fields[i].edit->text().toStdString(), aid.inputs[i].kind);
    if (read)
      inputs.push_back(*read);
    else
      remark(m_fields[i], read.problem());
  }
  m_answer->clear();
  if (inputs.size() < m_fields.size()) return; // said beside the field
  const auto answer = work(aid, inputs);
  if (!answer) {
    for (const Problem& p : answer.problems()) {
      bool placed = false;
      for (std::size_t i = 0; i < m_fields.size(); ++i)
        if (p.where == aid.inputs[i].key) remark(m_fields[i], p), placed = true;
      if (!placed) m_answer->setText(tr("%1: %2").arg(said(p.what), said(p.allowed)));
    }
    return;
  }
  QStringList lines;
  for (std::size_t k = 0; k < answer->size(); ++k)
    lines << tr("%1: %2").arg(said(whatOf(aid, aid.outputs[k].key)), QString::fromStdString(textOf((*answer)[k], aid.outputs[k].kind)));
  m_answer->setText(lines.join(QLatin1Char('\n')));
}

} // namespace muffle
