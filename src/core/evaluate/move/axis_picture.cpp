// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/move/axis_picture.h"

#include "core/criteria/criteria.h"
#include "core/drivetrain/wind_up.h"
#include "core/evaluate/move/axis_move.h"
#include "core/evaluate/shot/evaluate_shot.h"
#include "core/evaluate/shot/shot_steps.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <optional>

namespace gantry {
namespace {

class Picture {
public:
    Picture(AxisMoveResults& out, const SeenDrive& drive, const Shot& shot,
            std::span<const AxisMoment> moments)
        : out_(out), drive_(drive), shot_(shot), moments_(moments) {}

    /// @param shift [px/U] where the moments say none
    void run(double shift, const std::optional<motion::Mode>& mode, PictureOf what) {
        otherwise_ = shift;
        perShift_ = drive_.stepping.jump + 2.0 * drive_.stepping.accuracy;
        lasting_.reserve(moments_.size());
        for (const AxisMoment& m : moments_) {
            topSpeed_ = std::max(topSpeed_, std::abs(m.speed));
            lasting_.push_back(drive_.lasting.at(drive_.lowPlace + m.place + m.leans) + m.carried);
        }
        if (what == PictureOf::All) {
            if (drive_.commanded) out_.stepping = Figure::of(0.0);
            out_.jitter = Figure::of(0.0);
            out_.slip = Figure::of(0.0);
            out_.letGo = Figure::of(0.0);
            crawls();
            slipping();
            lettingGo();
        }
        out_.drift = Figure::of(0.0);
        out_.driftAt = Figure::none(Reason::NotApplicable);
        winding(mode);
    }

private:
    double shiftOf(const AxisMoment& m) const { return m.shift > 0.0 ? m.shift : otherwise_; }

    /// [U/s], and [px/U], between moments.
    struct Between {
        double speed = 0.0, shift = 0.0;
    };
    Between between(std::size_t i, double at) const {
        const AxisMoment& a = moments_[i];
        if (i + 1 >= moments_.size() || !(moments_[i + 1].time > a.time))
            return {std::abs(a.speed), shiftOf(a)};
        const AxisMoment& b = moments_[i + 1];
        const double share = (at - a.time) / (b.time - a.time);
        return {std::abs(a.speed + share * (b.speed - a.speed)),
                shiftOf(a) + share * (shiftOf(b) - shiftOf(a))};
    }

    bool still(const AxisMoment& m) const { return stands(m, topSpeed_); }

    void crawls() {
        if (!drive_.commanded) return; // it is commanded by speed
        std::size_t first = 0;
        while (first + 1 < moments_.size()) {
            std::size_t last = first;
            while (last + 1 < moments_.size() && !(still(moments_[last]) && still(moments_[last + 1])))
                ++last;
            if (last > first) crawls(first, last);
            first = std::max(last, first + 1);
        }
    }
    /// Of a stretch without rest every part of creepTime that begins at a moment, ends at one, or has one in
    /// its middle: where a course is slowest, its acceleration turns or vanishes, and there a piece of it
    /// begins.
    void crawls(std::size_t first, std::size_t last) {
        const double span = criteria::creepTime.value, end = moments_[last].time - span;
        if (end < moments_[first].time) return;
        std::array<std::size_t, 3> low{first, first, first}; // the moment before each of the three beginnings
        for (std::size_t i = first; i <= last; ++i) {
            if (!out_.stepping) return; // beyond all numbers
            // Whatever is looked at around a moment shows no more than that moment does.
            const AxisMoment& now = moments_[i];
            const double speed = std::abs(now.speed), shift = shiftOf(now);
            if (shift * perShift_ <= out_.stepping.value() ||
                drive_.stepping.jitter(shot_, shift, speed) <= out_.stepping.value())
                continue;
            for (std::size_t k = 0; k < low.size(); ++k) {
                const double from = std::clamp(moments_[i].time - 0.5 * static_cast<double>(k) * span,
                                               moments_[first].time, end);
                while (low[k] < last && moments_[low[k] + 1].time <= from) ++low[k];
                crawl(low[k], from, span);
            }
        }
    }
    void crawl(std::size_t at, double from, double span) {
        if (!out_.stepping) return;
        double fastest = 0.0, least = 1e300;
        for (const double share : {0.0, 0.5, 1.0}) {
            const double time = from + share * span;
            while (at + 1 < moments_.size() && moments_[at + 1].time <= time) ++at;
            const Between now = between(at, time);
            fastest = std::max(fastest, now.speed);
            least = std::min(least, drive_.stepping.jitter(shot_, now.shift, now.speed));
        }
        if (!(least > out_.stepping.value())) return;
        out_.stepping = Figure::of(least);
        out_.steppingSpeed = Figure::of(fastest);
        out_.steppingAt = Figure::of(from);
    }

    /// Every start from rest breaks away once. Where the axis goes on too slowly for two such jumps, and for
    /// long enough to be seen, it sticks and slips.
    void slipping() {
        constexpr double repeated = 2.0;
        const double jump = drive_.breakawayJump;
        if (!(jump > 0.0)) return;
        std::size_t first = 0;
        double way = 0.0, shift = 0.0, fastest = 0.0;
        for (std::size_t i = 0; i < moments_.size(); ++i) {
            const AxisMoment& now = moments_[i];
            if (!(std::abs(now.speed) < drive_.smoothFrom)) { // it runs evenly
                first = i + 1;
                way = shift = fastest = 0.0;
                continue;
            }
            if (i > first)
                way += 0.5 * (std::abs(moments_[i - 1].speed) + std::abs(now.speed)) *
                       (now.time - moments_[i - 1].time);
            shift = std::max(shift, shiftOf(now));
            fastest = std::max(fastest, std::abs(now.speed));
            if (way >= repeated * jump && now.time - moments_[first].time >= criteria::creepTime.value)
                take(drive_.commanded ? drive_.stepping.jitter(shot_, shift, fastest) : 0.0, jump * shift,
                     0.0, moments_[first].time);
            if (!still(now)) continue;
            first = i;
            way = shift = fastest = 0.0;
        }
    }

    void take(double steps, double slip, double letGo, double at) {
        if (!out_.jitter) return; // beyond all numbers
        if (!(steps + slip + letGo > out_.jitter.value())) return;
        out_.jitter = Figure::of(steps + slip + letGo);
        out_.slip = Figure::of(slip);
        out_.letGo = Figure::of(letGo);
        out_.jitterAt = Figure::of(at);
    }

    /// Where what rests on a flank of the play turns over. The load goes on by itself then, slowed by what
    /// lasts and by friction, until it is caught up with, the play is used up, or it has come to rest.
    void lettingGo() {
        const double play = drive_.backlash, inertia = drive_.inertia;
        if (!(play > 0.0)) return;
        double side = 0.0, way = 0.0;
        bool loose = false;
        double apart = 0.0, parts = 0.0;   // [U], and [U/s] at which they run apart
        double before = 0.0, pushed = 0.0; // of the moment before
        for (std::size_t i = 0; i < moments_.size(); ++i) {
            const AxisMoment& m = moments_[i];
            const double passed = m.time - before;
            before = m.time;
            const bool rests = still(m);
            if (rests && !loose) continue;
            const double now = rests ? way : m.speed > 0.0 ? 1.0 : -1.0;
            const double lasting = lasting_[i],
                         on = lasting + drive_.friction * now + inertia * m.acceleration;
            if (side == 0.0) side = on < 0.0 ? -1.0 : 1.0; // taken up before
            const bool turns = way * now < 0.0;
            way = now;
            const double push = drive_.lasting.unknown - on * side, last = pushed; // off its flank
            pushed = push;
            if (!loose && push <= 0.0) continue;
            if (turns || !(inertia > 0.0)) { // the load rests while the motor goes through its play
                apart = push > 0.0 ? play : 0.0;
            } else if (!loose) {
                loose = true;
                apart = parts = 0.0;
                continue;
            } else {
                const double faster = parts + 0.5 * (last + push) / inertia * passed;
                apart += 0.5 * (parts + faster) * passed;
                parts = faster;
            }
            if (rests && apart > 0.0) {
                const double slowing = lasting * way + drive_.friction - drive_.lasting.unknown;
                apart = slowing > 0.0 ? apart + 0.5 * parts * parts * inertia / slowing : play;
            }
            take(0.0, 0.0, std::clamp(apart, 0.0, play) * shiftOf(m), m.time);
            if (apart >= play) side = -side;
            loose = loose && !rests && apart > 0.0 && apart < play;
        }
    }

    /// How fast what the springs of the drive are wound up by changes. Whatever rocks carries the picture no
    /// farther in a frame than its own swing of that size does.
    void winding(const std::optional<motion::Mode>& mode) {
        const double stiffness = drive_.stiffness;
        if (!std::isfinite(stiffness) || !(stiffness > 0.0)) return;
        const double swing =
            mode ? std::sin(std::numbers::pi * std::min(0.5, mode->frequency / shot_.frameRate)) : 1.0;
        for (std::size_t i = 1; i < moments_.size() && out_.drift; ++i) {
            const AxisMoment &a = moments_[i - 1], &b = moments_[i];
            const double wound =
                std::abs(lasting_[i] - lasting_[i - 1] + drive_.inertia * (b.acceleration - a.acceleration)) /
                stiffness;
            const double frames = (b.time - a.time) * shot_.frameRate;
            const double share = frames > 0.0 ? std::min(swing, 1.0 / frames) : swing;
            const double drift = wound * share * std::max(shiftOf(a), shiftOf(b));
            if (!(drift > out_.drift.value())) continue;
            out_.drift = Figure::of(drift);
            out_.driftAt = Figure::of(a.time);
        }
    }

    AxisMoveResults& out_;
    const SeenDrive& drive_;
    const Shot& shot_;
    std::span<const AxisMoment> moments_;
    std::vector<double> lasting_; ///< [N] or [N·m] that the drive meets at each, but for friction and inertia
    double topSpeed_ = 0.0, otherwise_ = 0.0;
    double perShift_ = 0.0; ///< [px] of stepping for a shift of 1 px/U, at any speed no more
};

constexpr std::array pictureFigures{
    &AxisMoveResults::stepping, &AxisMoveResults::steppingSpeed, &AxisMoveResults::steppingAt,
    &AxisMoveResults::jitter,   &AxisMoveResults::slip,          &AxisMoveResults::letGo,
    &AxisMoveResults::jitterAt, &AxisMoveResults::drift,         &AxisMoveResults::driftAt};

} // namespace

SeenDrive seenOf(const AxisEvaluation& e) {
    const DriveModel& m = e.model;
    SeenDrive out;
    out.commanded = m.commandAngle > 0.0;
    out.stepping = steppingOf(m);
    out.lasting = m.lasting;
    out.lowPlace = m.lowPlace;
    out.friction = m.friction;
    out.inertia = m.chain.load.inertia;
    out.backlash = m.backlash;
    out.stiffness = m.outputStiffness;
    if (std::isfinite(m.outputStiffness)) out.breakawayJump = drivetrain::breakawayJump(m.sprung());
    out.smoothFrom = e.smoothFrom;
    return out;
}

void takePicture(AxisMoveResults& into, const AxisMoveResults& from) {
    for (Figure AxisMoveResults::*const f : pictureFigures) into.*f = from.*f;
}

void fillAxisPicture(AxisMoveResults& out, const RigSetup& rig, const RigMove& move,
                     const PlannedMove& planned, std::size_t axis, const AxisEvaluation& e, PictureOf what) {
    if (what == PictureOf::All)
        for (Figure AxisMoveResults::*const f : pictureFigures) out.*f = Figure::none(Reason::NotApplicable);
    const Shot* shot = shotOf(rig.shots, move);
    if (shot == nullptr || stepwise(*shot) || e.model.oneSpeed || e.model.atOnce) return;
    double shift = 0.0;
    // A ring or a turntable does not move the lens, and does to the picture what it does in a shot.
    if (planned.scene.linkOf[axis] < 0)
        shift = pixelsPerUnit(rig.camera, *shot, rig.axes[axis], rig.masses[axis].reach).valueOr(0.0);
    Picture(out, seenOf(e), *shot, planned.axes[axis]).run(shift, e.model.mode, what);
}

} // namespace gantry
