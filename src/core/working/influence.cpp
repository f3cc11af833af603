// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/influence.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/moved_inputs.h"

#include <algorithm>
#include <cmath>

namespace gantry::working {
namespace {

/// A project whose inputs are moved, and the one figure that is looked at.
class Looking {
public:
    Looking(const Project& project, const PlacedFigure& figure)
        : project_(project), figure_(figure),
          searches_(figure.key.starts_with("max_acceleration") ||
                            figure.key.starts_with("torque_limit_speed") ||
                            figure.path.find("/capability/") != std::string::npos
                        ? Searches::Yes
                        : Searches::No) {}

    Project& project() { return project_; }
    /// The figure as the project is now.
    Figure look() {
        std::optional<PlacedFigure> found;
        if (figure_.axis >= 0) {
            // A new setup: shots follow what is entered.
            const auto axis = static_cast<std::size_t>(figure_.axis);
            found = figureAt(project_, axis, evaluateAxis(setupOf(project_), axis, searches_), figure_.path);
        } else {
            found = figureAt(project_, evaluate(project_, Poses::Later), figure_.path);
        }
        return found ? found->figure : Figure::none(Reason::OutOfRange);
    }

private:
    Project project_;
    const PlacedFigure& figure_;
    Searches searches_; ///< what is found by searching takes far longer
};

Influence moved(Looking& looking, const UncertainInput& input, std::string path) {
    const Ends ends = endsOf(input.info, *input.estimate);
    const auto at = [&](double value) {
        const Moved now(input, value);
        return looking.look();
    };
    return {std::move(path), at(ends.low), at(ends.high), true};
}

/// Paths of the estimates of a project, to tell which is which.
std::vector<std::pair<const Estimate*, std::string>> pathsOf(Project& project) {
    std::vector<std::pair<const Estimate*, std::string>> out;
    for (const FieldRef& f : allFields(project))
        if (auto* const* e = std::get_if<Estimate*>(&f.target)) out.emplace_back(*e, f.path);
    return out;
}

} // namespace

double Influence::moves(double figure) const {
    double out = 0.0;
    for (const Figure& f : {low, high})
        if (f) out = std::max(out, std::abs(f.value() - figure));
    return out;
}

std::vector<Influence> influences(const Project& project, const PlacedFigure& figure,
                                  const Working& working) {
    Looking looking(project, figure);
    Project& p = looking.project();
    const auto paths = pathsOf(p);
    std::vector<Influence> out;
    const double now = figure.figure.value();
    const auto keep = [&](Influence i) {
        if (i.moves(now) > 1e-9 * std::abs(now)) out.push_back(std::move(i));
    };
    for (const UncertainInput& input :
         figure.axis >= 0 ? inputsOfAxis(p, static_cast<std::size_t>(figure.axis)) : inputsOfRig(p)) {
        const Ends ends = endsOf(input.info, *input.estimate);
        if (ends.low == ends.high) continue;
        const auto at = std::find_if(paths.begin(), paths.end(),
                                     [&](const auto& e) { return e.first == input.estimate; });
        if (at != paths.end()) keep(moved(looking, input, at->second));
    }
    if (out.empty())
        for (const Quantity& q : working.quantities) {
            if (!q.isInput() || q.value == 0.0 || q.kind == units::Kind::Count) continue;
            constexpr double little = 0.01;
            Influence i{q.path, {}, {}, false};
            for (Figure* f : {&i.low, &i.high}) {
                const double value = q.value * (f == &i.low ? 1.0 - little : 1.0 + little);
                *f = setNumberAt(p, q.path, value) ? looking.look() : Figure::none(Reason::OutOfRange);
                setNumberAt(p, q.path, q.value);
            }
            keep(std::move(i));
        }
    std::stable_sort(out.begin(), out.end(),
                     [&](const Influence& a, const Influence& b) { return a.moves(now) > b.moves(now); });
    return out;
}

} // namespace gantry::working
