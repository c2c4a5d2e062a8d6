// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/spoken.h"

#include <QAccessible>
#include <QAccessibleWidget>
#include <QElapsedTimer>
#include <QPaintEngine>
#include <QPainter>
#include <QWidget>

#include <algorithm>
#include <cmath>

namespace muffle {
namespace {

/// Hears what is written on it and sees nothing else.
class TextEngine : public QPaintEngine {
public:
  struct Word {
    QPointF at; ///< of its baseline's beginning
    QString text;
  };
  TextEngine() : QPaintEngine(QPaintEngine::AllFeatures) {}
  bool begin(QPaintDevice*) override { return true; }
  bool end() override { return true; }
  void updateState(const QPaintEngineState& now) override {
    if (now.state() & DirtyTransform) m_transform = now.transform();
  }
  void drawTextItem(const QPointF& at, const QTextItem& item) override { words.push_back({m_transform.map(at), item.text()}); }
  void drawPixmap(const QRectF&, const QPixmap&, const QRectF&) override {}
  void drawPath(const QPainterPath&) override {}
  void drawPolygon(const QPointF*, int, PolygonDrawMode) override {}
  [[nodiscard]] Type type() const override { return QPaintEngine::User; }
  std::vector<Word> words;

private:
  QTransform m_transform;
};

class TextDevice : public QPaintDevice {
public:
  explicit TextDevice(const QWidget& like) : m_like(like) {}
  [[nodiscard]] QPaintEngine* paintEngine() const override { return &m_engine; }
  [[nodiscard]] std::vector<TextEngine::Word>& words() { return m_engine.words; }

protected:
  [[nodiscard]] int metric(PaintDeviceMetric what) const override {
    switch (what) {
    case PdmWidth: return m_like.width();
    case PdmHeight: return m_like.height();
    case PdmWidthMM: return m_like.widthMM();
    case PdmHeightMM: return m_like.heightMM();
    case PdmNumColors: return 1 << 24;
    case PdmDepth: return 32;
    case PdmDpiX:
    case PdmPhysicalDpiX: return m_like.logicalDpiX();
    case PdmDpiY:
    case PdmPhysicalDpiY: return m_like.logicalDpiY();
    default: return 1;
    }
  }

private:
  const QWidget& m_like;
  mutable TextEngine m_engine;
};

class PaintedList;

/// One line of the list.
class PaintedLine : public QAccessibleInterface {
public:
  PaintedLine(PaintedList& list, int index) : m_list(list), m_index(index) {}
  [[nodiscard]] bool isValid() const override;
  [[nodiscard]] QObject* object() const override { return nullptr; }
  [[nodiscard]] QAccessibleInterface* childAt(int, int) const override { return nullptr; }
  [[nodiscard]] QAccessibleInterface* parent() const override;
  [[nodiscard]] QAccessibleInterface* child(int) const override { return nullptr; }
  [[nodiscard]] int childCount() const override { return 0; }
  [[nodiscard]] int indexOfChild(const QAccessibleInterface*) const override { return -1; }
  [[nodiscard]] QString text(QAccessible::Text which) const override;
  void setText(QAccessible::Text, const QString&) override {}
  [[nodiscard]] QRect rect() const override;
  [[nodiscard]] QAccessible::Role role() const override { return QAccessible::ListItem; }
  [[nodiscard]] QAccessible::State state() const override {
    QAccessible::State s;
    s.readOnly = true;
    return s;
  }

private:
  PaintedList& m_list;
  int m_index;
};

class PaintedList : public QAccessibleWidget {
public:
  PaintedList(QWidget* widget, const Spoken& spoken) : QAccessibleWidget(widget, QAccessible::List), m_spoken(spoken) {}
  ~PaintedList() override {
    for (const QAccessible::Id id : m_children) QAccessible::deleteAccessibleInterface(id);
  }
  [[nodiscard]] int childCount() const override { return static_cast<int>(lines().size()) + QAccessibleWidget::childCount(); }
  [[nodiscard]] QAccessibleInterface* child(int index) const override {
    const auto count = static_cast<int>(lines().size());
    if (index >= count) return QAccessibleWidget::child(index - count); // widgets within
    if (index < 0) return nullptr;
    auto* self = const_cast<PaintedList*>(this); // Qt asks for children of const parents
    while (static_cast<int>(m_children.size()) <= index)
      self->m_children.push_back(QAccessible::registerAccessibleInterface(new PaintedLine(*self, static_cast<int>(m_children.size()))));
    return QAccessible::accessibleInterface(m_children[static_cast<std::size_t>(index)]);
  }
  [[nodiscard]] int indexOfChild(const QAccessibleInterface* of) const override {
    for (std::size_t i = 0; i < m_children.size(); ++i)
      if (QAccessible::accessibleInterface(m_children[i]) == of) return static_cast<int>(i);
    const int within = QAccessibleWidget::indexOfChild(of);
    return within < 0 ? within : within + static_cast<int>(lines().size());
  }
  [[nodiscard]] const std::vector<SpokenLine>& lines() const {
    constexpr int kFresh_ms = 200; // a reader that walks the list asks for one line at a time
    if (!m_age.isValid() || m_age.elapsed() > kFresh_ms) {
      m_lines = m_spoken.spoken();
      m_age.start();
    }
    return m_lines;
  }

private:
  const Spoken& m_spoken;
  std::vector<QAccessible::Id> m_children;
  mutable std::vector<SpokenLine> m_lines;
  mutable QElapsedTimer m_age;
};

bool PaintedLine::isValid() const { return m_list.isValid() && m_index < static_cast<int>(m_list.lines().size()); }
QAccessibleInterface* PaintedLine::parent() const { return &m_list; }
QRect PaintedLine::rect() const { return m_list.rect(); }
QString PaintedLine::text(QAccessible::Text which) const {
  if (!isValid()) return {};
  const SpokenLine& line = m_list.lines()[static_cast<std::size_t>(m_index)];
  return which == QAccessible::Name ? line.name : which == QAccessible::Value ? line.value : QString();
}

QAccessibleInterface* answer(const QString&, QObject* object) {
  auto* widget = qobject_cast<QWidget*>(object);
  const auto* spoken = dynamic_cast<const Spoken*>(widget);
  return spoken ? new PaintedList(widget, *spoken) : nullptr;
}

} // namespace

std::vector<SpokenLine> paintedLines(const QWidget& widget) {
  if (widget.size().isEmpty()) return {};
  constexpr double kSameLine_px = 5.0;
  TextDevice device(widget);
  const_cast<QWidget&>(widget).render(&device, QPoint(), QRegion(), QWidget::RenderFlags()); // painting changes nothing
  auto& words = device.words();
  std::stable_sort(words.begin(), words.end(), [](const auto& a, const auto& b) { return a.at.y() < b.at.y(); });
  std::vector<SpokenLine> lines;
  for (std::size_t i = 0; i < words.size();) {
    std::size_t end = i + 1;
    while (end < words.size() && words[end].at.y() - words[i].at.y() <= kSameLine_px) ++end;
    std::stable_sort(words.begin() + static_cast<std::ptrdiff_t>(i), words.begin() + static_cast<std::ptrdiff_t>(end),
                     [](const auto& a, const auto& b) { return a.at.x() < b.at.x(); });
    SpokenLine line;
    for (; i < end; ++i) {
      const QString text = words[i].text.trimmed();
      if (text.isEmpty()) continue;
      if (line.name.isEmpty())
        line.name = text;
      else
        line.value += (line.value.isEmpty() ? QString() : QStringLiteral(", ")) + text;
    }
    if (!line.name.isEmpty()) lines.push_back(line);
  }
  return lines;
}

void speakPaintedViews() { QAccessible::installFactory(answer); }

} // namespace muffle
