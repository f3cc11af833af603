// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <chrono>
#include <iostream>

/// Tells every few seconds how far a long test is, so that a slow machine can be told from one that hangs.
class Progress {
public:
    Progress(const char* what, int total) : what_(what), total_(total) {}

    /// One more of them is done.
    void step() {
        ++done_;
        const auto now = std::chrono::steady_clock::now();
        if (now - said_ < std::chrono::seconds(10)) return;
        said_ = now;
        std::cerr << what_ << ": " << done_ << " of " << total_ << '\n';
    }

private:
    const char* what_;
    int total_, done_ = 0;
    std::chrono::steady_clock::time_point said_ = std::chrono::steady_clock::now();
};
