// SPDX-License-Identifier: GPL-3.0-or-later
//
// The layers of each face, from outside in: insert, reorder, change, remove; what the stack lets through of heat and
// light, and what each layer does for it.
#pragma once

#include "app/model/document.h"

#include <QButtonGroup>
#include <QWidget>

#include <vector>

class QComboBox;
class QLabel;
class QScrollArea;
class QPushButton;
class QVBoxLayout;

namespace muffle {

class SkinEditor : public QWidget {
  Q_OBJECT
public:
  explicit SkinEditor(Document& document, QWidget* parent = nullptr);
  void refresh();
  void showFace(FaceGroup group);
  [[nodiscard]] FaceGroup face() const { return m_face; }

private:
  void rebuild();
  QWidget* row(std::size_t layer);
  [[nodiscard]] const Skin& skin() const;
  void change(const QString& name, const std::function<void(Skin&)>& what);
  Document& m_document;
  FaceGroup m_face = FaceGroup::roof;
  QButtonGroup m_faces;
  QVBoxLayout* m_rows;
  QScrollArea* m_scroll;
  QLabel *m_sums, *m_bought, *m_caution;
  QComboBox* m_insert;
  QPushButton* m_everywhere;
  QComboBox *m_blanket, *m_rule;
  QWidget *m_leak, *m_cold, *m_dark, *m_inside, *m_bright, *m_closes, *m_opens, *m_work;
  Skin m_shown;
  std::vector<OwnMaterial> m_shownOwn;
  FaceGroup m_shownFace = FaceGroup::backWall;
  Units m_shownUnits;
};

} // namespace muffle
