// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/explain.h"

#include "core/units/text.h"
#include "core/verdicts/ranges.h"
#include "core/words/messages.h"
#include "core/working/printed.h"
#include "io/report/working_json.h"

#include <algorithm>
#include <ostream>

namespace gantry::cli {
namespace {

int list(const Project& project, const Assessment& assessment, std::ostream& out) {
    using namespace working;
    for (const PlacedFigure& f : allFigures(project, assessment.evaluation))
        if (f.figure && isExplained(f))
            out << f.path << '\t' << f.info.label << '\t'
                << units::format(f.figure.value(), f.kind(), units::System::Metric) << '\n';
    for (const Verdict& v : assessment.verdicts)
        if (v.ratio && judgedFigure(project, assessment.evaluation, v))
            out << pathOf(project, v) << '\t' << title(v) << "\t×"
                << ratioText(v.ratio.value(), v.bounds, units::System::Metric) << '\n';
    return 0;
}

void print(const Project& project, const working::Explanation& e, std::ostream& out) {
    using namespace working;
    constexpr auto system = units::System::Metric;
    out << headline(e.working, system) << '\n' << e.figure.path << '\n';
    const std::vector<Row> rows = rowsOf(e.working, project, system);
    for (const bool inputs : {true, false}) {
        if (std::none_of(rows.begin(), rows.end(), [&](const Row& r) { return r.input == inputs; })) continue;
        out << (inputs ? "\nPut in:\n" : "\nWorked out, formulas in SI units:\n");
        for (const Row& r : rows) {
            if (r.input != inputs) continue;
            out << r.symbol << '\t';
            if (!inputs) out << (r.formula.empty() ? "·" : "= " + r.formula) << '\t';
            out << r.value << '\t' << r.label << '\t' << r.from << '\n';
        }
    }
    out << "\nTaken from " << e.working.reference << ".\n";
    if (const std::string most =
            influenceSentence(influences(project, e.figure, e.working), project, e.figure, system);
        !most.empty())
        out << most << '\n';
}

} // namespace

int explain(const ExplainCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const Assessment assessment = assess(project);
    if (call.path.empty()) return list(project, assessment, out);
    const working::Explained found =
        working::explain(project, assessment.evaluation, assessment.verdicts, call.path);
    if (const auto* e = std::get_if<working::Explanation>(&found)) {
        if (call.json)
            out << io::workingJson(project, *e);
        else
            print(project, *e, out);
        return 0;
    }
    switch (std::get<working::Unexplained>(found)) {
    case working::Unexplained::NoSuch:
        err << "There is no figure “" << call.path << "”. Without a path, explain lists what there is.\n";
        return 2;
    case working::Unexplained::NoNumber: {
        const auto figure = working::figureAt(project, assessment.evaluation, call.path);
        err << "“" << call.path << "” has no number"
            << (figure ? ": " + std::string(words::reasonText(figure->figure.reason())) : std::string())
            << ".\n";
        return 1;
    }
    case working::Unexplained::NoWorking:
        err << "The working of “" << call.path << "” is not written down.\n";
        return 1;
    }
    return 2;
}

} // namespace gantry::cli
