// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <ctime>

/// Time that this process has computed, which a busy machine does not stretch as it does the clock on the
/// wall.
class CpuClock {
public:
    void start() { start_ = std::clock(); }
    long long elapsed() const { return (std::clock() - start_) * 1000LL / CLOCKS_PER_SEC; } ///< [ms]

private:
    std::clock_t start_ = std::clock();
};
