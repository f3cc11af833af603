// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "core/model/kind_traits.h"
#include "core/working/printed.h"
#include "core/working/working.h"
#include "support/drawn_rigs.h"
#include "support/every_rig.h"
#include "support/formula.h"
#include "support/judged_rigs.h"

#include <QTest>

/// Workings of figures: every printed formula, evaluated by a reader of its own from the printed inputs and
/// results on the way, meets what it stands for, and the last of them the figure.
using namespace gantry;
using working::Quantity;
using working::Working;

namespace {

#ifdef __SANITIZE_ADDRESS__
constexpr int drawn = 5; // sanitizers look at how it is computed, Release at what
#else
constexpr int drawn = 200;
#endif

bool meets(double a, double b) {
    return a == b || std::abs(a - b) <= 1e-9 * std::max(std::abs(a), std::abs(b));
}

/// Whether a quantity may be taken as it was found, though others of its name have a formula.
bool mayBeFound(const Quantity& q, const Project& project, const working::PlacedFigure& f) {
    if (f.axis < 0) return true;
    const Axis& axis = project.axes[static_cast<std::size_t>(f.axis)];
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    const auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (q.symbol == "P") // a ring's marks, a push along the lens, a bar that turns the camera
        return axis.role == Role::Focus || axis.role == Role::Zoom ||
               (linear != nullptr && (linear->panBar.fitted || project.shots[f.shot->shot.at()].towards));
    if (q.symbol == "w") return linear != nullptr; // a rail over its stands
    if (q.symbol == "f_all") return rotary != nullptr;
    if (q.symbol == "T_g") return !gravityTurns(axis.role);
    return true;
}

/// What is wrong with a working; empty if nothing is.
QString faultOf(const Working& w, const Project& project, double figure) {
    std::map<std::string, double> values;
    for (const Quantity& q : w.quantities) {
        const QString name = QString::fromStdString(q.symbol + " (" + q.label + ")");
        if (values.contains(q.symbol)) return name + " stands twice";
        if (q.label.empty()) return name + " says nothing";
        if (q.isInput()) {
            const auto there = numberAt(project, q.path);
            if (!there || *there != q.value) return name + " is not what is entered";
        } else if (!q.formula.empty()) {
            try {
                const double again = Formula(q.formula, values).value();
                if (!meets(again, q.value))
                    return name + QString(": %1 gives %2, not %3")
                                      .arg(QString::fromStdString(q.formula))
                                      .arg(again)
                                      .arg(q.value);
            } catch (const std::exception& e) {
                return name + ": " + e.what();
            }
        } else if (q.origin.empty()) {
            return name + " comes from nowhere";
        }
        values[q.symbol] = q.value;
    }
    if (!meets(w.result().value, figure))
        return QString("%1 instead of %2").arg(w.result().value).arg(figure);
    if (w.reference.empty()) return "no reference";
    return {};
}

} // namespace

class WorkingsTest : public QObject {
    Q_OBJECT

    std::map<std::string, int> seen_;   ///< figures by key
    std::map<std::string, int> missed_; ///< with a number, without a working

    static std::string keyOf(const working::PlacedFigure& f) {
        return f.part ? std::to_string(static_cast<int>(*f.part)) + "/" + f.key : std::string(f.info.key);
    }
    void look(const Project& project, const Evaluation& evaluation) {
        for (const working::PlacedFigure& f : working::allFigures(project, evaluation)) {
            if (!f.figure) continue;
            if (!working::isExplained(f)) {
                QVERIFY2(!working::workingOf(project, evaluation, f), f.path.c_str());
                continue;
            }
            if (f.axis >= 0 &&
                evaluation.axes[static_cast<std::size_t>(f.axis)].model.missing != Reason::None)
                continue;
            // A cell of the table holds a number also where the shot has none, a lasting ratio for one.
            if (f.part && f.shot->problem != Reason::None) continue;
            const auto w = working::workingOf(project, evaluation, f);
            if (!w) {
                if (missed_[keyOf(f)]++ < 4)
                    qWarning("%s: %s (%g)", project.name.c_str(), f.path.c_str(), f.figure.value());
                continue;
            }
            ++seen_[keyOf(f)];
            const QString fault = faultOf(*w, project, f.figure.value());
            for (const Quantity& q : w->quantities)
                if (!q.isInput() && q.formula.empty())
                    QVERIFY2(mayBeFound(q, project, f),
                             (project.name + ": " + f.path + ": " + q.symbol).c_str());
            QVERIFY2(fault.isEmpty(),
                     qPrintable(QString::fromStdString(project.name + ": " + f.path + ": ") + fault));
        }
    }

private slots:
    void ofEveryRig() {
        const EveryRig rigs;
        for (std::size_t i = 0; i < rigs.projects.size(); ++i) {
            look(rigs.projects[i], rigs.evaluations[i]);
            if (QTest::currentTestFailed()) return;
        }
    }
    void ofEveryJudgedRig() {
        for (const nlohmann::json& c : judged::cases()) {
            if (!judged::canBuild(c.at("id"))) continue;
            const Project project = judged::rigOf(c, 'a');
            look(project, evaluate(project));
            if (QTest::currentTestFailed()) return;
        }
    }
    void ofDrawnRigs() {
        std::mt19937 random(41);
        for (int i = 0; i < drawn; ++i) {
            const Project project = drawn_rigs::variation(random);
            look(project, evaluate(project, Poses::Later));
            if (QTest::currentTestFailed()) return;
        }
    }
    void everyFigureHasItsWorking() {
        for (const auto& [key, count] : seen_) qInfo("%-28s %4d", key.c_str(), count);
        for (const auto& [key, count] : missed_) QVERIFY2(count == 0, (key + " has no working").c_str());
        // At least these, in number: nothing fell out of the table.
        for (const char* key :
             {"torque_needed_Nm", "torque_available_Nm", "torque_margin", "steps_per_unit", "motor_speed_rpm",
              "pulse_rate_hz", "inertia_at_motor_kgm2", "lag_px", "stepping_px", "backlash_px", "sag_px",
              "tipping_ratio", "rocking_time_s", "natural_frequency_hz", "frequency_hz", "drift_px_per_frame",
              "jitter_px", "repeat_px", "framing_px"})
            QVERIFY2(seen_[key] > 20, key);
        // Of the drive-train table: driver 0, motor 1, link 2, output 3, belt 4, load 5, picture 6.
        for (const char* key :
             {"0/speed",     "1/speed",     "2/speed",     "3/speed",     "4/speed",     "5/speed",
              "6/speed",     "1/needed",    "2/needed",    "3/needed",    "4/needed",    "5/needed",
              "1/available", "2/available", "3/available", "4/available", "5/available", "1/inertia",
              "2/inertia",   "3/inertia",   "5/inertia",   "6/inertia",   "1/microstep", "2/microstep",
              "3/microstep", "5/microstep", "6/microstep", "1/lag",       "5/lag",       "6/lag",
              "4/stretch",   "5/stretch",   "6/stretch",   "5/play",      "6/play"})
            QVERIFY2(seen_[key] > 0, key);
    }
    /// What moves a figure most is found again by moving that input by hand.
    void whatMovesItMost() {
        Project p = demoProject("slide-and-pan");
        const Evaluation e = evaluate(p);
        const std::string path = "axes/slide/shots/reveal/torque_needed_Nm";
        const auto figure = working::figureAt(p, e, path);
        const auto w = working::workingOf(p, e, *figure);
        const std::vector<working::Influence> all = working::influences(p, *figure, *w);
        QVERIFY(all.size() > 3);
        double last = std::numeric_limits<double>::infinity();
        for (const working::Influence& i : all) {
            QVERIFY(i.uncertain);
            QVERIFY(i.moves(figure->figure.value()) <= last);
            last = i.moves(figure->figure.value());
        }
        QCOMPARE(all.front().path, std::string("axes/slide/mechanism/running_friction_N"));
        // 3 N ±50 % through a belt of 95 %, on 20 teeth of 2 mm.
        const double radius = 20 * 0.002 / (2 * std::numbers::pi), change = 1.5 * radius / 0.95;
        QVERIFY(meets(all.front().high.value() - figure->figure.value(), change));
        QVERIFY(meets(figure->figure.value() - all.front().low.value(), change));
        QVERIFY(meets(all.front().moves(figure->figure.value()), change));
    }
    /// Where nothing is uncertain, each input by a hundredth: of a number that is a quotient a hundredth of
    /// it.
    void whereNothingIsUncertain() {
        Project p = demoProject("slide-and-pan");
        const Evaluation e = evaluate(p);
        const auto figure = working::figureAt(p, e, "axes/slide/shots/reveal/pulse_rate_hz");
        for (FieldRef& f : allFields(p))
            if (auto* estimate = std::get_if<Estimate*>(&f.target)) (*estimate)->tolerance = 0.0;
        const auto w = working::workingOf(p, e, *figure);
        const std::vector<working::Influence> all = working::influences(p, *figure, *w);
        const auto speed =
            std::find_if(all.begin(), all.end(), [](const auto& i) { return i.path.ends_with("speed_m_s"); });
        QVERIFY(speed != all.end() && !speed->uncertain);
        QVERIFY(meets(speed->high.value(), 1.01 * figure->figure.value()));
        QVERIFY(meets(speed->low.value(), 0.99 * figure->figure.value()));
        const std::string said = working::influenceSentence(all, p, *figure, units::System::Metric);
        QVERIFY2(said.starts_with("Nothing in it is uncertain. ") &&
                     said.find("1 % less or more") != std::string::npos,
                 said.c_str());
    }
    void printed() {
        const Project p = demoProject("slide-and-pan");
        const Evaluation e = evaluate(p);
        const auto figure = working::figureAt(p, e, "axes/slide/shots/reveal/torque_needed_Nm");
        const auto w = working::workingOf(p, e, *figure);
        QCOMPARE(working::headline(*w, units::System::Metric),
                 std::string("Torque needed at the motor: 0.09882 N·m"));
        const std::vector<working::Row> rows = working::rowsOf(*w, p, units::System::Metric);
        const auto row = [&](const char* symbol) {
            const auto at =
                std::find_if(rows.begin(), rows.end(), [&](const auto& r) { return r.symbol == symbol; });
            return at == rows.end() ? working::Row{} : *at;
        };
        QVERIFY(row("m_0").input && row("m_0").formula.empty());
        QCOMPARE(row("m_0").from, std::string("±1 %, measured"));
        QCOMPARE(row("p").from, std::string("counted"));
        QCOMPARE(row("z").from, std::string("entered"));
        QCOMPARE(row("r_out").value, std::string("0.006366 m/rad"));
        QVERIFY(!row("T_need").input && row("T_need").formula.find("J_m") != std::string::npos);
        QCOMPARE(rows.back().symbol, std::string("T_need"));
        // The same in inches.
        QVERIFY(working::headline(*w, units::System::Inch).ends_with("oz·in"));
    }
};

QTEST_APPLESS_MAIN(WorkingsTest)
#include "workings_test.moc"
