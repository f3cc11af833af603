// SPDX-License-Identifier: GPL-3.0-or-later
//
// The ratio finder against plain recursion over unordered stages of ordered pairs: four stages from 60 wheels
// of 40 sizes of one family. The plain way would take hours, so a slice of it (some first stages) is measured
// and extrapolated by the number of trains. `--once` prints and fails below the ratio that the product
// promises.
#include "core/ratiofinder/finder.h"
#include "support/plain_search.h"

#include <chrono>
#include <cmath>
#include <iostream>
#include <string_view>

using namespace gantry::ratiofinder;
using Clock = std::chrono::steady_clock;

namespace {

double seconds(Clock::time_point from) {
    return std::chrono::duration<double>(Clock::now() - from).count();
}

std::vector<Wheel> sixtyWheels() {
    std::vector<Wheel> wheels;
    for (int i = 0; i < 40; ++i) {
        Wheel w;
        w.teeth = 12 + 2 * i + i % 3;
        w.count = w.onHand = i % 2 == 0 ? 2 : 1;
        wheels.push_back(w);
    }
    return wheels;
}

} // namespace

int main(int argc, char** argv) {
    const bool once = argc > 1 && std::string_view(argv[1]) == "--once";
    const std::vector<Wheel> wheels = sixtyWheels();
    Query query;
    query.target = *gantry::drivetrain::Ratio::of(314159265, 10000000);

    const auto buildStart = Clock::now();
    const Bin bin(wheels, {{"module 1", true, 0.001, 0.95, 0.003}});
    const double built = seconds(buildStart);
    std::vector<double> times;
    std::vector<Train> trains;
    for (int i = 0; i < 5; ++i) {
        const auto start = Clock::now();
        trains = bin.find(query);
        times.push_back(seconds(start));
    }
    std::sort(times.begin(), times.end());
    const double finder = built + times[2];

    // A slice: all trains whose first stage is one of a few in the middle of the list, until two seconds have
    // gone.
    double best = 1e9, sliceTime = 0.0;
    std::size_t slices = 0, visited = 0;
    const std::size_t n = wheels.size();
    const auto start = Clock::now();
    for (std::size_t first = n * n - n * n / 8; first < n * n && sliceTime < 2.0; first += 3) {
        plainSearch(
            wheels, 4,
            [&](const std::vector<int>& d, const std::vector<int>& g) {
                double p = 1, q = 1;
                for (const int i : g) p *= wheels[static_cast<std::size_t>(i)].teeth;
                for (const int i : d) q *= wheels[static_cast<std::size_t>(i)].teeth;
                best = std::min(best, std::abs(p / q / query.target.value() - 1));
                ++visited;
            },
            first, first + 1);
        ++slices;
        sliceTime = seconds(start);
    }
    // Unordered choices of four out of n² stages, repetition allowed (the counts take away a few per cent).
    const double m = static_cast<double>(n * n);
    const double all = m * (m + 1) * (m + 2) * (m + 3) / 24.0;
    const double plain = sliceTime / static_cast<double>(visited) * all;
    std::cout << "halves built in " << 1e3 * built << " ms, best 20 of 4 stages in " << 1e3 * times[2]
              << " ms (median of 5)\n"
              << "best: " << trains.at(0).ratio.text() << ", error " << trains[0].error << '\n'
              << "plain recursion: " << visited << " trains of " << slices << " first stages in " << sliceTime
              << " s, extrapolated to " << all << " trains: " << plain / 3600 << " h\n"
              << "ratio: " << plain / finder << " times faster\n";
    if (once && plain / finder < 2000.0) {
        std::cerr << "the finder is less than 2000 times faster than plain recursion\n";
        return 1;
    }
    return 0;
}
