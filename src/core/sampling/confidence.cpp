// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/sampling/confidence.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/moved_inputs.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>
#include <unordered_map>

namespace gantry::sampling {
namespace {

/// SplitMix64 (Steele, Lea and Flood, 2014): passes statistical tests from any seed, which small indices are.
class Generator {
public:
    explicit Generator(std::uint64_t seed) : state_(seed) {}
    std::uint64_t next() {
        std::uint64_t z = state_ += 0x9e3779b97f4a7c15u;
        z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9u;
        z = (z ^ (z >> 27)) * 0x94d049bb133111ebu;
        return z ^ (z >> 31);
    }
    double uniform() { return (static_cast<double>(next() >> 11) + 0.5) * 0x1.0p-53; }
    /// Standard normal, cut at ±3.
    double normal() {
        for (;;) {
            // One after the other, in an order that no compiler may choose.
            const double length = uniform(), turn = uniform();
            const double x = std::sqrt(-2.0 * std::log(length)) * std::cos(2.0 * std::numbers::pi * turn);
            if (std::abs(x) <= 3.0) return x;
        }
    }

private:
    std::uint64_t state_;
};

std::vector<double> ranks(const std::vector<double>& values) {
    std::vector<std::size_t> order(values.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return values[a] < values[b]; });
    std::vector<double> out(values.size());
    for (std::size_t i = 0; i < order.size();) {
        std::size_t j = i;
        while (j < order.size() && values[order[j]] == values[order[i]]) ++j;
        const double mean = 0.5 * static_cast<double>(i + j - 1); // ties share their mean rank
        for (; i < j; ++i) out[order[i]] = mean;
    }
    return out;
}

double correlation(const std::vector<double>& a, const std::vector<double>& b) {
    const double n = static_cast<double>(a.size());
    const double ma = std::accumulate(a.begin(), a.end(), 0.0) / n,
                 mb = std::accumulate(b.begin(), b.end(), 0.0) / n;
    double ab = 0.0, aa = 0.0, bb = 0.0;
    for (std::size_t i = 0; i < a.size(); ++i) {
        ab += (a[i] - ma) * (b[i] - mb);
        aa += (a[i] - ma) * (a[i] - ma);
        bb += (b[i] - mb) * (b[i] - mb);
    }
    return aa > 0.0 && bb > 0.0 ? ab / std::sqrt(aa * bb) : 0.0;
}

/// Least of what parts, grip and cord allow over what is asked [1].
double partsOf(const AxisEvaluation& e) {
    double least = 1e6;
    const auto take = [&](const Figure& f) {
        if (f) least = std::min(least, f.value());
    };
    for (const PartCheck& part : e.checks.parts) {
        take(part.strength);
        take(part.slip);
    }
    take(e.checks.cordRatio);
    for (const ShotEvaluation& s : e.shots)
        if (s.slackDeceleration && s.motion.acceleration && s.motion.acceleration.value() > 0.0)
            least = std::min(least, s.slackDeceleration.value() / s.motion.acceleration.value());
    return least;
}

} // namespace

std::vector<std::string> inputsOf(const Project& project, std::size_t axis) {
    Project copy = project;
    std::unordered_map<const Estimate*, std::string> paths;
    for (FieldRef& f : allFields(copy))
        if (auto* const* e = std::get_if<Estimate*>(&f.target)) paths.emplace(*e, std::move(f.path));
    std::vector<std::string> out;
    for (const UncertainInput& input : inputsOfAxis(copy, axis)) out.push_back(paths[input.estimate]);
    return out;
}

std::vector<Row> sampleAxis(const Project& project, std::size_t axis, std::uint64_t seed, int first,
                            int count, std::stop_token stop) {
    Project moved = project;
    moved.axes[axis].candidates.clear();
    const std::vector<UncertainInput> all = inputsOfAxis(moved, axis);
    std::vector<Estimate> nominal;
    for (const UncertainInput& input : all) nominal.push_back(*input.estimate);
    MovedTogether together(all);
    std::vector<double> drawn(all.size());
    RigSetup rig = setupOf(moved);
    std::vector<Row> rows;
    rows.reserve(static_cast<std::size_t>(count));
    for (int i = 0; i < count && !stop.stop_requested(); ++i) {
        Generator random(seed ^ (0xd1342543de82ef95u * (static_cast<std::uint64_t>(first + i) + 1)));
        Row row;
        row.inputs.resize(all.size());
        for (std::size_t k = 0; k < all.size(); ++k) {
            const Estimate& n = nominal[k];
            const FieldInfo& field = all[k].info;
            const double x = field.certainty == Certainty::Rating ? 0.0 : random.normal();
            row.inputs[k] = static_cast<float>(0.5 * x);
            // What its field does not take, a share above 1 for one, is no such rig.
            drawn[k] = std::clamp(n.value * std::max(0.02, 1.0 + 0.5 * n.tolerance * x),
                                  std::min(field.min, n.value), std::max(field.max, n.value));
        }
        together.put(drawn);
        rig.refresh(axis);
        const AxisEvaluation e = evaluateAxis(rig, axis, Searches::No);
        row.margin = 1e6;
        row.limits = partsOf(e);
        for (const ShotEvaluation& s : e.shots) {
            if (s.torque.margin) row.margin = std::min(row.margin, s.torque.margin.value());
            if (s.motion.topSpeed && s.motion.topSpeed.value() > 0.0) {
                if (e.pulseLimitSpeed)
                    row.limits = std::min(row.limits, e.pulseLimitSpeed.value() / s.motion.topSpeed.value());
                if (e.checks.motorTopSpeed)
                    row.limits =
                        std::min(row.limits, e.checks.motorTopSpeed.value() / s.motion.topSpeed.value());
            }
            if (s.rocking.pixels && s.rocking.pixels.value() > 0.0)
                row.rocking =
                    std::min(row.rocking, moved.shots[s.shot.at()].limits.jitter / s.rocking.pixels.value());
        }
        rows.push_back(std::move(row));
    }
    return rows;
}

Confidence confidenceOf(const Project& project, std::size_t axis, std::span<const Row> rows) {
    Confidence out;
    out.samples = static_cast<int>(rows.size());
    if (rows.empty()) return out;
    const double n = static_cast<double>(rows.size());
    std::vector<double> margins;
    margins.reserve(rows.size());
    for (const Row& r : rows) {
        out.stalls += r.margin < 1.0;
        out.exceeds += r.limits < 1.0;
        out.rocks += r.rocking < 1.0;
        margins.push_back(r.margin);
    }
    out.stalls /= n;
    out.exceeds /= n;
    out.rocks /= n;
    const std::vector<double> marginRanks = ranks(margins);
    const std::vector<std::string> names = inputsOf(project, axis);
    Project copy = project;
    copy.axes[axis].candidates.clear();
    const std::vector<UncertainInput> all = inputsOfAxis(copy, axis);
    double sum = 0.0;
    std::vector<double> column(rows.size());
    for (std::size_t k = 0; k < all.size() && k < names.size(); ++k) {
        if (fartherEnd(all[k]) == all[k].estimate->value) continue;
        for (std::size_t i = 0; i < rows.size(); ++i) column[i] = static_cast<double>(rows[i].inputs[k]);
        const double r = correlation(ranks(column), marginRanks);
        // What chance alone correlates is left out: 3/√n.
        const double share = std::abs(r) > 3.0 / std::sqrt(n) ? r * r : 0.0;
        if (share <= 0.0) continue;
        out.influences.push_back({names[k], *all[k].estimate, share});
        sum += share;
    }
    for (Influence& i : out.influences) i.share /= sum;
    std::stable_sort(out.influences.begin(), out.influences.end(),
                     [](const Influence& a, const Influence& b) { return a.share > b.share; });
    return out;
}

} // namespace gantry::sampling
