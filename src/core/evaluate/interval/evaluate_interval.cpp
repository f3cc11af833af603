// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/interval/evaluate_interval.h"

#include "core/criteria/criteria.h"
#include "core/intervals/blur.h"
#include "core/intervals/facts.h"
#include "core/model/kind_traits.h"
#include "core/optics/picture.h"
#include "core/results/visitors.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace gantry {
namespace {

using intervals::Rocking;
using Step = IntervalCourse::Step;

Figure counted(std::int64_t picture) {
    return static_cast<double>(picture) + 1.0;
}
Figure nothing() {
    return Figure::none(Reason::NotApplicable);
}

/// The first picture of a run for which something is so, once it is so at one that is looked at; between two
/// looks by halving.
/// @param seen of a step that is looked at @param so of a picture
template <class Seen, class So>
std::optional<std::int64_t> firstWhere(const std::vector<Step>& steps, Seen seen, So so) {
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (!seen(steps[i])) continue;
        std::int64_t low = i > 0 ? steps[i - 1].picture : steps[i].picture, high = steps[i].picture;
        while (high - low > 1) {
            const std::int64_t middle = low + (high - low) / 2;
            (so(middle) ? high : low) = middle;
        }
        return high;
    }
    return std::nullopt;
}

void fillFacts(IntervalResults& out, const IntervalCourse& c) {
    const IntervalPlan& plan = c.plan();
    const std::int64_t n = c.pictures();
    out.pictures = static_cast<double>(n);
    out.interval = c.gaps().first;
    out.duration = c.duration();
    out.clip = intervals::clipOf(n, plan.clipRate, plan.heldFor);
    // Of an interval that changes, that of the whole run.
    const double mean = n > 1 ? c.gaps().total() / static_cast<double>(c.gaps().count()) : c.gaps().first;
    out.speedUp = intervals::speedUpOf(mean, plan.clipRate, plan.heldFor);
    const double end = c.clockAt(n - 1) + c.exposureOf(n - 1);
    constexpr double day = 86400.0;
    out.endsAfter = end;
    out.days = c.schedule() ? static_cast<double>(c.schedule()->calendarDays) : std::floor(end / day) + 1.0;
    out.perDay = c.schedule() ? Figure(static_cast<double>(c.schedule()->perDay)) : nothing();
}

void fillCameras(IntervalResults& out, const IntervalCourse& c) {
    for (const PlanCamera& camera : c.plan().cameras) {
        PlanCameraResults r;
        r.perCard = r.cards = r.cardFullAt = r.press = r.shortest = r.longest = nothing();
        if (camera.card > 0.0 && camera.picture > 0.0) {
            const intervals::Storage s = intervals::storageOf(c.pictures(), camera.picture, camera.card);
            r.perCard = static_cast<double>(s.perCard);
            if (s.cards > 0) r.cards = static_cast<double>(s.cards);
            if (s.firstLost) r.cardFullAt = counted(*s.firstLost);
        }
        if (camera.bulb) {
            const intervals::Bulb bulb{camera.lag, camera.closeLag, camera.leastPress, camera.leastGap};
            r.press = intervals::pressFor(bulb, c.longestExposure());
            r.shortest = intervals::shortestExposure(bulb);
            r.longest = intervals::longestExposure(bulb, c.gaps().least());
        }
        out.cameras.push_back(r);
    }
}

void fillLanes(IntervalResults& out, const IntervalCourse& c, const std::vector<Step>& steps) {
    PlanLanes& l = out.lanes;
    results::failAll(l, Reason::NotApplicable);
    if (c.pictures() < 2) return;
    double least = std::numeric_limits<double>::infinity();
    const Step* worst = nullptr;
    // Where the camera decides all along, that with the longest movement is looked at.
    for (const Step& s : steps) {
        const double room = c.gaps().gap(s.picture) / c.budgetOf(s).least;
        const bool alike = worst != nullptr && room <= least * (1.0 + 1e-9);
        if (room < least * (1.0 - 1e-9) ||
            (alike && s.moveTime + s.settle > worst->moveTime + worst->settle)) {
            least = std::min(least, room);
            worst = &s;
        }
    }
    if (worst == nullptr) return;
    const std::int64_t tightest = worst->picture;
    const intervals::BudgetResults b = c.budgetOf(*worst);
    const intervals::CameraTimes camera = c.cameraTimesAt(tightest)[b.slowest];
    l.picture = counted(tightest);
    l.gap = c.gaps().gap(tightest);
    l.focus = camera.focus;
    l.lag = camera.lag;
    l.exposure = camera.exposure;
    l.write = camera.write;
    l.move = b.move.length();
    l.settle = b.settle.length();
    l.least = b.least;
    l.spare = l.gap - (l.least - c.plan().spare);
    l.room = l.gap / l.least;
    l.camera = b.binds == intervals::Binds::Camera;
    const auto lacks = [&](const Step& s) { return c.gaps().gap(s.picture) / c.budgetOf(s).least < 1.0; };
    if (least < 1.0)
        if (const auto fails = firstWhere(steps, lacks, [&](std::int64_t k) { return lacks(c.step(k)); }))
            l.failsAt = counted(*fails);
}

/// The largest of something over the steps that are looked at, and of which; null where it is never above 0.
template <class F>
std::pair<double, const Step*> mostOf(const std::vector<Step>& steps, F of) {
    std::pair<double, const Step*> out{0.0, nullptr};
    for (const Step& s : steps)
        if (const double value = of(s); value > out.first) out = {value, &s};
    return out;
}

BetterWay sharper(double running, double stopped) {
    return running < stopped   ? BetterWay::Running
           : running > stopped ? BetterWay::Stopping
                               : BetterWay::Alike;
}

void fillSharpness(IntervalResults& out, const RigSetup& rig, const IntervalCourse& c,
                   const std::vector<AxisEvaluation>& axes, const std::vector<Step>& steps) {
    PlanSharpness& s = out.sharp;
    results::failAll(s, Reason::NotApplicable);
    const Shot* shot = c.shot();
    const double exposure = c.longestExposure();
    if (c.plan().metered > 0.0) s.filterStops = intervals::filterStops(c.plan().metered, exposure);
    if (shot == nullptr) return;
    const double focal = deliveredFocal(rig.camera, *shot);
    const PlanPasser& passer = c.plan().passer;
    const double distance = passer.distance > 0.0 ? passer.distance : shot->subjectDistance;
    const intervals::Passer passes{passer.speed * focal / distance, passer.width * focal / distance};
    s.passerPath = intervals::pathOf(passes, exposure);
    s.passerCover = intervals::coverOf(passes, exposure);

    const double allowed = shot->limits.jitter;
    s.allowed = allowed;
    const double perPicture = mostOf(steps, [](const Step& k) { return k.inPicture; }).first;
    s.perPicture = perPicture;
    if (perPicture > 0.0)
        s.judderTime = rig.camera.deliveredWidth * c.plan().heldFor / (perPicture * c.plan().clipRate);
    const auto paceOf = [&](const Step& k) { return k.inPicture / c.gaps().gap(k.picture); };
    const double pace = mostOf(steps, paceOf).first;
    const double running = mostOf(steps, [&](const Step& k) {
                               return intervals::blurRunning(paceOf(k), c.exposureOf(k.picture));
                           }).first;
    if (pace > 0.0) s.longest = intervals::longestRunning(pace, allowed);
    if (c.plan().mode == IntervalMode::Runs) {
        s.smear = running;
        IntervalPlan other = c.plan();
        other.mode = IntervalMode::Stops;
        const IntervalCourse stopping(rig, other, axes);
        double most = 0.0;
        for (const Step& k : steps) most = std::max(most, stopping.smearOf(stopping.step(k.picture)));
        s.otherWay = most;
        s.better = sharper(running, most);
        return;
    }
    const auto [swing, worst] = mostOf(steps, [&](const Step& k) { return c.leftOf(k); });
    if (c.plan().mode != IntervalMode::Timers) s.left = swing; // their clocks alone decide when it opens
    constexpr double never = 1e9;                              // [s]
    const double needed =
        mostOf(steps, [&](const Step& k) { return c.settleWithin(k, allowed).value_or(never); }).first;
    s.needed = needed < never ? Figure(needed) : Figure::none(Reason::Unbounded);
    const double stopped = mostOf(steps, [&](const Step& k) { return c.smearOf(k); }).first;
    s.smear = stopped;
    s.otherWay = running;
    s.better = sharper(running, stopped);
    // The exposure that parts them, by the axis that rocks most.
    if (worst == nullptr || !(pace > 0.0)) return;
    const auto most = std::max_element(
        worst->swings.begin(), worst->swings.end(),
        [](const IntervalCourse::Swing& a, const IntervalCourse::Swing& b) { return a.pixels < b.pixels; });
    const motion::Mode& mode = c.modeOf(most->axis);
    const Rocking rocking{0.5 * most->pixels, mode.frequency, mode.damping, worst->settle};
    if (const auto alike = intervals::alikeExposure(rocking, pace)) s.alikeExposure = *alike;
}

/// Jump [rad] of a rotor at a full step when its current is cut: from where it holds what lasts by its field
/// to where its detents do. More than they hold takes it out of the step.
double jumpWhenCut(const DriveModel& m) {
    const double lasting = std::max(0.0, m.gravityAtMotor() - m.friction * m.outputPerRad);
    const double held = m.lag(lasting, 0.0);
    const double detent = m.motors * m.detentTorque;
    if (!(lasting < detent)) return lasting > 0.0 ? m.fullStepAngle : 0.0;
    const double rests = m.fullStepAngle / (2.0 * std::numbers::pi) * std::asin(lasting / detent);
    return std::abs(rests - held);
}

void fillAxis(PlanAxisResults& r, const RigSetup& rig, const IntervalCourse& c, std::size_t a,
              const DriveModel& m, const std::vector<Step>& steps, double last) {
    results::failAll(r, Reason::NotApplicable);
    r.moves = c.moves(a);
    if (!r.moves || steps.empty()) return;
    const SoftEnds ends = softEnds(rig.axes[a]);
    double low = last, high = last, smallest = std::numeric_limits<double>::infinity();
    double swing = 0.0, smear = 0.0;
    const double px = c.pixelsPerUnit(a);
    for (const Step& s : steps) {
        low = std::min({low, s.here[a], s.next[a]});
        high = std::max({high, s.here[a], s.next[a]});
        const double way = std::abs(s.next[a] - s.here[a]);
        if (way > 0.0) smallest = std::min(smallest, way);
        smear = std::max(smear, way * px / c.gaps().gap(s.picture) * c.exposureOf(s.picture));
        for (const IntervalCourse::Swing& each : s.swings)
            if (each.axis == a) swing = std::max(swing, each.pixels);
    }
    r.from = low;
    r.to = high;
    const double middle = 0.5 * (ends.low + ends.high);
    const double farthest = std::max(std::abs(low - middle), std::abs(high - middle));
    if (farthest > 0.0) r.room = 0.5 * (ends.high - ends.low) / farthest;
    const double slack = 1e-9 * (1.0 + ends.high);
    const auto outside = [&](double at) { return at < ends.low - slack || at > ends.high + slack; };
    if (outside(low) || outside(high)) {
        const auto first = firstWhere(
            steps, [&](const Step& s) { return outside(s.here[a]); },
            [&](std::int64_t k) { return outside(c.placesAt(k)[a]); });
        // What leaves its travel behind the last that was looked at does so at the last picture.
        r.outsideAt = counted(first.value_or(c.pictures() - 1));
    }

    const double step = mostOf(steps, [&](const Step& s) { return std::abs(s.next[a] - s.here[a]); }).first;
    r.largestStep = step;
    const bool stops = c.stopsForPictures(), whole = c.plan().wholeSteps && m.fullStepAngle > 0.0;
    if (m.commandAngle > 0.0 && c.plan().mode != IntervalMode::Pulses) {
        r.microsteps = std::round(step / m.microstep());
        r.roundingPixels = 0.5 * (whole ? m.fullStep() : m.microstep()) * px;
    }
    if (whole && stops && std::isfinite(smallest)) {
        r.fullSteps = smallest / m.fullStep();
        r.rotorJump = jumpWhenCut(m) * m.outputPerRad * px;
    } else if (stops && m.fullStepAngle > 0.0 && m.holdAmplitude <= 0.0) {
        // Cut between two full steps it falls to the nearer.
        r.rotorJump = 0.5 * m.fullStep() * px;
    }
    if (!stops) {
        r.smear = smear;
        return;
    }
    r.moveTime = motion::plan(step, c.limits(a)).time(); // by itself
    if (m.mode) r.swing = swing;
}

/// What comes to its end before the last picture, the earliest of it.
void fillFirst(IntervalResults& out, const IntervalCourse& c) {
    out.first = FirstFailure::None;
    out.firstAt = out.firstClock = nothing();
    const auto take = [&](FirstFailure what, const Figure& picture) {
        if (!picture || (out.firstAt && out.firstAt.value() <= picture.value())) return;
        out.first = what;
        out.firstAt = picture;
    };
    take(FirstFailure::Room, out.lanes.failsAt);
    take(FirstFailure::Battery, out.energy.flatAt);
    for (const PlanCameraResults& camera : out.cameras) take(FirstFailure::Card, camera.cardFullAt);
    for (const PlanAxisResults& axis : out.axes) take(FirstFailure::Travel, axis.outsideAt);
    take(FirstFailure::Timers, out.others.firstSpoiled);
    if (out.others.headStopsAt && out.others.headStopsAt.value() < out.pictures.value())
        take(FirstFailure::Head, out.others.headStopsAt + 1.0);
    if (out.firstAt) out.firstClock = c.clockAt(static_cast<std::int64_t>(out.firstAt.value()) - 1);
}

} // namespace

IntervalResults evaluateInterval(const RigSetup& rig, const IntervalPlan& plan,
                                 const std::vector<AxisEvaluation>& axes) {
    const IntervalCourse course(rig, plan, axes);
    IntervalResults out;
    results::failAll(out, Reason::NotApplicable);
    out.troubles = course.troubles();
    fillFacts(out, course);
    fillCameras(out, course);
    if (!course.runs()) return out;
    std::vector<Step> steps;
    for (const std::int64_t k : course.samples())
        if (k + 1 < course.pictures()) steps.push_back(course.step(k));
    fillLanes(out, course, steps);
    fillSharpness(out, rig, course, axes, steps);
    out.axes.resize(axes.size());
    const std::vector<double> last = course.placesAt(course.pictures() - 1);
    for (std::size_t a = 0; a < axes.size(); ++a) {
        fillAxis(out.axes[a], rig, course, a, axes[a].model, steps, last[a]);
        out.axes[a].falls = axes[a].powerOff.falls;
    }
    fillEnergy(out, rig, course, axes, steps);
    fillOthers(out, rig, course, steps);
    fillFirst(out, course);
    return out;
}

} // namespace gantry
