// SPDX-License-Identifier: GPL-3.0-or-later
//
// A number where it is shown: click or press Enter and type with any unit, or nudge it with the wheel or arrows. A value
// that is refused stays as it was, with the reason beside it.
#pragma once

#include "app/model/document.h"
#include "app/model/look.h"

#include <QLineEdit>
#include <QWidget>

namespace muffle {

class NumberField : public QWidget {
  Q_OBJECT
public:
  struct Spec {
    QString label;
    Quantity quantity = Quantity::count;
    std::function<double(const Plan&)> get;
    std::function<void(Plan&, double)> set;
    double min = 0.0, max = 1e9; ///< in SI
    double nudge = 1.0;          ///< in SI
    QString source;              ///< where the number comes from, for the tooltip
    /// A value, in SI, that is shown as a word, such as a limit that applies to nothing; the word may be typed.
    struct Word {
      double value;
      QString says;
    };
    std::optional<Word> word = {};
    /// What a number may also be typed in: "12 barrows". One of them, in SI; its name in the singular.
    struct Measure {
      QString name;
      double each;
    };
    std::vector<Measure> measures = {};
    /// A number by its place in the plan; where there is none it reads 0 and typing changes nothing.
    static Spec at(QString label, Quantity quantity, const Find<double>& find, double min, double max, double nudge, QString source,
                   std::optional<Word> word = {});
  };
  NumberField(Document& document, Spec spec, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {240, m_error.isEmpty() ? 28 : 60}; }
  QSize minimumSizeHint() const override { return {150, sizeHint().height()}; }
  [[nodiscard]] QString errorText() const { return m_error; }
  QLineEdit* editor() { return m_editor; }

protected:
  void paintEvent(QPaintEvent*) override;
  void mousePressEvent(QMouseEvent*) override;
  void wheelEvent(QWheelEvent*) override;
  void keyPressEvent(QKeyEvent*) override;
  bool eventFilter(QObject*, QEvent*) override;

private:
  void beginTyping();
  void commit();
  void put(double si, bool merge);
  void refuse(const QString& why);
  [[nodiscard]] QString shown() const;
  [[nodiscard]] std::optional<double> inMeasures(const QString& typed) const;
  [[nodiscard]] QRect valueRect() const;
  Document& m_document;
  Spec m_spec;
  QLineEdit* m_editor;
  QString m_error;
};

} // namespace muffle
