// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intervals/run.h"

#include "core/intervals/wholes.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::intervals {
namespace {

constexpr double day = 86400.0;
/// What rounding lacks of a whole one counts as whole.
constexpr double slack = 1e-9;

} // namespace

double Gaps::gap(std::int64_t k) const {
    const double last_ = static_cast<double>(count() - 1), at = static_cast<double>(k);
    if (law == GapLaw::Even || last_ <= 0.0) return first;
    if (law == GapLaw::Linear) return first + (last - first) * at / last_;
    return first * std::exp(std::log(last / first) * at / last_);
}

double Gaps::timeOf(std::int64_t k) const {
    const double n = static_cast<double>(k), last_ = static_cast<double>(count() - 1);
    if (law == GapLaw::Even || last_ <= 0.0) return n * first;
    if (law == GapLaw::Linear) return n * first + (last - first) / last_ * 0.5 * n * (n - 1.0);
    // I₀ (qᵏ − 1)/(q − 1), without losing digits where q is nearly 1.
    const double log = std::log(last / first) / last_;
    return log == 0.0 ? n * first : first * std::expm1(n * log) / std::expm1(log);
}

double Gaps::least() const {
    return law == GapLaw::Even || count() < 2 ? first : std::min(first, last);
}

double Gaps::largestChange() const {
    if (law == GapLaw::Even || count() < 2) return 0.0;
    // A geometric row changes most at its longer end.
    return std::max(std::abs(gap(1) - gap(0)), std::abs(gap(count() - 1) - gap(count() - 2)));
}

std::optional<std::int64_t> Gaps::firstShorter(double need) const {
    if (count() < 1) return std::nullopt;
    if (gap(0) < need) return 0;
    if (!(gap(count() - 1) < need)) return std::nullopt;
    // They fall all the way, so the first is found by halving.
    std::int64_t fits = 0, lacks = count() - 1;
    while (lacks - fits > 1) {
        const std::int64_t mid = fits + (lacks - fits) / 2;
        (gap(mid) < need ? lacks : fits) = mid;
    }
    return lacks;
}

std::int64_t Gaps::pictureAt(double time) const {
    std::int64_t low = 0, high = count();
    const double reached = time + slack * std::max(1.0, std::abs(time));
    while (low < high) {
        const std::int64_t mid = low + (high - low + 1) / 2;
        if (timeOf(mid) <= reached)
            low = mid;
        else
            high = mid - 1;
    }
    return low;
}

Storage storageOf(std::int64_t pictures, double picture, double card) {
    Storage out;
    out.perCard = picture > 0.0 ? wholes(card / picture) : pictures;
    if (out.perCard > 0) out.cards = (pictures + out.perCard - 1) / out.perCard;
    if (out.perCard < pictures) out.firstLost = out.perCard;
    return out;
}

double scheduledTime(std::int64_t k, std::int64_t perDay, double interval, const WorkingHours& hours) {
    // Working days before this one; in doubles, which divide faster and are exact for what can be counted.
    const auto whole = static_cast<std::int64_t>(static_cast<double>(k) / static_cast<double>(perDay));
    std::int64_t calendar = whole;
    if (std::find(hours.days.begin(), hours.days.end(), false) != hours.days.end()) {
        std::array<std::int64_t, 8> shifts{}; // days from the first to the n-th working day of a week from it
        std::int64_t per = 0;
        for (int d = 0; d < 7; ++d)
            if (hours.days[static_cast<std::size_t>((hours.firstDay + d) % 7)])
                shifts[static_cast<std::size_t>(per++)] = d;
        if (per > 0) calendar = whole / per * 7 + shifts[static_cast<std::size_t>(whole % per)];
    }
    return static_cast<double>(calendar) * day + hours.open +
           static_cast<double>(k - whole * perDay) * interval;
}

Schedule scheduleOf(std::int64_t pictures, double interval, double need, const WorkingHours& hours) {
    Schedule out;
    const double room = hours.close - hours.open - need;
    const bool works =
        hours.days.empty() || std::any_of(hours.days.begin(), hours.days.end(), [](bool b) { return b; });
    if (room < 0.0 || pictures < 1 || !works) return out;
    out.perDay = wholes(room / interval) + 1;
    out.workingDays = (pictures + out.perDay - 1) / out.perDay;
    out.last = scheduledTime(pictures - 1, out.perDay, interval, hours);
    const double first = scheduledTime(0, out.perDay, interval, hours);
    out.calendarDays = static_cast<std::int64_t>(std::floor(out.last / day) - std::floor(first / day)) + 1;
    return out;
}

} // namespace gantry::intervals
