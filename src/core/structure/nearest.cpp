// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/nearest.h"

#include <algorithm>
#include <limits>

namespace gantry::structure {
namespace {

/// A box of poses by its middle and half widths, and the least that anything in it can be apart.
struct Box {
    std::vector<double> middle, half;
    double bound = 0.0;
    std::size_t widest = 0;
};

class Search {
public:
    Search(std::span<const double> ranges, const LookAtBox& look, const SearchLimits& limits)
        : ranges_(ranges), look_(look), limits_(limits) {}

    Nearest run() {
        corners();
        Box whole;
        whole.bound = -std::numeric_limits<double>::infinity();
        for (const double range : ranges_) {
            whole.middle.push_back(0.5 * range);
            whole.half.push_back(0.5 * range);
        }
        add(std::move(whole));
        while (!open_.empty() && out_.distance > 0.0 && out_.looks < limits_.looks) {
            std::pop_heap(open_.begin(), open_.end(), later);
            const Box box = std::move(open_.back());
            open_.pop_back();
            if (!worthwhile(box.bound)) {
                // The others are no nearer than the nearest of them, so none is worth it.
                unseen_ = std::min(unseen_, box.bound);
                break;
            }
            halve(box);
        }
        for (const Box& box : open_) unseen_ = std::min(unseen_, box.bound);
        out_.atLeast = out_.distance > 0.0 ? std::min(out_.distance, unseen_) : out_.distance;
        return std::move(out_);
    }

private:
    static bool later(const Box& a, const Box& b) { return a.bound > b.bound; }
    bool worthwhile(double bound) const {
        return bound < limits_.harmless && bound < out_.distance - limits_.tolerance;
    }

    Approach lookAt(std::span<const double> middle, std::span<const double> half) {
        ++out_.looks;
        const Approach a = look_(middle, half);
        if (a.distance < out_.distance) {
            out_.distance = a.distance;
            out_.pose.assign(middle.begin(), middle.end());
        }
        return a;
    }

    /// Nearest approaches often lie at an end of a range, which halving only comes close to.
    void corners() {
        out_.distance = std::numeric_limits<double>::infinity();
        const std::size_t count = std::min<std::size_t>(ranges_.size(), 5);
        std::vector<double> pose(ranges_.size(), 0.0);
        const std::vector<double> none(ranges_.size(), 0.0);
        for (std::size_t mask = 0; mask < (std::size_t{1} << count); ++mask) {
            for (std::size_t i = 0; i < count; ++i) pose[i] = (mask >> i & 1U) != 0 ? ranges_[i] : 0.0;
            lookAt(pose, none);
        }
    }

    void add(Box box) {
        // What held for the box it was cut from holds for it too.
        const Approach a = lookAt(box.middle, box.half);
        box.bound = std::max(box.bound, a.atLeast);
        box.widest = a.widest;
        if (!worthwhile(box.bound)) {
            unseen_ = std::min(unseen_, box.bound);
            return;
        }
        open_.push_back(std::move(box));
        std::push_heap(open_.begin(), open_.end(), later);
    }

    void halve(const Box& box) {
        for (const double side : {-0.5, 0.5}) {
            Box part = box;
            part.half[box.widest] *= 0.5;
            part.middle[box.widest] += side * box.half[box.widest];
            add(std::move(part));
        }
    }

    std::span<const double> ranges_;
    const LookAtBox& look_;
    const SearchLimits& limits_;
    std::vector<Box> open_; ///< a heap, the nearest possible approach on top
    double unseen_ = std::numeric_limits<double>::infinity();
    Nearest out_;
};

} // namespace

Nearest nearestApproach(std::span<const double> ranges, const LookAtBox& look, const SearchLimits& limits) {
    return Search(ranges, look, limits).run();
}

} // namespace gantry::structure
