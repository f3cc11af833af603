// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/stall_ladder.h"

#include "cli/known_id.h"
#include "core/evaluate/evaluate.h"
#include "core/tools/stall_ladder.h"
#include "core/units/text.h"

#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>
#include <ostream>

namespace gantry::cli {
namespace {

std::optional<std::vector<Outcome>> readOutcomes(const std::string& letters, std::size_t rungs,
                                                 std::ostream& err) {
    std::vector<Outcome> out;
    for (const char c : letters) {
        if (c != 'p' && c != 'l' && c != '-') {
            err << "--outcomes takes one letter a rung: p passed, l lost steps, - not run; not “" << c
                << "”.\n";
            return std::nullopt;
        }
        out.push_back(c == 'p' ? Outcome::Passed : c == 'l' ? Outcome::LostSteps : Outcome::NotRun);
    }
    if (out.size() > rungs) {
        err << "--outcomes has " << out.size() << " letters, the ladder only " << rungs << " rungs.\n";
        return std::nullopt;
    }
    return out;
}

nlohmann::ordered_json factorJson(const TorqueFactor& f) {
    nlohmann::ordered_json j{{"contradictory", f.contradictory}, {"low", f.low}};
    j["high"] = std::isfinite(f.high) ? nlohmann::ordered_json(f.high) : nlohmann::ordered_json(nullptr);
    if (!std::isfinite(f.high)) j["high_why"] = "nothing lost steps yet";
    return j;
}

} // namespace

int stallLadder(const LadderCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const Axis* axis = findAxis(project, call.axis);
    if (axis == nullptr) {
        err << (call.axis.empty() ? "stall-ladder needs --axis ID.\n"
                                  : "There is no axis “" + call.axis + "” in this project.\n");
        return 2;
    }
    const AxisEvaluation e = evaluateAxis(project, *axis);
    const std::vector<Rung> ladder = gantry::stallLadder(e);
    const auto outcomes = readOutcomes(call.outcomes, ladder.size(), err);
    if (!outcomes) return 2;
    const TorqueFactor factor = torqueFactor(ladder, *outcomes);
    const bool linear = kindOf(*axis) == AxisKind::Linear;
    if (factor.contradictory)
        err << "The outcomes contradict each other: something harder passed than what lost steps.\n";
    if (call.json) {
        const std::string u = linear ? "m" : "rad";
        nlohmann::ordered_json j{{"axis", axis->id}, {"rungs", nlohmann::ordered_json::array()}};
        for (const Rung& r : ladder)
            j["rungs"].push_back({{"speed_" + u + "_s", r.speed},
                                  {"acceleration_" + u + "_s2", r.acceleration},
                                  {"distance_" + u, r.distance},
                                  {"margin", r.margin}});
        if (!outcomes->empty()) j["torque_factor"] = factorJson(factor);
        out << j.dump(2) << '\n';
        return factor.contradictory ? 1 : 0;
    }
    const auto show = [](double v, units::Kind kind) {
        return units::format(v, kind, units::System::Metric);
    };
    using units::Kind;
    out << axis->name << ": level rail or catch strap, dummy mass, hands clear before every rung\n";
    for (const Rung& r : ladder)
        out << "  " << show(r.speed, linear ? Kind::Speed : Kind::AngularSpeed) << ", "
            << show(r.acceleration, linear ? Kind::Acceleration : Kind::AngularAcceleration) << ", over "
            << show(r.distance, linear ? Kind::Length : Kind::Angle) << ": foreseen margin "
            << show(r.margin, Kind::Ratio) << '\n';
    if (ladder.empty()) out << "  no rungs: the motor's data is incomplete, or nothing fits the travel\n";
    if (!factor.contradictory && factor.known())
        out << "The motor gives " << show(factor.low, Kind::Ratio) << " to "
            << (std::isfinite(factor.high) ? show(factor.high, Kind::Ratio) : "at least that")
            << " times the torque it is taken for.\n";
    return factor.contradictory ? 1 : 0;
}

} // namespace gantry::cli
