// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/crosscheck/crosscheck.h"
#include "core/crosscheck/suspects.h"
#include "core/evaluate/evaluate.h"

#include <QString>
#include <algorithm>
#include <string>
#include <vector>

/// What the program says of a line that was told about the first axis of a rig.
namespace told {

using namespace gantry;

inline std::vector<crosscheck::Finding> findings(const Project& p, const std::string& text) {
    std::vector<crosscheck::Finding> out;
    const std::vector<std::string> lines{text};
    const AxisEvaluation e = evaluateAxis(p, p.axes[0]);
    for (const crosscheck::Claim& c : crosscheck::readClaims(lines, e.model.kind))
        for (const crosscheck::Finding& f : crosscheck::judge(p, p.axes[0], e, c)) out.push_back(f);
    return out;
}
/// Something is found, and nothing of it is doubted.
inline bool plausible(const Project& p, const std::string& text) {
    const std::vector<crosscheck::Finding> all = findings(p, text);
    return !all.empty() && std::all_of(all.begin(), all.end(), [](const auto& f) { return f.plausible; });
}
inline QString said(const Project& p, const std::string& text) {
    QString out;
    for (const crosscheck::Finding& f : findings(p, text))
        out += QString::fromStdString(crosscheck::sentenceOf(f, units::System::Metric)) + '\n';
    return out;
}
inline std::string number(double v) {
    return QString::number(v, 'g', 12).toStdString();
}
inline crosscheck::StepsFinding explained(const Project& p, double typed, std::size_t axis = 0) {
    return crosscheck::explainSteps(p.axes[axis], evaluateAxis(p, p.axes[axis]), typed);
}

} // namespace told
