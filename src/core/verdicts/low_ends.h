// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/low_end.h"
#include "core/verdicts/verdict.h"

#include <functional>
#include <map>
#include <span>
#include <string>
#include <vector>

namespace gantry {

/// A low end that comes no nearer to 1 than this is told by straight lines.
inline constexpr double nearToOne = 1.5;
/// Stands for what a search found too little of, in place of an input.
inline constexpr int searchedInput = -1;
/// Falls smaller than this [1] count as none.
inline constexpr double negligibleFall = 1e-9;

/// A verdict whose low end is known already, and what it was found from.
struct KnownEnd {
    const Verdict* verdict = nullptr; ///< null: not known
    const std::vector<Fall>* falls = nullptr;
};

/// Whether a verdict is about the rig as a whole.
bool aboutRig(const Verdict& verdict);

/// The low ends of some verdicts, gathered while one input after the other is moved.
class LowEnds {
public:
    /// @param nominal in order of rules @param known for each of them; may be empty
    explicit LowEnds(std::vector<Verdict*> nominal, std::span<const KnownEnd> known = {});

    /// Rules of those verdicts whose ratio may fall and is still looked for.
    std::span<const int> rules() const { return rules_; }

    /// What some of these rules found with an input at one of its ends. Another sentence or shot says that
    /// something else binds there, and a straight line no longer tells how far it goes.
    void at(double end, std::span<const int> rules, const std::vector<Verdict>& found);
    /// Those whose ratio may be least inside the input's range and has changed: for them its other end and
    /// what lies between is to be looked at too.
    std::vector<int> leastInside();
    /// All that was looked at of one input. What only rose is taken to fall as much at the other end, unless
    /// that was looked at too.
    void take(int input, double otherEnd, bool bothEnds);
    /// Inputs whose other end was only guessed, where it may decide a state, with the rules of these
    /// verdicts.
    std::map<int, std::vector<int>> openInputs() const;
    /// The other end of an input, looked at after all by these rules.
    void correct(int input, std::span<const int> rules);

    /// What to ask where a verdict is at risk or may do harm.
    struct Questions {
        std::function<Figure(const Verdict&, const std::vector<Fall>&)> worst; ///< its worst case
        std::function<void(Verdict&, const Fall&)> edge; ///< how far the input that decides may go
        std::function<std::string(int input)> path;      ///< of an input
    };
    /// Sets low ends and states. @return for each verdict what it was found from
    std::vector<std::vector<Fall>> finish(const Questions& ask);

private:
    struct Falls {
        Fall now;
        double rise = 0.0;
        bool inside = false; ///< looked at inside the range and at its other end
        std::vector<Fall> all;
        std::vector<std::size_t> mirrored; ///< places in `all`
    };
    double scaled(std::size_t i) const { return onScale(nominal_[i]->ratio.value()); }
    void finish(std::size_t i, const Questions& ask);
    void nameWhatMattersMost(const Questions& ask);

    std::vector<Verdict*> nominal_;
    std::vector<Falls> of_;
    std::vector<std::size_t> open_; ///< places of those with a ratio that are not known
    std::vector<int> rules_;
};

} // namespace gantry
