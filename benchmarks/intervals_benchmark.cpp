// SPDX-License-Identifier: GPL-3.0-or-later
// How long judging an interval plan takes: that of the demo, and half a million pictures over a year of
// nights (bar: 3 ms in the window's thread); the whole list of its pictures, beside the window (bar: 20 ms).
// --once fails on ratios only: a year must cost no more than a few times what half an hour does.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/interval/evaluate_interval.h"
#include "core/evaluate/interval/interval_frames.h"
#include "core/evaluate/setup_of.h"
#include "machine.h"
#include "support.h"

#include <iostream>
#include <string_view>

int main(int argc, char** argv) {
    using namespace gantry;
    const bool once = argc > 1 && std::string_view(argv[1]) == "--once";
    const int rounds = once ? 9 : 101;
    std::cout << "processor\t" << processorName() << '\n';
    Project p = demo(GANTRY_DATA "/demo/long-bench.gantry");
    p.plans[0].mode = IntervalMode::Stops;
    p.plans[0].exposures.clear();
    const Evaluation evaluation = evaluate(p);
    const RigSetup rig = setupWithMoves(p, evaluation.planned);
    IntervalPlan night = p.plans[0], year = night;
    year.pictures = 500'000;
    year.interval = 45.0;
    year.hours.kept = true;
    year.hours.open = 0.0;
    year.hours.close = 64800.0;
    double sum = 0.0;
    const auto judged = [&](const IntervalPlan& plan) {
        return median(rounds,
                      [&] { sum += evaluateInterval(rig, plan, evaluation.axes).duration.valueOr(0.0); });
    };
    const double one = judged(night), all = judged(year);
    std::cout << "480 pictures judged\t" << one << " ms\n500000 pictures judged\t" << all << " ms (bar 3)\n";
    const IntervalCourse course(rig, year, evaluation.axes);
    const IntervalRun run(course, evaluation.axes);
    const double list = median(once ? 1 : 5, [&] {
        IntervalFrame frame;
        for (std::int64_t i = 0; i < run.frames(); ++i) {
            run.at(i, frame);
            sum += frame.places[0];
        }
    });
    std::cout << "500000 pictures listed\t" << list << " ms (bar 20)\n" << (sum > 0.0 ? "" : "nothing\n");
    if (once && all > 5.0 * one + 0.5) {
        std::cout << "a year costs more than five times a night\n";
        return 1;
    }
    return 0;
}
