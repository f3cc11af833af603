// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "app/model/limits_job.h"
#include "app/stations/station.h"
#include "core/tools/limits.h"

class QComboBox;
class QPushButton;

namespace gantry::app {

class ConfidenceCard;
class EnvelopePlot;
class SimulationPlot;
class SpeedStrip;

/// How fast, how hard, how soft, and how sure? The envelope with what is set and what is recommended, the
/// speeds to stay out of, a simulated move with faults, and the chance that it fails.
class LimitsStation : public Station {
    Q_OBJECT
public:
    explicit LimitsStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Limits"); }
    void refresh() override;
    void applyTheme() override;
    QStringList rules() const override {
        return {"vibration", "resonance", "stopping", "settings", "whirl", "ease", "near_people"};
    }

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    void showHead();
    void useRecommended();
    void useAlike();
    void setPoint(double speed, double acceleration);
    void simulate();
    void showResult(const simulation::SimulationResult& result, quint64 revision);
    void place();
    QString limitsLine() const;
    QString detailLine() const;
    simulation::Fault chosenFault(const motion::Profile& profile) const;
    QRect headCard() const;
    QString rampPath() const;                  ///< of the hardest ramp of the shot in hand
    QString figurePath(const char* key) const; ///< of the chosen axis
    QString motionPath(const char* linear, const char* rotary) const;

    AxisLimits limits_;
    Triple set_;
    EnvelopePlot* envelope_;
    SpeedStrip* strip_;
    FieldGroup* fields_;
    SimulationPlot* simulation_;
    ConfidenceCard* confidence_;
    QPushButton *recommended_, *alike_, *simulate_, *more_;
    QComboBox* fault_;
    LimitsJob job_;
    std::optional<sampling::Confidence> sampled_;
    int sampledAxis_ = -1;
    quint64 sampledRevision_ = 0;
    /// What a simulation was started with; its result is shown as that, whatever is selected by then.
    struct Started {
        simulation::AxisSimulation input;
        AxisEvaluation evaluation;
        int axis = -1;
        double pixels = 0.0;  ///< [px/U]
        double framing = 0.0; ///< [px] that it may be off its target
    };
    struct Simulated {
        Started from;
        simulation::SimulationResult result;
        quint64 revision = 0;
    };
    /// Why steps were lost, as the end of a sentence; empty if none were.
    static QString because(const Simulated& run);

    Started started_;
    std::optional<Simulated> simulated_;
    QTimer sampling_;
    QString line_, detail_;
};

} // namespace gantry::app
