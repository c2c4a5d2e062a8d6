// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/differences_dialog.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "core/plan/names.h"
#include "core/plan/plan_differences.h"

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>
#include <QVBoxLayout>

namespace muffle {

DifferencesDialog::DifferencesDialog(const Document& document, QWidget* parent) : QDialog(parent), m_table(new QTableWidget(this)) {
  setWindowTitle(tr("What differs"));
  resize(720, 420);
  auto* body = new QVBoxLayout(this);
  const Units& u = document.view().units();
  const auto& other = document.results().otherPlan();
  const auto rows = other ? differences(document.plan(), *other) : std::vector<PlanDifference>();
  auto* what = new QLabel(rows.empty() ? tr("Nothing that stands differs. What may be added, what is asked and what was paid are left out.")
                                       : tr("What both have alike is left out, and so is what may be added, what is asked and what was paid."),
                          this);
  what->setWordWrap(true);
  what->setFont(textFont(9.5));
  body->addWidget(what);
  m_table->setColumnCount(3);
  m_table->setRowCount(static_cast<int>(rows.size()));
  m_table->setHorizontalHeaderLabels({tr("Of"), tr("As it stands"), document.results().otherName()});
  m_table->horizontalHeaderItem(2)->setToolTip(document.results().otherName());
  m_table->verticalHeader()->hide();
  m_table->setShowGrid(false);
  m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
  m_table->setAccessibleName(tr("What differs between the two plans"));
  for (std::size_t i = 0; i < rows.size(); ++i) {
    int column = 0;
    for (const Message& words : {rows[i].what, rows[i].one, rows[i].other})
      m_table->setItem(static_cast<int>(i), column++, new QTableWidgetItem(said(words, u)));
  }
  QHeaderView* const header = m_table->horizontalHeader();
  header->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  header->setSectionResizeMode(QHeaderView::Stretch);
  header->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  m_table->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents); // as high as their words take
  body->addWidget(m_table, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  body->addWidget(buttons);
}

} // namespace muffle
