// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/hand_sheet.h"
#include "app/model/said.h"

#include "app/paint/theme.h"
#include "core/bounds.h"

#include <QDateEdit>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMimeData>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <functional>

namespace muffle {

namespace {

/// Refuses what would take minutes to lay out: a line is a reading, not a file.
class HandLines : public QPlainTextEdit {
public:
  HandLines(QWidget* parent, std::function<void(const QString&)> refused) : QPlainTextEdit(parent), m_refused(std::move(refused)) {}

protected:
  void insertFromMimeData(const QMimeData* pasted) override {
    const QString text = pasted->text();
    qsizetype longest = 0, lines = blockCount();
    for (qsizetype from = 0; from <= text.size();) {
      const qsizetype end = text.indexOf(QLatin1Char('\n'), from) < 0 ? text.size() : text.indexOf(QLatin1Char('\n'), from);
      longest = std::max(longest, end - from);
      from = end + 1;
      ++lines;
      if (longest > static_cast<qsizetype>(bounds::kHandLineBytes))
        return m_refused(
            HandSheetDialog::tr(
                "What you pasted has a line of more than %1 characters: at most so many are allowed, a line a reading. A file is imported instead.")
                .arg(bounds::kHandLineBytes));
      if (lines > static_cast<qsizetype>(bounds::kHandLines) + 1)
        return m_refused(HandSheetDialog::tr("What you pasted makes more than %1 lines: at most so many are allowed by hand. A file is imported instead.")
                             .arg(bounds::kHandLines));
    }
    QPlainTextEdit::insertFromMimeData(pasted);
  }

private:
  std::function<void(const QString&)> m_refused;
};

} // namespace

HandSheetDialog::HandSheetDialog(Document& document, QWidget* parent)
    : QDialog(parent), m_document(document), m_day(new QDateEdit(this)), m_lines(new HandLines(this, [this](const QString& why) { refusePaste(why); })),
      m_table(new QTableWidget(this)), m_problems(new QLabel(this)) {
  setWindowTitle(tr("Readings by hand"));
  resize(760, 480);
  auto* body = new QVBoxLayout(this);
  auto* help = new QLabel(
      tr("A line a reading: time, outside / inside. A date alone, or before the time, stands for the lines below it. \"min\" and \"max\" are a max/min "
         "thermometer's, and need no time."),
      this);
  help->setWordWrap(true);
  help->setFont(textFont(9.5));
  body->addWidget(help);
  auto* first = new QHBoxLayout;
  first->addWidget(new QLabel(tr("The first lines are of"), this));
  m_day->setDisplayFormat(QStringLiteral("d MMM yyyy"));
  m_day->setCalendarPopup(true);
  m_day->setDate(QDate::currentDate());
  m_day->setAccessibleName(tr("Day of the first lines"));
  first->addWidget(m_day);
  first->addStretch();
  body->addLayout(first);
  auto* halves = new QHBoxLayout;
  m_lines->setPlaceholderText(m_document.view().units().fahrenheit ? tr("7:10 25 / 36\n18:00 34 / 46\n18/1 min 21 / 34\n18/1 max 39 / 66")
                                                                   : tr("7:10 -4 / 2.5\n18:00 1 / 8\n18/1 min -6 / 1.2\n18/1 max 4 / 19"));
  m_lines->setAccessibleName(tr("Readings, a line each"));
  m_lines->setFont(textFont(11));
  halves->addWidget(m_lines, 4);
  m_table->setColumnCount(4);
  m_table->setHorizontalHeaderLabels({tr("understood as"), tr("outside"), tr("inside"), tr("remark")});
  m_table->verticalHeader()->hide();
  m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_table->setFocusPolicy(Qt::NoFocus);
  m_table->setAccessibleName(tr("What was understood"));
  m_table->horizontalHeader()->setStretchLastSection(true);
  halves->addWidget(m_table, 6);
  body->addLayout(halves, 1);
  m_problems->setWordWrap(true);
  m_problems->setFont(textFont(9.5));
  body->addWidget(m_problems);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel, this);
  m_keep = buttons->addButton(tr("Keep these readings"), QDialogButtonBox::AcceptRole);
  m_keep->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_Return));
  m_keep->setToolTip(tr("Ctrl+Enter"));
  connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  body->addWidget(buttons);
  connect(m_lines, &QPlainTextEdit::textChanged, this, &HandSheetDialog::understand);
  connect(m_day, &QDateEdit::dateChanged, this, &HandSheetDialog::understand);
  m_lines->setFocus();
  understand();
}

void HandSheetDialog::refusePaste(const QString& why) { m_problems->setText(why); }

void HandSheetDialog::understand() {
  const QDate day = m_day->date();
  const TimeZone zone = m_document.planInHand().zone();
  m_sheet = readByHand(m_lines->toPlainText().toStdString(), {day.year(), static_cast<unsigned>(day.month()), static_cast<unsigned>(day.day())}, zone,
                       m_document.view().units().fahrenheit);
  const Units& u = m_document.view().units();
  m_table->setRowCount(static_cast<int>(m_sheet.readings.size()));
  int row = 0;
  for (const HandReading& r : m_sheet.readings) {
    const std::string iso = zone.iso(r.at);
    const QString date = QString::fromStdString(iso.substr(0, 10));
    const QString when = r.statistic == Statistic::lowest    ? tr("%1, lows").arg(date)
                         : r.statistic == Statistic::highest ? tr("%1, highs").arg(date)
                                                             : date + QStringLiteral(" ") + QString::fromStdString(iso.substr(11, 5));
    const auto degrees = [&](const std::optional<double>& c) { return c ? u.text(Quantity::temperature, *c) : QStringLiteral("–"); };
    m_table->setItem(row, 0, new QTableWidgetItem(when));
    m_table->setItem(row, 1, new QTableWidgetItem(degrees(r.outside_C)));
    m_table->setItem(row, 2, new QTableWidgetItem(degrees(r.inside_C)));
    m_table->setItem(row, 3, new QTableWidgetItem(QString::fromStdString(r.remark)));
    ++row;
  }
  m_table->resizeColumnToContents(0);
  m_table->scrollToBottom();
  QStringList problems;
  for (const Problem& p : m_sheet.problems) problems << said(p, m_document.view().units());
  m_problems->setText(problems.mid(0, 3).join(QStringLiteral("\n")) + (problems.size() > 3 ? tr("\nand %1 more lines").arg(problems.size() - 3) : QString()));
  m_keep->setEnabled(!m_sheet.readings.empty());
  m_keep->setText(m_sheet.problems.empty() ? tr("Keep these readings") : tr("Keep the %1 that are understood").arg(m_sheet.readings.size()));
}

} // namespace muffle
