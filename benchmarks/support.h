// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/files/text_file.h"
#include "io/project/project_file.h"

#include <algorithm>
#include <chrono>
#include <string>
#include <utility>
#include <variant>
#include <vector>

/// A project that ships with the program.
inline gantry::Project demo(const char* file) {
    std::string error;
    const auto text = gantry::io::readTextFile(file, gantry::io::largestFile, error);
    auto result = gantry::io::readProject(text.value_or(std::string()));
    return std::get<gantry::io::LoadedProject>(std::move(result)).project;
}

/// Median [ms].
template <class F>
double median(int rounds, F f) {
    std::vector<double> times;
    for (int i = 0; i < rounds; ++i) {
        const auto start = std::chrono::steady_clock::now();
        f();
        times.push_back(
            std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count());
    }
    std::nth_element(times.begin(), times.begin() + rounds / 2, times.end());
    return times[static_cast<std::size_t>(rounds / 2)];
}
