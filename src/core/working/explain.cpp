// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/explain.h"

#include <algorithm>

namespace gantry::working {

std::string pathOf(const Project& project, const Verdict& verdict) {
    return "verdicts/" + project.axes[static_cast<std::size_t>(verdict.axis)].id + "/" +
           std::string(ruleKey(verdict));
}

Explained explain(const Project& project, const Evaluation& evaluation, std::span<const Verdict> verdicts,
                  std::string_view path) {
    if (path.starts_with("verdicts/")) {
        const auto verdict = std::find_if(verdicts.begin(), verdicts.end(),
                                          [&](const Verdict& v) { return pathOf(project, v) == path; });
        if (verdict == verdicts.end()) return Unexplained::NoSuch;
        if (!verdict->ratio) return Unexplained::NoNumber;
        auto figure = judgedFigure(project, evaluation, *verdict);
        if (!figure) return Unexplained::NoWorking;
        auto working = workingOf(project, evaluation, *verdict);
        if (!working) working = workingOf(project, evaluation, *figure);
        if (!working) return Unexplained::NoWorking;
        return Explanation{std::move(*figure), std::move(*working)};
    }
    auto figure = figureAt(project, evaluation, path);
    if (!figure) return Unexplained::NoSuch;
    if (!figure->figure) return Unexplained::NoNumber;
    auto working = workingOf(project, evaluation, *figure);
    if (!working) return Unexplained::NoWorking;
    return Explanation{std::move(*figure), std::move(*working)};
}

} // namespace gantry::working
