// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/change_kind.h"

#include "core/evaluate/drive/stage_view.h"
#include "core/model/acceptable.h"
#include "core/model/kind_traits.h"
#include "core/model/kinds.h"

#include <optional>

namespace gantry {
namespace {

using drivetrain::Ratio;

/// Fewest teeth that wheels and pulleys are usually made with, and most.
constexpr std::int64_t leastTeeth = 12, mostTeeth = 400;

/// Teeth of two wheels that give a ratio, load over motor; nothing if none of usual size do.
template <class Stage>
bool setTeeth(Stage& s, const Ratio& r) {
    for (std::int64_t k = 1; k * r.denominator() <= mostTeeth && k * r.numerator() <= mostTeeth; ++k) {
        if (k * r.denominator() < leastTeeth || k * r.numerator() < leastTeeth) continue;
        s.motorTeeth = static_cast<int>(k * r.denominator());
        s.loadTeeth = static_cast<int>(k * r.numerator());
        return true;
    }
    return false;
}

bool within(std::int64_t value, std::int64_t low, std::int64_t high) {
    return value >= low && value <= high;
}

struct SetRatio {
    const Ratio& r;
    bool operator()(Coupling&) const { return false; }
    bool operator()(BeltStage& s) const { return setTeeth(s, r); }
    bool operator()(GearStage& s) const { return setTeeth(s, r); }
    bool operator()(PlanetaryStage& s) const {
        // Ring over sun is one less than the ratio of a single stage.
        const std::int64_t ring = r.numerator() - r.denominator(), sun = r.denominator();
        for (std::int64_t k = 1; ring > 0 && k * ring <= mostTeeth; ++k)
            if (k * sun >= leastTeeth && k * ring >= 2 * leastTeeth) {
                s.sunTeeth = static_cast<int>(k * sun);
                s.ringTeeth = static_cast<int>(k * ring);
                s.stages = 1;
                return true;
            }
        return false;
    }
    bool operator()(StrainWaveStage& s) const {
        const std::int64_t teeth = 2 * r.numerator() / r.denominator();
        if (2 * r.numerator() % r.denominator() != 0 || !within(teeth, 60, mostTeeth)) return false;
        s.flexTeeth = static_cast<int>(teeth);
        return true;
    }
    bool operator()(WormStage& s) const {
        for (std::int64_t k = 1; k * r.denominator() <= 6; ++k)
            if (within(k * r.numerator(), leastTeeth, mostTeeth)) {
                s.starts = static_cast<int>(k * r.denominator());
                s.wheelTeeth = static_cast<int>(k * r.numerator());
                return true;
            }
        return false;
    }
    bool operator()(ReducerStage& s) const {
        if (!within(r.numerator(), 1, 100000000) || !within(r.denominator(), 1, 100000000)) return false;
        s.numerator = static_cast<int>(r.numerator());
        s.denominator = static_cast<int>(r.denominator());
        return true;
    }
    bool operator()(RollerStage& s) const {
        s.wheelDiameter.value = s.rollerDiameter.value * r.value();
        return true;
    }
};

/// Copies members that two kinds of stage share by name and meaning.
template <class From, class To>
void carry(const From& from, To& to) {
    if constexpr (requires {
                      from.motorTeeth;
                      to.motorTeeth;
                  }) {
        to.motorTeeth = from.motorTeeth;
        to.loadTeeth = from.loadTeeth;
    }
    if constexpr (requires {
                      from.ratedTorque;
                      to.ratedTorque;
                  })
        to.ratedTorque = from.ratedTorque;
}

} // namespace

Link changedKind(const Link& old, std::size_t kind) {
    if (old.index() == kind || kind >= kindsOf<Link>().size()) return old;
    Link next = makeKind<Link>(kind);
    linkId(next) = linkId(old);
    // A coupling says nothing about the ratio that is wanted.
    const std::optional<Ratio> ratio = traitsOf(old).couples ? std::nullopt : stageView(old).ratio;
    if (ratio) std::visit(SetRatio{*ratio}, next);
    std::visit([](const auto& from, auto& to) { carry(from, to); }, old, next);
    clampToFields(next); // what one kind may be, another may not
    return next;
}

} // namespace gantry
