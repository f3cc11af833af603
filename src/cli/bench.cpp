// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/bench.h"

#include "cli/figure_text.h"
#include "cli/known_id.h"
#include "cli/verdicts.h"
#include "core/crosscheck/crosscheck.h"
#include "core/crosscheck/suspects.h"
#include "core/drivetrain/carriage.h"
#include "core/evaluate/evaluate.h"
#include "core/evidence/fingerprint.h"
#include "core/model/fields.h"
#include "core/tools/structure_solve.h"
#include "core/tools/winch_curve.h"
#include "core/units/plain_text.h"
#include "core/units/text.h"
#include "core/verdicts/completeness.h"
#include "core/words/section_name.h"
#include "io/parts/library.h"

#include <ostream>

namespace gantry::cli {
namespace {

using units::Kind;

/// The axis with an id, or the first that will do where none is named; null, and why on `err`, if there is
/// none.
template <class Fits>
const Axis* axisFor(const std::string& id, const Project& project, std::string_view what, Fits fits,
                    std::ostream& err) {
    if (!knownId(project.axes, id, "axis", err)) return nullptr;
    for (const Axis& axis : project.axes) {
        if (!id.empty() && axis.id != id) continue;
        if (fits(axis)) return &axis;
        if (!id.empty()) {
            err << "“" << axis.name << "” is no " << what << ".\n";
            return nullptr;
        }
    }
    err << "There is no " << what << " in this project.\n";
    return nullptr;
}

std::size_t placeOf(const Project& project, const Axis& axis) {
    return static_cast<std::size_t>(&axis - project.axes.data());
}

void printSuspects(const Axis& axis, const AxisEvaluation& e, double told, std::ostream& out) {
    const crosscheck::StepsFinding steps = crosscheck::explainSteps(axis, e, told);
    const char* unit = kindOf(axis) == AxisKind::Linear ? " mm" : "°";
    for (const crosscheck::Suspect& s : steps.suspects)
        out << "\tright with\t" << s.what << "\t" << units::plainNumber(s.stepsPerUnit, 4)
            << " steps per unit; a commanded 100 would go " << units::plainNumber(s.testMove, 2) << unit
            << '\n';
}

} // namespace

int claims(const ClaimsCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    if (!knownId(project.axes, call.axis, "axis", err)) return 2;
    if (!call.told.empty() && call.axis.empty() && project.axes.size() > 1) {
        err << "--told needs --axis ID: there is more than one axis.\n";
        return 2;
    }
    const Evaluation evaluation = evaluate(project);
    bool fails = false, any = false;
    for (const Axis& axis : project.axes) {
        if (!call.axis.empty() && axis.id != call.axis) continue;
        const AxisEvaluation& e = evaluation.axes[placeOf(project, axis)];
        const std::vector<std::string> lines =
            call.told.empty() ? axis.told : std::vector<std::string>{call.told};
        for (const crosscheck::Claim& claim : crosscheck::readClaims(lines, kindOf(axis))) {
            any = true;
            const auto print = [&](std::string_view verdict, const std::string& text) {
                out << verdict << '\t' << axis.name << '\t' << claim.text << '\t' << text << '\n';
            };
            const std::vector<crosscheck::Finding> found = crosscheck::judge(project, axis, e, claim);
            for (const crosscheck::Finding& f : found) {
                fails = fails || !f.plausible;
                print(f.plausible ? "plausible" : "look again",
                      crosscheck::sentenceOf(f, units::System::Metric));
            }
            if (!claim.understood())
                print("not understood", "say what the number is, or its unit, such as “steps/mm = 80”");
            else if (claim.partly)
                print("in part", "another number in it is not understood; give it a line of its own");
            else if (found.empty())
                print("-", "this drive has nothing to compare it with");
            if (const auto steps = crosscheck::stepsSaid(e, claim)) printSuspects(axis, e, *steps, out);
        }
        if (const std::string fine = crosscheck::uselessFineness(e); !fine.empty())
            out << "note\t" << axis.name << "\t\t" << fine << '\n';
    }
    if (!any) err << "Nothing was told of these drives; --told holds a claim against one.\n";
    return fails ? 1 : 0;
}

int winch(const WinchCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const Axis* axis = axisFor(
        call.axis, project, "winch",
        [](const Axis& a) {
            const auto* m = std::get_if<LinearMechanism>(&a.mechanism);
            return m != nullptr && std::holds_alternative<WinchOutput>(m->output);
        },
        err);
    if (axis == nullptr) return 2;
    const Evaluation evaluation = evaluate(project);
    const AxisEvaluation& e = evaluation.axes[placeOf(project, *axis)];
    const ShotEvaluation* shot = e.worst();
    if (shot == nullptr || !shot->motion.motorSpeed) {
        err << "No shot moves “" << axis->name << "” at a speed that is known.\n";
        return 2;
    }
    out << "cord wound\tlayer\tspeed\tsteps per mm\n";
    for (const WinchPoint& p : winchCurve(*axis, e, shot->motion.motorSpeed.value()))
        out << figureText(p.wound, Kind::Length, 4) << '\t' << p.layer << '\t'
            << figureText(p.speed, Kind::Speed, 4) << '\t'
            << (p.stepsPerUnit > 0.0 ? units::plainNumber(p.stepsPerUnit, 4) : "-") << '\n';
    return 0;
}

int panBar(const PanBarCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const Axis* axis = axisFor(
        call.axis, project, "straight axis", [](const Axis& a) { return kindOf(a) == AxisKind::Linear; },
        err);
    if (axis == nullptr) return 2;
    const PanBar& bar = std::get<LinearMechanism>(axis->mechanism).panBar;
    const double half = usableTravel(*axis) / 2.0;
    const auto angle = drivetrain::barAngleForPan({bar.armLength, bar.offset, 0.0}, -half, half, call.turn);
    if (!angle) {
        err << "No bar does that with an arm of " << figureText(bar.armLength, Kind::Length)
            << "; a longer arm or another offset may.\n";
        return 1;
    }
    out << "bar to rail\tarm\toffset\tturn over the travel\n"
        << figureText(*angle, Kind::Angle, 4) << '\t' << figureText(bar.armLength, Kind::Length) << '\t'
        << figureText(bar.offset, Kind::Length) << '\t' << figureText(call.turn, Kind::Angle) << '\n';
    return 0;
}

int sections(const SectionsCall& call, const Project& project, std::ostream& out, std::ostream& err) {
    const auto shelf = shelfAt(call.shelf, err);
    if (!shelf) return 2;
    const Axis* axis = axisFor(
        call.axis, project, "axis with a given section",
        [](const Axis& a) { return sectionOf(a).shape != SectionShape::NotGiven; }, err);
    if (axis == nullptr) return 2;
    out << "section\tsags\ttwists\tvertical\tshifts\tmass\tstrength\tprice\n";
    for (const SectionRow& r : compareSections(
             project, *axis, sectionsToTry(project, sectionOf(*axis), {io::partsLibrary(), *shelf})))
        out << words::sectionName(r.section, units::System::Metric) << '\t'
            << figureText(r.found.sag, Kind::Length) << '\t' << figureText(r.found.twist, Kind::Angle) << '\t'
            << figureText(r.found.bounce, Kind::Frequency) << '\t' << figureText(r.pixels, Kind::Pixels)
            << '\t' << figureText(r.found.ownMass, Kind::Mass) << '\t'
            << figureText(r.found.stressRatio, Kind::Ratio) << '\t'
            << (r.price > 0.0 ? figureText(r.price, Kind::Money) : "-") << '\n';
    return 0;
}

int completeness(const CompletenessCall&, const Project& project, std::ostream& out, std::ostream&) {
    bool missing = false;
    for (const CompletenessLine& l : gantry::completeness(project, evaluate(project))) {
        missing = missing || l.state == Completeness::Missing;
        out << (l.state == Completeness::There     ? "there"
                : l.state == Completeness::Missing ? "missing"
                                                   : "not needed")
            << '\t' << l.what.text << '\t' << l.why.text << '\n';
    }
    return missing ? 1 : 0;
}

int stale(const StaleCall&, const Project& project, std::ostream& out, std::ostream& err) {
    if (project.tests.empty()) err << "No test was noted yet.\n";
    bool any = false;
    Project copy = project;
    for (const TestRecord& test : project.tests) {
        const auto field = findField(copy, test.path);
        const std::vector<std::string> changed = evidence::changedSince(project, test);
        any = any || !changed.empty();
        out << (changed.empty() ? "holds" : "stale") << '\t' << test.date << '\t'
            << (field                             ? std::string(field->info.label)
                : test.path == evidence::tipAngle ? std::string("Leaned until it tips")
                                                  : test.path)
            << '\t'
            << (field                             ? figureText(test.value, field->info.kind)
                : test.path == evidence::tipAngle ? figureText(test.value, Kind::Angle)
                                                  : std::string("-"))
            << '\t';
        for (std::size_t i = 0; i < changed.size(); ++i) out << (i > 0 ? ", " : "changed: ") << changed[i];
        out << '\t' << test.note << '\n';
    }
    return any ? 1 : 0;
}

} // namespace gantry::cli
