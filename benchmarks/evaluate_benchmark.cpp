// SPDX-License-Identifier: GPL-3.0-or-later
// How long evaluating takes: the demo (bar: 150 µs median for evaluate) and six axes with eight shots (bar: 1
// ms).
// --once runs each once and fails on ratios only: evaluating must grow no faster than axes times shots.
#include "core/evaluate/evaluate.h"
#include "core/verdicts/ranges.h"
#include "io/files/text_file.h"
#include "io/project/project_file.h"
#include "machine.h"

#include <algorithm>
#include <benchmark/benchmark.h>
#include <chrono>
#include <cstring>
#include <iostream>
#include <vector>

namespace {

using namespace gantry;

Project demo(const char* file = GANTRY_DATA "/demo/fernhouse-dolly.gantry") {
    std::string error;
    const auto text = io::readTextFile(file, io::largestFile, error);
    auto result = io::readProject(text.value_or(std::string()));
    return std::get<io::LoadedProject>(std::move(result)).project;
}

/// The demo's axes three times over, with eight shots that move all of them.
Project large() {
    Project p = demo();
    const std::vector<Axis> axes = p.axes;
    const std::vector<Shot> shots = p.shots;
    for (const char* copy : {"-b", "-c"})
        for (Axis a : axes) {
            a.id += copy;
            p.axes.push_back(a);
        }
    p.shots.clear();
    for (int i = 0; i < 8; ++i) {
        Shot s = shots[1]; // moves both axes of the demo
        s.id += std::to_string(i);
        const std::vector<ShotMove> moves = s.moves;
        for (const char* copy : {"-b", "-c"})
            for (ShotMove m : moves) {
                m.axis += copy;
                s.moves.push_back(m);
            }
        p.shots.push_back(s);
    }
    return p;
}

void evaluateDemo(benchmark::State& state) {
    const Project p = demo();
    for (auto _ : state) benchmark::DoNotOptimize(evaluate(p));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void evaluateAndJudgeDemo(benchmark::State& state) {
    const Project p = demo();
    for (auto _ : state) {
        const Evaluation e = evaluate(p);
        benchmark::DoNotOptimize(judge(p, e));
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void assessDemoWithRanges(benchmark::State& state) {
    const Project p = demo();
    for (auto _ : state) benchmark::DoNotOptimize(assess(p));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void evaluateSixAxesEightShots(benchmark::State& state) {
    const Project p = large();
    for (auto _ : state) benchmark::DoNotOptimize(evaluate(p));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
BENCHMARK(evaluateDemo);
BENCHMARK(evaluateAndJudgeDemo);
BENCHMARK(assessDemoWithRanges);
BENCHMARK(evaluateSixAxesEightShots);

double medianMicroseconds(const Project& p) {
    std::vector<double> times;
    for (int i = 0; i < 401; ++i) {
        const auto start = std::chrono::steady_clock::now();
        benchmark::DoNotOptimize(evaluate(p));
        times.push_back(
            std::chrono::duration<double, std::micro>(std::chrono::steady_clock::now() - start).count());
    }
    std::nth_element(times.begin(), times.begin() + 200, times.end());
    return times[200];
}

int once() {
    const double small = medianMicroseconds(demo()), big = medianMicroseconds(large());
    std::cout << processorName() << "\nevaluate, demo: " << small << " µs median, " << 1e6 / small
              << " a second\n"
              << "evaluate, six axes and eight shots: " << big << " µs median\n";
    // The jib with tipping in 36 directions and its sweep; bar: 1 ms.
    const double jib = medianMicroseconds(demo(GANTRY_DATA "/demo/kettle-jib.gantry"));
    std::cout << "evaluate, jib: " << jib << " µs median, " << jib / small << " times the demo, at most 60\n";
    if (jib > 60.0 * small) return 1;
    // Five pairs of axis and shot against forty-eight; twice that leaves room for noise.
    const double ratio = big / small, most = 2.0 * 48.0 / 5.0;
    std::cout << "ratio " << ratio << ", at most " << most << '\n';
    return ratio <= most ? 0 : 1;
}

} // namespace

int main(int argc, char** argv) {
    if (argc > 1 && std::strcmp(argv[1], "--once") == 0) return once();
    benchmark::Initialize(&argc, argv);
    std::cout << processorName() << '\n';
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
