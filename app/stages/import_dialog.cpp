// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/import_dialog.h"
#include "app/model/said.h"

#include "app/model/beside.h"
#include "app/paint/theme.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QProgressDialog>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>

#include <atomic>

namespace muffle {
namespace {

struct Meaning {
  Role role;
  const char* id;
  Statistic statistic;
  const char* name;
};
constexpr Meaning kMeanings[] = {{Role::outside, "", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "outside")},
                                 {Role::outside, "", Statistic::lowest, QT_TRANSLATE_NOOP("muffle::ImportDialog", "outside, lows")},
                                 {Role::outside, "", Statistic::highest, QT_TRANSLATE_NOOP("muffle::ImportDialog", "outside, highs")},
                                 {Role::room, "house", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "house air")},
                                 {Role::room, "house", Statistic::lowest, QT_TRANSLATE_NOOP("muffle::ImportDialog", "house air, lows")},
                                 {Role::room, "house", Statistic::highest, QT_TRANSLATE_NOOP("muffle::ImportDialog", "house air, highs")},
                                 {Role::room, "house2", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "house air, second sensor")},
                                 {Role::room, "bay", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "bay air")},
                                 {Role::cover, "cover", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "under a bed cover")},
                                 {Role::soil, "floor", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "soil")},
                                 {Role::store, "barrels", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "barrels")},
                                 {Role::wind, "", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "wind")},
                                 {Role::sun, "", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "sun")},
                                 {Role::heater, "1", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "heater")},
                                 {Role::humidity, "house", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "humidity, house")},
                                 {Role::humidity, "outside", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "humidity, outside")},
                                 {Role::rain, "", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "rain")},
                                 {Role::note, "", Statistic::moment, QT_TRANSLATE_NOOP("muffle::ImportDialog", "leave aside")}};
constexpr int kLeaveAside = static_cast<int>(std::size(kMeanings)) - 1;

constexpr std::size_t kPreviewBytes = 1 << 18; // some days of minutes, read in a glance
constexpr char kSeparators[] = {0, ',', ';', '\t', '|', ' '};

QStringList unitsOfRole(Role role) {
  if (isTemperature(role)) return {QStringLiteral("C"), QStringLiteral("F"), QStringLiteral("K")};
  switch (role) {
  case Role::wind: return {QStringLiteral("m/s"), QStringLiteral("km/h"), QStringLiteral("mph"), QStringLiteral("kn")};
  case Role::sun: return {QStringLiteral("W/m2"), QStringLiteral("lx"), QStringLiteral("klx")};
  case Role::heater: return {QStringLiteral("W"), QStringLiteral("kW"), QStringLiteral("kWh"), QStringLiteral("Wh")};
  case Role::rain: return {QStringLiteral("mm"), QStringLiteral("in")};
  case Role::humidity: return {QStringLiteral("%")};
  default: return {};
  }
}

/// With a capital and a full stop.
QString sentence(const Message& message) {
  QString s = said(message);
  if (!s.isEmpty()) s[0] = s[0].toUpper();
  return s + QStringLiteral(". ");
}

void setChoice(QComboBox* box, const std::optional<bool>& value) { box->setCurrentIndex(!value ? 0 : *value ? 2 : 1); }

} // namespace

ImportDialog::ImportDialog(Document& document, QString name, std::string bytes, QWidget* parent)
    : QDialog(parent), m_document(document), m_name(std::move(name)), m_bytes(std::move(bytes)), m_separator(new QComboBox(this)), m_unit(new QComboBox(this)),
      m_dates(new QComboBox(this)), m_decimal(new QComboBox(this)), m_clock(new QComboBox(this)), m_recognised(new QLabel(this)), m_question(new QLabel(this)),
      m_columns(new QTableWidget(this)), m_rows(new QTableWidget(this)), m_recipe(new QLineEdit(this)) {
  setWindowTitle(tr("Import %1").arg(m_name));
  resize(820, 660);
  auto* body = new QVBoxLayout(this);
  auto* title = new QLabel(tr("What was recognised"), this);
  title->setFont(titleFont(13));
  body->addWidget(title);
  for (QLabel* words : {m_recognised, m_question}) {
    words->setWordWrap(true);
    words->setFont(textFont(9.5));
    body->addWidget(words);
  }
  QFont strong = textFont(9.5);
  strong.setBold(true);
  m_question->setFont(strong);
  auto* form = new QHBoxLayout;
  const auto choice = [&](QComboBox* box, const QString& label, const QStringList& items) {
    box->addItems(items);
    box->setAccessibleName(label);
    auto* l = new QLabel(label, this);
    form->addWidget(l);
    form->addWidget(box);
    connect(box, &QComboBox::activated, this, &ImportDialog::preview);
  };
  choice(m_separator, tr("Columns"), {tr("as recognised"), tr("comma"), tr("semicolon"), tr("tab"), tr("bar"), tr("blanks")});
  choice(m_decimal, tr("Decimal"), {tr("as recognised"), tr("point"), tr("comma")});
  choice(m_dates, tr("Dates"), {tr("as recognised"), tr("day first"), tr("month first")});
  choice(m_clock, tr("Clock"), {tr("the place's own"), tr("winter time all year"), tr("UTC")});
  choice(m_unit, tr("Unmarked degrees"), {tr("as recognised"), tr("°C"), tr("°F")});
  form->addStretch();
  body->addLayout(form);
  m_columns->setAccessibleName(tr("Columns"));
  m_rows->setAccessibleName(tr("First readings"));
  for (QTableWidget* table : {m_columns, m_rows}) {
    table->verticalHeader()->hide();
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  }
  body->addWidget(m_columns, 3);
  body->addWidget(m_rows, 2);
  auto* last = new QHBoxLayout;
  m_recipe->setPlaceholderText(tr("keep as a recipe for the next file of this kind: a name"));
  m_recipe->setAccessibleName(tr("Name of the recipe"));
  last->addWidget(m_recipe, 1);
  auto* buttons = new QDialogButtonBox(this);
  const auto keep = [&](const QString& text, bool adds) {
    auto* button = buttons->addButton(text, QDialogButtonBox::AcceptRole);
    connect(button, &QPushButton::clicked, this, [this, adds] { m_adds = adds; }); // before accepted()
    m_keep.push_back(button);
    return button;
  };
  if (m_document.readings().log()) {
    keep(tr("Add to the log"), true)->setToolTip(tr("only what is new comes in; what is there stays"));
    keep(tr("Put in its place"), false)->setToolTip(tr("the log there is gives way to this one; you can undo it"));
  } else {
    keep(tr("Keep this log"), false);
  }
  m_keep.front()->setDefault(true);
  buttons->addButton(QDialogButtonBox::Cancel);
  connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  last->addWidget(buttons);
  body->addLayout(last);
  preview();
  const auto recipes = m_document.book().recipes();
  if (const Recipe* known = m_read ? recipeFor(recipes, m_read->headings) : nullptr) useRecipe(*known);
}

Clockwork ImportDialog::clock() const { return static_cast<Clockwork>(m_clock->currentIndex()); }

ReadOptions ImportDialog::options() const {
  ReadOptions o;
  o.zone = clockOf(clock(), m_document.planInHand().zone());
  if (m_separator->currentIndex() > 0) o.separator = kSeparators[m_separator->currentIndex()];
  if (m_decimal->currentIndex() > 0) o.decimalComma = m_decimal->currentIndex() == 2;
  if (m_dates->currentIndex() > 0) o.monthFirst = m_dates->currentIndex() == 2;
  if (m_unit->currentIndex() > 0) o.fahrenheit = m_unit->currentIndex() == 2;
  o.columns = m_choices;
  return o;
}

void ImportDialog::useRecipe(const Recipe& recipe) {
  m_knownAs = QString::fromStdString(recipe.name);
  m_recipe->setText(m_knownAs);
  for (std::size_t i = 1; i < std::size(kSeparators); ++i)
    if (recipe.separator == kSeparators[i]) m_separator->setCurrentIndex(static_cast<int>(i));
  setChoice(m_decimal, recipe.decimalComma);
  setChoice(m_dates, recipe.monthFirst);
  setChoice(m_unit, recipe.fahrenheit);
  m_clock->setCurrentIndex(static_cast<int>(recipe.clock));
  m_choices = recipe.columns;
  preview();
}

std::optional<Recipe> ImportDialog::recipe() const {
  const QString name = m_recipe->text().trimmed();
  if (name.isEmpty() || !m_read) return std::nullopt;
  return recipeOf(name.toStdString(), options(), clock(), *m_read);
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
  std::atomic<bool> stop{false};
  ReadOptions o = options();
  o.progress = [&](double s) {
    share = s;
    return !stop.load();
  };
  QTimer shown;
  connect(&shown, &QTimer::timeout, &progress, [&] {
    progress.setValue(static_cast<int>(share * 1000.0));
    if (progress.wasCanceled()) stop = true;
  });
  shown.start(40);
  auto whole = beside(
      [&] {
        auto read = readLog(m_bytes, o);
        if (read) std::string().swap(m_bytes); // giving hundreds of megabytes back takes longer than a glance
        return read;
      },
      QEventLoop::AllEvents);
  shown.stop();
  progress.reset();
  if (!whole) {
    m_recognised->setText(said(whole.problem(), m_document.view().units()));
    return;
  }
  whole->log.name = m_name.toStdString();
  m_read = std::move(*whole);
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
    m_recognised->setText(tr("This cannot be read: %1").arg(said(read.problem(), m_document.view().units())));
    checkKeep();
    return;
  }
  m_read = std::move(*read);
  m_read->log.name = m_name.toStdString();
  const Log& log = m_read->log;
  const TimeZone zone = m_document.planInHand().zone();
  QString words = m_knownAs.isEmpty() ? QString() : tr("Read as \"%1\". ").arg(m_knownAs);
  for (std::size_t i = 0; i < m_read->recognised.size(); ++i) // the columns have the table below
    if (m_read->recognised[i].code != "log.column-taken-for") words += sentence(m_read->recognised[i]);
  words += QStringLiteral("\n") + tr(head.size() < m_bytes.size() ? "The first %1 readings, from %2 to %3" : "%1 readings from %2 to %3")
                                      .arg(QLocale().toString(static_cast<qlonglong>(log.time.size())))
                                      .arg(QString::fromStdString(zone.iso(log.time.front()).substr(0, 16)).replace(QLatin1Char('T'), QLatin1Char(' ')),
                                           QString::fromStdString(zone.iso(log.time.back()).substr(0, 16)).replace(QLatin1Char('T'), QLatin1Char(' ')));
  if (m_read->rowsLeftOut || m_read->cellsLeftOut)
    words += tr("; %1 rows and %2 single readings cannot be read, first: %3")
                 .arg(m_read->rowsLeftOut)
                 .arg(m_read->cellsLeftOut)
                 .arg(said(m_read->firstProblems.front(), m_document.view().units()));
  m_recognised->setText(words + QStringLiteral("."));
  showColumns();
  showRows();
  checkKeep();
}

/// What a column is taken for from now on, as its heading names it.
void ImportDialog::choose(const ColumnChoice& choice) {
  std::erase_if(m_choices, [&](const ColumnChoice& c) { return c.heading == choice.heading; });
  m_choices.push_back(choice);
  QMetaObject::invokeMethod(this, &ImportDialog::preview, Qt::QueuedConnection); // the table that asked goes
}

void ImportDialog::showColumns() {
  const Log& log = m_read->log;
  m_columns->setColumnCount(4);
  m_columns->setHorizontalHeaderLabels({tr("heading"), tr("taken for"), tr("unit"), tr("because")});
  m_columns->setRowCount(static_cast<int>(m_read->headings.size()));
  int row = 0;
  for (const std::string& heading : m_read->headings) {
    const auto c = std::find_if(log.channels.begin(), log.channels.end(), [&](const Channel& ch) { return ch.name == heading; });
    if (c == log.channels.end()) continue; // the time's own, and what holds no numbers
    const ColumnChoice now{heading, c->role, c->id, c->statistic, {}, true};
    m_columns->setItem(row, 0, new QTableWidgetItem(QString::fromStdString(heading)));
    auto* role = new QComboBox(m_columns);
    int at = kLeaveAside;
    for (int k = 0; k < static_cast<int>(std::size(kMeanings)); ++k) {
      role->addItem(tr(kMeanings[k].name));
      const bool same = kMeanings[k].role == c->role && kMeanings[k].statistic == c->statistic;
      if (same && (at == kLeaveAside || c->id == kMeanings[k].id)) at = k;
    }
    role->setPlaceholderText(tr("outside or inside?"));
    const bool isAsked = std::find(m_read->placeless.begin(), m_read->placeless.end(), heading) != m_read->placeless.end();
    role->setCurrentIndex(isAsked ? -1 : at);
    role->setAccessibleName(tr("Meaning of %1").arg(QString::fromStdString(heading)));
    const std::string unitIn = c->unitIn;
    connect(role, &QComboBox::activated, this, [this, now, unitIn](int k) {
      const Meaning& m = kMeanings[k];
      choose({now.heading, m.role, m.id, m.statistic, isTemperature(m.role) == isTemperature(now.role) ? unitIn : std::string(), true});
    });
    m_columns->setCellWidget(row, 1, role);
    if (const QStringList units = unitsOfRole(c->role); !units.empty()) {
      auto* unit = new QComboBox(m_columns);
      unit->addItems(units);
      unit->setCurrentIndex(std::max(0, static_cast<int>(units.indexOf(QString::fromStdString(c->unitIn)))));
      unit->setAccessibleName(tr("Unit of %1").arg(QString::fromStdString(heading)));
      connect(unit, &QComboBox::activated, this, [this, now, units](int k) {
        ColumnChoice choice = now;
        choice.unit = units[k].toStdString();
        choose(choice);
      });
      m_columns->setCellWidget(row, 2, unit);
    } else {
      m_columns->setItem(row, 2, new QTableWidgetItem(QString::fromStdString(c->unitIn)));
    }
    m_columns->setItem(row, 3, new QTableWidgetItem(said(c->unitWhy)));
    ++row;
  }
  m_columns->setRowCount(row);
  m_columns->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  m_columns->horizontalHeader()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
  m_columns->horizontalHeader()->setSectionResizeMode(3, QHeaderView::Stretch);
}

void ImportDialog::showRows() {
  const Log& log = m_read->log;
  const TimeZone zone = m_document.planInHand().zone();
  m_rows->setColumnCount(static_cast<int>(log.channels.size()) + 1);
  QStringList heads{tr("time")};
  for (const Channel& c : log.channels) heads << QString::fromStdString(c.name);
  m_rows->setHorizontalHeaderLabels(heads);
  const int shown = static_cast<int>(std::min<std::size_t>(log.time.size(), 8));
  m_rows->setRowCount(shown);
  for (int i = 0; i < shown; ++i) {
    const auto k = static_cast<std::size_t>(i);
    const std::string at = zone.iso(log.time[k]);
    m_rows->setItem(i, 0, new QTableWidgetItem(QString::fromStdString(at.substr(0, 10) + " " + at.substr(11, 5))));
    for (std::size_t c = 0; c < log.channels.size(); ++c) {
      const Channel& channel = log.channels[c];
      const auto v = static_cast<double>(channel.raw[k]);
      const QString text = std::isnan(v)                 ? QStringLiteral("–")
                           : isTemperature(channel.role) ? m_document.view().units().text(Quantity::temperature, v)
                                                         : QLocale().toString(v, 'f', 1) + QStringLiteral(" ") + QString::fromStdString(channel.unit());
      m_rows->setItem(i, static_cast<int>(c) + 1, new QTableWidgetItem(text));
    }
  }
  m_rows->resizeColumnsToContents();
}

void ImportDialog::checkKeep() {
  const auto any = [&](Role role) {
    return m_read && std::any_of(m_read->log.channels.begin(), m_read->log.channels.end(), [&](const Channel& c) { return c.role == role; });
  };
  QString why;
  if (!m_read)
    why = tr("nothing can be read yet");
  else if (!m_document.readings().log() && !any(Role::outside))
    why = tr("One column must be the outside temperature: choose it under \"taken for\".");
  else if (!m_read->placeless.empty())
    why = tr("Where does \"%1\" hang, outside or in the house? Its heading does not say. Choose it under \"taken for\".")
              .arg(QString::fromStdString(m_read->placeless.front()));
  else if (!m_read->unsure.empty())
    why = tr("°C or °F? \"%1\" carries no mark and its readings fit either. Choose its unit below.").arg(QString::fromStdString(m_read->unsure.front()));
  m_question->setText(why);
  m_question->setVisible(m_read && !why.isEmpty());
  for (QPushButton* keep : m_keep) {
    keep->setEnabled(why.isEmpty());
    keep->setToolTip(why.isEmpty() ? keep->toolTip() : why);
  }
}

} // namespace muffle
