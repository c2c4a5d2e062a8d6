// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/pictures/shots.h"

#include "app/model/said.h"
#include "app/pictures/waiting.h"
#include "app/stages/aids_dialog.h"
#include "app/stages/cost_stage.h"
#include "app/stages/degree_page.h"
#include "app/stages/earlier_states.h"
#include "app/stages/failure_page.h"
#include "app/stages/hand_sheet.h"
#include "app/stages/heat_stage.h"
#include "app/stages/heater_list.h"
#include "app/stages/house_stage.h"
#include "app/stages/import_dialog.h"
#include "app/stages/log_stage.h"
#include "app/stages/main_window.h"
#include "app/stages/salvage_dialog.h"
#include "app/stages/section_view.h"
#include "app/stages/sources_page.h"
#include "app/stages/stores_stage.h"
#include "core/plan/heaters.h"

#include <QApplication>
#include <QDir>
#include <QFile>
#include <QPainter>
#include <QPixmap>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTemporaryDir>
#include <numeric>

#include <algorithm>
#include <functional>

namespace muffle {
namespace {

bool shoot(QWidget& window, const QString& path) {
  for (int i = 0; i < 5; ++i) QCoreApplication::processEvents(QEventLoop::AllEvents, 30);
  return window.grab().save(path);
}

/// By day, by lamp, and in feet and degrees Fahrenheit; each once it is `ready`.
bool shootThreeWays(
    Document& document, MainWindow& window, const QString& path, const std::function<bool()>& ready = [] { return true; }) {
  bool ok = waitUntil(ready) && shoot(window, path + QStringLiteral(".png"));
  document.view().setDark(true);
  ok = shoot(window, path + QStringLiteral("-lamp.png")) && ok;
  document.view().setDark(false);
  document.view().setUnits({true, true});
  ok = waitUntil(ready) && shoot(window, path + QStringLiteral("-fahrenheit.png")) && ok;
  document.view().setUnits({});
  return ok;
}

/// Vents and what else may open, on the mildest day.
bool shootOpenings(Document& document, MainWindow& window, const QString& out) {
  const int night = document.view().selectedNight();
  const double clock = document.view().clock();
  document.edit(QStringLiteral("openings"), [](Plan& p) {
    p.house.rollUp = RollUpSides{.height_m = 0.6, .opens_C = 10.0, .full_C = 17.0};
    p.house.extractFan = ExtractFan{.above_C = 19.0};
  });
  if (!waitForResult(document)) return false;
  const auto& nights = document.results().simulation()->nights;
  const auto mildest = std::max_element(nights.begin(), nights.end(), [](const auto& a, const auto& b) { return a.outsideLow_C < b.outsideLow_C; });
  document.view().selectNight(static_cast<int>(mildest - nights.begin()));
  document.view().setClock(0.02);
  window.showStage(HouseStage::kId);
  window.findChild<HouseStage*>()->showPage(HouseStage::Page::vents);
  const bool ok = shootThreeWays(document, window, out + QStringLiteral("/vents"));
  document.planInHand().undoStack()->undo();
  if (!waitForResult(document)) return false;
  document.view().selectNight(night);
  document.view().setClock(clock);
  return ok;
}

/// What came of a night's heater between two hours after its noon, kWh.
double between(const std::vector<HeatSource>& sources, std::size_t heater, std::size_t from_h, std::size_t to_h) {
  for (const HeatSource& s : sources)
    if (s.of == HeatSource::Of::heater && s.index == heater)
      return std::accumulate(s.kWh.begin() + static_cast<std::ptrdiff_t>(std::min(from_h, s.kWh.size())),
                             s.kWh.begin() + static_cast<std::ptrdiff_t>(std::min(to_h, s.kWh.size())), 0.0);
  return 0.0;
}

/// One plan, three nights: mild and on oil alone; one that the fire carries until four; one so cold that someone must stay up. For the guide.
bool shootThreeNights(Document& document, MainWindow& window, const QString& out) {
  document.edit(QStringLiteral("a fire and oil"), [](Plan& p) {
    p.heaters[0] = {.id = "oil", .name = "oil heater", .kind = HeaterKind::oil, .power_W = 6000.0, .stage_K = 1.0, .fuelPrice_kWh = 0.11, .boughtBy = "litre"};
    addHeater(p, {.id = "stove",
                  .name = "wood stove",
                  .kind = HeaterKind::woodStove,
                  .power_W = 7000.0,
                  .from_h = 18.0,
                  .beforeNightsBelow_C = -2.0,
                  .stoking = {.load_kg = 8.0, .loads = 3, .every_h = 3.0}});
  });
  if (!waitForResult(document)) return false;
  window.showStage(HeatStage::kId);
  auto* heat = window.findChild<HeatStage*>();
  heat->showPage(HeatStage::Page::sources);
  SourcesPage& page = heat->sources();
  const auto& nights = document.results().simulation()->nights;
  constexpr std::size_t kOil = 0, kStove = 1, kSeven = 6, kFour = 16; // hours after noon, of 18:00 to 4:00
  int mild = -1, carried = -1, cold = -1;
  double least_kWh = 1e9;
  for (std::size_t i = 0; i < nights.size(); ++i) {
    if (!nights[i].assessable || nights[i].heater_kWh <= 0.0) continue;
    document.view().selectNight(static_cast<int>(i));
    const auto& of = page.ofNight();
    const double oil = between(of, kOil, 0, 24), stove = between(of, kStove, 0, 24), oilByFire = between(of, kOil, kSeven, kFour);
    if (mild < 0 && stove <= 0.0 && oil > 8.0) mild = static_cast<int>(i);
    if (stove > 0.0 && oil - oilByFire > 6.0 && oilByFire < least_kWh) least_kWh = oilByFire, carried = static_cast<int>(i);
    if (!nights[i].held && (cold < 0 || nights[i].coldest_C < nights[static_cast<std::size_t>(cold)].coldest_C)) cold = static_cast<int>(i);
  }
  if (mild < 0 || carried < 0 || cold < 0) return false;
  const std::pair<int, QString> three[] = {{mild, QObject::tr("A mild night, on oil alone: %1 outside")},
                                           {carried, QObject::tr("A cold night: the fire carries it, oil from four on: %1 outside")},
                                           {cold, QObject::tr("So cold that someone must stay up: %1 outside, both at full stretch and the line is lost")}};
  const Theme& t = Theme::of(document.view().isDark());
  const int wide = page.hoursView().width(), tall = page.hoursView().height();
  QPixmap all(wide + 20, 3 * (tall + 34));
  all.fill(t.wool);
  QPainter p(&all);
  p.setFont(textFont(10, true));
  p.setPen(t.ink);
  int y = 0;
  for (const auto& [night, words] : three) {
    document.view().selectNight(night);
    p.drawText(QRectF(14, y + 4, wide, 22), static_cast<int>(Qt::AlignVCenter),
               words.arg(document.view().units().text(Quantity::temperature, nights[static_cast<std::size_t>(night)].outsideLow_C)));
    waitUntil([] { return false; }, 60);
    p.drawPixmap(10, y + 28, page.hoursView().grab());
    y += tall + 34;
  }
  p.end();
  const bool ok = all.save(out + QStringLiteral("/three-nights.png"));
  document.planInHand().undoStack()->undo();
  return waitForResult(document) && ok;
}

/// The demo has one setpoint by night and one by day: shown with bands that follow the forecast.
bool shootSetpoints(Document& document, MainWindow& window, const QString& out) {
  document.edit(QStringLiteral("bands"), [](Plan& p) {
    p.setpoints.nightBands = {{-15.0, 2.0}, {-2.0, 3.5}, {4.0, 7.0}};
    p.setpoints.dayBands = {{-5.0, 6.0}, {8.0, 12.0}};
    p.setpoints.swingAtMost_K = 6.0;
  });
  if (!waitForResult(document)) return false;
  window.showStage(HeatStage::kId);
  auto* heat = window.findChild<HeatStage*>();
  heat->showPage(HeatStage::Page::setpoints);
  const bool ok = shootThreeWays(document, window, out + QStringLiteral("/setpoints"));
  document.planInHand().undoStack()->undo();
  return waitForResult(document) && ok;
}

/// The demo says nothing of what stands in it: shown with crops that bear more and less.
bool shootCrops(Document& document, MainWindow& window, const QString& out) {
  document.edit(QStringLiteral("crops"), [](Plan& p) {
    p.crops = {{.crop = "strawberry-bloom"}, {.crop = "lettuce"}, {.crop = "roots-tender", .inPots = true, .pot_litres = 10.0}};
  });
  if (!waitForResult(document)) return false;
  window.showStage(HeatStage::kId);
  window.findChild<HeatStage*>()->showPage(HeatStage::Page::crops);
  const bool ok = shootThreeWays(document, window, out + QStringLiteral("/crops"));
  document.planInHand().undoStack()->undo();
  return waitForResult(document) && ok;
}

/// The demo has one heater: shown with another that helps it.
bool shootHeaters(Document& document, MainWindow& window, const QString& out) {
  if (!shootSetpoints(document, window, out) || !shootCrops(document, window, out)) return false;
  window.showStage(HeatStage::kId);
  window.findChild<HeaterList*>()->addButton()->click();
  if (!waitForResult(document)) return false;
  bool ok = shootThreeWays(document, window, out + QStringLiteral("/heaters"));
  document.planInHand().undoStack()->undo();
  document.edit(QStringLiteral("a stove and oil"), [](Plan& p) {
    p.heaters[0] = {.id = "oil", .name = "oil heater", .kind = HeaterKind::oil, .power_W = 9000.0, .stage_K = 1.0, .fuelPrice_kWh = 0.11, .boughtBy = "litre"};
    addHeater(p, {.id = "stove",
                  .name = "wood stove",
                  .kind = HeaterKind::woodStove,
                  .power_W = 7000.0,
                  .fuelPrice_kWh = 0.06,
                  .boughtBy = "stere",
                  .from_h = 19.0,
                  .beforeNightsBelow_C = -2.0});
  });
  if (!waitForResult(document)) return false;
  ok = shootThreeWays(document, window, out + QStringLiteral("/stove")) && ok;
  document.planInHand().undoStack()->undo();
  if (!waitForResult(document)) return false;
  ok = shootThreeNights(document, window, out) && ok;
  auto* heat = window.findChild<HeatStage*>();
  heat->showPage(HeatStage::Page::sources);
  ok = shootThreeWays(document, window, out + QStringLiteral("/sources")) && ok;
  heat->showPage(HeatStage::Page::failure);
  heat->failure().findWorst();
  waitUntil([&] { return heat->failure().shown() && !heat->failure().isWorking(); });
  ok = shootThreeWays(document, window, out + QStringLiteral("/failure")) && ok;
  heat->showPage(HeatStage::Page::degree);
  ok = shootThreeWays(document, window, out + QStringLiteral("/degree"), [heat] { return heat->degree().isCurrent(); }) && ok;
  heat->showPage(HeatStage::Page::ladder);
  return ok;
}

/// The demo's house is one room: shown with a bay, a lobby, a ceiling and a covered bed.
bool shootRooms(Document& document, MainWindow& window, const QString& out) {
  document.edit(QStringLiteral("rooms"), [](Plan& p) {
    p.house.bay = WarmBay{};
    addHeater(p, {.place = {HeaterPlace::Of::bay}, .power_W = 7500.0});
    BedCover bed;
    bed.x_m = -2.0;
    p.house.bedCovers.push_back(bed);
    p.house.lobby = Lobby{};
    if (p.house.shape.eave_m >= 0.8) p.house.roofVoid = RoofVoid{};
  });
  if (!waitForResult(document)) return false;
  window.showStage(HouseStage::kId);
  window.findChild<HouseStage*>()->showPage(HouseStage::Page::rooms);
  return shootThreeWays(document, window, out + QStringLiteral("/rooms"));
}

/// The demo has barrels only: shown with pipes, a hot bed and a tank beside them.
bool shootStores(Document& document, MainWindow& window, const QString& out) {
  const int steps = document.planInHand().undoStack()->index();
  window.showStage(StoresStage::kId);
  auto* stores = window.findChild<StoresStage*>();
  stores->showPage(StoresStage::Page::stores);
  for (const std::size_t addition : {std::size_t{6}, std::size_t{3}, std::size_t{1}}) stores->stores().add(addition);
  if (!waitForResult(document)) return false;
  bool ok = shootThreeWays(document, window, out + QStringLiteral("/pipes"));
  stores->choice().choose("loop:1");
  ok = shoot(window, out + QStringLiteral("/tank.png")) && ok;
  stores->choice().choose("pipes:1");
  auto* section = window.findChild<SectionView*>();
  stores->stores().choose(5); // a mound, on its way to its place
  ok = shoot(window, out + QStringLiteral("/placing.png")) && ok;
  section->leaveIt();
  for (const std::size_t addition : {std::size_t{7}, std::size_t{8}, std::size_t{9}, std::size_t{10}}) stores->stores().add(addition);
  if (!waitForResult(document)) return false;
  ok = shoot(window, out + QStringLiteral("/heavy.png")) && ok;
  stores->showPage(StoresStage::Page::together);
  ok = shoot(window, out + QStringLiteral("/together-many.png")) && ok;
  stores->showPage(StoresStage::Page::stores);
  for (int i = 0; i < 4; ++i) document.planInHand().undoStack()->undo();
  stores->stores().add(5); // the mound beside the house
  if (!waitForResult(document)) return false;
  ok = shoot(window, out + QStringLiteral("/mound.png")) && ok;
  document.planInHand().undoStack()->undo();
  stores->stores().showWinter(true);
  ok = shoot(window, out + QStringLiteral("/pipes-winter.png")) && ok;
  stores->showPage(StoresStage::Page::together);
  ok = shootThreeWays(document, window, out + QStringLiteral("/together")) && ok;
  stores->showPage(StoresStage::Page::ground);
  ok = shootThreeWays(document, window, out + QStringLiteral("/ground")) && ok;
  stores->showPage(StoresStage::Page::oneMore);
  ok = waitUntil([&] { return stores->oneMore().isCurrent(); }) && ok;
  ok = shootThreeWays(document, window, out + QStringLiteral("/one-more")) && ok;
  stores->choice().choose("compost:1");
  stores->showPage(StoresStage::Page::compost);
  ok = shootThreeWays(document, window, out + QStringLiteral("/compost")) && ok;
  stores->showPage(StoresStage::Page::stores);
  ok = shoot(window, out + QStringLiteral("/hot-bed.png")) && ok;
  stores->stores().showWinter(false);
  while (document.planInHand().undoStack()->index() > steps) document.planInHand().undoStack()->undo();
  return waitForResult(document) && ok;
}

/// The dialogs of the log: a file's preview, readings by hand, the measuring aids.
bool shootDialogs(Document& document, MainWindow& window, const QString& out, const QString& suffix) {
  const auto shootIt = [&](QDialog& dialog, const char* name) {
    dialog.show();
    QCoreApplication::processEvents();
    return shoot(dialog, QStringLiteral("%1/%2%3.png").arg(out, QLatin1String(name), suffix));
  };
  ImportDialog import(document, QStringLiteral("bench.csv"),
                      "Datum;Uhrzeit;Aussen;Tunnel (\xC2\xB0"
                      "F);Feuchte (%)\n17.01.2031;06:10;-4,5;37,4;91\n17.01.2031;06:20;-4,7;37,2;91\n"
                      "17.01.2031;06:30;-4,8;36,9;92\n17.01.2031;06:40;-;36,7;92\n",
                      &window);
  HandSheetDialog hand(document, &window);
  hand.lines()->setPlainText(QStringLiteral("17.1.2031\n7:10 -4 / 2.5\n18:00 1 / 8 bench wet\n18/1 min -6 / 1.2\n18/1 max 4 / 19\n7:20 cold"));
  AidsDialog aid(&window);
  aid.showAid(4);
  return shootIt(import, "import") && shootIt(hand, "by-hand") && shootIt(aid, "aids");
}

/// What is said when something goes wrong with a book, and what is done about it.
bool shootKeeping(Document& document, MainWindow& window, const QString& out) {
  bool ok = true;
  const auto bothThemes = [&](QWidget& view, const QString& name) {
    for (const bool dark : {false, true}) {
      document.view().setDark(dark);
      ok = shoot(view, out + QLatin1Char('/') + name + (dark ? QStringLiteral("-lamp.png") : QStringLiteral(".png"))) && ok;
    }
    document.view().setDark(false);
  };
  const QString path = document.book().path();
  document.book().keepSnapshot(QStringLiteral("before the second film"), document.plan());
  document.edit(QStringLiteral("lengthen"), [](Plan& p) { p.house.shape.length_m += 2.0; });
  document.edit(QStringLiteral("hold"), [](Plan& p) { p.setpoints.hold_C += 1.0; });
  document.book().keepSnapshot(QStringLiteral("two metres longer"), document.plan());
  document.planInHand().undoStack()->undo();
  document.planInHand().undoStack()->undo();
  if (!waitForResult(document) || !document.book().waitUntilSaved()) return false;
  window.showStage(HouseStage::kId);
  {
    EarlierStatesDialog states(document, &window);
    states.show();
    bothThemes(states, QStringLiteral("earlier-states"));
  }
  { // a folder where a write begins: the disk takes nothing
    const QString journal = path + QStringLiteral("-journal");
    QDir().mkdir(journal);
    document.edit(QStringLiteral("rename"), [](Plan& p) { p.name = "As it stands, sealed"; });
    document.book().waitUntilSaved();
    if (!waitForResult(document)) return false;
    bothThemes(window, QStringLiteral("not-saved"));
    QDir().rmdir(journal);
    document.planInHand().undoStack()->undo();
    document.book().trySavingAgain();
    document.book().waitUntilSaved();
  }
  {
    Document second;
    MainWindow other(second);
    other.setRemembersBooks(false);
    if (second.openBook(path, false)) return false;
    other.resize(window.size());
    other.show();
    waitForResult(second);
    ok = shoot(other, out + QStringLiteral("/second-window.png")) && ok;
  }
  const QString damaged = QFileInfo(path).dir().filePath(QStringLiteral("last-year.muffle"));
  QFile::copy(path, damaged);
  QFile file(damaged);
  if (!file.open(QIODevice::ReadWrite) || !file.seek(file.size() / 2)) return false;
  file.write(QByteArray(3000, 'x'));
  file.close();
  window.openPath(damaged, false);
  bothThemes(window, QStringLiteral("damaged"));
  const QString to = QFileInfo(path).dir().filePath(QStringLiteral("last-year saved.muffle"));
  if (const auto found = salvageBook(damaged.toStdString(), to.toStdString())) {
    SalvageDialog dialog(*found, to, &window);
    dialog.show();
    bothThemes(dialog, QStringLiteral("salvage"));
  }
  return ok;
}

} // namespace

int takeShots(Document& document, MainWindow& window, const QString& out) {
  if (!QDir().mkpath(out)) return 3;
  if (!waitForResult(document)) return 4;
  document.view().setClock(0.72);
  document.startSizing();
  if (!waitForSizing(document)) return 4;
  bool ok = true;
  const auto all = [&](const QString& suffix) {
    for (const StageRow& row : stages()) {
      window.showStage(row.id);
      ok = shoot(window, QStringLiteral("%1/%2%3.png").arg(out, QString::fromLatin1(row.id.data(), static_cast<qsizetype>(row.id.size())), suffix)) && ok;
    }
    auto* log = window.findChild<LogStage*>();
    window.showStage(LogStage::kId);
    log->showPage(LogStage::Page::measured);
    ok = waitUntil([&] { return log->measured().fit() && !log->measured().isWorking(); }) && ok;
    ok = shoot(window, QStringLiteral("%1/measured%2.png").arg(out, suffix)) && ok;
    log->showPage(LogStage::Page::nights);
    for (const auto& [view, name] : {std::pair{NightsPage::View::lift, "nights"},
                                     {NightsPage::View::often, "often"},
                                     {NightsPage::View::calendar, "calendar"},
                                     {NightsPage::View::compare, "winters"}}) {
      log->nights().show(view);
      ok = shoot(window, QStringLiteral("%1/%2%3.png").arg(out, QLatin1String(name), suffix)) && ok;
    }
    log->showPage(LogStage::Page::readings);
    ok = shootDialogs(document, window, out, suffix) && ok;
    window.showStage(HouseStage::kId);
    auto* house = window.findChild<HouseStage*>();
    for (const auto& [page, name] : {std::pair{HouseStage::Page::place, "place"},
                                     {HouseStage::Page::shape, "shape"},
                                     {HouseStage::Page::skins, "skins"},
                                     {HouseStage::Page::floor, "floor"},
                                     {HouseStage::Page::proportions, "proportions"},
                                     {HouseStage::Page::change, "change"}}) {
      house->showPage(page);
      if (page == HouseStage::Page::change && !waitUntil([&] { return house->changes().isCurrent(); })) ok = false;
      if (page == HouseStage::Page::proportions && !waitUntil([&] { return house->proportions().isCurrent(); })) ok = false;
      ok = shoot(window, QStringLiteral("%1/%2%3.png").arg(out, QLatin1String(name), suffix)) && ok;
    }
    house->showPage(HouseStage::Page::flows);
    auto* section = window.findChild<SectionView*>();
    section->setFromAbove(true);
    const double clock = document.view().clock();
    document.view().setClock(0.9); // a winter morning's sun
    ok = shoot(window, QStringLiteral("%1/above%2.png").arg(out, suffix)) && ok;
    document.view().setClock(clock);
    section->setFromAbove(false);
  };
  window.findChild<LogStage*>()->measured().startFit();
  all({});
  document.view().setDark(true);
  all(QStringLiteral("-lamp"));
  document.view().setDark(false);
  document.view().setUnits({true, true});
  all(QStringLiteral("-fahrenheit"));
  document.view().setUnits({});
  const Sizing* sizing = document.results().sizing();
  if (sizing && sizing->winner >= 0) {
    const SizedPackage& p = sizing->packages[static_cast<std::size_t>(sizing->winner)];
    document.compareWith(buildPackage(document.results().sizedPlan(), p.choice).plan, said(p.label), static_cast<std::size_t>(sizing->winner));
    if (!waitForResult(document)) return 4;
    window.showStage(CostStage::kId);
    ok = shoot(window, out + QStringLiteral("/compare.png")) && ok;
  }
  if (auto* cost = window.findChild<CostStage*>()) {
    cost->showMeasures(true);
    window.showStage(CostStage::kId);
    ok = shoot(window, out + QStringLiteral("/measures.png")) && ok;
    document.view().setDark(true);
    ok = shoot(window, out + QStringLiteral("/measures-lamp.png")) && ok;
    document.view().setDark(false);
  }
  document.compareWith(std::nullopt, {});
  ok = shootStores(document, window, out) && ok;
  ok = shootOpenings(document, window, out) && ok;
  ok = shootHeaters(document, window, out) && ok;
  ok = shootRooms(document, window, out) && ok;
  ok = shootKeeping(document, window, out) && ok;
  const QTemporaryDir empty;
  if (document.openBook(empty.filePath(QStringLiteral("new.muffle")), true)) return 3;
  ok = shoot(window, out + QStringLiteral("/start.png")) && ok;
  return ok ? 0 : 3;
}

} // namespace muffle
