// SPDX-License-Identifier: GPL-3.0-or-later
//
// A language in which every sentence is marked at both ends and a third longer: whatever is seen without its marks was never given to the
// translator, and whatever no longer fits would be cut off in a language with longer words.
#include "app/model/kept_together.h"
#include "app/stages/page_strip.h"
#include "app/stages/spoken.h"
#include "app/stages/stage.h"
#include "tests/app/window_fixture.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QMenuBar>
#include <QPaintEngine>
#include <QPainter>
#include <QPainterPath>
#include <QRegularExpression>
#include <QTextDocument>
#include <QTranslator>
#include <QTreeWidget>

#include <set>

namespace muffle {
namespace {

constexpr QChar kOpen(0x27E6), kClose(0x27E7);

class Longer : public QTranslator {
public:
  [[nodiscard]] QString translate(const char* context, const char* source, const char* said, int n) const override {
    QString english = m_kept.translate(context, source, said, n);
    const QString text = english.isNull() ? QString::fromUtf8(source) : english;
    if (text.trimmed().isEmpty() || !text.contains(m_letters)) return english;
    QString longer = text; // by words that may be parted from each other
    for (qsizetype more = text.size() / 3; more > 0; more -= 8)
      longer += QLatin1Char(more > 4 ? ' ' : '~') + QString(std::min<qsizetype>(more, 7), QLatin1Char('~'));
    return kOpen + longer + kClose;
  }
  [[nodiscard]] bool isEmpty() const override { return false; }

private:
  KeptTogether m_kept;
  QRegularExpression m_letters{QStringLiteral("[A-Za-z]{2}")};
};

/// Keeps what is written on it, and where it would run over the edge.
class WrittenEngine : public QPaintEngine {
public:
  explicit WrittenEngine(QSizeF size) : QPaintEngine(QPaintEngine::AllFeatures), m_size(size) {}
  bool begin(QPaintDevice*) override { return true; }
  bool end() override { return true; }
  void updateState(const QPaintEngineState& now) override {
    if (now.state() & DirtyTransform) m_transform = now.transform();
    const auto clip = [&](const QRectF& to) { m_clip = now.clipOperation() == Qt::NoClip || !now.isClipEnabled() ? QRectF() : m_transform.mapRect(to); };
    if (now.state() & DirtyClipRegion) clip(now.clipRegion().boundingRect());
    if (now.state() & DirtyClipPath) clip(now.clipPath().boundingRect());
    if ((now.state() & DirtyClipEnabled) && !now.isClipEnabled()) m_clip = QRectF();
  }
  void drawTextItem(const QPointF& at, const QTextItem& item) override {
    written << item.text();
    constexpr double kHair = 1.5; // that a last letter's box is wider than its ink
    const QRectF box = m_transform.mapRect(QRectF(at.x(), at.y() - item.ascent(), item.width(), item.ascent() + item.descent()));
    const QRectF seen = m_clip.isNull() ? QRectF(QPointF(), m_size) : m_clip;
    if (box.right() > seen.right() + kHair || box.left() < seen.left() - kHair) cut << item.text();
  }
  void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
  void drawPath(const QPainterPath&) override {}
  void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
  [[nodiscard]] Type type() const override { return QPaintEngine::User; }
  QStringList written, cut;

private:
  QTransform m_transform;
  QSizeF m_size;
  QRectF m_clip; ///< null where everything is seen
};

class WrittenDevice : public QPaintDevice {
public:
  explicit WrittenDevice(const QWidget& like) : m_like(like), m_engine(like.size()) {}
  [[nodiscard]] QPaintEngine* paintEngine() const override { return &m_engine; }
  [[nodiscard]] const WrittenEngine& engine() const { return m_engine; }

protected:
  [[nodiscard]] int metric(PaintDeviceMetric what) const override {
    switch (what) {
    case PdmWidth: return m_like.width();
    case PdmHeight: return m_like.height();
    case PdmDepth: return 32;
    case PdmNumColors: return 1 << 24;
    case PdmDevicePixelRatio: return 1;
    case PdmDevicePixelRatioScaled: return static_cast<int>(devicePixelRatioFScale());
    default: return m_like.logicalDpiX();
    }
  }

private:
  const QWidget& m_like;
  mutable WrittenEngine m_engine;
};

class PseudoLanguageTest : public WindowTest {
protected:
  void SetUp() override {
    QCoreApplication::installTranslator(&m_longer);
    WindowTest::SetUp();
  }
  void TearDown() override {
    close();
    QCoreApplication::removeTranslator(&m_longer);
  }
  void openWithLog() {
    open();
    whenAsked([](ImportDialog* dialog) {
      for (QPushButton* b : dialog->findChildren<QPushButton*>())
        if (b->text().contains(QStringLiteral("Keep this log"))) QTest::mouseClick(b, Qt::LeftButton);
    });
    ASSERT_TRUE(window->importFile(twoMonths()));
    ASSERT_TRUE(waitForResult(*document));
    ofTheGrowers();
  }
  /// Names, places and columns stand as their grower wrote them; months, zones and moneys are the system's.
  void ofTheGrowers() {
    const Plan& p = document->plan();
    const auto add = [this](const std::string& s) {
      if (!s.empty()) m_growers << QString::fromStdString(s);
    };
    add(p.name), add(p.site.name), add(p.site.timeZone), add(p.prices.currency);
    for (const Heater& h : p.heaters) add(h.name);
    for (const Measure& m : p.measures) add(m.name);
    for (const Kit& k : p.kit) add(k.name);
    if (document->readings().log()) {
      add(document->readings().log()->name);
      for (const Channel& c : document->readings().log()->channels) add(c.name);
    }
    m_growers << QStringLiteral("yard"); // the book's file
    for (int m = 1; m <= 12; ++m) m_growers << QLocale().monthName(m) << QLocale().monthName(m, QLocale::ShortFormat);
    for (int d = 1; d <= 7; ++d) m_growers << QLocale().dayName(d) << QLocale().dayName(d, QLocale::ShortFormat);
    std::sort(m_growers.begin(), m_growers.end(), [](const QString& a, const QString& b) { return a.size() > b.size(); });
  }
  /// What of a text stands outside of any marks and has a word in it.
  QString unmarked(QString text) {
    if (text.contains(QLatin1Char('<'))) {
      QTextDocument rich;
      rich.setHtml(text);
      text = rich.toPlainText();
    }
    static const QRegularExpression zone(QStringLiteral("^[A-Z][A-Za-z_]+/[A-Za-z_/-]+$"));
    if (text.contains(zone)) return {};
    for (const QString& name : m_growers) text.remove(name);
    QString outside;
    int depth = m_depth;
    for (const QChar c : text) {
      if (c == kOpen) ++depth;
      if (depth <= 0) outside += c;
      if (c == kClose) depth = std::max(0, depth - 1);
    }
    m_depthAfter = text.endsWith(QChar(0x2026)) ? 0 : depth;
    static const QRegularExpression word(QStringLiteral("[A-Za-z]{4,}"));
    return outside.contains(word) ? outside : QString();
  }
  void expectMarked(const QString& text, const QString& where) {
    m_depth = 0;
    if (const QString bare = unmarked(text); !bare.isEmpty()) m_bare.insert(where + QStringLiteral(": ") + bare);
  }
  void readAll(QWidget& of, const QString& stage) {
    for (QWidget* w : of.findChildren<QWidget*>()) {
      if (!w->isVisible()) continue;
      const QString where = stage + QLatin1Char(' ') + QString::fromLatin1(w->metaObject()->className());
      expectMarked(w->toolTip(), where + QStringLiteral(" tip"));
      expectMarked(w->accessibleName(), where + QStringLiteral(" name"));
      if (auto* label = qobject_cast<QLabel*>(w)) {
        expectMarked(label->text(), where);
        const int needs = label->wordWrap() ? label->heightForWidth(label->width()) - label->height() : label->sizeHint().width() - label->width();
        if (!label->text().isEmpty() && needs > 2) m_cut.insert(where + QStringLiteral(": ") + label->text().left(90) + QStringLiteral(" by %1").arg(needs));
      } else if (auto* button = qobject_cast<QAbstractButton*>(w)) {
        expectMarked(button->text(), where);
        if (!button->text().isEmpty() && button->fontMetrics().horizontalAdvance(button->text()) > button->width() + 2)
          m_cut.insert(where + QStringLiteral(": ") + button->text());
      } else if (auto* box = qobject_cast<QComboBox*>(w)) {
        for (int i = 0; i < box->count(); ++i) expectMarked(box->itemText(i), where);
      } else if (auto* tree = qobject_cast<QTreeWidget*>(w)) {
        for (int c = 0; c < tree->columnCount(); ++c)
          if (!tree->isHeaderHidden()) expectMarked(tree->headerItem()->text(c), where);
      }
      if (dynamic_cast<Spoken*>(w)) readPainting(*w, where);
    }
  }
  void readPainting(QWidget& w, const QString& where) {
    WrittenDevice device(w);
    w.render(&device, QPoint(), QRegion(), QWidget::RenderFlags());
    m_depth = 0;
    for (const QString& item : device.engine().written) { // a sentence over several lines comes line by line
      if (const QString bare = unmarked(item); !bare.isEmpty()) m_bare.insert(where + QStringLiteral(" painted: ") + bare);
      m_depth = m_depthAfter;
    }
    m_depth = 0;
    for (const QString& item : device.engine().cut) m_cut.insert(where + QStringLiteral(" painted: ") + item);
  }
  void expectNothingFound() const {
    for (const QString& bare : m_bare) ADD_FAILURE() << "never given to the translator: " << bare.toStdString();
    for (const QString& cut : m_cut) ADD_FAILURE() << "cut off: " << cut.toStdString();
  }

  Longer m_longer;
  QStringList m_growers;
  int m_depth = 0, m_depthAfter = 0;
  std::set<QString> m_bare, m_cut;
};

/// Draws a sentence into a box that is too narrow for it, and one over the edge.
class Narrow : public QWidget {
public:
  using QWidget::QWidget;

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    p.drawText(QRectF(0, 0, 40, 30), 0, QCoreApplication::translate("", "in a narrow box"));
    p.drawText(QPointF(150, 60), QCoreApplication::translate("", "over the edge of it"));
    p.drawText(QPointF(10, 90), QStringLiteral("painted for everybody"));
  }
};

TEST_F(PseudoLanguageTest, FindsWhatIsNotTranslatedAndWhatIsCutOff) {
  QWidget all;
  all.resize(200, 100);
  auto* bare = new QLabel(QStringLiteral("said to everybody"), &all);
  auto* narrow = new QLabel(QCoreApplication::translate("", "a sentence with no room"), &all);
  bare->setGeometry(0, 0, 200, 30), narrow->setGeometry(0, 40, 40, 30);
  all.show();
  readAll(all, QString());
  ASSERT_EQ(m_bare.size(), 1U);
  EXPECT_TRUE(m_bare.begin()->contains(QStringLiteral("said to everybody")));
  ASSERT_EQ(m_cut.size(), 1U);
  EXPECT_TRUE(m_cut.begin()->contains(QStringLiteral("a sentence with no room")));
  m_bare.clear(), m_cut.clear();
  Narrow painted;
  painted.resize(200, 100);
  readPainting(painted, QString());
  ASSERT_EQ(m_bare.size(), 1U);
  EXPECT_TRUE(m_bare.begin()->contains(QStringLiteral("painted for everybody")));
  const auto isCut = [this](const char* words) { return std::any_of(m_cut.begin(), m_cut.end(), [&](const QString& c) { return c.contains(QLatin1String(words)); }); };
  EXPECT_TRUE(isCut("in a narrow box"));
  EXPECT_TRUE(isCut("over the edge"));
}

TEST_F(PseudoLanguageTest, EveryStageAndPageIsMarkedAndFits) {
  openWithLog();
  window->resize(1280, 800);
  document->startSizing();
  ASSERT_TRUE(waitForSizing(*document));
  for (QMenu* menu : window->menuBar()->findChildren<QMenu*>())
    for (QAction* action : menu->actions()) expectMarked(action->text(), QStringLiteral("menu"));
  int pages = 0;
  for (const StageRow& stage : stages()) {
    window->showStage(stage.id);
    QTest::qWait(20);
    const QString title = QString::fromLatin1(stage.id);
    std::vector<QPointer<QAbstractButton>> words;
    for (PageStrip* strip : window->findChildren<PageStrip*>())
      if (strip->isVisible())
        for (QAbstractButton* b : strip->findChildren<QAbstractButton*>())
          if (b->isVisible() && b->isCheckable() && b->parent() == strip) words.emplace_back(b);
    if (words.empty()) readAll(*window, title), ++pages;
    for (const auto& word : words) {
      if (!word) continue;
      word->click();
      QTest::qWait(120);
      readAll(*window, title + QLatin1Char('/') + word->text());
      ++pages;
    }
  }
  EXPECT_GT(pages, 20);
  expectNothingFound();
}

} // namespace
} // namespace muffle
