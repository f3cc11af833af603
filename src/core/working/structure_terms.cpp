// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/axis_sheet.h"

#include "core/evaluate/rig/beam_view.h"
#include "core/model/kind_traits.h"
#include "core/units/constants.h"

#include <algorithm>
#include <cmath>

/// How a rail or an arm gives way, as docs/models/beams.md has it.
namespace gantry::working {

using units::Kind;

Term AxisSheet::axisFrequency() {
    std::vector<Term> gives;
    for (const SoftEntry& soft : e_.structure.soft) {
        const std::string cause(softName(soft.cause));
        const std::string symbol = "f_" + std::to_string(gives.size() + 1);
        if (soft.cause == SoftCause::Drive) {
            const Term field = m_.stepper() != nullptr && m_.torqueAmplitude > 0.0
                                   ? squared(travelPerRad()) / fieldStiffness()
                                   : Term(0.0);
            const Term give =
                std::isfinite(m_.outputStiffness) ? sum({1.0 / outputStiffness(), field}) : field;
            const Term own = named(symbol, "frequency on " + cause + " alone", Kind::Frequency,
                                   sqrt(1.0 / (give * loadInertia())) / (2.0 * pi()));
            gives.push_back(1.0 / squared(own));
        } else {
            gives.push_back(1.0 / squared(found(symbol, "frequency on " + cause + " alone", Kind::Frequency,
                                                soft.part.frequency, "docs/models/beams.md")));
        }
    }
    const Term out = 1.0 / sqrt(sum(gives));
    const double known = e_.structure.frequency.value();
    if (std::abs(out.value() - known) <= 1e-9 * known)
        return named("f_all", "natural frequency, all that gives way in series", Kind::Frequency, out);
    // An arm and its mast swing as one: its own equation, and only the pads in series.
    return found("f_all", "natural frequency of arm, mast and what they stand on", Kind::Frequency, known,
                 "lowest root of the arm's equation, docs/models/beams.md");
}

namespace {

/// Bending stiffness of an arm, upright.
Term bending(AxisSheet& sheet, const BeamView& beam) {
    return sheet.found("EI", "bending stiffness of the arm", "N·m²", beam.bendingUpright,
                       "section and material");
}

} // namespace

/// Of a level arm: its own weight and every mass on its front side. `slope`: of its end instead.
Term AxisSheet::armBend(bool slope) {
    const auto& r = std::get<RotaryMechanism>(axis_.mechanism);
    const BeamView beam = beamView(r.boom.section);
    const Term reach = input("L_front", at("mechanism/boom/reach_m")), stiff = bending(*this, beam),
               gravity = found("g", "standard gravity", "m/s²", units::standardGravity, "ISO 80000-3"),
               metre = found("m_metre", "mass of the arm for a metre", "kg/m", beam.massPerMetre,
                             "section and material");
    const Term cubed = reach * squared(reach);
    std::vector<Term> parts{slope ? metre * gravity * cubed / (6.0 * stiff)
                                  : metre * gravity * cubed * reach / (8.0 * stiff)};
    const std::vector<Weight> all = weights();
    for (std::size_t i = 1; i < all.size(); ++i) { // the first is the arm itself
        const Weight& w = all[i];
        if (!(w.along.value() > 0.0)) continue;
        const bool past = w.along.value() > r.boom.reach;
        const Term a = past ? reach : w.along, beyond = past ? w.along - reach : Term(0.0),
                   force = w.mass * gravity / stiff;
        if (slope)
            parts.push_back(force * sum({squared(a) / 2.0, past ? beyond * reach : Term(0.0)}));
        else
            parts.push_back(force * sum({squared(a) * (3.0 * reach - a) / 6.0,
                                         past ? beyond * squared(reach) / 2.0 : Term(0.0)}));
    }
    return sum(parts);
}

Term AxisSheet::sag() {
    const double known = e_.structure.sag.value();
    if (!linear()) {
        const Term bent = armBend(false);
        if (std::abs(bent.value() - known) <= 1e-9 * known)
            return named("w", "sag of the arm's end, level", Kind::PartLength, bent);
    }
    return found("w", "sag", Kind::PartLength, known, "17 places along the travel, docs/models/beams.md");
}

Term AxisSheet::sagPixels() {
    const AxisStructure& s = e_.structure;
    std::vector<Term> parts;
    const Term focal = focalPixels();
    if (s.sagShift.valueOr(0.0) != 0.0) {
        const char* label = "change of sag over the travel";
        const Term shift =
            linear()
                ? found("Δw", label, Kind::PartLength, s.sagShift.value(), "docs/models/beams.md")
                : named("Δw", label, Kind::PartLength,
                        sag() * found("Δc", "change of the elevation's cosine over the range", Kind::Ratio,
                                      s.sagShift.value() / s.sag.value(), "25 places over the range"));
        parts.push_back(focal / input("s_subj", ofShot("subject_distance_m")) * shift);
    }
    const auto angle = [&](const char* symbol, const char* label, const Figure& f) {
        if (f.valueOr(0.0) != 0.0)
            parts.push_back(focal * found(symbol, label, Kind::Angle, f.value(), "docs/models/beams.md"));
    };
    angle("Δφ", "change of slope over the travel", s.slopeShift);
    angle("Δτ", "change of twist over the travel", s.twistShift);
    return named("e_sag", "picture shift by deflection", Kind::Pixels, sum(parts));
}

} // namespace gantry::working
