// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/low_ends.h"

#include "core/verdicts/rules.h"

#include <algorithm>

namespace gantry {
namespace {

/// Falls of less than this share of a ratio are not worth another look.
constexpr double notable = 0.02;

} // namespace

bool aboutRig(const Verdict& v) {
    return ruleOf(v).judgeRig != nullptr;
}

LowEnds::LowEnds(std::vector<Verdict*> nominal, std::span<const KnownEnd> known)
    : nominal_(std::move(nominal)), of_(nominal_.size()) {
    for (std::size_t i = 0; i < nominal_.size(); ++i) {
        if (i < known.size() && known[i].verdict != nullptr) {
            *nominal_[i] = *known[i].verdict;
            of_[i].all = *known[i].falls;
            // Of what holds the one input that counts most is named anew.
            const State state = nominal_[i]->state;
            if (state == State::Tight || state == State::Fine) nominal_[i]->deciding.clear();
        } else if (nominal_[i]->ratio) {
            open_.push_back(i);
            rules_.push_back(nominal_[i]->rule);
        }
    }
}

void LowEnds::at(double end, std::span<const int> rules, const std::vector<Verdict>& found) {
    auto from = found.begin(); // all lists are in order of rules
    auto rule = rules.begin();
    for (const std::size_t i : open_) {
        Verdict& n = *nominal_[i];
        if (rule == rules.end()) break;
        if (*rule != n.rule) continue;
        ++rule;
        const auto same = std::find_if(from, found.end(), [&](const Verdict& v) { return v.rule >= n.rule; });
        if (same == found.end()) break;
        from = same;
        if (same->rule != n.rule || !same->ratio) continue;
        if (!aboutRig(n) && (same->sentence != n.sentence || same->shot != n.shot)) n.switches = true;
        const double rise = onScale(same->ratio.value()) - scaled(i);
        of_[i].rise = std::max(of_[i].rise, rise);
        if (-rise > of_[i].now.by) of_[i].now = {-1, -rise, end};
    }
}

std::vector<int> LowEnds::leastInside() {
    std::vector<int> out;
    for (const std::size_t i : open_) {
        const Verdict& v = *nominal_[i];
        Falls& f = of_[i];
        f.inside = ruleOf(v).leastInside && v.ratio.value() >= 1.0 && scaled(i) < criteria::ampleRatio &&
                   std::max(f.rise, f.now.by) > notable * scaled(i);
        if (f.inside) out.push_back(v.rule);
    }
    return out;
}

void LowEnds::take(int input, double otherEnd, bool bothEnds) {
    for (const std::size_t i : open_) {
        Falls& f = of_[i];
        const bool guessed = f.now.by <= 0.0 && !bothEnds && !f.inside && f.rise > 0.0;
        if (guessed) f.now = {input, f.rise, otherEnd};
        if (f.now.by > negligibleFall) {
            f.now.input = input;
            f.all.push_back(f.now);
            if (guessed) f.mirrored.push_back(f.all.size() - 1);
        }
        f.now = {};
        f.rise = 0.0;
        f.inside = false;
    }
}

std::map<int, std::vector<int>> LowEnds::openInputs() const {
    std::map<int, std::vector<int>> out;
    for (const std::size_t i : open_) {
        const double ratio = nominal_[i]->ratio.value();
        if (ratio < 1.0 || lowEndOf(ratio, of_[i].all) >= nearToOne) continue;
        for (const std::size_t fall : of_[i].mirrored)
            if (of_[i].all[fall].by > notable * scaled(i))
                out[of_[i].all[fall].input].push_back(nominal_[i]->rule);
    }
    return out;
}

void LowEnds::correct(int input, std::span<const int> rules) {
    for (const std::size_t i : open_) {
        if (!std::binary_search(rules.begin(), rules.end(), nominal_[i]->rule)) continue;
        Falls& f = of_[i];
        for (const std::size_t fall : f.mirrored)
            if (f.all[fall].input == input) f.all[fall].by = std::max(0.0, f.now.by);
        f.now = {};
        f.rise = 0.0;
    }
}

std::vector<std::vector<Fall>> LowEnds::finish(const Questions& ask) {
    for (const std::size_t i : open_) finish(i, ask);
    nameWhatMattersMost(ask);
    std::vector<std::vector<Fall>> out;
    out.reserve(of_.size());
    for (Falls& f : of_) out.push_back(std::move(f.all));
    return out;
}

void LowEnds::finish(std::size_t i, const Questions& ask) {
    Verdict& v = *nominal_[i];
    v.low = lowEndOf(v.ratio.value(), of_[i].all);
    if (ruleOf(v).harmless && v.ratio.value() >= 1.0) v.low = std::max(v.low, 1.0);
    v.state = stateOf(v);
    if (v.state == State::AtRisk) {
        const std::vector<Fall> deciding = decidingFalls(scaled(i), of_[i].all);
        for (const Fall& f : deciding)
            if (f.input != searchedInput) v.deciding.push_back(ask.path(f.input));
        if (deciding.size() == 1 && deciding[0].input != searchedInput) ask.edge(v, deciding[0]);
    }
    // What stays ample needs no worst case, which costs most of all.
    if (v.hazard && v.state != State::Over && v.low < criteria::ampleRatio && !of_[i].all.empty())
        v.worst = ask.worst(v, of_[i].all);
}

/// Of all that holds, what comes nearest to its target says which input counts most. Paths are dear, so no
/// other does.
void LowEnds::nameWhatMattersMost(const Questions& ask) {
    std::size_t nearest = nominal_.size();
    const auto left = [&](std::size_t i) { return nominal_[i]->low / nominal_[i]->bounds.wanted; };
    for (std::size_t i = 0; i < nominal_.size(); ++i) {
        const State state = nominal_[i]->state;
        if ((state == State::Tight || state == State::Fine) && !of_[i].all.empty() &&
            (nearest == nominal_.size() || left(i) < left(nearest)))
            nearest = i;
    }
    if (nearest == nominal_.size()) return;
    const auto& all = of_[nearest].all;
    const auto most =
        std::max_element(all.begin(), all.end(), [](const Fall& a, const Fall& b) { return a.by < b.by; });
    if (most->input != searchedInput) nominal_[nearest]->deciding = {ask.path(most->input)};
}

} // namespace gantry
