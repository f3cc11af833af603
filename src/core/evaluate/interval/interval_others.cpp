// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/interval/evaluate_interval.h"

#include "core/criteria/criteria.h"
#include "core/intervals/presence.h"
#include "core/intervals/pulses.h"
#include "core/intervals/timers.h"
#include "core/results/visitors.h"

#include <algorithm>
#include <cmath>

namespace gantry {
namespace {

void fillTimers(PlanOthers& o, const IntervalCourse& c, std::span<const IntervalCourse::Step> steps) {
    const IntervalPlan& plan = c.plan();
    intervals::TwoTimers t;
    // Many count from the end of the exposure.
    t.camera = {c.gaps().first + (plan.clocks.countsFromEnd ? c.longestExposure() : 0.0),
                plan.clocks.cameraSlow * 1e6};
    t.rig = {plan.clocks.rigInterval, plan.clocks.rigSlow * 1e6};
    t.exposure = c.longestExposure();
    for (const IntervalCourse::Step& s : steps)
        t.moveAndSettle = std::max(t.moveAndSettle, s.moveTime + s.settle);
    t.offset = plan.clocks.offset;
    // Enough to see every beat, and no more than can be looked at between two keys.
    constexpr std::int64_t most = 100'000;
    t.pictures = std::min(c.pictures(), most);
    const intervals::Drift drift = intervals::driftOf(t);
    o.driftPpm = drift.perPicture / t.camera.period() * 1e6;
    o.driftPerDay = drift.perDay;
    if (drift.beat) o.beat = *drift.beat;
    const intervals::Collisions hits = intervals::collisionsOf(t);
    o.spoiledShare = static_cast<double>(hits.spoiled) / static_cast<double>(t.pictures);
    if (hits.first) o.firstSpoiled = static_cast<double>(*hits.first) + 1.0;
}

void fillPulses(PlanOthers& o, const RigSetup& rig, const IntervalCourse& c) {
    const intervals::PulsedMotor motor = pulsedMotor(c.plan());
    const PlanPulses& p = c.plan().pulses;
    const double way = intervals::wayOf(motor, p.pulse).way();
    const intervals::PulseScatter scatter{p.pulseScatter, p.speedScatter, 0.0};
    o.pulseWay = way;
    o.pulseScatter = intervals::scatterOf(motor, p.pulse, scatter);
    const double room = usableTravel(rig.axes[c.slide()]);
    constexpr double surely = 3.0; // standard deviations
    const intervals::MovesThatFit fit =
        intervals::movesThatFit(motor, p.pulse, scatter, room, p.speedDrift, surely);
    o.pulsesFit = static_cast<double>(fit.surely) + 1.0; // pictures, one more than moves
    const double wanted = c.wayOf(c.slide()) / static_cast<double>(c.wayMoves());
    if (!(wanted > 0.0)) return;
    o.pulseWanted = wanted;
    o.pulseCure = intervals::pulseFor(motor, wanted);
    if (way > 0.0) o.ratioCure = way / wanted;
}

void fillHead(PlanOthers& o, const RigSetup& rig, const IntervalCourse& c) {
    const PlanHead& head = c.plan().head;
    intervals::SeparateHead h;
    h.slideTime = c.gaps().timeOf(c.wayMoves());
    h.travel = c.wayOf(c.slide());
    h.subject = c.shot()->subjectDistance;
    h.turn = head.turn;
    h.longest = head.longest;
    h.delay = head.delay;
    h.focal = deliveredFocal(rig.camera, *c.shot());
    h.interval = c.gaps().total() / static_cast<double>(c.gaps().count());
    const intervals::SeparateHeadResults r = intervals::followedBy(h);
    o.headTime = r.time;
    o.headStopsAt = std::min(static_cast<double>(r.lastTurning), static_cast<double>(c.pictures() - 1)) + 1.0;
    o.headErrorStop = std::abs(r.errorAtStop);
    o.headErrorEnd = std::abs(r.errorAtEnd);
}

void fillPresence(PlanOthers& o, const IntervalCourse& c) {
    const IntervalPlan& plan = c.plan();
    std::vector<intervals::Seldom> seldom;
    double own = 0.0;
    bool endless = false;
    for (const PlanSensor& s : plan.sensors) {
        seldom.push_back({1.0 / s.seenEvery, s.hold});
        if (!(s.triggersItself > 0.0)) continue;
        const auto extra =
            intervals::extraPictures(c.gaps().first, s.hold, s.triggersItself, s.deafWhileMoving);
        endless = endless || !extra;
        // Beside those of the hold itself, which somebody who left would cost as well.
        const double held = std::floor(s.hold / c.gaps().first + 1e-9);
        own = std::max(own, extra.value_or(0.0) - held);
    }
    o.falseStops = intervals::falseStopsOf(seldom).perSecond;
    o.ownPictures = endless ? Figure::none(Reason::Unbounded) : Figure(own);
    const intervals::PresenceLog log = presenceLog(c);
    o.deleted = static_cast<double>(log.deleted.size());
    o.largestJump = static_cast<double>(log.largestJump);
    // Only of a run that was looked at to its end.
    if (log.kept.empty() || presenceEnd(c) < c.gaps().total()) return;
    const double kept = static_cast<double>(log.kept.size()), moves = static_cast<double>(c.wayMoves());
    o.active = kept * c.gaps().first;
    o.wayTime = moves * c.gaps().first;
    o.wayPictures = moves + 1.0;
    o.wayShown = static_cast<double>(log.kept.back().position) / moves;
}

} // namespace

double presenceEnd(const IntervalCourse& c) {
    // Of longer runs so many pictures are looked at; presence repeats itself.
    constexpr double mostPictures = 100000.0;
    return std::min(c.gaps().total(), mostPictures * c.gaps().first);
}

intervals::PresenceLog presenceLog(const IntervalCourse& c) {
    const IntervalPlan& plan = c.plan();
    const double end = presenceEnd(c);
    // Somebody who is there is seen every so often; nobody is in the pauses.
    std::vector<PlanPause> pauses = plan.pauses;
    std::sort(pauses.begin(), pauses.end(),
              [](const PlanPause& a, const PlanPause& b) { return a.start < b.start; });
    std::vector<std::vector<double>> seen(plan.sensors.size());
    const double mostLooks = 20000.0 / static_cast<double>(std::max<std::size_t>(1, plan.sensors.size()));
    for (std::size_t i = 0; i < plan.sensors.size(); ++i) {
        const double every = std::max(plan.sensors[i].seenEvery, end / mostLooks);
        std::size_t pause = 0;
        double at = 0.0;
        while (at <= end) {
            if (pause < pauses.size() && at >= pauses[pause].start) {
                // On from its end; one that lies within the one before is over already.
                at = std::max(at, pauses[pause].start + pauses[pause].length);
                ++pause;
                continue;
            }
            seen[i].push_back(at);
            at += every;
        }
    }
    std::vector<intervals::Sensor> sensors;
    for (std::size_t i = 0; i < plan.sensors.size(); ++i)
        sensors.push_back({plan.sensors[i].hold, plan.sensors[i].warmUp, seen[i]});
    return intervals::presenceOf(sensors, end, c.gaps().first, plan.goesBack);
}

void fillOthers(IntervalResults& out, const RigSetup& rig, const IntervalCourse& c,
                std::span<const IntervalCourse::Step> steps) {
    results::failAll(out.others, Reason::NotApplicable);
    if (c.pictures() < 2) return;
    if (c.plan().mode == IntervalMode::Timers) fillTimers(out.others, c, steps);
    if (c.plan().mode == IntervalMode::Pulses) fillPulses(out.others, rig, c);
    if (c.plan().mode == IntervalMode::SeparateHead && c.shot() != nullptr) fillHead(out.others, rig, c);
    if (!c.plan().sensors.empty()) fillPresence(out.others, c);
}

} // namespace gantry
