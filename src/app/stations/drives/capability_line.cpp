// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/capability_line.h"

#include "core/words/messages.h"

#include <QCoreApplication>

namespace gantry::app {
namespace {
QString tr(const char* text) {
    return QCoreApplication::translate("CapabilityLine", text);
}
} // namespace

QString capabilitySentence(const Context& context) {
    const Axis* axis = context.axis();
    const AxisEvaluation* e = context.axisEvaluation();
    if (axis == nullptr || e == nullptr) return {};
    const Capability& c =
        context.document.results().capability(static_cast<std::size_t>(context.session.axis()));
    if (e->model.missing != Reason::None)
        return tr("not known yet: %1").arg(QString::fromUtf8(words::reasonText(e->model.missing).data()));
    using units::Kind;
    const bool linear = e->model.kind == AxisKind::Linear;
    const auto text = [&](const CapabilityFigure& f, Kind kind) {
        if (f.value) return context.show(f.value, kind);
        return f.value.reason() == Reason::Unbounded ? tr("any") : tr("none");
    };
    const auto fails = [](const CapabilityFigure& f) {
        return f.value.reason() == Reason::FailsUnloaded || f.value.reason() == Reason::NotApplicable;
    };
    if (fails(c.load) && fails(c.slope) && fails(c.acceleration) && fails(c.speed))
        return tr("at margin ×%1 nothing: it fails even without load")
            .arg(context.show(c.margin, Kind::Ratio));
    QStringList parts{text(c.load, linear ? Kind::Mass : Kind::LoadInertia)};
    if (linear) parts << text(c.slope, Kind::Angle);
    parts << text(c.acceleration, linear ? Kind::Acceleration : Kind::AngularAcceleration)
          << text(c.speed, linear ? Kind::Speed : Kind::AngularSpeed);
    // What binds, once for all that it binds.
    QStringList bound;
    const auto binds = [&](const CapabilityFigure& f, const QString& what) {
        if (f.value.reason() == Reason::NotApplicable || f.binding == Binding::Nothing) return;
        const QString by = QString::fromUtf8(bindingName(f.binding).data());
        bound << tr("%1 bound by %2").arg(what, by);
    };
    binds(c.load, tr("load"));
    binds(c.slope, tr("slope"));
    binds(c.speed, tr("speed"));
    return tr("at margin ×%1: %2 · %3")
        .arg(context.show(c.margin, Kind::Ratio), parts.join(tr(" or ")), bound.join(QStringLiteral(", ")));
}

} // namespace gantry::app
