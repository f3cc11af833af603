// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <atomic>
#include <chrono>
#include <functional>
#include <ostream>
#include <stop_token>
#include <string>
#include <thread>

namespace gantry::cli {

/// Work that may take long: it ends early at Ctrl+C or after a minute, with what it has, and shows how far it
/// is where a person is looking (standard error is a terminal).
class LongJob {
public:
    static constexpr std::chrono::seconds longest{60};

    explicit LongJob(std::string what, std::chrono::milliseconds most = longest);
    ~LongJob();
    LongJob(const LongJob&) = delete;
    LongJob& operator=(const LongJob&) = delete;

    std::stop_token token() const { return source_.get_token(); }
    /// Hears of the share done.
    std::function<void(double)> progress();

    /// Says on `err` why it ended early, if it did. Returns the exit code for that: 130 after Ctrl+C, 0 after
    /// the time was up or in the ordinary case.
    int conclude(std::ostream& err) const;
    bool endedEarly() const { return interrupted_ || late_; }

private:
    std::string what_;
    std::stop_source source_;
    std::atomic<bool> interrupted_{false}, late_{false};
    int shown_ = -1;
    void (*before_)(int);
    std::jthread watch_;
};

} // namespace gantry::cli
