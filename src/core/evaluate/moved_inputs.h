// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/fields.h"
#include "core/model/project.h"

#include <cmath>
#include <span>
#include <vector>

namespace gantry {

/// Uncertain inputs that the figures of an axis hang on: its own, those of the payload it carries, of the
/// supply and of the pads under it.
std::vector<UncertainInput> inputsOfAxis(Project& project, std::size_t axis);

/// Those that the whole rig hangs on: what it weighs, how it slopes and what pushes it.
std::vector<UncertainInput> inputsOfRig(Project& project);

/// Puts another value into an input as long as it lives.
class Moved {
public:
    Moved(const UncertainInput& input, double value)
        : target_(input.estimate->value), before_(target_), follower_(input.follower),
          followerBefore_(follower_ != nullptr ? follower_->value : 0.0) {
        target_ = value;
        if (follower_ != nullptr) follower_->value *= value / before_;
    }
    ~Moved() {
        target_ = before_;
        if (follower_ != nullptr) follower_->value = followerBefore_;
    }
    Moved(const Moved&) = delete;
    Moved& operator=(const Moved&) = delete;

private:
    double& target_;
    double before_;
    Estimate* follower_;
    double followerBefore_;
};

/// Puts values into inputs together; what follows one of them starts from its own value in the list, or from
/// `nominal`, and moves in proportion.
class MovedTogether {
public:
    explicit MovedTogether(std::vector<UncertainInput> inputs);
    void put(std::span<const double> values);
    /// As it was before.
    void restore();

private:
    struct Follower {
        Estimate* estimate;
        double nominal;
        std::size_t leader; ///< place in the list
    };
    std::vector<UncertainInput> inputs_;
    std::vector<double> nominal_;
    std::vector<Follower> followers_;
};

/// The end of an input's range that lies farther off; the value itself where nothing is uncertain.
inline double fartherEnd(const UncertainInput& input) {
    const Ends ends = endsOf(input.info, *input.estimate);
    const double value = input.estimate->value;
    return ends.high - value >= (value - ends.low) * (1.0 - 1e-12) ? ends.high : ends.low;
}

/// Calls f() once for each uncertain input of an axis, with that input moved to the farther end of its range
/// inside `project` and put back afterwards. Inputs without tolerance, and zeros, are left out.
template <class F>
void forEachMovedInput(Project& project, std::size_t axis, F f) {
    for (const UncertainInput& input : inputsOfAxis(project, axis))
        if (const double end = fartherEnd(input); end != input.estimate->value) {
            const Moved moved(input, end);
            f();
        }
}

} // namespace gantry
