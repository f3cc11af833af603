// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/sampling/confidence.h"
#include "core/simulation/axis_simulation.h"

#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <atomic>
#include <memory>
#include <optional>
#include <stop_token>

namespace gantry::app {

class Document;

/// The long work of Limits: one simulation at a time, and sampling over both cores. Each result belongs to
/// the revision of the project it was made from; the next start stops what runs.
class LimitsJob : public QObject {
    Q_OBJECT
public:
    explicit LimitsJob(Document& document, QObject* parent = nullptr);
    ~LimitsJob() override;

    void simulate(const simulation::AxisSimulation& input, double settleBand);
    /// Samples an axis, unless it has been sampled at this revision already.
    void sample(int axis);
    void stop();

    bool running() const { return simulating_; }
    static constexpr int samples = 10000;

signals:
    void progressed(double share);
    void simulated(const gantry::simulation::SimulationResult& result, quint64 revision);
    void sampled(const gantry::sampling::Confidence& confidence, int axis, quint64 revision);

private:
    Document& document_;
    QThreadPool pool_;
    std::stop_source stopSimulation_, stopSampling_;
    bool simulating_ = false;
    std::optional<std::pair<int, quint64>> sampledFor_;
};

} // namespace gantry::app
