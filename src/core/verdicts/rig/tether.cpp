// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {
namespace {

constexpr Message title{"Second tether"};
constexpr Message tetherText{"What hangs overhead needs a second, independent tether that can catch it. "
                             "Local rules and a qualified rigger decide."};
constexpr std::array sentences{tetherText};
constexpr std::array tries{&fixes::secondTether};

Finding judge(const RigView& view) {
    if (view.project.base.kind != BaseKind::Overhead || view.project.base.tethered) return std::nullopt;
    Verdict v = found(nullptr, 0.0, tetherText, {});
    v.hazard = true;
    return v;
}

} // namespace

constinit const Rule tether{
    .wants = criteria::tether, .title = title, .sentences = sentences, .judgeRig = judge, .fixes = tries};

} // namespace gantry::rules
