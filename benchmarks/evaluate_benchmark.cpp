// SPDX-License-Identifier: GPL-3.0-or-later
// How long evaluating takes: the demo (bar: 150 µs median for evaluate) and six axes with eight shots (bar: 1
// ms).
// --once runs each once and fails on ratios only: evaluating must grow no faster than axes times shots.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/pose_search.h"
#include "core/evaluate/setup_of.h"
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

/// A rig's axes again and again until there are so many, with shots that move all of them.
Project grown(const Project& like, std::size_t axes, std::size_t shots) {
    Project p = like;
    p.axes.clear();
    p.shots.clear();
    const auto most =
        std::max_element(like.shots.begin(), like.shots.end(),
                         [](const Shot& a, const Shot& b) { return a.moves.size() < b.moves.size(); });
    Shot shot = *most;
    shot.moves.clear();
    while (p.axes.size() < axes) {
        const Axis& axis = like.axes[p.axes.size() % like.axes.size()];
        ShotMove move{axis.id, {}};
        if (const Movement* m = findMovement(*most, axis.id))
            move.movement = *m;
        else
            move.movement = kindOf(axis) == AxisKind::Linear
                                ? Movement{BySpeed<AxisKind::Linear>{0.3, 0.1, 0.2}}
                                : Movement{BySpeed<AxisKind::Rotary>{0.5, 0.2, 0.4}};
        Axis copy = axis;
        copy.id += '-' + std::to_string(p.axes.size());
        move.axis = copy.id;
        shot.moves.push_back(move);
        p.axes.push_back(std::move(copy));
    }
    while (p.shots.size() < shots) {
        p.shots.push_back(shot);
        p.shots.back().id += std::to_string(p.shots.size());
    }
    return p;
}
/// As the window does: with the search over all poses made before.
Evaluation evaluated(const Project& p, const std::shared_ptr<const PoseSearch>& poses) {
    return evaluate(p, Poses::Later, {poses, nullptr});
}
Assessment assessed(const Project& p, const std::shared_ptr<const PoseSearch>& poses) {
    return assess(p, {}, Poses::Later, {poses, nullptr});
}
std::shared_ptr<const PoseSearch> posesOf(const Project& p) {
    return searchPoses(setupWithMoves(p));
}

Project large() {
    return grown(demo(), 6, 8);
}

void evaluateDemo(benchmark::State& state) {
    const Project p = demo();
    const auto poses = posesOf(p);
    for (auto _ : state) benchmark::DoNotOptimize(evaluated(p, poses));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void evaluateAndJudgeDemo(benchmark::State& state) {
    const Project p = demo();
    const auto poses = posesOf(p);
    for (auto _ : state) {
        const Evaluation e = evaluated(p, poses);
        benchmark::DoNotOptimize(judge(p, e));
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void assessDemoWithRanges(benchmark::State& state) {
    const Project p = demo();
    const auto poses = posesOf(p);
    for (auto _ : state) benchmark::DoNotOptimize(assessed(p, poses));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void evaluateSixAxesEightShots(benchmark::State& state) {
    const Project p = large();
    const auto poses = posesOf(p);
    for (auto _ : state) benchmark::DoNotOptimize(evaluated(p, poses));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void assessNineAxesEightShots(benchmark::State& state) {
    const Project p = grown(demo(), 9, 8);
    const auto poses = posesOf(p);
    for (auto _ : state) benchmark::DoNotOptimize(assessed(p, poses));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
void assessNineAxesEightShotsJib(benchmark::State& state) {
    const Project p = grown(demo(GANTRY_DATA "/demo/kettle-jib.gantry"), 9, 8);
    const auto poses = posesOf(p);
    for (auto _ : state) benchmark::DoNotOptimize(assessed(p, poses));
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations()));
}
BENCHMARK(assessNineAxesEightShots);
BENCHMARK(assessNineAxesEightShotsJib);
BENCHMARK(evaluateDemo);
BENCHMARK(evaluateAndJudgeDemo);
BENCHMARK(assessDemoWithRanges);
BENCHMARK(evaluateSixAxesEightShots);

/// Median time [µs] of f() over so many runs.
template <class F>
double medianMicroseconds(F f, std::size_t runs) {
    std::vector<double> times;
    for (std::size_t i = 0; i < runs; ++i) {
        const auto start = std::chrono::steady_clock::now();
        f();
        times.push_back(
            std::chrono::duration<double, std::micro>(std::chrono::steady_clock::now() - start).count());
    }
    const auto middle = times.begin() + static_cast<std::ptrdiff_t>(runs / 2);
    std::nth_element(times.begin(), middle, times.end());
    return *middle;
}
double evaluateMicroseconds(const Project& p) {
    const auto poses = posesOf(p);
    return medianMicroseconds([&] { benchmark::DoNotOptimize(evaluated(p, poses)); }, 401);
}
double assessMicroseconds(const Project& p, std::size_t runs) {
    const auto poses = posesOf(p);
    return medianMicroseconds([&] { benchmark::DoNotOptimize(assessed(p, poses)); }, runs);
}

/// How assessing grows with axes and with shots. About linear: what one axis costs among two hundred is no
/// more than four times what it costs among ten.
bool growsLinearly(const Project& like, const char* name) {
    double among10 = 0.0, among200 = 0.0;
    std::cout << "assess, " << name << ", eight shots:";
    for (const std::size_t axes : {1, 2, 5, 10, 20, 50, 100, 200}) {
        const double time = assessMicroseconds(grown(like, axes, 8), axes > 20 ? 3 : 15);
        std::cout << ' ' << axes << " axes " << time / 1e3 << " ms";
        if (axes == 10) among10 = time / 10.0;
        if (axes == 200) among200 = time / 200.0;
    }
    std::cout << "; with nine axes:";
    for (const std::size_t shots : {1, 8, 50, 200})
        std::cout << ' ' << shots << " shots " << assessMicroseconds(grown(like, 9, shots), 5) / 1e3 << " ms";
    std::cout << '\n' << "one of 200 axes costs " << among200 / among10 << " times one of 10, at most 4\n";
    return among200 <= 4.0 * among10;
}

int once() {
    const double small = evaluateMicroseconds(demo()), big = evaluateMicroseconds(large());
    std::cout << processorName() << "\nevaluate, demo: " << small << " µs median, " << 1e6 / small
              << " a second\n"
              << "evaluate, six axes and eight shots: " << big << " µs median\n";
    // The jib with tipping in 36 directions and its sweep; bar: 1 ms.
    const double jib = evaluateMicroseconds(demo(GANTRY_DATA "/demo/kettle-jib.gantry"));
    std::cout << "evaluate, jib: " << jib << " µs median, " << jib / small << " times the demo, at most 60\n";
    if (jib > 60.0 * small) return 1;
    bool linear = growsLinearly(demo(), "the demo's axes");
    linear = growsLinearly(demo(GANTRY_DATA "/demo/kettle-jib.gantry"), "the jib's axes") && linear;
    if (!linear) return 1;
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
