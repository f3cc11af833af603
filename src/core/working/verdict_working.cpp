// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/verdict_working.h"

#include <algorithm>
#include <array>

namespace gantry::working {
namespace {

/// What a rule judges, and the field that says how much of it is allowed. Without one the figure is the
/// ratio.
struct Judged {
    std::string_view rule, key;
    const char* symbol = nullptr;
    const char* allowed = nullptr; ///< within the shot, or from the project where it begins with "/"
};

constexpr std::array judged{
    Judged{"torque", "torque_margin"},
    Judged{"pulse_rate", "pulse_rate_hz", "f_max", "/controller/pulse_ceiling_hz"},
    Judged{"stepping", "stepping_px", "e_max", "limits/jitter_px"},
    Judged{"vibration", "rocking_px", "e_max", "limits/jitter_px"},
    Judged{"settling", "rocking_time_s", "t_max", "settle_s"},
    Judged{"drift", "drift_px_per_frame", "e_max", "limits/drift_px_per_frame"},
    Judged{"jitter", "jitter_px", "e_max", "limits/jitter_px"},
    Judged{"repeat", "repeat_px", "e_max", "limits/repeat_px"},
    Judged{"framing", "framing_px", "c_max", "limits/framing_share"},
    Judged{"backlash", "backlash_px", "e_max", "limits/repeat_px"},
    Judged{"rounding", "rounding_px", "e_max", "limits/repeat_px"},
    Judged{"sag", "sag_px", "c_max", "limits/framing_share"},
    Judged{"tipping", "tipping_ratio"},
};

const Judged* judgedBy(const Verdict& verdict) {
    const auto at = std::find_if(judged.begin(), judged.end(),
                                 [&](const Judged& j) { return j.rule == ruleKey(verdict); });
    return at == judged.end() ? nullptr : &*at;
}

} // namespace

bool hasWorking(const Verdict& verdict) {
    const Judged* j = judgedBy(verdict);
    return j != nullptr && verdict.ratio && (verdict.shot || j->rule == "tipping");
}

std::optional<PlacedFigure> judgedFigure(const Project& project, const Evaluation& evaluation,
                                         const Verdict& verdict) {
    const Judged* j = judgedBy(verdict);
    if (j == nullptr) return std::nullopt;
    std::string path = "rig/";
    if (j->rule != "tipping") {
        if (!verdict.shot || verdict.shot.at() >= project.shots.size()) return std::nullopt;
        path = "axes/" + project.axes[static_cast<std::size_t>(verdict.axis)].id + "/shots/" +
               project.shots[verdict.shot.at()].id + "/";
    }
    const auto figure = figureAt(project, evaluation, path + std::string(j->key));
    return figure && figure->figure && isExplained(*figure) ? figure : std::nullopt;
}

std::optional<Working> workingOf(const Project& project, const Evaluation& evaluation,
                                 const Verdict& verdict) {
    const auto figure = judgedFigure(project, evaluation, verdict);
    if (!figure || !verdict.ratio) return std::nullopt;
    std::optional<Working> out = workingOf(project, evaluation, *figure);
    if (!out) return std::nullopt;
    const Judged& j = *judgedBy(verdict);
    Sheet sheet(project, std::move(*out));
    const Term judgedTerm = Term::symbol(sheet.last().symbol, sheet.last().value);
    Term ratio = judgedTerm;
    if (j.allowed != nullptr) {
        const std::string path = j.allowed[0] == '/'
                                     ? std::string(j.allowed + 1)
                                     : "shots/" + project.shots[verdict.shot.at()].id + "/" + j.allowed;
        Term allowed = sheet.input(j.symbol, path);
        if (std::string_view(j.symbol) == "c_max")
            allowed = allowed * sheet.input("W", "camera/delivered_width");
        ratio = allowed / judgedTerm;
    }
    // Others judge something besides, a hard stop for one: then the figure alone is shown.
    if (!meets(ratio.value(), verdict.ratio.value())) return std::nullopt;
    const std::string reference = sheet.reference();
    return sheet.finish(title(verdict) + ", there over needed", units::Kind::Ratio, ratio, reference);
}

} // namespace gantry::working
