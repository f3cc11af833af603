// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/references.h"

#include <algorithm>

namespace gantry {

/// The moves or shots that a plan may name.
static std::vector<NamedId> namesForPlan(const Project& project, std::string_view path) {
    std::vector<NamedId> out;
    const auto all = [&](const char* none, const auto& list) {
        out.push_back({"", none});
        for (const auto& each : list) out.push_back({each.id, each.name});
    };
    if (path.ends_with("/move")) all("the shot's ways", project.moves);
    if (path.ends_with("/shot")) all("as the move", project.shots);
    return out;
}

std::vector<NamedId> namesFor(const Project& project, std::string_view path) {
    if (path.starts_with("plans/") && std::count(path.begin(), path.end(), '/') == 2)
        return namesForPlan(project, path);
    constexpr std::string_view root = "moves/";
    if (!path.starts_with(root)) return {};
    const std::string_view id = path.substr(root.size(), path.find('/', root.size()) - root.size());
    const auto move = std::find_if(project.moves.begin(), project.moves.end(),
                                   [&](const RigMove& m) { return m.id == id; });
    if (move == project.moves.end()) return {};
    std::vector<NamedId> out;
    const auto addAll = [&](const auto& list, auto fits) {
        for (const auto& each : list)
            if (fits(each)) out.push_back({each.id, each.name});
    };
    const auto any = [](const auto&) { return true; };
    if (path == std::string(root) + move->id + "/shot") {
        out.push_back({"", "the first shot"});
        addAll(project.shots, any);
    } else if (path.ends_with("/arrive/target")) {
        out.push_back({"", "no target"});
        addAll(move->targets, any);
    } else if (path.ends_with("/arrive/speed_of")) {
        out.push_back({"", "the first that moves"});
        addAll(project.axes, any);
    } else if (path.ends_with("/rides_on")) {
        out.push_back({"", "no turntable"});
        addAll(project.axes, [](const Axis& a) { return a.role == Role::Turntable; });
    }
    return out;
}

} // namespace gantry
