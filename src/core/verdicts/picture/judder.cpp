// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry::rules {

constexpr Message judderText{"In “{shot}”, details cross the frame in {0}. Below {1} they judder."};

/// Time in which detail crosses the picture against the shot's least; a convention of cinematography for 24
/// to 30 frames a second. Faster frame rates show more places on the way and stand proportionally less time.
static Finding judgeJudder(const AxisView& view) {
    const auto wanted = [&](const ShotEvaluation& s) {
        const Shot& shot = view.shot(s);
        return shot.limits.crossingTime * std::min(1.0, criteria::judderRate / shot.frameRate);
    };
    const auto ratio = [&](const ShotEvaluation& s) {
        return lesser(s.picture.crossingTime / wanted(s), plenty);
    };
    const ShotEvaluation* e = bindingShot(view, ratio);
    if (e == nullptr) return std::nullopt;
    return found(e, ratio(*e), judderText,
                 {{{Kind::Time, e->picture.crossingTime}, {Kind::Time, wanted(*e)}}});
}

constinit const Rule judder =
    advising({"Only a slower move, a wider lens, more distance or a higher frame rate takes judder away."},
             judging(criteria::judder, {"Judder"}, judgeJudder, words::listOf<judderText>,
                     tries<&fixes::slowerShot, &fixes::subjectDistance>));

} // namespace gantry::rules
