// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
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
            if (!f.figure || !working::isExplained(f)) continue;
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
    }
};

QTEST_APPLESS_MAIN(WorkingsTest)
#include "workings_test.moc"
