// SPDX-License-Identifier: GPL-3.0-or-later
// How long planning and judging a move takes: that of the demo (bar: 2 ms) and one of nine axes and twenty
// poses (bar: 10 ms); the search along it and its least time, which run beside the window (bar: 60 ms).
// --once fails on ratios only: the large move must cost no more than its axes and poses against the demo's,
// and what is looked at along a move no more than a few times its plan.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/evaluate_move.h"
#include "core/evaluate/move/move_search.h"
#include "core/evaluate/setup_of.h"
#include "core/tools/least_move_time.h"
#include "machine.h"
#include "nine_axes.h"

#include <algorithm>
#include <iostream>
#include <thread>
#include <vector>

namespace {

using namespace gantry;

struct Times {
    double plan = 0.0, loads = 0.0, judge = 0.0, whole = 0.0;
};

Times timesOf(const Project& p, const char* name) {
    const RigSetup rig = setupWithMoves(p);
    const RigMove& move = p.moves[0];
    const Evaluation e = evaluate(p, Poses::Later);
    volatile double keep = 0.0;
    Times out;
    out.plan = median(41, [&] { keep = planMove(move, sceneOf(rig, move)).trajectory.duration(); });
    out.loads = median(41, [&] { keep = plannedMove(rig, move).plan.trajectory.duration(); }) - out.plan;
    const PlannedMove planned = plannedMove(rig, move);
    out.judge = median(41, [&] { keep = evaluateMove(rig, move, planned, e.axes).time.value(); });
    out.whole = out.plan + out.loads + out.judge;
    const double search = median(5, [&] { keep = searchMove(rig, move, planned).view.valueOr(0.0); });
    const gantry::Crew crew = [](const std::function<void()>& work) {
        std::vector<std::jthread> others;
        for (unsigned i = 1; i < std::thread::hardware_concurrency(); ++i) others.emplace_back(work);
        work();
    };
    const double least =
        median(3, [&] { keep = leastMoveTime(move, planned.scene, planned.plan, {}, crew) ? 1.0 : 0.0; });
    std::cout << name << ": planned in " << out.plan << " ms, loads along it " << out.loads
              << " ms, judged in " << out.judge << " ms, together " << out.whole
              << " ms; the search along it " << search << " ms, its least time " << least << " ms\n";
    return out;
}

} // namespace

int main(int, char**) {
    std::cout << processorName() << '\n';
    const Times dolly = timesOf(demo(GANTRY_DATA "/demo/fernhouse-dolly.gantry"), "dolly, four poses");
    timesOf(demo(GANTRY_DATA "/demo/kettle-jib.gantry"), "jib, two poses");
    const Times large = timesOf(nineAxes(), "nine axes, twenty poses");
    // Nineteen segments of nine axes against three of two; half as much again for noise.
    const double grows = large.whole / dolly.whole, most = 1.5 * (19.0 * 9.0) / (3.0 * 2.0);
    const double looks = (dolly.loads + dolly.judge) / dolly.plan;
    std::cout << "large over demo: " << grows << ", at most " << most
              << "; looked at along it over planned: " << looks << ", at most 12\n";
    return grows <= most && looks <= 12.0 ? 0 : 1;
}
