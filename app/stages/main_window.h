// SPDX-License-Identifier: GPL-3.0-or-later
//
// The frame: thread above, section, instrument and slip between, scarf below. Wiring only.
#pragma once

#include "app/model/follower.h"
#include "app/model/station_feed.h"

#include "app/model/document.h"
#include "app/stages/stage.h"

#include <QMainWindow>

class QLabel;
class QMenu;
class QStackedWidget;

namespace muffle {

class NoticeBar;
class ScarfView;
class SectionView;
class SlipView;
class StartPage;
class ThreadBar;

class MainWindow : public QMainWindow {
  Q_OBJECT
public:
  explicit MainWindow(Document& document, QWidget* parent = nullptr);
  void showStage(StageId stage);
  /// Opens (or makes) a book and remembers it; false with the reason said if it cannot be.
  bool openPath(const QString& path, bool create);
  /// What stands above the work, a line a matter.
  [[nodiscard]] QString notice() const;
  [[nodiscard]] const StationFeed& station() const { return m_feed; }
  /// Reads a file and offers it for import; false if it was refused or given up.
  bool importFile(const QString& path);
  /// Used by --shots and tests: takes what was recognised without asking.
  bool importFileUnasked(const QString& path);
  /// Readings typed in; false if given up.
  bool writeByHand();
  /// Follows a file that a logger keeps writing; an empty path ends it.
  void followFile(const QString& path);
  /// Listens to a station, "HOST[:PORT]/TOPIC"; empty ends it. False with the reason said if that is no address.
  bool listenTo(const QString& address);
  /// Off for books that are made to be thrown away.
  void setRemembersBooks(bool on) { m_remembersBooks = on; }

protected:
  void dragEnterEvent(QDragEnterEvent*) override;
  void dropEvent(QDropEvent*) override;
  void closeEvent(QCloseEvent*) override;

private:
  void buildMenus();
  void restyle();
  void say(const QString& text);
  /// Something was refused: it stays in sight until the next thing goes well.
  void warn(const QString& text);
  void refreshStatus();
  void refreshNotices();
  void refreshStation();
  /// True if nothing unsaved is lost by leaving this book, or the grower says so.
  bool mayLeaveBook();
  bool saveElsewhere();
  void offerSalvage(const QString& path);
  void showEarlierStates();
  void openBook(bool create);
  void openDemo();
  void chooseLog();
  void chooseFollowed();
  void chooseStation();
  void rememberBook();
  void refreshRecent();
  void exportTo();
  Document& m_document;
  Follower m_follower;
  StationFeed m_feed;
  ThreadBar* m_thread;
  SectionView* m_section;
  QStackedWidget* m_instruments;
  std::vector<StagePage*> m_pages; ///< as stages()
  StartPage* m_start;
  QMenu* m_recent = nullptr;
  QAction *m_unfollow = nullptr, *m_unlisten = nullptr;
  bool m_remembersBooks = true;
  SlipView* m_slip;
  ScarfView* m_scarf;
  NoticeBar* m_notices;
  QLabel *m_status, *m_station;
};

} // namespace muffle
