// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/long_job.h"

#include <csignal>
#include <cstdio>
#include <unistd.h>

namespace gantry::cli {
namespace {

volatile std::sig_atomic_t interrupts = 0;

void onInterrupt(int) {
    interrupts = 1;
}

} // namespace

LongJob::LongJob(std::string what, std::chrono::milliseconds most)
    : what_(std::move(what)), before_((interrupts = 0, std::signal(SIGINT, onInterrupt))) {
    watch_ = std::jthread([this, end = std::chrono::steady_clock::now() + most](const std::stop_token& over) {
        while (!over.stop_requested()) {
            if (interrupts != 0) interrupted_ = true;
            if (std::chrono::steady_clock::now() > end) late_ = true;
            if (endedEarly()) {
                source_.request_stop();
                return;
            }
            std::this_thread::sleep_for(std::chrono::milliseconds(5));
        }
    });
}

LongJob::~LongJob() {
    watch_.request_stop();
    watch_.join();
    std::signal(SIGINT, before_);
    if (shown_ >= 0) std::fputs("\r\033[K", stderr); // the line belongs to the next that writes
}

std::function<void(double)> LongJob::progress() {
    if (::isatty(STDERR_FILENO) == 0) return {};
    return [this](double share) {
        const int percent = static_cast<int>(100.0 * share);
        if (percent == shown_) return;
        shown_ = percent;
        std::fputs(("\r" + what_ + " " + std::to_string(percent) + " %").c_str(), stderr);
    };
}

int LongJob::conclude(std::ostream& err) const {
    if (interrupted_) {
        err << what_ << ": stopped.\n";
        return 130;
    }
    if (late_) err << what_ << ": ended after a minute; what follows is what was done by then.\n";
    return 0;
}

} // namespace gantry::cli
