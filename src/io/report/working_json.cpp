// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/working_json.h"

#include "core/working/printed.h"
#include "io/report/results_json.h"

namespace gantry::io {

std::string workingJson(const Project& project, const working::Explanation& explanation) {
    const working::Working& w = explanation.working;
    const std::vector<working::Row> rows = working::rowsOf(w, project, units::System::Metric);
    Json j;
    j["path"] = explanation.figure.path;
    j["label"] = w.result().label;
    j["value"] = w.result().value;
    j["reference"] = w.reference;
    j["quantities"] = Json::array();
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const working::Quantity& q = w.quantities[i];
        Json line;
        line["symbol"] = q.symbol;
        line["label"] = q.label;
        line["value"] = q.value;
        if (q.isInput()) {
            line["input"] = q.path;
            line["known"] = rows[i].from;
        } else if (!q.formula.empty()) {
            line["formula"] = q.formula;
        } else {
            line["from"] = q.origin;
        }
        j["quantities"].push_back(line);
    }
    j["moved_by"] = Json::array();
    for (const working::Influence& i : working::influences(project, explanation.figure, w)) {
        Json line;
        line["input"] = i.path;
        put(line, "low", i.low);
        put(line, "high", i.high);
        line["uncertain"] = i.uncertain;
        j["moved_by"].push_back(line);
    }
    return j.dump(2) + "\n";
}

} // namespace gantry::io
