// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/drives_station.h"

#include "app/instruments/chain_view.h"
#include "app/instruments/drive_table.h"
#include "app/instruments/profile_plot.h"
#include "app/instruments/torque_plot.h"
#include "app/stations/drives/part_fields.h"
#include "app/theme/tokens.h"

#include <QComboBox>
#include <QPainter>
#include <QPushButton>
#include <algorithm>

namespace gantry::app {
namespace {
constexpr int edge = 14, labelWidth = 92, chainTop = 84, tilesHeight = 112;
}

DrivesStation::DrivesStation(const Context& context, QWidget* parent)
    : Station(context, parent), shots_(new QComboBox(this)),
      addBelt_(new QPushButton(tr("Add belt stage"), this)),
      addGear_(new QPushButton(tr("Add gear stage"), this)),
      remove_(new QPushButton(tr("Remove part"), this)), chain_(new ChainView(context, this)),
      table_(new DriveTable(context, this)), editor_(new FieldGroup(context, this)),
      torque_(new TorquePlot(context, this)), profile_(new ProfilePlot(context, this)) {
    shots_->setObjectName(QStringLiteral("shotPicker"));
    shots_->setAccessibleName(tr("Shot"));
    addBelt_->setObjectName(QStringLiteral("addBeltStage"));
    addGear_->setObjectName(QStringLiteral("addGearStage"));
    remove_->setObjectName(QStringLiteral("removePart"));
    editor_->setObjectName(QStringLiteral("partEditor"));
    chain_->setLabelWidth(labelWidth);
    table_->setLabelWidth(labelWidth);
    connect(shots_, &QComboBox::activated, this,
            [this](int i) { context_.session.setShot(shots_->itemData(i).toInt()); });
    connect(chain_, &ChainView::selected, this, &DrivesStation::choosePart);
    connect(addBelt_, &QPushButton::clicked, this, [this] { addStage(true); });
    connect(addGear_, &QPushButton::clicked, this, [this] { addStage(false); });
    connect(remove_, &QPushButton::clicked, this, &DrivesStation::removeLink);
    connect(editor_, &FieldGroup::message, this, &Station::message);
    connect(torque_, &Plot::message, this, &Station::message);
    connect(profile_, &Plot::message, this, &Station::message);
}

QStringList DrivesStation::rules() const {
    return {"torque",   "pulse_rate",    "power_off",     "standstill", "resonance",
            "stepping", "drift",         "jitter",        "repeat",     "framing",
            "backlash", "motor_current", "driver_rating", "motor_size"};
}

void DrivesStation::choosePart(int column) {
    context_.session.setChainColumn(column);
}

void DrivesStation::fillShots() {
    // Rebuilding a combo box costs more than an edit may, so only when the list really differs.
    const AxisEvaluation* e = context_.axisEvaluation();
    const auto& all = context_.document.project().shots;
    QString list;
    if (e != nullptr)
        for (const ShotEvaluation& s : e->shots)
            list += QString::fromStdString(all[static_cast<std::size_t>(s.shot)].name) + QLatin1Char('\n');
    if (e != nullptr && e->worstShot >= 0)
        list += QString::number(e->worstShot) + QString::number(context_.session.axis());
    if (list != shotList_ || shots_->count() == 0) {
        shotList_ = list;
        shots_->clear();
        if (e == nullptr || e->worstShot < 0)
            shots_->addItem(tr("no shot moves this axis"), -1);
        else {
            const auto name = [&](const ShotEvaluation& s) {
                return QString::fromStdString(all[static_cast<std::size_t>(s.shot)].name);
            };
            shots_->addItem(
                tr("worst of all shots: %1").arg(name(e->shots[static_cast<std::size_t>(e->worstShot)])), -1);
            for (const ShotEvaluation& s : e->shots) shots_->addItem(name(s), s.shot);
        }
    }
    const int index = shots_->findData(context_.session.shot());
    shots_->setCurrentIndex(index >= 0 ? index : 0);
}

QString capabilitySentence(const Context& context) {
    const Axis* axis = context.axis();
    const AxisEvaluation* e = context.axisEvaluation();
    if (axis == nullptr || e == nullptr) return {};
    const Capability c = capability(context.document.project(), *axis, *e);
    if (e->model.missing != Reason::None)
        return DrivesStation::tr("not known yet: %1")
            .arg(QString::fromUtf8(words::reasonText(e->model.missing).data()));
    using units::Kind;
    const bool linear = e->model.kind == AxisKind::Linear;
    const auto text = [&](const CapabilityFigure& f, Kind kind) {
        if (f.value) return context.show(f.value, kind);
        return f.value.reason() == Reason::Unbounded ? DrivesStation::tr("any") : DrivesStation::tr("none");
    };
    QStringList parts{text(c.load, linear ? Kind::Mass : Kind::LoadInertia)};
    if (linear) parts << text(c.slope, Kind::Angle);
    parts << text(c.acceleration, linear ? Kind::Acceleration : Kind::AngularAcceleration)
          << text(c.speed, linear ? Kind::Speed : Kind::AngularSpeed);
    return DrivesStation::tr("at margin ×%1: %2 · %3")
        .arg(context.show(c.margin, Kind::Ratio), parts.join(DrivesStation::tr(" or ")),
             c.speed.binding == Binding::PulseRate ? DrivesStation::tr("speed bound by pulses")
                                                   : DrivesStation::tr("bound by torque"));
}

void DrivesStation::refreshEditor() {
    const int n = static_cast<int>(columns_.size());
    if (n == 0) {
        editor_->setTitle(tr("No part"), tr("Add an axis first"));
        editor_->setFields({});
        remove_->setEnabled(false);
        return;
    }
    const int column = std::clamp(context_.session.chainColumn(), 0, n - 1);
    const ChainColumn& c = columns_[static_cast<std::size_t>(column)];
    chain_->setSelected(column);
    QString detail = tr("part %1 of %2").arg(column + 1).arg(n);
    if (const ShotEvaluation* s = context_.shotEvaluation(); c.part == ChainPart::Picture && s != nullptr) {
        using units::Kind;
        detail +=
            tr(" · blur %1 · crosses the picture in %2 · step accuracy ±%3 · %4 as current falls · "
               "shot takes %5")
                .arg(context_.show(s->blurPixels, Kind::Pixels), context_.show(s->crossingTime, Kind::Time),
                     context_.show(s->accuracyPixels, Kind::Pixels),
                     context_.show(s->idleShiftPixels, Kind::Pixels, 2));
    }
    editor_->setTitle(ChainView::partName(context_, c), detail);
    editor_->setFields(fieldsOfPart(context_, c));
    remove_->setEnabled(c.part == ChainPart::Link && !context_.document.readOnly());
}

void DrivesStation::refresh() {
    fillShots();
    capability_ = capabilitySentence(context_);
    const Axis* axis = context_.axis();
    const AxisEvaluation* e = context_.axisEvaluation();
    const ShotEvaluation* shot = context_.shotEvaluation();
    columns_.clear();
    if (axis != nullptr && e != nullptr)
        columns_ = chainColumns(*axis, *e, shot != nullptr ? *shot : ShotEvaluation{});
    chain_->setColumns(columns_);
    table_->setColumns(columns_);
    table_->setVisible(!columns_.empty());
    chain_->setVisible(!columns_.empty());
    const int before = editor_->heightFor(width() - 2 * edge);
    refreshEditor();
    if (editor_->heightFor(width() - 2 * edge) != before) place();
    torque_->show(e, shot);
    profile_->show(e, shot);
    const bool can = axis != nullptr && !context_.document.readOnly();
    addBelt_->setEnabled(can);
    addGear_->setEnabled(can);
    update(0, 0, width(), chainTop);
}

void DrivesStation::applyTheme() {
    torque_->applyTheme();
    profile_->applyTheme();
}

void DrivesStation::addStage(bool belt) {
    const int axisIndex = context_.session.axis();
    context_.document.change(belt ? tr("Add belt stage") : tr("Add gear stage"), [&](Project& p) {
        Axis& axis = p.axes[static_cast<std::size_t>(axisIndex)];
        const std::string id = freeId(p, axis.id + (belt ? "-belt" : "-gear"));
        if (belt) {
            BeltStage s;
            s.id = id;
            axis.links.push_back(s);
        } else {
            GearStage s;
            s.id = id;
            axis.links.push_back(s);
        }
    });
    if (const Axis* axis = context_.axis())
        context_.session.setChainColumn(1 + static_cast<int>(axis->links.size()));
}

void DrivesStation::removeLink() {
    const int column = context_.session.chainColumn();
    if (column < 0 || column >= static_cast<int>(columns_.size())) return;
    const int link = columns_[static_cast<std::size_t>(column)].link;
    if (link < 0) return;
    context_.document.change(tr("Remove part"), [&](Project& p) {
        auto& links = p.axes[static_cast<std::size_t>(context_.session.axis())].links;
        links.erase(links.begin() + link);
    });
}

void DrivesStation::place() {
    const int w = width() - 2 * edge;
    shots_->setGeometry(edge + 90, 10, 250, 27);
    remove_->setGeometry(edge + w - 108, 10, 108, 27);
    addGear_->setGeometry(edge + w - 108 - 126, 10, 120, 27);
    addBelt_->setGeometry(edge + w - 108 - 252, 10, 120, 27);
    const int inner = w - 20;
    chain_->setGeometry(edge + 10, chainTop + 8, inner, tilesHeight);
    const int tableHeight = 7 * DriveTable::rowHeight + 2;
    table_->setGeometry(edge + 10, chainTop + tilesHeight + 14, inner, tableHeight);
    int y = chainTop + tilesHeight + 14 + tableHeight + 18;
    const int editorHeight = editor_->heightFor(w);
    editor_->setGeometry(edge, y, w, editorHeight);
    y += editorHeight + 10;
    const int half = (w - 10) / 2;
    const int plotHeight = std::max(170, height() - y - 12);
    torque_->setGeometry(edge, y, half, plotHeight);
    profile_->setGeometry(edge + half + 10, y, w - half - 10, plotHeight);
}

void DrivesStation::resizeEvent(QResizeEvent*) {
    place();
}

void DrivesStation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    const Axis* axis = context_.axis();
    p.setFont(textFont(14, true));
    p.setPen(t.ink);
    p.drawText(QRect(edge, 10, 88, 27), Qt::AlignVCenter,
               p.fontMetrics().elidedText(axis != nullptr ? QString::fromStdString(axis->name) : tr("Drives"),
                                          Qt::ElideRight, 84));
    const QRect line(edge, 46, width() - 2 * edge, 30);
    paintCard(p, line);
    p.setFont(textFont(12, true));
    const QString lead = tr("What this drive can do");
    p.drawText(line.adjusted(12, 0, 0, 0), Qt::AlignVCenter, lead);
    const int used = p.fontMetrics().horizontalAdvance(lead) + 18;
    p.setFont(textFont(12));
    p.setPen(t.second);
    p.drawText(line.adjusted(used, 0, -8, 0), Qt::AlignVCenter,
               p.fontMetrics().elidedText(
                   axis != nullptr
                       ? capability_
                       : tr("add an axis at the left, or start from “Here is what I have” in Brief"),
                   Qt::ElideRight, line.width() - used - 8));
    paintCard(p, QRect(edge, chainTop, width() - 2 * edge, table_->geometry().bottom() + 8 - chainTop));
}

} // namespace gantry::app
