// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/paint/theme.h"

#include <QFontDatabase>
#include <QGuiApplication>

#include <algorithm>
#include <array>
#include <cmath>

static void takeResources() { Q_INIT_RESOURCE(app); } // of a library: the linker leaves out what nobody names

namespace muffle {
namespace {

QColor mix(const QColor& a, const QColor& b, double share) {
  const auto part = [&](int x, int y) { return static_cast<int>(x + (y - x) * share); };
  return {part(a.red(), b.red()), part(a.green(), b.green()), part(a.blue(), b.blue())};
}

} // namespace

const Theme& Theme::wool_() {
  static const Theme t{"#EFE7DA", "#FBF7F0", "#2D241E", "#6F6458", "#D9CDBA", "#3A6A8C", "#D9A93B",
                       "#A8392C", "#5F7A3C", "#243848", "#7C98AC", "#8A7256", "#5A4634", false};
  return t;
}

const Theme& Theme::lamp() {
  static const Theme t{"#211B17", "#2C2520", "#F0E6D8", "#B5A794", "#4A4038", "#7FB0D0", "#D9B65C",
                       "#DE7462", "#A3BF78", "#121C25", "#3C5364", "#6B5844", "#43352A", true};
  return t;
}

QPalette Theme::palette() const {
  QPalette p;
  p.setColor(QPalette::Window, oat);
  p.setColor(QPalette::WindowText, ink);
  p.setColor(QPalette::Base, wool);
  p.setColor(QPalette::AlternateBase, oat);
  p.setColor(QPalette::Text, ink);
  p.setColor(QPalette::Button, wool);
  p.setColor(QPalette::ButtonText, ink);
  p.setColor(QPalette::ToolTipBase, wool);
  p.setColor(QPalette::ToolTipText, ink);
  p.setColor(QPalette::Highlight, madder);
  p.setColor(QPalette::HighlightedText, dark ? oat : wool);
  p.setColor(QPalette::PlaceholderText, fleece);
  p.setColor(QPalette::Mid, seam);
  p.setColor(QPalette::Light, wool);
  p.setColor(QPalette::Dark, seam);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText}) p.setColor(QPalette::Disabled, role, fleece);
  return p;
}

QString Theme::styleSheet() const {
  return QStringLiteral(
             "QMenuBar,QMenu{background:%1;color:%2;}QMenuBar::item{padding:4px "
             "11px;background:transparent;}QMenuBar::item:selected,QMenu::item:selected{background:%3;color:%2;}QMenu{border:1px solid "
             "%3;}QMenu::item{padding:5px 24px 5px 18px;}"
             "QPushButton{background:%4;color:%2;border:1px solid %3;border-radius:4px;padding:5px "
             "12px;}QPushButton:hover{border-color:%5;}QPushButton:focus{border:2px solid %5;padding:4px "
             "11px;}QPushButton:disabled{color:%6;}QPushButton:checked{background:%3;border-color:%2;}"
             "QLineEdit,QComboBox,QPlainTextEdit,QSpinBox{background:%1;color:%2;border:1px solid %3;border-radius:3px;padding:3px "
             "6px;}QLineEdit:focus,QComboBox:focus{border:1px solid %5;}QComboBox "
             "QAbstractItemView{background:%1;color:%2;selection-background-color:%3;selection-color:%2;}"
             "QComboBox::drop-down{border:none;width:18px;}QComboBox::down-arrow{image:url(:/icons/down.svg);width:11px;height:11px;}"
             "QToolTip{background:%1;color:%2;border:1px solid %3;padding:4px;}QScrollArea,QScrollArea>QWidget>QWidget{background:transparent;border:none;}"
             "QTableView,QTreeView{background:%1;color:%2;gridline-color:%3;border:none;selection-background-color:%3;selection-color:%2;}QHeaderView::section{"
             "background:%4;color:%6;border:none;border-bottom:1px solid %3;padding:3px 3px;}"
             "QTreeView::item{padding:2px 0;}QProgressBar{background:%4;border:1px solid "
             "%3;border-radius:3px;text-align:center;color:%2;}QProgressBar::chunk{background:%7;}"
             "QScrollBar:vertical{background:transparent;width:9px;}QScrollBar::handle:vertical{background:%3;border-radius:4px;min-height:24px;}QScrollBar::"
             "add-line,QScrollBar::sub-line{height:0;}"
             "QWidget#notice{background:%1;border:1px solid %5;border-radius:4px;}"
             "QSplitter::handle{background:transparent;}"
             "QSlider::groove:horizontal{height:3px;background:%3;}QSlider::handle:horizontal{background:%5;width:13px;margin:-5px 0;border-radius:6px;}")
      .arg(wool.name(), ink.name(), seam.name(), oat.name(), madder.name(), fleece.name(), lichen.name());
}

QColor Theme::warmth(double c) const {
  const QColor cold = woad, middle = dark ? QColor("#8C8069") : QColor("#E7DDBF"), warm = madder;
  const double x = std::clamp((c + 8.0) / 24.0, 0.0, 1.0);
  return x < 0.5 ? mix(cold, middle, x * 2.0) : mix(middle, warm, (x - 0.5) * 2.0);
}

QColor Theme::margin(double k) const {
  // five yarns to either side, so that neighbouring nights read as knit rather than as a smear
  if (k < 0.0)
    return mix(dark ? QColor("#9FC3DA") : QColor("#9DBBCD"), dark ? QColor("#3F7FA8") : QColor("#1F4B6B"), std::min(std::floor(-k / 0.8) / 4.0, 1.0));
  const double step = std::min(std::floor(k / 1.2) / 5.0, 1.0);
  const QColor pale = dark ? QColor("#5A4E3C") : QColor("#EBDDB4"), mid = dark ? QColor("#A67C3C") : QColor("#D9A45E");
  return step < 0.5 ? mix(pale, mid, step * 2.0) : mix(mid, madder, (step - 0.5) * 2.0);
}

QColor inkOn(const QColor& ground) {
  const double luminance = 0.2126 * std::pow(ground.redF(), 2.2) + 0.7152 * std::pow(ground.greenF(), 2.2) + 0.0722 * std::pow(ground.blueF(), 2.2);
  return luminance > 0.22 ? QColor("#221A15") : QColor("#FBF7F0");
}

void loadFonts() {
  takeResources();
  for (const char* file : {":/fonts/Lato-Regular.ttf", ":/fonts/Lato-Bold.ttf", ":/fonts/Vollkorn-Regular.ttf", ":/fonts/Vollkorn-SemiBold.ttf"})
    QFontDatabase::addApplicationFont(QString::fromLatin1(file));
  QGuiApplication::setFont(textFont(10)); // before there are widgets: those made under a style sheet do not follow later
}

QFont textFont(double points, bool bold) {
  QFont f(QStringLiteral("Lato"));
  f.setPointSizeF(points);
  f.setBold(bold);
  return f;
}

QFont titleFont(double points) {
  QFont f(QStringLiteral("Vollkorn"));
  f.setPointSizeF(points);
  f.setWeight(QFont::DemiBold);
  return f;
}

} // namespace muffle
