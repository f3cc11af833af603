// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/confidence.h"

#include "cli/known_id.h"
#include "cli/long_job.h"
#include "core/sampling/confidence.h"
#include "core/units/text.h"

#include <algorithm>
#include <iterator>
#include <nlohmann/json.hpp>
#include <ostream>

namespace gantry::cli {
namespace {

std::string percent(double share) {
    return units::format(share, units::Kind::Percentage, units::System::Metric, 3);
}

} // namespace

int confidence(const ConfidenceCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    if (!knownId(project.axes, call.axis, "axis", err)) return 2;
    const int samples = call.samples;
    nlohmann::ordered_json list = nlohmann::ordered_json::array();
    LongJob job("Sampling");
    const auto progress = job.progress();
    for (std::size_t i = 0; i < project.axes.size(); ++i) {
        const Axis& axis = project.axes[i];
        if (!call.axis.empty() && axis.id != call.axis) continue;
        std::vector<sampling::Row> rows;
        constexpr int bunch = 500;
        for (int first = 0; first < samples && !job.endedEarly(); first += bunch) {
            auto more =
                sampling::sampleAxis(project, i, 1, first, std::min(bunch, samples - first), job.token());
            rows.insert(rows.end(), std::make_move_iterator(more.begin()),
                        std::make_move_iterator(more.end()));
            if (progress) progress(static_cast<double>(first) / samples);
        }
        if (job.endedEarly()) {
            if (const int code = job.conclude(err); code != 0) return code;
            if (rows.size() < 100) break; // too few to say anything
        }
        const sampling::Confidence c = sampling::confidenceOf(project, i, rows);
        nlohmann::ordered_json j{{"axis", axis.id},
                                 {"samples", c.samples},
                                 {"stall_share", c.stalls},
                                 {"limit_share", c.exceeds},
                                 {"visible_rocking_share", c.rocks},
                                 {"matters", nlohmann::ordered_json::array()}};
        if (!call.json)
            out << axis.name << ": of " << c.samples << " rigs within the tolerances " << percent(c.stalls)
                << " lack torque, " << percent(c.exceeds) << " pass a limit, " << percent(c.rocks)
                << " vibrate visibly\n";
        for (const sampling::Influence& in : c.influences) {
            j["matters"].push_back({{"field", in.path}, {"share", in.share}});
            if (!call.json) out << "  " << percent(in.share) << "\t" << in.path << '\n';
        }
        list.push_back(std::move(j));
    }
    if (call.json) out << list.dump(2) << '\n';
    return 0;
}

} // namespace gantry::cli
