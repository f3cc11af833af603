// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/all_processors.h"

#include <thread>
#include <vector>

namespace gantry::app {

Crew allProcessors() {
    return [](const std::function<void()>& work) {
        std::vector<std::jthread> others;
        for (unsigned i = 1; i < std::thread::hardware_concurrency(); ++i) others.emplace_back(work);
        work();
    };
}

} // namespace gantry::app
