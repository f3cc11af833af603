// SPDX-License-Identifier: GPL-3.0-or-later
// Planning one axis (bar: 0.5 µs median), the limits of an axis, and 10,000 samples of the demo on one core
// and on both (bar: about a second with both). --once fails when two threads do not give what one gives, or
// planning costs more than a tenth of evaluating an axis.
#include "core/evaluate/evaluate.h"
#include "core/motion/rocking.h"
#include "core/sampling/confidence.h"
#include "core/tools/limits.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"
#include "machine.h"

#include <algorithm>
#include <chrono>
#include <iostream>
#include <thread>
#include <vector>

namespace {

using namespace gantry;

double seconds(std::chrono::steady_clock::time_point since) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - since).count();
}

template <class F>
double median(int rounds, int each, F f) {
    std::vector<double> times;
    for (int i = 0; i < rounds; ++i) {
        const auto start = std::chrono::steady_clock::now();
        for (int k = 0; k < each; ++k) f(k);
        times.push_back(seconds(start) / each);
    }
    std::nth_element(times.begin(), times.begin() + rounds / 2, times.end());
    return times[static_cast<std::size_t>(rounds / 2)];
}

} // namespace

int main(int, char**) {
    std::string error;
    const auto text = io::readTextFile(GANTRY_DATA "/demo/fernhouse-dolly.gantry", io::largestFile, error);
    auto loaded = io::readProject(text.value_or(std::string()));
    const Project project = std::get<io::LoadedProject>(std::move(loaded)).project;
    std::cout << processorName() << '\n';
    volatile double keep = 0.0;
    const double planning = median(101, 1000, [&](int k) {
        keep = motion::plan(0.001 * (k + 1), {0.25, 0.5, 2.0}).cruiseTime;
    });
    const double tuned = median(101, 1000, [&](int k) {
        keep = motion::planTuned(0.001 * (k + 1), {0.25, 0.5, 2.0}, 0.16).cruiseTime;
    });
    const double evaluating =
        median(101, 20, [&](int) { keep = evaluateAxis(project, project.axes[0]).step.value(); });
    const AxisEvaluation e = evaluateAxis(project, project.axes[0]);
    const double limits =
        median(51, 5, [&](int) { keep = axisLimits(project, project.axes[0], e).largest.speed; });
    std::cout << "planning one axis: " << planning * 1e6 << " µs median, tuned " << tuned * 1e6
              << " µs; evaluating it " << evaluating * 1e6 << " µs, its limits " << limits * 1e6 << " µs\n";
    constexpr int samples = 10000;
    auto start = std::chrono::steady_clock::now();
    const auto whole = sampling::sampleAxis(project, 0, 1, 0, samples);
    const double one = seconds(start);
    start = std::chrono::steady_clock::now();
    std::vector<sampling::Row> a, b;
    {
        const std::jthread first([&] { a = sampling::sampleAxis(project, 0, 1, 0, samples / 2); });
        const std::jthread second([&] { b = sampling::sampleAxis(project, 0, 1, samples / 2, samples / 2); });
    }
    a.insert(a.end(), b.begin(), b.end());
    const auto confidence = sampling::confidenceOf(project, 0, a);
    const double two = seconds(start);
    std::cout << samples << " samples: " << one << " s on one core; " << two
              << " s on two with their ranking; " << confidence.influences.size() << " inputs matter\n";
    bool same = a.size() == whole.size();
    for (std::size_t i = 0; same && i < a.size(); ++i)
        same = a[i].margin == whole[i].margin && a[i].inputs == whole[i].inputs;
    if (!same) std::cout << "Two threads gave other samples than one.\n";
    const bool cheap = planning < 0.1 * evaluating;
    if (!cheap) std::cout << "Planning costs more than a tenth of evaluating.\n";
    return same && cheap ? 0 : 1;
}
