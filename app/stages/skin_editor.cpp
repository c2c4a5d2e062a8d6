// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stages/skin_editor.h"

#include "app/model/said.h"
#include "app/model/text.h"
#include "app/paint/theme.h"
#include "app/stages/cards.h"
#include "app/stages/caution_label.h"
#include "app/stages/number_field.h"
#include "app/stages/own_materials.h"
#include "app/stages/stack_field.h"
#include "core/assemble/covers.h"
#include "core/cost/cost.h"
#include "core/material/materials.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>

#include <cmath>

namespace muffle {
namespace {

constexpr std::size_t kMostSkinLayers = 6;
constexpr const char* kBlanketCloths[] = {"woven-blanket", "aluminised-screen", "clear-screen", "quilt", "fleece", "pe-film", "bubble-wrap", "shade-cloth"};
constexpr double kClearSky_K = 20.0; // how much colder than the air a clear night's sky is

Skin& skinOf(House& house, FaceGroup group) {
  switch (group) {
  case FaceGroup::roof: return house.roof;
  case FaceGroup::sides: return house.sides;
  case FaceGroup::ends: return house.ends;
  case FaceGroup::backWall: break;
  }
  return house.backWall;
}

/// A piece of the layer: as light as it lets light through, dotted where radiant heat passes, hatched where it is solid.
class Swatch : public QWidget {
public:
  Swatch(Document& document, CoverMaterial material, QWidget* parent) : QWidget(parent), m_document(document), m_material(material) {
    setFixedSize(34, 34);
    setToolTip(aboutMaterial(material));
    setAccessibleName(said(nameOf(material)));
  }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter p(this);
    const Theme& t = Theme::of(m_document.view().isDark());
    const double light = m_material.solarTransmittance;
    const QColor body =
        light > 0.3 ? QColor::fromRgbF(static_cast<float>(0.55 + 0.4 * light), static_cast<float>(0.66 + 0.3 * light), static_cast<float>(0.72 + 0.27 * light))
        : m_material.capacity_J_m2K > 50000 ? t.soilTop
                                            : t.fleece;
    p.fillRect(rect(), body);
    p.setPen(QPen(QColor("#2D241E"), 1));
    if (m_material.longwave.transmittance > 0.1)
      for (int y = 5; y < 34; y += 7)
        for (int x = 5; x < 34; x += 7) p.drawPoint(x, y);
    if (m_material.resistance_m2K_W > 0.05)
      for (double k = -34; k < 34; k += std::max(4.0, 12.0 - 3.0 * m_material.resistance_m2K_W)) p.drawLine(QPointF(k, 34), QPointF(k + 34, 0));
    p.setPen(QPen(t.ink, 1));
    p.setBrush(Qt::NoBrush);
    p.drawRect(rect().adjusted(0, 0, -1, -1));
  }

private:
  Document& m_document;
  CoverMaterial m_material; ///< its numbers; the texts may go with the plan
};

QComboBox* materialBox(const Document& document, QWidget* parent) {
  auto* box = new QComboBox(parent);
  box->setFont(textFont(9.5));
  box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  box->setMinimumContentsLength(8);
  offerMaterials(*box, document.planInHand().materials());
  return box;
}

} // namespace

SkinEditor::SkinEditor(Document& document, QWidget* parent) : QWidget(parent), m_document(document), m_faces(this) {
  auto* body = new QVBoxLayout(this);
  body->setContentsMargins(0, 0, 0, 0);
  body->setSpacing(8);
  auto* faces = new QHBoxLayout;
  faces->setSpacing(6);
  const QString names[] = {tr("Roof"), tr("Sides"), tr("End walls"), tr("Back wall")};
  for (int g = 0; g < kFaceGroupCount; ++g) {
    auto* b = new QPushButton(names[g], this);
    b->setCheckable(true);
    b->setFont(textFont(9.5));
    m_faces.addButton(b, g);
    faces->addWidget(b);
  }
  faces->addStretch(1);
  body->addLayout(faces);
  connect(&m_faces, &QButtonGroup::idClicked, this, [this](int g) { showFace(static_cast<FaceGroup>(g)); });
  m_sums = new QLabel(this);
  m_sums->setWordWrap(true);
  m_sums->setFont(textFont(10));
  body->addWidget(m_sums);
  m_bought = new QLabel(this);
  m_bought->setWordWrap(true);
  m_bought->setFont(textFont(9));
  m_bought->setToolTip(tr("By your prices below; not in the bill, for it stands already. What is to be added is priced under Cost"));
  body->addWidget(m_bought);
  auto* outside = new QLabel(tr("outside"), this);
  outside->setFont(textFont(8.5));
  body->addWidget(outside);
  m_scroll = new QScrollArea(this);
  m_scroll->setWidgetResizable(true);
  m_scroll->setFrameShape(QFrame::NoFrame);
  m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* layers = new QWidget(m_scroll);
  m_rows = new QVBoxLayout(layers);
  m_rows->setContentsMargins(0, 0, 4, 0);
  m_rows->setSpacing(4);
  m_scroll->setWidget(layers);
  body->addWidget(m_scroll, 100); // as high as its layers, if there is room
  auto* inside = new QHBoxLayout;
  auto* word = new QLabel(tr("inside"), this);
  word->setFont(textFont(8.5));
  inside->addWidget(word);
  inside->addStretch(1);
  m_insert = materialBox(document, this);
  m_insert->setMinimumContentsLength(14);
  m_insert->insertItem(0, tr("add a layer inside"));
  m_insert->setCurrentIndex(0);
  m_insert->setAccessibleName(tr("Add a layer inside"));
  inside->addWidget(m_insert);
  m_everywhere = new QPushButton(tr("The same on roof, sides and ends"), this);
  m_everywhere->setFont(textFont(9));
  inside->addWidget(m_everywhere);
  auto* own = new QPushButton(tr("Your own…"), this);
  own->setFont(textFont(9));
  own->setToolTip(tr("materials that are not in the table"));
  connect(own, &QPushButton::clicked, this, [this] {
    auto* dialog = new OwnMaterialsDialog(m_document, window());
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  inside->addWidget(own);
  body->addLayout(inside);
  body->addSpacing(10);
  auto* blanket = new QGridLayout;
  blanket->setHorizontalSpacing(14);
  blanket->setVerticalSpacing(2);
  auto* blanketWord = new QLabel(tr("Night blanket under roof, sides and ends"), this);
  blanketWord->setFont(textFont(10, true));
  blanket->addWidget(blanketWord, 0, 0, 1, 2);
  m_blanket = new QComboBox(this);
  m_blanket->setFont(textFont(9.5));
  m_blanket->setAccessibleName(tr("Night blanket"));
  m_blanket->addItem(tr("none"));
  for (const char* id : kBlanketCloths) m_blanket->addItem(said(nameOf(*findCoverMaterial(id))), QString::fromLatin1(id));
  m_rule = new QComboBox(this);
  m_rule->setFont(textFont(9.5));
  m_rule->setAccessibleName(tr("When the blanket is drawn"));
  m_rule->addItems({tr("drawn from sunset to sunrise"), tr("drawn on cold nights only"), tr("drawn whenever there is little sun"), tr("drawn by the clock"),
                    tr("drawn when it is cold inside"), tr("drawn as a shade in strong sun")});
  blanket->addWidget(m_blanket, 1, 0);
  blanket->addWidget(m_rule, 1, 1);
  const auto field = [&](const QString& name, Quantity q, double NightBlanket::*member, double min, double max, double nudge, const QString& source) {
    const Find<double> find = [member](Plan& p) { return p.house.blanket ? &((*p.house.blanket).*member) : nullptr; };
    return new NumberField(document, NumberField::Spec::at(name, q, find, min, max, nudge, source), this);
  };
  m_leak = field(tr("Blanket leaks"), Quantity::share, &NightBlanket::leak, 0, 1, 0.05,
                 tr("share of the air behind it that mixes with the house when it is closed"));
  m_cold = field(tr("Drawn below"), Quantity::temperature, &NightBlanket::outsideBelow_C, -40, 30, 0.5, tr("outside temperature; it opens a kelvin above"));
  m_inside = field(tr("Drawn below"), Quantity::temperature, &NightBlanket::insideBelow_C, -30, 40, 0.5,
                   tr("temperature of the house, at night; it opens a kelvin and a half above"));
  m_dark = field(tr("Drawn below W/m²"), Quantity::count, &NightBlanket::sunBelow_W_m2, 0, 1000, 5,
                 tr("level sun outside, W/m²; it opens a tenth above, and costs light while closed"));
  m_bright = field(tr("Drawn above W/m²"), Quantity::count, &NightBlanket::sunAbove_W_m2, 1, 1500, 20,
                   tr("level sun outside, W/m²; it opens a tenth below, and takes its share of the light while closed"));
  m_closes = field(tr("Closed at"), Quantity::hours, &NightBlanket::closesAt_h, 0, 24, 0.5, tr("hour of the day, in the place's own time"));
  m_opens = field(tr("Opened at"), Quantity::hours, &NightBlanket::opensAt_h, 0, 24, 0.5, tr("hour of the day, in the place's own time"));
  m_work = field(tr("Work each time"), Quantity::hours, &NightBlanket::hoursPerDraw, 0, 12, 0.05,
                 tr("closing and opening it by hand, hours; none with a motor. What it comes to over a winter follows from when it is drawn"));
  blanket->addWidget(m_closes, 2, 1);
  blanket->addWidget(m_opens, 3, 1);
  blanket->addWidget(m_work, 3, 0);
  blanket->addWidget(m_leak, 2, 0);
  blanket->addWidget(m_cold, 2, 1);
  blanket->addWidget(m_dark, 2, 1);
  blanket->addWidget(m_inside, 2, 1);
  blanket->addWidget(m_bright, 2, 1);
  body->addLayout(blanket);
  connect(m_blanket, &QComboBox::activated, this, [this](int i) {
    const std::string id = m_blanket->itemData(i).toString().toStdString();
    if (auto why = m_document.edit(i == 0 ? tr("take the blanket away") : tr("hang a blanket"), [&](Plan& p) {
          if (id.empty())
            p.house.blanket.reset();
          else if (p.house.blanket)
            p.house.blanket->material = id;
          else
            p.house.blanket = NightBlanket{.material = id};
        }))
      emit m_document.trouble(*why);
  });
  connect(m_rule, &QComboBox::activated, this, [this](int i) {
    if (auto why = m_document.edit(tr("when the blanket is drawn"), [&](Plan& p) {
          if (p.house.blanket) p.house.blanket->rule = static_cast<BlanketRule>(i);
        }))
      emit m_document.trouble(*why);
  });
  body->addStretch(1);
  m_caution = new CautionLabel(ThingKind::covers, this);
  body->addWidget(m_caution);
  connect(m_insert, &QComboBox::activated, this, [this](int i) {
    if (i == 0) return;
    const std::string id = m_insert->itemData(i).toString().toStdString();
    m_insert->setCurrentIndex(0);
    if (skin().layers.size() >= kMostSkinLayers) {
      emit m_document.trouble(tr("A skin has at most %1 layers.").arg(kMostSkinLayers));
      return;
    }
    change(tr("add a layer"), [&](Skin& s) { s.layers.push_back({id, 0.05}); });
  });
  connect(m_everywhere, &QPushButton::clicked, this, [this] {
    const Skin same = skin();
    if (auto why = m_document.edit(tr("the same skin everywhere"), [&](Plan& p) { p.house.roof = p.house.sides = p.house.ends = same; }))
      emit m_document.trouble(*why);
  });
}

const Skin& SkinEditor::skin() const {
  const Find<Skin> find = [face = m_face](Plan& p) { return &skinOf(p.house, face); };
  return *look(find, m_document.plan());
}

void SkinEditor::change(const QString& name, const std::function<void(Skin&)>& what) {
  if (auto why = m_document.edit(name, [&](Plan& p) { what(skinOf(p.house, m_face)); })) emit m_document.trouble(*why);
}

void SkinEditor::showFace(FaceGroup group) {
  m_face = group;
  refresh();
}

QWidget* SkinEditor::row(std::size_t layer) {
  const Materials materials = m_document.planInHand().materials();
  const CoverMaterial& material = *materials.find(m_shown.layers[layer].material);
  auto* whole = new QWidget(this);
  auto* down = new QVBoxLayout(whole);
  down->setContentsMargins(0, 0, 0, 0);
  down->setSpacing(0);
  auto* card = new QWidget(whole);
  down->addWidget(card);
  auto* across = new QHBoxLayout(card);
  across->setContentsMargins(0, 0, 0, 0);
  across->setSpacing(6);
  across->addWidget(new Swatch(m_document, material, card));
  auto* box = materialBox(m_document, card);
  box->setAccessibleName(tr("Layer %1").arg(layer + 1));
  box->setCurrentIndex(box->findData(text(material.id)));
  connect(box, &QComboBox::activated, this, [this, layer, box](int i) {
    const std::string id = box->itemData(i).toString().toStdString();
    change(tr("change a layer"), [&](Skin& s) { s.layers[layer].material = id; });
  });
  across->addWidget(box, 1);
  const bool last = layer + 1 == m_shown.layers.size();
  if (!last) {
    auto* gap = new NumberField(
        m_document,
        {tr("gap"), Quantity::thickness, [this, layer](const Plan&) { return layer < skin().layers.size() ? skin().layers[layer].gap_m : 0.0; },
         [this, layer](Plan& p, double v) { skinOf(p.house, m_face).layers[layer].gap_m = v; }, 0.003, 2.0, 0.01, tr("air to the next layer inwards")},
        card);
    gap->setFixedWidth(132);
    across->addWidget(gap);
  }
  const auto button = [&](const QString& sign, const QString& tip, bool enabled, auto act) { addSignButton(*across, card, sign, tip, enabled, this, act); };
  button(QStringLiteral("↑"), tr("move outwards"), layer > 0,
         [this, layer] { change(tr("reorder layers"), [&](Skin& s) { std::swap(s.layers[layer].material, s.layers[layer - 1].material); }); });
  button(QStringLiteral("↓"), tr("move inwards"), !last,
         [this, layer] { change(tr("reorder layers"), [&](Skin& s) { std::swap(s.layers[layer].material, s.layers[layer + 1].material); }); });
  Skin without = m_shown;
  without.layers.erase(without.layers.begin() + static_cast<std::ptrdiff_t>(layer));
  button(QStringLiteral("×"), m_shown.layers.size() > 1 ? tr("remove this layer") : tr("a face needs at least one layer"), m_shown.layers.size() > 1,
         [this, layer] { change(tr("remove a layer"), [&](Skin& s) { s.layers.erase(s.layers.begin() + static_cast<std::ptrdiff_t>(layer)); }); });
  auto* below = new QHBoxLayout;
  below->setContentsMargins(40, 0, 0, 2);
  below->setSpacing(4);
  auto* note = new QLabel(whole);
  note->setFont(textFont(8.5));
  if (const auto bare = without.layers.empty() ? std::nullopt : skinU_W_m2K(without, m_face, {}, materials))
    note->setText(tr("without it %1, light %2 %")
                      .arg(m_document.view().units().text(Quantity::uValue, *bare))
                      .arg(std::lround(100 * skinOptics(without, materials).transmittance)));
  note->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  below->addWidget(note, 1);
  const std::string id(material.id);
  auto* price = new NumberField(m_document,
                                {tr("price"), Quantity::areaPrice,
                                 [id](const Plan& p) {
                                   const MaterialPrice* known = priceOf(p.prices, id);
                                   return known ? known->price_per_m2 : 0.0;
                                 },
                                 [id](Plan& p, double v) { priceOf(p.prices, id).price_per_m2 = v; }, 0, 10000, 0.5,
                                 tr("your supplier's, of this material wherever it is used"), NumberField::Spec::Word{0.0, tr("not known")}},
                                whole);
  price->setFixedWidth(146);
  below->addWidget(price);
  down->addLayout(below);
  return whole;
}

void SkinEditor::rebuild() {
  clearCards(*m_rows);
  m_shown = skin();
  m_shownFace = m_face;
  m_shownUnits = m_document.view().units();
  if (m_shownOwn != m_document.plan().materials) {
    m_shownOwn = m_document.plan().materials;
    while (m_insert->count() > 1) m_insert->removeItem(1);
    offerMaterials(*m_insert, m_document.planInHand().materials());
  }
  int height = 0; // the layout itself counts only what is shown already
  for (std::size_t l = 0; l < m_shown.layers.size(); ++l) {
    QWidget* const layer = row(l);
    m_rows->addWidget(layer);
    height += layer->sizeHint().height() + m_rows->spacing();
  }
  m_scroll->setMaximumHeight(height);
}

void SkinEditor::refresh() {
  const House& house = m_document.plan().house;
  m_faces.button(static_cast<int>(FaceGroup::backWall))->setVisible(house.shape.hasBackWall());
  m_faces.button(static_cast<int>(FaceGroup::sides))->setVisible(house.shape.area_m2(FaceGroup::sides) > 0.0);
  m_faces.button(static_cast<int>(FaceGroup::ends))->setVisible(house.shape.area_m2(FaceGroup::ends) > 0.0);
  if (house.shape.area_m2(m_face) <= 0.0) m_face = FaceGroup::roof;
  m_faces.button(static_cast<int>(m_face))->setChecked(true);
  m_everywhere->setVisible(m_face != FaceGroup::backWall);
  if (!(m_shown == skin()) || m_shownFace != m_face || !(m_shownUnits == m_document.view().units()) || m_shownOwn != m_document.plan().materials) rebuild();
  const auto& blanket = house.blanket;
  const QString cloth = blanket ? QString::fromStdString(blanket->material) : QString();
  if (blanket && m_blanket->findData(cloth) < 0) m_blanket->addItem(said(nameOf(*m_document.planInHand().materials().find(blanket->material))), cloth);
  m_blanket->setCurrentIndex(blanket ? m_blanket->findData(cloth) : 0);
  m_rule->setVisible(blanket.has_value());
  m_leak->setVisible(blanket.has_value());
  if (blanket) m_rule->setCurrentIndex(static_cast<int>(blanket->rule));
  m_cold->setVisible(blanket && blanket->rule == BlanketRule::cold);
  m_bright->setVisible(blanket && blanket->rule == BlanketRule::bright);
  m_inside->setVisible(blanket && blanket->rule == BlanketRule::inside);
  m_dark->setVisible(blanket && blanket->rule == BlanketRule::dark);
  m_closes->setVisible(blanket && blanket->rule == BlanketRule::clock);
  m_opens->setVisible(blanket && blanket->rule == BlanketRule::clock);
  m_work->setVisible(blanket.has_value());
  const Units& u = m_document.view().units();
  const auto overcast = skinU_W_m2K(m_shown, m_face, {}, m_document.planInHand().materials());
  SkinNight clearNight;
  clearNight.skyBelow_K = kClearSky_K;
  const auto clear = skinU_W_m2K(m_shown, m_face, clearNight, m_document.planInHand().materials());
  const double area = house.shape.area_m2(m_face);
  if (overcast && clear)
    m_sums->setText(tr("Lets %1 through on an overcast night, %2 under a clear sky; %3 % of light. %4 of it lose %5 at a lift of %6, overcast.")
                        .arg(u.text(Quantity::uValue, *overcast), u.text(Quantity::uValue, *clear))
                        .arg(std::lround(100 * skinOptics(m_shown, m_document.planInHand().materials()).transmittance))
                        .arg(u.text(Quantity::area, area), u.text(Quantity::power, *overcast * area * 10.0), u.text(Quantity::difference, 10.0)));
  const SkinCost cost = skinCost(m_shown, area, m_document.plan().prices);
  const QString money = QString::fromStdString(m_document.plan().prices.currency);
  if (cost.priced == 0)
    m_bought->setText(tr("Type what a layer costs to see what this face costs bought anew."));
  else
    m_bought->setText(tr("Bought anew %1 %2%3.")
                          .arg(u.number(Quantity::money, cost.capital), money,
                               cost.priced < static_cast<int>(m_shown.layers.size())
                                   ? tr("; %1 of %2 layers have a price").arg(cost.priced).arg(m_shown.layers.size())
                                   : QString()));
  m_sums->setToolTip(
      tr("Worked out with the same model as the nights: inside %1, outside %2, wind %3; the sky as cold as the air (overcast) or %4 colder (clear).")
          .arg(u.text(Quantity::temperature, clearNight.inside_C), u.text(Quantity::temperature, clearNight.outside_C),
               u.text(Quantity::speed, clearNight.wind_m_s), u.text(Quantity::difference, kClearSky_K)));
}

} // namespace muffle
