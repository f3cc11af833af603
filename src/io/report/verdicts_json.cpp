// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/verdicts_json.h"

#include "core/model/fields.h"
#include "core/model/overload.h"

namespace gantry::io {

Json verdictJson(const Project& project, const Verdict& v) {
    Json j;
    j["id"] = ruleKey(v);
    j["axis"] = project.axes[static_cast<std::size_t>(v.axis)].id;
    if (v.shot)
        j["shot"] = project.shots[v.shot.at()].id;
    else
        putNone(j, "shot", "it is about no single shot");
    if (v.move >= 0) {
        j["move"] = project.moves[static_cast<std::size_t>(v.move)].id;
        if (v.moment) j["at_s"] = v.moment.value();
    }
    if (v.plan >= 0) j["plan"] = project.plans[static_cast<std::size_t>(v.plan)].id;
    put(j, "ratio", v.ratio);
    if (v.ratio)
        j["ratio_low"] = v.low;
    else
        putNone(j, "ratio_low", "there is no ratio");
    if (v.worst || v.hazard) put(j, "ratio_worst", v.worst);
    j["deciding"] = v.deciding;
    if (v.holdsUntil) j["holds_until"] = v.holdsUntil.value();
    j["range_switches"] = v.switches;
    j["wanted"] = v.bounds.wanted;
    if (v.bounds.oversizedFrom > 0.0)
        j["oversized_from"] = v.bounds.oversizedFrom;
    else
        putNone(j, "oversized_from", "no ratio is too large here");
    j["state"] = stateKey(v.state);
    j["title"] = title(v);
    j["text"] = sentence(v, project, units::System::Metric);
    if (const SetAside* aside = setAsideFor(project, v)) j["set_aside"] = aside->reason;
    return j;
}

namespace {

/// What stands in a field of a project; null where it has none of that path.
Json valueAt(Project& project, const std::string& path) {
    const std::optional<FieldRef> field = findField(project, path);
    if (!field) return nullptr;
    return std::visit(
        overload{[](const double* v) { return Json(*v); }, [](const Estimate* v) { return Json(v->value); },
                 [](const int* v) { return Json(*v); }, [](const bool* v) { return Json(*v); },
                 [](const std::string* v) { return Json(*v); },
                 [](const ChoiceRef& v) { return Json(v.keys[static_cast<std::size_t>(v.index)]); }},
        field->target);
}

Json fixJson(const Project& project, const Fix& fix) {
    Json j;
    j["kind"] = costKey(fix.cost);
    j["title"] = describe(fix, project, units::System::Metric);
    j["changes"] = Json::array();
    Project before = project, after = fix.result;
    if (fix.measures.empty()) {
        for (const std::string& path : changedFields(project, fix.result))
            j["changes"].push_back(
                {{"path", path}, {"from", valueAt(before, path)}, {"to", valueAt(after, path)}});
    } else {
        j["path"] = fix.measures.front();
        j["paths"] = fix.measures;
    }
    j["after"] = {
        {"ratio", fix.ratioAfter}, {"ratio_low", fix.lowAfter}, {"state", stateKey(fix.stateAfter)}};
    j["side_effects"] = Json::array();
    for (const SideEffect& s : fix.sideEffects)
        j["side_effects"].push_back({{"id", ruleKey(s.after)},
                                     {"axis", project.axes[static_cast<std::size_t>(s.after.axis)].id},
                                     {"from", stateKey(s.before.state)},
                                     {"to", stateKey(s.after.state)}});
    return j;
}

} // namespace

std::string verdictsJson(const Project& project, const std::vector<Verdict>& verdicts,
                         const FixesFor& fixes) {
    Json root;
    root["format"] = "calm-gantry-verdicts";
    root["version"] = 1;
    root["verdicts"] = Json::array();
    for (const Verdict& v : verdicts) {
        Json j = verdictJson(project, v);
        if (v.worst) j["ratio_sum"] = v.worst.value();
        if (fixes) {
            j["fixes"] = Json::array();
            for (const Fix& fix : fixes(v)) j["fixes"].push_back(fixJson(project, fix));
        }
        root["verdicts"].push_back(std::move(j));
    }
    return root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

} // namespace gantry::io
