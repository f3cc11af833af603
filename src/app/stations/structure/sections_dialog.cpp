// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/sections_dialog.h"

#include "core/model/describe.h"

#include <QPushButton>

namespace gantry::app {

using units::Kind;

QString sectionWords(const Context& context, const Section& s) {
    const auto label = ChoiceNames<SectionShape>::labels[static_cast<std::size_t>(s.shape)];
    QString out = QString::fromUtf8(label.data(), static_cast<qsizetype>(label.size()));
    const auto length = [&](double v) { return context.show(v, Kind::PartLength); };
    switch (s.shape) {
    case SectionShape::NotGiven:
    case SectionShape::Own:
        return out;
    case SectionShape::RoundTube:
        out += QObject::tr(" %1, wall %2").arg(length(s.width), length(s.wall));
        return out;
    case SectionShape::RodPair:
        return out + QLatin1Char(' ') + length(s.width);
    case SectionShape::HollowRectangle:
        out += QObject::tr(" %1 × %2, wall %3").arg(length(s.width), length(s.height), length(s.wall));
        break;
    case SectionShape::SlottedProfile:
    case SectionShape::SolidRectangle:
    case SectionShape::Tee:
        out += QStringLiteral(" %1 × %2").arg(length(s.width), length(s.height));
        break;
    }
    return s.onEdge ? QObject::tr("%1, on edge").arg(out) : out;
}

SectionsDialog::SectionsDialog(const Context& context, QWidget* parent)
    : TableDialog(QStringLiteral("sectionsDialog"), tr("Compare sections"), parent), context_(context) {
    resize(860, 340);
    connect(addButton(tr("Use the chosen one"), QStringLiteral("useSection")), &QPushButton::clicked, this,
            &SectionsDialog::use);
    fill();
}

void SectionsDialog::fill() {
    const Axis* axis = context_.axis();
    rows_.clear();
    if (axis != nullptr) {
        const Section& now = std::visit(
            [](const auto& m) -> const Section& {
                if constexpr (requires { m.rail; })
                    return m.rail.section;
                else
                    return m.boom.section;
            },
            axis->mechanism);
        if (now.shape != SectionShape::NotGiven)
            rows_ = compareSections(context_.document.project(), *axis, stockSections(now));
    }
    setSentence(rows_.empty()
                    ? tr("Say what the rail or arm is made of first; then stock sizes near it are compared.")
                    : tr("The first line is what is there. Same span, same load, same lens; stock sizes near "
                         "it, and on edge. Prices are not known: a maker's list decides."));
    QList<QStringList> table;
    for (const SectionRow& r : rows_)
        table << QStringList{sectionWords(context_, r.section),
                             context_.show(r.found.sag, Kind::Length),
                             context_.show(r.found.twist, Kind::Angle),
                             context_.show(r.found.bounce, Kind::Frequency),
                             context_.show(r.pixels, Kind::Pixels),
                             context_.show(r.found.ownMass, Kind::Mass),
                             context_.show(r.found.stressRatio, Kind::Ratio)};
    setTable({tr("Section"), tr("Sags"), tr("Twists"), tr("Bounces at"), tr("Shifts"), tr("Weighs"),
              tr("Strength ×")},
             table);
}

void SectionsDialog::use() {
    const int row = chosenRow();
    if (row < 0 || row >= static_cast<int>(rows_.size()) || context_.document.readOnly()) return;
    const Section chosen = rows_[static_cast<std::size_t>(row)].section;
    context_.document.change(tr("Use another section"), [&](Project& p) {
        std::visit(
            [&](auto& m) {
                if constexpr (requires { m.rail; })
                    m.rail.section = chosen;
                else
                    m.boom.section = chosen;
            },
            p.axes[static_cast<std::size_t>(context_.session.axis())].mechanism);
    });
    fill();
}

} // namespace gantry::app
