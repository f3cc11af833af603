// SPDX-License-Identifier: GPL-3.0-or-later
// Whatever continuous input is passed from 0.9 to 1.1 of its value, no figure jumps.
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "support/bare_rigs.h"
#include "support/files.h"
#include "support/flat_figures.h"

#include <QTest>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

using namespace gantry;

namespace {

constexpr int steps = 20;

/// A figure over the steps of an input; shorter where it has no number at some of them.
using Series = std::map<std::string, std::vector<double>>;

/// The step at which a series jumps; −1 if it does not. A jump is more than five times the median step and
/// stands alone: where a figure only begins to follow another law, its steps stay as large. So the first and
/// the last step, of which one side is not seen, tell nothing.
int jumpOf(const std::vector<double>& f) {
    std::vector<double> step;
    double scale = 0.0;
    for (std::size_t i = 1; i < f.size(); ++i) {
        step.push_back(std::abs(f[i] - f[i - 1]));
        scale = std::max(scale, std::abs(f[i]));
    }
    std::vector<double> sorted = step;
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2),
                     sorted.end());
    const double median = sorted[sorted.size() / 2], least = 1e-4 * scale;
    for (std::size_t i = 1; i + 1 < step.size(); ++i)
        if (step[i] > least && step[i] > 5.0 * median && step[i] > 3.0 * std::max(step[i - 1], step[i + 1]))
            return static_cast<int>(i);
    return -1;
}

/// Figures that really jump, and why.
const std::map<std::string, std::string> jumping{
    {"backlash_px", "play lets go of its flank"},
    {"jitter_px", "as backlash_px and stick_slip_px"},
    {"repeat_px", "as backlash_px"},
    {"stick_slip_px", "it sticks and slips, or does not"},
    {"clearance_at_least_m", "a bound, found by halving until it is near enough"},
    {"tipping_at_m", "the place of a worst case goes over to another"},
    {"tipping_direction_rad", "as tipping_at_m"},
    {"gravity_worst_at_rad", "as tipping_at_m"},
    {"binds_at_s", "as tipping_at_m: another moment or order binds"},
    {"target_drift_at_s", "as tipping_at_m"},
    {"torque_at_s", "as tipping_at_m"},
    {"carried_N", "of that moment"},
    {"resonance_at_s", "as tipping_at_m"},
    {"focus_at_s", "as tipping_at_m"},
    {"jitter_at_s", "as tipping_at_m"},
    {"stepping_at_s", "as tipping_at_m"},
    {"drift_at_s", "as tipping_at_m"},
    {"stepping_speed_m_s", "of the moment at which most stepping is seen"},
    {"stepping_px",
     "a way that vanishes takes its crawl with it; of a moment beside the worst by a thousandth"},
    {"slip_px", "as stick_slip_px"},
    {"let_go_px", "as backlash_px"},
    {"run_on_at_s", "as tipping_at_m"},
    {"approach_from_m", "it first goes the other way"},
    {"approach_ratio", "as approach_from_m"},
    {"focused_at_m", "of the moment at which the target is blurred most"},
    {"target_at_m", "as focused_at_m"},
    {"run_on_m", "of that moment; a worm locks or does not"},
    {"end_away_m", "of that moment"},
    {"tipping_at_s", "as tipping_at_m"},
    {"limit_ratio", "of the order that binds, which goes over to another"},
    {"frames", "a whole number"},
    {"microsteps", "a whole number"},
    {"picture", "as tipping_at_m: another picture has the least room"},
    {"move_s", "of that picture"},
    {"settle_s", "of that picture"},
    {"fails_at_picture", "a whole number"},
    {"fails_at_s", "of that picture"},
    {"first_spoiled", "a whole number"},
    {"spoiled_share", "a number of pictures"},
    {"alike_exposure_s", "of the axis that vibrates most"},
    {"needed_s", "friction ends a swing half a swing later"},
    {"swing_px", "friction holds it, or does not"},
};

/// What there is over what is needed goes to infinity where nothing is needed; the other way round it does
/// not jump.
double steady(const std::string& figure, double value) {
    return figure.find("_ratio") != std::string::npos && value > 1.0 ? 2.0 - 1.0 / value : value;
}

std::vector<std::pair<std::string, Project>> rigsThatShip() {
    std::vector<std::pair<std::string, Project>> out;
    for (const rigs::RigInfo& info : rigs::all()) out.emplace_back(info.key, bareRig(info.kind));
    for (const char* demo : {"fernhouse-dolly", "kettle-jib", "moss-orbit", "long-bench"})
        out.emplace_back(demo, demoProject(demo));
    return out;
}

double* valueOf(const FieldRef& f) {
    if (auto* const* e = std::get_if<Estimate*>(&f.target)) return &(*e)->value;
    if (auto* const* d = std::get_if<double*>(&f.target)) return *d;
    return nullptr;
}

} // namespace

class ContinuityTest : public QObject {
    Q_OBJECT
private slots:
    void jumpsAreFound() {
        std::vector<double> f;
        for (int i = 0; i <= steps; ++i) f.push_back(0.01 * i + (i > 7 ? 0.2 : 0.0));
        QCOMPARE(jumpOf(f), 7);
        for (int i = 0; i <= steps; ++i) f[static_cast<std::size_t>(i)] = std::max(1.0, 0.9 + 0.01 * i);
        QCOMPARE(jumpOf(f), -1); // a bend
    }
    void nothingJumps() {
        QStringList jumps;
        std::set<std::string> jumped;
        std::vector<std::pair<std::string, Project>> rigs = rigsThatShip();
#ifdef __SANITIZE_ADDRESS__
        rigs.resize(1); // memory is looked after elsewhere as well
#endif
        for (auto& [name, project] : rigs) {
            Project p = project;
            for (const FieldRef& field : allFields(p)) {
                double* const value = valueOf(field);
                if (value == nullptr || *value == 0.0) continue;
                const double nominal = *value;
                const auto figuresAt = [&](double share) {
                    *value = clampToField(field.info, nominal * share);
                    return figuresOf(evaluate(p, Poses::Later));
                };
                // What changes nothing at its ends changes nothing between.
                const auto same = [](const FlatFigure& a, const FlatFigure& b) {
                    return a.value == b.value && a.path == b.path;
                };
                const std::vector<FlatFigure> low = figuresAt(0.9), high = figuresAt(1.1);
                if (std::equal(low.begin(), low.end(), high.begin(), high.end(), same)) {
                    *value = nominal;
                    continue;
                }
                Series series;
                for (int i = 0; i <= steps; ++i)
                    for (const FlatFigure& f : figuresAt(0.9 + 0.2 * i / steps))
                        series[f.path].push_back(f.value);
                *value = nominal;
                for (const auto& [path, f] : series) {
                    if (f.size() != steps + 1) continue;
                    const std::string figure = path.substr(path.rfind('/') + 1);
                    std::vector<double> steadied(f.size());
                    std::transform(f.begin(), f.end(), steadied.begin(),
                                   [&](double x) { return steady(figure, x); });
                    const int at = jumpOf(steadied);
                    if (at < 0) continue;
                    jumped.insert(figure);
                    if (!jumping.contains(figure))
                        jumps << QString::fromStdString(name + " " + field.path + ": " + path) +
                                     QStringLiteral(" at %1: %2 to %3")
                                         .arg(at)
                                         .arg(f[static_cast<std::size_t>(at)])
                                         .arg(f[static_cast<std::size_t>(at) + 1]);
                }
            }
        }
        for (const QString& j : jumps) qInfo("%s", qPrintable(j));
        QVERIFY(jumps.isEmpty());
#ifndef __SANITIZE_ADDRESS__
        // None is listed that does not.
        for (const auto& [figure, why] : jumping) QVERIFY2(jumped.contains(figure), figure.c_str());
#endif
    }
};

QTEST_APPLESS_MAIN(ContinuityTest)
#include "continuity_test.moc"
