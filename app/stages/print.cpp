// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/print.h"

#include "app/model/said.h"
#include "app/paint/theme.h"
#include "core/plan/cautions.h"
#include "core/plan/names.h"

#include <QAbstractTextDocumentLayout>
#include <QDate>
#include <QLocale>
#include <QPainter>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include <QTextDocument>

#include <algorithm>

namespace muffle {

QString printedCautions(const Plan& plan) {
  QString html =
      QStringLiteral("<h2>%1</h2><p>%2</p><ul>")
          .arg(QObject::tr("Cautions that go with \"%1\"").arg(said(nameOf(plan)).toHtmlEscaped()), QObject::tr("Local codes and licensed people come first."));
  for (const StatedCaution& s : cautionsOf(plan)) {
    QStringList of;
    for (const Message& name : s.of) of << said(name).toHtmlEscaped();
    html += QStringLiteral("<li>%1 <i>(%2)</i></li>").arg(said(textOf(s.caution)).toHtmlEscaped(), of.join(QStringLiteral(", ")));
  }
  return html + QStringLiteral("</ul>");
}

void printPage(QPrinter& printer, const Document& document, const PrintedViews& views) {
  QPainter p(&printer);
  const QRectF page = printer.pageLayout().paintRectPixels(printer.resolution());
  const double gap = 12.0, head = 40.0, foot = 30.0;
  const double middle = std::max({views.section->height(), views.instrument->height(), views.slip->height()});
  const double width = views.section->width() + views.instrument->width() + views.slip->width() + 2 * gap;
  const double height = head + middle + gap + views.scarf->height() + foot;
  const double scale = std::min(page.width() / width, page.height() / height);
  p.scale(scale, scale);
  const Theme& t = Theme::of(false);
  p.setPen(t.ink);
  const auto inPixels = [](QFont font, int pixels) { // points would be scaled by the printer's resolution a second time
    font.setPixelSize(pixels);
    return font;
  };
  p.setFont(inPixels(titleFont(14), 19));
  p.drawText(QRectF(0, 0, width, head - 8), static_cast<int>(Qt::AlignVCenter), said(nameOf(document.plan())));
  p.setFont(inPixels(textFont(9), 12));
  p.drawText(QRectF(0, 0, width, head - 8), static_cast<int>(Qt::AlignVCenter | Qt::AlignRight), QLocale().toString(QDate::currentDate(), QLocale::LongFormat));
  double x = 0.0;
  for (QWidget* view : {views.section, views.instrument, views.slip}) {
    p.save();
    p.translate(x, head);
    view->render(&p);
    p.restore();
    x += view->width() + gap;
  }
  p.save();
  p.translate((width - views.scarf->width()) / 2.0, head + middle + gap);
  views.scarf->render(&p);
  p.restore();
  p.drawText(
      QRectF(0, height - foot + 6, width, foot - 6), static_cast<int>(Qt::AlignVCenter | Qt::TextWordWrap),
      QObject::tr("Estimates from a model and logged readings. Snow, wind, electrics, fuel and flues follow local codes and licensed people; the next page "
                  "says what goes with this plan."));
  printer.newPage();
  p.resetTransform();
  QTextDocument cautions;
  cautions.documentLayout()->setPaintDevice(&printer); // its sizes are then those of the paper
  cautions.setDefaultFont(textFont(10));
  cautions.setDefaultStyleSheet(QStringLiteral("body{color:%1} li{margin-bottom:4px}").arg(t.ink.name()));
  cautions.setHtml(QStringLiteral("<body>%1</body>").arg(printedCautions(document.plan())));
  cautions.setTextWidth(page.width());
  cautions.drawContents(&p);
}

void previewPage(QWidget* parent, Document& document, const PrintedViews& views) {
  QPrinter printer(QPrinter::HighResolution);
  printer.setPageOrientation(QPageLayout::Landscape);
  printer.setDocName(said(nameOf(document.plan())));
  QPrintPreviewDialog dialog(&printer, parent);
  const bool dark = document.view().isDark();
  if (dark) document.view().setDark(false); // paper is light
  QObject::connect(&dialog, &QPrintPreviewDialog::paintRequested, parent, [&](QPrinter* to) { printPage(*to, document, views); });
  dialog.exec();
  if (dark) document.view().setDark(true);
}

} // namespace muffle
