// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/crosscheck/crosscheck.h"
#include "core/verdicts/rules.h"

namespace gantry::rules {

/// The worst of what was told about the axis, of what is held against this. What holds is not worth a word; a
/// line that is not understood is said where nothing worse is.
static Finding worstOf(const AxisView& view, crosscheck::Against against, bool sayUnclear) {
    if (view.axis.told.empty()) return std::nullopt;
    Finding worst;
    bool unclear = false;
    for (const crosscheck::Claim& claim : crosscheck::claimsOf(view.axis)) {
        unclear = unclear || !claim.understood();
        for (const crosscheck::Finding& f :
             crosscheck::judge(view.project, view.axis, view.evaluation, claim)) {
            if (f.plausible || f.against != against || (worst && worst->ratio.value() <= f.ratio)) continue;
            worst = found(nullptr, Figure::of(f.ratio), f.sentence, f.arguments);
        }
    }
    if (!worst && unclear && sayUnclear) return found(nullptr, Figure::none(Reason::NotUnderstood), {}, {});
    return worst;
}

static Finding judgeDrive(const AxisView& view) {
    return worstOf(view, crosscheck::Against::Drive, true);
}
static Finding judgeSupply(const AxisView& view) {
    return worstOf(view, crosscheck::Against::Supply, false);
}

constinit const Rule claim =
    advising({"Ask for the data sheet, or test the torque at the speed that is needed."},
             judging(criteria::claim, {"Told of the drive"}, judgeDrive, crosscheck::findingTexts));
constinit const Rule claimPower =
    advising({"Torque and speed do not go together: ask at which speed the torque was measured."},
             judging(criteria::claimPower, {"Told power"}, judgeSupply, crosscheck::findingTexts));

} // namespace gantry::rules
