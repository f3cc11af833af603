// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/context.h"

#include "core/units/unit_table.h"

#include "core/units/text.h"

namespace gantry::app {

void Session::setAxis(int axis) {
    if (axis == axis_) return;
    axis_ = axis;
    shot_ = -1;
    column_ = 1;
    emit changed();
}

void Session::setShot(int shot) {
    if (shot == shot_) return;
    shot_ = shot;
    emit changed();
}

void Session::setChainColumn(int column) {
    if (column == column_) return;
    column_ = column;
    emit changed();
}

void Session::fit(const Project& project) {
    const int axes = static_cast<int>(project.axes.size());
    if (axis_ < 0) axis_ = 0;
    if (axis_ >= axes) axis_ = axes > 0 ? axes - 1 : 0;
    if (shot_ >= static_cast<int>(project.shots.size())) shot_ = -1;
}

const Axis* Context::axis() const {
    const auto i = static_cast<std::size_t>(session.axis());
    return i < document.project().axes.size() ? &document.project().axes[i] : nullptr;
}

const AxisEvaluation* Context::axisEvaluation() const {
    const auto i = static_cast<std::size_t>(session.axis());
    const auto& axes = document.assessment().evaluation.axes;
    return i < axes.size() ? &axes[i] : nullptr;
}

const ShotEvaluation* Context::shotEvaluation() const {
    const AxisEvaluation* e = axisEvaluation();
    if (e == nullptr) return nullptr;
    for (const ShotEvaluation& s : e->shots)
        if (s.shot.row() == session.shot()) return &s;
    return e->worst();
}

QString Context::show(const Figure& f, units::Kind kind, int digits) const {
    return f ? show(f.value(), kind, digits) : QStringLiteral("–");
}

QString Context::unit(units::Kind kind) const {
    return QString::fromUtf8(units::shownUnit(kind, system()).text);
}

QString Context::typed(double si, units::Kind kind) const {
    const QString shown = unit(kind),
                  number = QString::fromStdString(units::formatForField(si, kind, system()));
    return shown.isEmpty() || shown == QStringLiteral("°") ? number + shown
                                                           : number + QLatin1Char(' ') + shown;
}

QString Context::show(double si, units::Kind kind, int digits) const {
    return QString::fromStdString(units::format(si, kind, system(), digits));
}

} // namespace gantry::app
