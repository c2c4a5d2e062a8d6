// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/main_window.h"
#include "app/model/said.h"

#include "app/model/beside.h"
#include "app/model/demo_book.h"
#include "app/model/units.h"
#include "app/paint/theme.h"
#include "app/stages/aids_dialog.h"
#include "app/stages/differences_dialog.h"
#include "app/stages/earlier_states.h"
#include "app/stages/hand_sheet.h"
#include "app/stages/import_dialog.h"
#include "app/stages/log_stage.h"
#include "app/stages/notice_bar.h"
#include "app/stages/print.h"
#include "app/stages/salvage_dialog.h"
#include "app/stages/scarf_view.h"
#include "app/stages/section_view.h"
#include "app/stages/slip_view.h"
#include "app/stages/stage_page.h"
#include "app/stages/start_page.h"
#include "app/stages/thread_bar.h"
#include "book/files.h"
#include "core/plan/names.h"

#include <QActionGroup>
#include <QApplication>
#include <QCloseEvent>
#include <QDir>
#include <QDropEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QInputDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QStackedWidget>
#include <QStandardPaths>

namespace muffle {

namespace {
const QString kRefused = QStringLiteral("refused"), kUnsaved = QStringLiteral("unsaved"), kFollowing = QStringLiteral("following"),
              kDamaged = QStringLiteral("damaged"), kOddTimes = QStringLiteral("odd times");
} // namespace

MainWindow::MainWindow(Document& document, QWidget* parent)
    : QMainWindow(parent), m_document(document), m_follower(document), m_feed(document), m_thread(new ThreadBar(document)),
      m_section(new SectionView(document)), m_instruments(new QStackedWidget), m_start(new StartPage(document)), m_slip(new SlipView(document)),
      m_scarf(new ScarfView(document)), m_notices(new NoticeBar), m_status(new QLabel), m_station(new QLabel) {
  setAcceptDrops(true);
  resize(1280, 800);
  auto* centre = new QWidget(this);
  auto* grid = new QGridLayout(centre);
  grid->setContentsMargins(12, 0, 12, 4);
  grid->setHorizontalSpacing(12);
  grid->setVerticalSpacing(7);
  grid->addWidget(m_thread, 0, 0, 1, 3);
  grid->addWidget(m_notices, 1, 0, 1, 3);
  grid->addWidget(m_section, 2, 0);
  grid->addWidget(m_instruments, 2, 1);
  grid->addWidget(m_slip, 2, 2);
  grid->addWidget(m_scarf, 3, 0, 1, 3);
  auto* foot = new QHBoxLayout;
  foot->addWidget(m_status, 1);
  foot->addWidget(m_station);
  grid->addLayout(foot, 4, 0, 1, 3);
  grid->setColumnStretch(0, 55);
  grid->setColumnStretch(1, 49);
  grid->setRowStretch(2, 1);
  m_slip->setFixedWidth(206);
  m_scarf->setFixedHeight(162);
  setCentralWidget(centre);
  centre->setFocusPolicy(Qt::ClickFocus);
  centre->setFocus();
  const Bench bench{
      document, *m_section, [this](StageId stage) { showStage(stage); }, [this] { chooseLog(); }, [this] { chooseFollowed(); }, [this] { writeByHand(); }};
  for (const StageRow& row : stages()) m_pages.push_back(row.make(bench));
  for (StagePage* page : m_pages) m_instruments->addWidget(page);
  m_instruments->addWidget(m_start);
  connect(m_start, &StartPage::logAsked, this, &MainWindow::chooseLog);
  connect(m_start, &StartPage::houseAsked, this, [this] {
    showStage(stages().front().id);
    m_pages.front()->begin();
  });
  connect(m_start, &StartPage::demoAsked, this, &MainWindow::openDemo);
  connect(m_start, &StartPage::bookAsked, this, [this](const QString& path) {
    if (path.isEmpty())
      openBook(false);
    else
      openPath(path, false);
  });
  connect(&document, &Document::bookOpened, this, [this] {
    rememberBook();
    m_notices->settle(kRefused);
    const bool ours = !m_document.book().isFollowingWindow(); // else the other window follows and listens
    m_follower.follow(ours ? m_document.readings().followedFile() : QString());
    m_unfollow->setEnabled(!m_document.readings().followedFile().isEmpty());
    m_feed.listen(ours ? m_document.readings().station() : QString());
    m_unlisten->setEnabled(!m_document.readings().station().isEmpty());
    if (m_document.readings().log()) {
      showStage(m_thread->stage());
    } else {
      m_thread->setStage(stages().front().id);
      m_instruments->setCurrentWidget(m_start);
    }
  });
  connect(m_thread, &ThreadBar::chosen, this, &MainWindow::showStage);
  connect(&document, &Document::trouble, this, &MainWindow::warn);
  connect(document.planInHand().undoStack(), &QUndoStack::indexChanged, this, [this] { m_notices->settle(kRefused); }); // something has gone well since
  connect(&document, &Document::savingChanged, this, &MainWindow::refreshNotices);
  connect(&document, &Document::bookMoved, this, [this] {
    rememberBook();
    refreshStatus();
  });
  connect(&document, &Document::told, this, &MainWindow::say);
  connect(&m_feed, &StationFeed::stateChanged, this, &MainWindow::refreshStation);
  connect(&m_feed, &StationFeed::readingsSetAside, this, [this] {
    m_notices->show(
        kOddTimes,
        tr("%1 of the station carry times more than a day from now, such as %2: they are set aside. Set the station's clock.")
            .arg(tr("%Ln reading(s)", nullptr, static_cast<int>(m_feed.setAside())),
                 QString::fromStdString(m_document.planInHand().zone().iso(m_feed.oddTime()).substr(0, 16)).replace(QLatin1Char('T'), QLatin1Char(' '))),
        {}, true);
  });
  connect(&document, &Document::viewChanged, this, &MainWindow::restyle);
  for (auto signal : {&Document::planChanged, &Document::resultChanged, &Document::logChanged}) connect(&document, signal, this, &MainWindow::refreshStatus);
  buildMenus();
  refreshRecent();
  restyle();
  refreshStatus();
}

void MainWindow::buildMenus() {
  auto* book = menuBar()->addMenu(tr("&Book"));
  book->addAction(tr("&New book…"), QKeySequence::New, this, [this] { openBook(true); });
  book->addAction(tr("&Open book…"), QKeySequence::Open, this, [this] { openBook(false); });
  book->addSeparator();
  m_recent = book->addMenu(tr("&Recent books"));
  book->addAction(tr("Open the &demo"), this, &MainWindow::openDemo);
  book->addSeparator();
  book->addAction(tr("&Import a log…"), QKeySequence(tr("Ctrl+I")), this, &MainWindow::chooseLog);
  book->addAction(tr("Write readings by &hand…"), QKeySequence(tr("Ctrl+H")), this, &MainWindow::writeByHand);
  book->addAction(tr("&Follow a logger's file…"), this, &MainWindow::chooseFollowed);
  m_unfollow = book->addAction(tr("End following"), this, [this] { followFile({}); });
  m_unfollow->setEnabled(false);
  book->addAction(tr("&Listen to a station…"), this, &MainWindow::chooseStation);
  m_unlisten = book->addAction(tr("End listening"), this, [this] { listenTo({}); });
  m_unlisten->setEnabled(false);
  book->addSeparator();
  book->addAction(tr("&Save a copy elsewhere…"), QKeySequence::SaveAs, this, &MainWindow::saveElsewhere);
  book->addAction(tr("&Earlier states…"), QKeySequence(tr("Ctrl+E")), this, &MainWindow::showEarlierStates);
  book->addAction(tr("&Export as folder…"), this, &MainWindow::exportTo);
  book->addAction(tr("&Print…"), QKeySequence::Print, this, [this] { previewPage(this, m_document, {m_section, m_instruments, m_slip, m_scarf}); });
  book->addSeparator();
  book->addAction(tr("&Quit"), QKeySequence::Quit, qApp, &QApplication::closeAllWindows);

  auto* edit = menuBar()->addMenu(tr("&Edit"));
  QAction* undo = m_document.planInHand().undoStack()->createUndoAction(this, tr("Undo"));
  undo->setShortcut(QKeySequence::Undo);
  QAction* redo = m_document.planInHand().undoStack()->createRedoAction(this, tr("Redo"));
  redo->setShortcuts({QKeySequence(tr("Ctrl+Shift+Z")), QKeySequence(tr("Ctrl+Y"))});
  edit->addActions({undo, redo});

  auto* plan = menuBar()->addMenu(tr("&Plan"));
  for (StagePage* page : m_pages) page->addActions(*plan);
  plan->addAction(tr("What &differs from the compared plan…"), QKeySequence(tr("Ctrl+D")), this, [this] {
    if (!m_document.results().otherPlan())
      return void(emit m_document.trouble(tr("No plan is compared with yours: choose one on the picture of Cost, or one of the earlier states of the book.")));
    DifferencesDialog dialog(m_document, this);
    dialog.exec();
  });
  plan->addAction(tr("&Make the compared plan the plan"), &m_document, &Document::takeOther);
  plan->addSeparator();
  plan->addAction(tr("&Rename…"), this, [this] {
    bool ok = false;
    const QString name = QInputDialog::getText(this, tr("Rename the plan"), tr("Name"), QLineEdit::Normal, QString::fromStdString(m_document.plan().name), &ok);
    if (ok) m_document.edit(tr("rename the plan"), [&](Plan& p) { p.name = name.trimmed().left(80).toStdString(); });
  });
  plan->addAction(tr("&Keep a snapshot…"), this, [this] {
    bool ok = false;
    const QString name = QInputDialog::getText(this, tr("Keep a snapshot"), tr("Name"), QLineEdit::Normal, said(nameOf(m_document.plan())), &ok);
    if (ok && !name.trimmed().isEmpty()) m_document.book().keepSnapshot(name.trimmed().left(80), m_document.plan());
  });

  plan->addAction(tr("&Measuring aids…"), QKeySequence(tr("Ctrl+M")), this, [this] {
    AidsDialog dialog(this);
    dialog.exec();
  });
  auto* view = menuBar()->addMenu(tr("&View"));
  for (const StageRow& row : stages())
    view->addAction(stageTitle(row), QKeySequence(QStringLiteral("Ctrl+%1").arg(stageIndex(row.id) + 1)), this, [this, &row] { showStage(row.id); });
  view->addSeparator();
  const auto toggle = [&](const QString& name, const QString& key, auto get, auto set) {
    QAction* a = view->addAction(name);
    a->setCheckable(true);
    a->setShortcut(QKeySequence(key));
    connect(a, &QAction::triggered, this, set);
    const auto refresh = [a, get] { a->setChecked(get()); };
    connect(&m_document, &Document::viewChanged, a, refresh);
    refresh();
  };
  toggle(
      tr("Degrees Fahrenheit"), tr("Ctrl+Shift+F"), [this] { return m_document.view().units().fahrenheit; },
      [this](bool on) {
        Units u = m_document.view().units();
        u.fahrenheit = on;
        m_document.view().setUnits(u);
      });
  toggle(
      tr("Feet, gallons and BTU"), tr("Ctrl+Shift+M"), [this] { return m_document.view().units().feet; },
      [this](bool on) {
        Units u = m_document.view().units();
        u.feet = on;
        m_document.view().setUnits(u);
      });
  toggle(
      tr("By lamp (dark)"), tr("Ctrl+L"), [this] { return m_document.view().isDark(); }, [this](bool on) { m_document.view().setDark(on); });

  auto* help = menuBar()->addMenu(tr("&Help"));
  help->addAction(tr("&About Muffle"), this, [this] {
    QMessageBox::about(this, tr("About Muffle"),
                       tr("Muffle sizes winter heating for greenhouses against logged nights.\n\nIts figures are estimates from a model and your readings. "
                          "They do not replace local codes or licensed people.\n\nTowns: GeoNames, Creative Commons Attribution 4.0, changed. Outlines: "
                          "Natural Earth.\n\nGPL-3.0-or-later."));
  });
}

void MainWindow::restyle() {
  const Theme& t = Theme::of(m_document.view().isDark());
  // A style sheet that is set is laid out anew by every widget there is, even where it is the same: a third of a second.
  if (const QString sheet = t.styleSheet(); qApp->styleSheet() != sheet) {
    qApp->setPalette(t.palette());
    qApp->setStyleSheet(sheet);
  }
  m_status->setFont(textFont(9));
  QPalette p = m_status->palette();
  p.setColor(QPalette::WindowText, t.fleece);
  m_status->setPalette(p);
  refreshStation();
}

/// In sight for as long as a station is listened to; red while it is silent.
void MainWindow::refreshStation() {
  const Theme& t = Theme::of(m_document.view().isDark());
  m_station->setText(m_feed.state());
  m_station->setFont(textFont(9));
  QPalette p = m_station->palette();
  p.setColor(QPalette::WindowText, m_feed.isSilent() ? t.madder : t.fleece);
  m_station->setPalette(p);
}

void MainWindow::showStage(StageId stage) {
  const std::size_t index = stageIndex(stage);
  if (index >= m_pages.size()) return;
  m_instruments->setCurrentWidget(m_pages[index]);
  m_thread->setStage(stage);
}

void MainWindow::say(const QString& text) { m_status->setText(text); }

QString MainWindow::notice() const {
  QStringList lines;
  for (const QString& matter : {kDamaged, kUnsaved, kFollowing, kOddTimes, kRefused})
    if (const QString text = m_notices->textOf(matter); !text.isEmpty()) lines << text;
  return lines.join(QLatin1Char('\n'));
}

void MainWindow::warn(const QString& text) { m_notices->show(kRefused, text, {}, true); }

void MainWindow::refreshNotices() {
  if (const auto why = m_document.book().whyNotSaved())
    m_notices->show(kUnsaved, tr("Not saved yet: %1. Your edits are kept and tried again by themselves.").arg(*why),
                    {{tr("Try again"), [this] { m_document.book().trySavingAgain(); }}, {tr("Save elsewhere…"), [this] { saveElsewhere(); }}}, false);
  else
    m_notices->settle(kUnsaved);
  if (m_document.book().isFollowingWindow())
    m_notices->show(kFollowing,
                    tr("This book is open in another window: what is done there is shown here, and nothing can be changed here until that window is closed."),
                    {{tr("Work on a copy…"), [this] { saveElsewhere(); }}}, false);
  else
    m_notices->settle(kFollowing);
}

bool MainWindow::saveElsewhere() {
  const QFileInfo now(m_document.book().path());
  QString path = QFileDialog::getSaveFileName(this, tr("Save a copy elsewhere"), QDir::home().filePath(now.completeBaseName() + tr(" copy.muffle")),
                                              tr("Muffle books (*.muffle)"));
  if (path.isEmpty()) return false;
  if (QFileInfo(path).suffix().isEmpty()) path += QStringLiteral(".muffle");
  if (const auto why = m_document.saveElsewhere(path)) {
    warn(*why);
    return false;
  }
  m_notices->settle(kRefused);
  say(tr("Saved: you now work in %1.").arg(path));
  return true;
}

bool MainWindow::mayLeaveBook() {
  m_document.book().waitUntilSaved(1500);
  for (;;) {
    const auto why = m_document.book().whyNotSaved();
    if (!why) return true;
    QMessageBox ask(QMessageBox::Warning, tr("Not saved"), tr("Your last edits are not saved."), QMessageBox::NoButton, this);
    ask.setInformativeText(*why);
    auto* elsewhere = ask.addButton(tr("Save elsewhere…"), QMessageBox::AcceptRole);
    auto* lose = ask.addButton(tr("Lose them"), QMessageBox::DestructiveRole);
    auto* stay = ask.addButton(tr("Stay"), QMessageBox::RejectRole);
    ask.setDefaultButton(elsewhere);
    ask.setEscapeButton(stay);
    ask.exec();
    if (ask.clickedButton() == lose) return true;
    if (ask.clickedButton() != elsewhere) return false;
    saveElsewhere();
  }
}

void MainWindow::closeEvent(QCloseEvent* e) {
  if (mayLeaveBook())
    e->accept();
  else
    e->ignore();
}

void MainWindow::offerSalvage(const QString& path) {
  const Problems& problems = m_document.openingProblems();
  if (problems.empty() || problems.front().kind != ProblemKind::damaged) return;
  QStringList what;
  for (const Problem& p : problems) what << said(p.what, m_document.view().units());
  what.removeDuplicates();
  constexpr int kNamed = 3;
  QString text = tr("%1 is damaged: %2").arg(QFileInfo(path).fileName(), QStringList(what.mid(0, kNamed)).join(QStringLiteral("; ")));
  if (what.size() > kNamed) text += tr("; and %1 more").arg(what.size() - kNamed);
  m_notices->show(kDamaged, text + tr(". It is left as it is."),
                  {{tr("Save what can be saved…"),
                    [this, path] {
                      const QFileInfo was(path);
                      QString to =
                          QFileDialog::getSaveFileName(this, tr("Save what can be saved"), was.dir().filePath(was.completeBaseName() + tr(" salvaged.muffle")),
                                                       tr("Muffle books (*.muffle)"), nullptr, QFileDialog::DontConfirmOverwrite);
                      if (to.isEmpty()) return;
                      if (QFileInfo(to).suffix().isEmpty()) to += QStringLiteral(".muffle");
                      const auto found = beside([&] { return salvageBook(path.toStdString(), to.toStdString()); });
                      if (!found) return warn(said(found.problem(), m_document.view().units()));
                      m_notices->settle(kDamaged);
                      if (!openPath(to, false)) return;
                      SalvageDialog(*found, to, this).exec();
                    }}},
                  true);
}

void MainWindow::showEarlierStates() { EarlierStatesDialog(m_document, this).exec(); }

void MainWindow::refreshStatus() {
  setWindowTitle(tr("%1 — Muffle").arg(m_document.book().isOpen() ? QFileInfo(m_document.book().path()).completeBaseName() : tr("no book")));
  const Simulation* run = m_document.results().simulation();
  if (!run) {
    say(m_document.readings().log() ? tr("Working it out.") : tr("Drop a logger's CSV anywhere on this window to begin."));
    return;
  }
  if (!m_document.results().isCurrent()) return;
  const Summary& s = run->summary;
  const Weather& w = *m_document.readings().weather();
  QStringList parts{tr("%1 steps simulated in %2 ms").arg(QLocale().toString(static_cast<int>(s.steps))).arg(s.run_ms, 0, 'f', 0),
                    tr("energy balance closes to %1 of the heat moved").arg(s.closure, 0, 'e', 0)};
  if (w.sunEstimatedDays) parts << tr("sun estimated from the day's swing on %1 of %2 days").arg(w.sunEstimatedDays).arg(w.days);
  parts << tr("wind %1").arg(QString::fromLatin1(inputKindText(w.wind))) << tr("sky estimated");
  say(parts.join(QStringLiteral("  ·  ")));
}

void MainWindow::openBook(bool create) {
  const QString filter = tr("Muffle books (*.muffle)");
  QString path = create ? QFileDialog::getSaveFileName(this, tr("New book"), {}, filter) : QFileDialog::getOpenFileName(this, tr("Open book"), {}, filter);
  if (path.isEmpty()) return;
  if (create && QFileInfo(path).suffix().isEmpty()) path += QStringLiteral(".muffle");
  openPath(path, create);
}

bool MainWindow::openPath(const QString& path, bool create) {
  if (!mayLeaveBook()) return false;
  if (const auto why = m_document.openBook(path, create)) {
    if (!m_document.openingProblems().empty() && m_document.openingProblems().front().kind == ProblemKind::damaged)
      offerSalvage(path);
    else
      warn(*why);
    return false;
  }
  m_notices->settle(kDamaged);
  return true;
}

void MainWindow::openDemo() {
  const auto folder = demoFolder();
  if (!folder) {
    warn(tr("the demo's files did not come with this installation"));
    return;
  }
  const QString home = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation);
  QDir().mkpath(home);
  const QString path = home + QStringLiteral("/demo.muffle");
  const bool fresh = !QFileInfo::exists(path);
  if (fresh && !makeDemoBook(path, *folder)) {
    warn(tr("the demo book could not be made at %1").arg(path));
    return;
  }
  if (!openPath(path, false)) return;
  if (!m_document.readings().log()) importFileUnasked(*folder + QStringLiteral("/log.csv"));
  showStage(stages().front().id);
}

void MainWindow::chooseLog() {
  const QString path = QFileDialog::getOpenFileName(this, tr("Import a log"), {}, tr("Readings (*.csv *.txt *.tsv *.dat);;All files (*)"));
  if (!path.isEmpty()) importFile(path);
}

void MainWindow::chooseFollowed() {
  const QString path =
      QFileDialog::getOpenFileName(this, tr("Follow a file that a logger keeps writing"), {}, tr("Readings (*.csv *.txt *.tsv *.dat);;All files (*)"));
  if (!path.isEmpty()) followFile(path);
}

void MainWindow::followFile(const QString& path) {
  m_document.readings().setFollowedFile(path);
  m_unfollow->setEnabled(!path.isEmpty());
  m_follower.follow(path);
  say(path.isEmpty() ? tr("No file is followed any more.") : tr("Following %1: what the logger adds comes in by itself.").arg(QFileInfo(path).fileName()));
}

void MainWindow::chooseStation() {
  bool ok = false;
  const QString address = QInputDialog::getText(
      this, tr("Listen to a station"), tr("Where it publishes (MQTT): HOST[:PORT]/TOPIC, a topic a sensor below it; an IPv6 address in brackets"),
      QLineEdit::Normal, m_document.readings().station().isEmpty() ? QStringLiteral("localhost/muffle/station") : m_document.readings().station(), &ok);
  if (ok) listenTo(address.trimmed());
}

bool MainWindow::listenTo(const QString& address) {
  m_feed.handOver();
  if (const auto why = m_feed.listen(address)) {
    warn(*why);
    return false;
  }
  m_document.readings().setStation(address);
  m_unlisten->setEnabled(!address.isEmpty());
  m_notices->settle(kRefused);
  say(address.isEmpty() ? tr("No station is listened to any more.") : tr("What the station publishes comes in by itself."));
  return true;
}

bool MainWindow::writeByHand() {
  HandSheetDialog dialog(m_document, this);
  if (dialog.exec() != QDialog::Accepted) return false;
  if (const auto why = m_document.readings().add(tr("readings by hand"), dialog.log())) {
    warn(*why);
    return false;
  }
  showStage(LogStage::kId);
  return true;
}

namespace {
/// Books opened before that are still there, newest first.
QStringList recentBooks() {
  QStringList recent = QSettings(QStringLiteral("muffle"), QStringLiteral("muffle")).value(QStringLiteral("books")).toStringList();
  recent.removeIf([](const QString& path) { return !QFileInfo::exists(path); });
  return recent;
}
} // namespace

void MainWindow::rememberBook() {
  constexpr int kRemembered = 8;
  if (m_remembersBooks) {
    QStringList recent = recentBooks();
    const QString path = QFileInfo(m_document.book().path()).absoluteFilePath();
    recent.removeAll(path);
    recent.prepend(path);
    QSettings(QStringLiteral("muffle"), QStringLiteral("muffle")).setValue(QStringLiteral("books"), recent.mid(0, kRemembered));
  }
  refreshRecent();
}

void MainWindow::refreshRecent() {
  QStringList recent = recentBooks();
  m_recent->clear();
  for (const QString& path : recent) m_recent->addAction(QFileInfo(path).completeBaseName(), this, [this, path] { openPath(path, false); })->setToolTip(path);
  m_recent->setToolTipsVisible(true);
  m_recent->setEnabled(!recent.isEmpty());
  recent.removeAll(QFileInfo(m_document.book().path()).absoluteFilePath());
  m_start->setRecent(recent);
}

void MainWindow::exportTo() {
  if (!m_document.book().isOpen()) return;
  const QString folder = QFileDialog::getSaveFileName(this, tr("Export as a new folder"));
  if (folder.isEmpty()) return;
  const auto book = Book::open(m_document.book().path().toStdString(), Book::Mode::existing);
  if (!book) {
    warn(said(book.problem(), m_document.view().units()));
    return;
  }
  const auto ok = exportBook(*book, folder.toStdString());
  if (ok)
    say(tr("exported to %1").arg(folder));
  else
    warn(said(ok.problem(), m_document.view().units()));
}

bool MainWindow::importFile(const QString& path) {
  Result<std::string> bytes = beside([&] { return readFile(path.toStdString()); });
  if (!bytes) {
    warn(said(bytes.problem(), m_document.view().units()));
    return false;
  }
  ImportDialog dialog(m_document, QFileInfo(path).fileName(), std::move(*bytes), this);
  if (dialog.exec() != QDialog::Accepted || !dialog.read()) return false;
  if (const auto recipe = dialog.recipe()) m_document.book().keepRecipe(*recipe);
  const auto why =
      dialog.adds() ? m_document.readings().add(tr("add %1").arg(QFileInfo(path).fileName()), dialog.takeLog()) : m_document.readings().set(dialog.takeLog());
  if (why) {
    warn(*why);
    return false;
  }
  showStage(LogStage::kId);
  return true;
}

bool MainWindow::importFileUnasked(const QString& path) {
  auto bytes = readFile(path.toStdString());
  if (!bytes) return false;
  ReadOptions options;
  options.zone = m_document.planInHand().zone();
  auto read = readLog(*bytes, options);
  if (!read) {
    warn(said(read.problem(), m_document.view().units()));
    return false;
  }
  read->log.name = QFileInfo(path).fileName().toStdString();
  return !m_document.readings().set(read->log);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* e) {
  if (e->mimeData()->hasUrls()) e->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* e) {
  if (e->mimeData()->urls().isEmpty()) return;
  e->acceptProposedAction();
  const QString path = e->mimeData()->urls().front().toLocalFile();
  if (path.endsWith(QStringLiteral(".muffle"))) {
    openPath(path, false);
    return;
  }
  QMetaObject::invokeMethod(
      this, [this, path] { importFile(path); }, Qt::QueuedConnection); // let the drag end before a dialog opens
}

} // namespace muffle
