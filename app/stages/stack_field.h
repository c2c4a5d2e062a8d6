// SPDX-License-Identifier: GPL-3.0-or-later
//
// The layers of a partition or ceiling, one below another: changed, added, taken away; and what the stack lets through.
#pragma once

#include "app/model/document.h"
#include "app/model/look.h"

#include <QWidget>

#include <functional>

class QComboBox;
class QLabel;
class QVBoxLayout;

namespace muffle {

/// Adds every material's name, id and description to a box.
void offerMaterials(QComboBox& box, const Materials& materials);
/// What a material is, for a tooltip.
QString aboutMaterial(const CoverMaterial& material);

class StackField : public QWidget {
  Q_OBJECT
public:
  /// `of` finds the skin in a plan, or nullptr where it is gone; `lies` is how heat meets it.
  StackField(Document& document, QString name, Find<Skin> of, FaceGroup lies, QWidget* parent = nullptr);
  void refresh();

private:
  void rebuild(const Skin& skin);
  void change(const QString& name, const std::function<void(Skin&)>& what);
  Document& m_document;
  QString m_name;
  Find<Skin> m_of;
  FaceGroup m_lies;
  QVBoxLayout* m_rows;
  QLabel* m_sum;
  Skin m_shown;
  std::vector<OwnMaterial> m_shownOwn;
};

} // namespace muffle
