// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/import_dialog.h"

#include "app/paint/theme.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QHeaderView>
#include <QLabel>
#include <QProgressDialog>
#include <QPushButton>
#include <QTableWidget>
#include <QThread>
#include <QVBoxLayout>

#include <atomic>
#include <thread>

namespace muffle {
namespace {

struct RoleChoice {
  Role role;
  const char* id;
  const char* name;
};
constexpr RoleChoice kRoles[] = {{Role::outside, "", "outside"}, {Role::room, "house", "house air"},
                                 {Role::soil, "floor", "soil"},  {Role::store, "barrels", "barrels"},
                                 {Role::wind, "", "wind"},       {Role::sun, "", "sun"},
                                 {Role::heater, "1", "heater"},  {Role::humidity, "house", "humidity"},
                                 {Role::rain, "", "rain"},       {Role::note, "", "leave aside"}};

constexpr std::size_t kPreviewBytes = 1 << 20;

} // namespace

ImportDialog::ImportDialog(Document& document, QString name, std::string bytes, QWidget* parent)
    : QDialog(parent), m_document(document), m_name(std::move(name)), m_bytes(std::move(bytes)), m_separator(new QComboBox(this)), m_unit(new QComboBox(this)),
      m_dates(new QComboBox(this)), m_decimal(new QComboBox(this)), m_recognised(new QLabel(this)), m_columns(new QTableWidget(this)),
      m_rows(new QTableWidget(this)) {
  setWindowTitle(tr("Import %1").arg(m_name));
  resize(760, 620);
  auto* body = new QVBoxLayout(this);
  auto* title = new QLabel(tr("What was recognised"), this);
  title->setFont(titleFont(13));
  body->addWidget(title);
  m_recognised->setWordWrap(true);
  m_recognised->setFont(textFont(9.5));
  body->addWidget(m_recognised);
  auto* form = new QHBoxLayout;
  const auto choice = [&](QComboBox* box, const QString& label, const QStringList& items) {
    box->addItems(items);
    box->setAccessibleName(label);
    auto* l = new QLabel(label, this);
    form->addWidget(l);
    form->addWidget(box);
    connect(box, &QComboBox::activated, this, &ImportDialog::preview);
  };
  choice(m_separator, tr("Columns"), {tr("as recognised"), tr("comma"), tr("semicolon"), tr("tab"), tr("bar")});
  choice(m_decimal, tr("Decimal"), {tr("as recognised"), tr("point"), tr("comma")});
  choice(m_dates, tr("Dates"), {tr("as recognised"), tr("day first"), tr("month first")});
  choice(m_unit, tr("Unmarked degrees"), {tr("as recognised"), tr("°C"), tr("°F")});
  form->addStretch();
  body->addLayout(form);
  m_columns->setAccessibleName(tr("Columns"));
  m_rows->setAccessibleName(tr("First readings"));
  body->addWidget(m_columns, 3);
  body->addWidget(m_rows, 2);
  auto* buttons = new QDialogButtonBox(this);
  m_keep = buttons->addButton(tr("Keep this log"), QDialogButtonBox::AcceptRole);
  buttons->addButton(QDialogButtonBox::Cancel);
  connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  body->addWidget(buttons);
  preview();
}

ReadOptions ImportDialog::options() const {
  ReadOptions o;
  o.zone = m_document.zone();
  static const char kSeparators[] = {0, ',', ';', '\t', '|'};
  if (m_separator->currentIndex() > 0) o.separator = kSeparators[m_separator->currentIndex()];
  if (m_decimal->currentIndex() > 0) o.decimalComma = m_decimal->currentIndex() == 2;
  if (m_dates->currentIndex() > 0) o.monthFirst = m_dates->currentIndex() == 2;
  if (m_unit->currentIndex() > 0) o.fahrenheit = m_unit->currentIndex() == 2;
  return o;
}

void ImportDialog::accept() {
  if (!m_read) return;
  if (m_bytes.size() <= kPreviewBytes) {
    QDialog::accept();
    return;
  }
  QProgressDialog progress(tr("Reading %1").arg(m_name), tr("Stop"), 0, 1000, this);
  progress.setWindowModality(Qt::WindowModal);
  progress.setMinimumDuration(300);
  std::atomic<double> share{0.0};
  std::atomic<bool> stop{false}, done{false};
  std::optional<Result<ReadLog>> whole;
  ReadOptions o = options();
  o.progress = [&](double s) {
    share = s;
    return !stop.load();
  };
  std::jthread reader([&] {
    whole = readLog(m_bytes, o);
    done = true;
  });
  while (!done) {
    progress.setValue(static_cast<int>(share * 1000.0));
    if (progress.wasCanceled()) stop = true;
    QCoreApplication::processEvents(QEventLoop::AllEvents, 30);
    QThread::msleep(10);
  }
  reader.join();
  progress.reset();
  if (!*whole) {
    m_recognised->setText(QString::fromStdString(whole->problem().text()));
    return;
  }
  Log& log = (**whole).log;
  for (std::size_t i = 0; i < log.channels.size() && i < m_read->log.channels.size(); ++i) { // what was chosen in the preview
    log.channels[i].role = m_read->log.channels[i].role;
    log.channels[i].id = m_read->log.channels[i].id;
  }
  log.name = m_name.toStdString();
  m_read = std::move(**whole);
  QDialog::accept();
}

void ImportDialog::preview() {
  std::string_view head = m_bytes;
  if (head.size() > kPreviewBytes) head = head.substr(0, std::min(head.rfind('\n', kPreviewBytes), kPreviewBytes)); // whole lines; all is read when it is kept
  auto read = readLog(head, options());
  m_columns->clear();
  m_rows->clear();
  m_columns->setRowCount(0);
  m_rows->setRowCount(0);
  if (!read) {
    m_read.reset();
    m_recognised->setText(tr("This cannot be read: %1").arg(QString::fromStdString(read.problem().text())));
    m_keep->setEnabled(false);
    return;
  }
  m_read = std::move(*read);
  m_read->log.name = m_name.toStdString();
  const Log& log = m_read->log;
  const TimeZone zone = m_document.zone();
  QString words = QString::fromStdString(m_read->recognised[0]) + QStringLiteral(". ") + QString::fromStdString(m_read->recognised[1]) + QStringLiteral(".\n") +
                  tr(head.size() < m_bytes.size() ? "the first %1 readings, from %2 to %3" : "%1 readings from %2 to %3")
                      .arg(log.time.size())
                      .arg(QString::fromStdString(zone.iso(log.time.front())), QString::fromStdString(zone.iso(log.time.back())));
  if (m_read->rowsLeftOut || m_read->cellsLeftOut)
    words += tr("; %1 rows and %2 single readings cannot be read, first: %3")
                 .arg(m_read->rowsLeftOut)
                 .arg(m_read->cellsLeftOut)
                 .arg(QString::fromStdString(m_read->firstProblems.front().text()));
  m_recognised->setText(words);
  m_columns->setColumnCount(4);
  m_columns->setHorizontalHeaderLabels({tr("heading"), tr("taken for"), tr("unit"), tr("because")});
  m_columns->setRowCount(static_cast<int>(log.channels.size()));
  m_columns->verticalHeader()->hide();
  m_columns->setEditTriggers(QAbstractItemView::NoEditTriggers);
  for (int i = 0; i < m_columns->rowCount(); ++i) {
    const Channel& c = log.channels[static_cast<std::size_t>(i)];
    m_columns->setItem(i, 0, new QTableWidgetItem(QString::fromStdString(c.name)));
    auto* role = new QComboBox(m_columns);
    int now = static_cast<int>(std::size(kRoles)) - 1;
    for (std::size_t k = 0; k < std::size(kRoles); ++k) {
      role->addItem(tr(kRoles[k].name));
      if (kRoles[k].role == c.role) now = static_cast<int>(k);
    }
    role->setCurrentIndex(now);
    role->setAccessibleName(tr("Meaning of %1").arg(QString::fromStdString(c.name)));
    connect(role, &QComboBox::activated, this, [this, i](int k) {
      Channel& channel = m_read->log.channels[static_cast<std::size_t>(i)];
      channel.role = kRoles[k].role;
      channel.id = kRoles[k].id;
      rolesChanged();
    });
    m_columns->setCellWidget(i, 1, role);
    m_columns->setItem(i, 2, new QTableWidgetItem(QString::fromStdString(c.unitIn)));
    m_columns->setItem(i, 3, new QTableWidgetItem(QString::fromStdString(c.unitWhy)));
  }
  m_columns->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  m_columns->horizontalHeader()->setSectionResizeMode(3, QHeaderView::Stretch);
  m_rows->setColumnCount(static_cast<int>(log.channels.size()) + 1);
  QStringList heads{tr("time")};
  for (const Channel& c : log.channels) heads << QString::fromStdString(c.name);
  m_rows->setHorizontalHeaderLabels(heads);
  m_rows->verticalHeader()->hide();
  m_rows->setEditTriggers(QAbstractItemView::NoEditTriggers);
  const int shown = static_cast<int>(std::min<std::size_t>(log.time.size(), 8));
  m_rows->setRowCount(shown);
  for (int i = 0; i < shown; ++i) {
    const auto k = static_cast<std::size_t>(i);
    m_rows->setItem(i, 0, new QTableWidgetItem(QString::fromStdString(zone.iso(log.time[k]))));
    for (std::size_t c = 0; c < log.channels.size(); ++c) {
      const float v = log.channels[c].raw[k];
      m_rows->setItem(i, static_cast<int>(c) + 1,
                      new QTableWidgetItem(std::isnan(v) ? QStringLiteral("–")
                                                         : QLocale().toString(static_cast<double>(v), 'f', 2) + QStringLiteral(" ") +
                                                               QString::fromStdString(log.channels[c].unit())));
    }
  }
  m_rows->resizeColumnsToContents();
  rolesChanged();
}

void ImportDialog::rolesChanged() {
  const bool hasOutside = m_read && m_read->log.find(Role::outside);
  m_keep->setEnabled(hasOutside);
  m_keep->setToolTip(hasOutside ? QString() : tr("one column must be the outside temperature"));
}

} // namespace muffle
