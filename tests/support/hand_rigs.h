// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/fix.h"
#include "support/bare_rigs.h"

#include <cmath>
#include <numbers>
#include <optional>

/// Small rigs whose figures can be worked on paper.
namespace hand {

using namespace gantry;
constexpr double pi = std::numbers::pi, g = 9.80665;

/// A level slider of 1 m on 40 × 40 × 2 square steel tube, 5 kg on a short carriage, stands at the ends.
inline Project slider() {
    Project p = bareRig(rigs::RigKind::BeltSlider);
    auto& m = std::get<LinearMechanism>(p.axes[0].mechanism);
    m.railLength = 1.0;
    m.carriageLength = 0.1;
    m.movingMass = estimate(5.0, Source::Measured);
    m.guide.wheelbase = 1e-4;
    m.slope = estimate(0.0, Source::Measured);
    m.rail.section.shape = SectionShape::HollowRectangle;
    m.rail.section.material = BeamMaterial::Steel;
    m.rail.section.width = m.rail.section.height = 0.04;
    m.rail.section.wall = 0.002;
    m.rail.section.stiffnessFactor = estimate(1.0, Source::Measured);
    m.rail.firstStand = 0.0;
    m.rail.secondStand = 1.0;
    return p;
}
inline LinearMechanism& rail(Project& p) {
    return std::get<LinearMechanism>(p.axes[0].mechanism);
}
inline RotaryMechanism& boom(Project& p) {
    return std::get<RotaryMechanism>(p.axes[1].mechanism);
}
/// A boom of 2 m on a light tube with 3 kg at its end, on three legs.
inline Project jib() {
    Project p = bareRig(rigs::RigKind::JibCrane);
    auto& r = boom(p);
    r.items.clear();
    r.inertia.value = 0.0;
    r.boom.section.shape = SectionShape::RoundTube;
    r.boom.section.width = 0.05;
    r.boom.section.wall = 0.002;
    r.boom.reach = 2.0;
    r.boom.rear = 0.8;
    MassItem camera;
    camera.id = "camera";
    camera.mass = estimate(3.0, Source::Measured);
    camera.along = 2.0;
    r.items.push_back(camera);
    std::get<RotaryMechanism>(p.axes[0].mechanism).items.clear();
    std::get<RotaryMechanism>(p.axes[0].mechanism).inertia.value = 0.0;
    p.base.kind = BaseKind::Legs;
    p.base.legRadius = 0.8;
    p.base.height = 1.0;
    p.base.mass = estimate(20.0, Source::Measured);
    return p;
}
inline std::optional<Verdict> verdict(const Project& p, std::string_view rule) {
    for (const Verdict& v : assess(p).verdicts)
        if (ruleKey(v) == rule) return v;
    return std::nullopt;
}
inline double tubeMass() {
    return 2700 * pi * (0.025 * 0.025 - 0.023 * 0.023);
} // per metre

} // namespace hand
