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
    QStringList bound;
    for (const CapabilityFigure* f : {&c.load, &c.slope, &c.speed}) {
        const QString by = QString::fromUtf8(bindingName(f->binding).data());
        if (f->value && f->binding != Binding::Nothing && !bound.contains(by)) bound << by;
    }
    if (bound.isEmpty()) bound << QString::fromUtf8(bindingName(Binding::Nothing).data());
    return tr("at margin ×%1: %2 · %3")
        .arg(context.show(c.margin, Kind::Ratio), parts.join(tr(" or ")),
             tr("bound by %1").arg(bound.join(QStringLiteral(", "))));
}

} // namespace gantry::app
