// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verdicts.h"

#include "cli/long_job.h"
#include "core/units/text.h"
#include "core/verdicts/audit.h"
#include "core/verdicts/side_effects.h"
#include "io/files/text_file.h"
#include "io/parts/library.h"
#include "io/parts/parts_csv.h"
#include "io/project/project_file.h"
#include "io/report/verdicts_json.h"

#include <algorithm>
#include <ostream>

namespace gantry::cli {
namespace {

constexpr units::System metric = units::System::Metric;
constexpr std::size_t mostFixes = 30;

std::string ratioOf(const Verdict& v) {
    if (!v.ratio) return "-";
    const std::string nominal = "×" + ratioText(v.ratio.value(), v.bounds, metric);
    return v.low == v.ratio.value() ? nominal
                                    : nominal + " (low ×" + ratioText(v.low, v.bounds, metric) + ")";
}

void print(const Verdict& v, const Project& project, std::ostream& out) {
    const SetAside* aside = setAsideFor(project, v);
    out << stateWord(v.state) << '\t' << ratioOf(v) << '\t'
        << project.axes[static_cast<std::size_t>(v.axis)].name << '\t' << title(v) << ": "
        << sentence(v, project, metric) << (aside != nullptr ? " [set aside: " + aside->reason + "]" : "")
        << '\n';
}

std::string afterwards(const Fix& fix, const Bounds& bounds) {
    std::string out(stateWord(fix.stateAfter));
    if (fix.ratioAfter > 0.0) out += " ×" + ratioText(fix.ratioAfter, bounds, metric);
    for (const SaidEffect& s : saidEffects(fix))
        out += "; " + s.title + " then " + std::string(stateWord(s.after));
    return out;
}

} // namespace

std::optional<std::vector<parts::Part>> shelfAt(const std::string& file, std::ostream& err) {
    if (file.empty()) return std::vector<parts::Part>{};
    std::string error;
    const std::optional<std::string> text = io::readTextFile(file, io::largestFile, error);
    if (!text) {
        err << error << '\n';
        return std::nullopt;
    }
    return io::readShelf(*text).parts;
}

int verdicts(const VerdictsCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const auto shelf = shelfAt(call.shelf, err);
    if (!shelf) return 2;
    const parts::Sources stock{io::partsLibrary(), *shelf};
    Assessment a = assess(project);
    std::stable_sort(a.verdicts.begin(), a.verdicts.end(), worseThan);
    LongJob job("Looking for fixes");
    const io::FixesFor fixes = [&](const Verdict& v) {
        return mendable(v.state) || v.state == State::Oversized
                   ? findFixes(project, a, v, job.token(), mostFixes, stock)
                   : std::vector<Fix>{};
    };
    if (call.json) {
        out << io::verdictsJson(project, a.verdicts, call.fixes ? fixes : io::FixesFor());
    } else {
        for (const Verdict& v : a.verdicts) {
            print(v, project, out);
            if (!call.fixes) continue;
            const std::vector<Fix> offered = fixes(v);
            for (const Fix& f : offered)
                out << "\t" << costWords(f.cost) << '\t' << describe(f, project, metric) << " → "
                    << afterwards(f, v.bounds) << '\n';
            if (offered.empty() && mendable(v.state)) out << "\t-\t" << advice(v) << '\n';
        }
    }
    if (const int code = job.conclude(err); code != 0) return code;
    const bool fails = std::any_of(a.verdicts.begin(), a.verdicts.end(), [&](const Verdict& v) {
        return (v.state == State::Over || v.state == State::AtRisk) && setAsideFor(project, v) == nullptr;
    });
    if (fails) err << "A verdict is over or at risk and not set aside.\n";
    return fails ? 1 : 0;
}

int audit(const AuditCall& call, const std::vector<Project>& projects, std::ostream& out, std::ostream& err) {
    constexpr double wanted = 0.9;
    const auto shelf = shelfAt(call.shelf, err);
    if (!shelf) return 2;
    const parts::Sources stock{io::partsLibrary(), *shelf};
    LongJob job("Auditing");
    int bad = 0, cured = 0, offered = 0, good = 0;
    for (std::size_t i = 0; i < projects.size(); ++i) {
        const Project& project = projects[i];
        for (const AuditedVerdict& v : gantry::audit(project, stock, job.token())) {
            ++bad;
            cured += v.cured();
            if (!v.cured())
                out << "no good fix\t" << project.name << '\t'
                    << project.axes[static_cast<std::size_t>(v.verdict.axis)].name << '\t' << title(v.verdict)
                    << '\t' << stateWord(v.verdict.state) << '\t' << ratioOf(v.verdict) << '\n';
            for (const AuditedFix& f : v.fixes) {
                ++offered;
                good += f.good();
                for (const std::string& why : f.objections)
                    out << "objection\t" << project.name << '\t'
                        << project.axes[static_cast<std::size_t>(v.verdict.axis)].name << '\t'
                        << title(v.verdict) << '\t' << describe(f.fix, project, metric) << '\t' << why
                        << '\n';
            }
        }
        if (const auto tell = job.progress())
            tell(static_cast<double>(i + 1) / static_cast<double>(projects.size()));
    }
    out << cured << " of " << bad << " verdicts over, at risk or tight have a good fix; " << good << " of "
        << offered << " fixes are good\n";
    if (const int code = job.conclude(err); code != 0 || job.endedEarly()) return code;
    return cured < wanted * bad || good < offered ? 1 : 0;
}

} // namespace gantry::cli
