// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/least_time_job.h"

#include "app/model/all_processors.h"
#include "app/model/document.h"

#include <algorithm>

namespace gantry::app {

LeastTimeJob::LeastTimeJob(Document& document, QObject* parent) : QObject(parent), document_(document) {
    pool_.setMaxThreadCount(1);
    pool_.setThreadPriority(QThread::LowPriority); // hands on the window come first
    timer_.setSingleShot(true);
    timer_.setInterval(200);
    connect(&timer_, &QTimer::timeout, this, &LeastTimeJob::start);
}

LeastTimeJob::~LeastTimeJob() {
    stop();
    pool_.waitForDone();
}

void LeastTimeJob::stop() {
    timer_.stop();
    stop_.request_stop();
}

void LeastTimeJob::want(const QString& move) {
    if (found_ && found_->move == move && !stale()) return;
    stop();
    move_ = move;
    timer_.start();
}

const LeastMoveTime* LeastTimeJob::of(const QString& move) const {
    return found_ && found_->move == move && found_->least ? &*found_->least : nullptr;
}

bool LeastTimeJob::stale() const {
    return found_ && found_->revision != document_.revision();
}

void LeastTimeJob::start() {
    const auto& moves = document_.project().moves;
    const auto at = std::find_if(moves.begin(), moves.end(),
                                 [this](const RigMove& m) { return m.id == move_.toStdString(); });
    if (at == moves.end()) return;
    stop_ = std::stop_source();
    // Planned already; only the search itself is long.
    const PlannedMove& planned = document_.results().move(static_cast<std::size_t>(at - moves.begin()));
    pool_.start([this, move = *at, scene = planned.scene, plan = planned.plan,
                 revision = document_.revision(), token = stop_.get_token()] {
        auto least = leastMoveTime(move, scene, plan, token, allProcessors());
        if (token.stop_requested()) return;
        QMetaObject::invokeMethod(
            this,
            [this, id = move.id, least = std::move(least), revision, token] {
                if (token.stop_requested()) return;
                found_ = Found{QString::fromStdString(id), revision, least};
                emit found();
            },
            Qt::QueuedConnection);
    });
}

} // namespace gantry::app
