// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/limits_job.h"

#include "app/model/document.h"

#include <QElapsedTimer>
#include <QThread>

namespace gantry::app {
namespace {

constexpr qint64 mostSamplingTime = 15000; // [ms]

/// Halves of one sampling, joined by whichever thread ends last.
struct Halves {
    std::array<std::vector<sampling::Row>, 2> rows;
    std::atomic<int> left{2};
};

} // namespace

LimitsJob::LimitsJob(Document& document, QObject* parent) : QObject(parent), document_(document) {
    pool_.setMaxThreadCount(2);
    pool_.setThreadPriority(QThread::LowPriority); // hands on the window come first
}

LimitsJob::~LimitsJob() {
    stop();
    stopSampling_.request_stop();
    pool_.waitForDone();
}

void LimitsJob::stop() {
    stopSimulation_.request_stop();
}

void LimitsJob::simulate(const simulation::AxisSimulation& input, double settleBand) {
    stopSimulation_.request_stop();
    stopSimulation_ = std::stop_source();
    simulating_ = true;
    pool_.start(
        [this, input, settleBand, revision = document_.revision(), token = stopSimulation_.get_token()] {
            auto result = simulation::simulate(input, settleBand, token, [this, token](double share) {
                QMetaObject::invokeMethod(
                    this,
                    [this, share, token] {
                        if (!token.stop_requested()) emit progressed(share);
                    },
                    Qt::QueuedConnection);
            });
            QMetaObject::invokeMethod(
                this,
                [this, result = std::move(result), revision, token] {
                    // A newer one has taken its place when this one was stopped for it.
                    if (token != stopSimulation_.get_token()) return;
                    simulating_ = false;
                    emit simulated(result, revision);
                },
                Qt::QueuedConnection);
        });
}

void LimitsJob::sample(int axis) {
    const std::pair now{axis, document_.revision()};
    if (sampledFor_ == now) return;
    sampledFor_ = now;
    stopSampling_.request_stop();
    stopSampling_ = std::stop_source();
    auto halves = std::make_shared<Halves>();
    for (int half = 0; half < 2; ++half)
        pool_.start([this, half, halves, axis, project = document_.project(), revision = now.second,
                     token = stopSampling_.get_token()] {
            constexpr std::uint64_t seed = 20261123;
            const auto index = static_cast<std::size_t>(axis);
            // A large rig gets as many samples as there is time for, so that an answer comes.
            std::vector<sampling::Row>& rows = halves->rows[static_cast<std::size_t>(half)];
            QElapsedTimer clock;
            clock.start();
            constexpr int bunch = 250;
            for (int first = 0; first < samples / 2 && clock.elapsed() < mostSamplingTime; first += bunch) {
                auto more = sampling::sampleAxis(project, index, seed, half * samples / 2 + first,
                                                 std::min(bunch, samples / 2 - first), token);
                rows.insert(rows.end(), std::make_move_iterator(more.begin()),
                            std::make_move_iterator(more.end()));
            }
            if (--halves->left > 0 || token.stop_requested()) return;
            std::vector<sampling::Row> all = std::move(halves->rows[0]);
            all.insert(all.end(), std::make_move_iterator(halves->rows[1].begin()),
                       std::make_move_iterator(halves->rows[1].end()));
            auto confidence = sampling::confidenceOf(project, index, all);
            QMetaObject::invokeMethod(
                this,
                [this, confidence = std::move(confidence), axis, revision, token] {
                    if (!token.stop_requested()) emit sampled(confidence, axis, revision);
                },
                Qt::QueuedConnection);
        });
}

} // namespace gantry::app
