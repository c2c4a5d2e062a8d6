// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/town_field.h"
#include "app/model/said.h"

#include "app/model/atlas.h"
#include "app/model/text.h"
#include "core/site/place_names.h"

#include <QAbstractItemView>
#include <QCompleter>
#include <QLocale>
#include <QStringListModel>
#include <QStyledItemDelegate>

#include <cmath>

namespace muffle {
namespace {

constexpr std::size_t kOffered = 10;
constexpr qsizetype kLeastTyped = 2;

} // namespace

QString coordinatesText(Coordinates at) {
  const auto part = [](double degrees, const QString& plus, const QString& minus) {
    return QStringLiteral("%1° %2").arg(QLocale::c().toString(std::abs(degrees), 'g', 7), degrees < 0 ? minus : plus);
  };
  return part(at.latitude_deg, TownField::tr("N"), TownField::tr("S")) + QStringLiteral("  ") + part(at.longitude_deg, TownField::tr("E"), TownField::tr("W"));
}

QString townText(const Town& town) {
  QStringList words{text(town.name)};
  for (const std::string_view part : {town.region, town.country})
    if (!part.empty()) words << text(part);
  return words.join(QStringLiteral(", "));
}

TownField::TownField(QWidget* parent) : QLineEdit(parent), m_list(new QStringListModel(this)) {
  auto* completer = new QCompleter(m_list, this);
  completer->setCompletionMode(QCompleter::UnfilteredPopupCompletion);
  completer->setMaxVisibleItems(static_cast<int>(kOffered));
  completer->popup()->setAccessibleName(tr("Places of that name"));
  completer->popup()->setStyleSheet(QStringLiteral("QAbstractItemView::item { padding: 3px 6px; }")); // room to hit one of ten
  completer->popup()->setItemDelegate(new QStyledItemDelegate(completer->popup()));
  setCompleter(completer);
  connect(this, &QLineEdit::textEdited, this, &TownField::offer);
  connect(this, &QLineEdit::editingFinished, this, &TownField::take);
  connect(completer, qOverload<const QModelIndex&>(&QCompleter::activated), this, [this](const QModelIndex& at) {
    const auto row = static_cast<std::size_t>(at.row());
    if (row >= m_offered.size()) return;
    setModified(false);
    emit townChosen(m_offered[row]);
  });
}

void TownField::show(const QString& text) {
  if (hasFocus() && isModified()) return;
  setText(text);
  setModified(false);
}

void TownField::offer(const QString& typed) {
  m_offered.clear();
  if (typed.trimmed().size() >= kLeastTyped && !parseCoordinates(typed.toStdString())) m_offered = atlas().towns.find(typed.toStdString(), kOffered);
  QStringList rows;
  for (const Town& town : m_offered) rows << townText(town) + QStringLiteral("   ") + coordinatesText(town.at);
  m_list->setStringList(rows);
}

void TownField::take() {
  if (!isModified() || text().trimmed().isEmpty()) return;
  const std::string typed = text().toStdString();
  const auto read = parseCoordinates(typed);
  if (read) {
    setModified(false);
    emit coordinatesTyped(*read);
    return;
  }
  const auto found = atlas().towns.find(typed, kOffered);
  const std::string name = foldedName(std::string_view(typed).substr(0, typed.find(',')));
  const auto exact = std::count_if(found.begin(), found.end(), [&](const Town& t) { return foldedName(t.name) == name; });
  if (found.size() == 1 || exact == 1) {
    setModified(false);
    emit townChosen(found.front());
  } else if (found.empty()) {
    const bool anyDigit = std::any_of(typed.begin(), typed.end(), [](char c) { return c >= '0' && c <= '9'; });
    emit unclear(anyDigit
                     ? said(read.problem())
                     : tr("No place of a thousand people or more is called \"%1\". Try a bigger one near by, set the pin, or write latitude and longitude.")
                           .arg(text().trimmed()));
  } else {
    emit unclear(exact > 1 ? tr("%1 and more places are called that: choose yours from the list, or write its region or land after a comma.").arg(exact)
                           : tr("No place is called just that; some begin so: choose one from the list."));
  }
}

} // namespace muffle
