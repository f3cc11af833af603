// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/fix_job.h"

#include "app/model/document.h"
#include "app/preferences/shelf.h"

#include <algorithm>

namespace gantry::app {
namespace {

constexpr std::size_t mostShown = 12;

} // namespace

FixJob::FixJob(Document& document, const Shelf& shelf, QObject* parent)
    : QObject(parent), document_(document), shelf_(shelf) {
    connect(&shelf_, &Shelf::changed, this, &FixJob::restart);
    pool_.setMaxThreadCount(1);
    timer_.setSingleShot(true);
    timer_.setInterval(150);
    connect(&timer_, &QTimer::timeout, this, &FixJob::start);
    connect(&document_, &Document::changed, this, &FixJob::restart);
}

FixJob::~FixJob() {
    stop_.request_stop();
    pool_.waitForDone();
}

void FixJob::setAxis(int axis) {
    if (axis == axis_) return;
    axis_ = axis;
    restart();
}

void FixJob::restart() {
    stop_.request_stop();
    found_.clear();
    timer_.start();
}

void FixJob::start() {
    stop_ = std::stop_source();
    std::vector<Verdict> wanted;
    for (const Verdict& v : document_.assessment().verdicts)
        if (concerns(v, axis_) && (mendable(v.state) || v.state == State::Oversized)) wanted.push_back(v);
    std::stable_partition(wanted.begin(), wanted.end(), [this](const Verdict& v) {
        const std::string_view key = ruleKey(v);
        return first_.contains(QLatin1StringView(key.data(), static_cast<qsizetype>(key.size())));
    });
    pool_.start([this, wanted = std::move(wanted), project = document_.project(),
                 now = document_.assessment(), axis = axis_, revision = document_.revision(),
                 owned = shelf_.parts(), token = stop_.get_token()] {
        for (const Verdict& v : wanted) {
            auto fixes = std::make_shared<const std::vector<Fix>>(
                findFixes(project, now, v, token, mostShown, {partsLibrary(), owned}));
            if (token.stop_requested()) return;
            QMetaObject::invokeMethod(
                this,
                [this, rule = v.rule, fixes = std::move(fixes), revision, axis] {
                    if (revision != document_.revision() || axis != axis_) return;
                    found_[rule] = fixes;
                    emit found();
                },
                Qt::QueuedConnection);
        }
    });
}

} // namespace gantry::app
