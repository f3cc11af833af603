// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/edit_axes.h"
#include "core/model/fields.h"
#include "core/model/kinds.h"

#include <cmath>
#include <random>

/// A project of random shape whose every field lies within its accepted range; half of them near the usual
/// range, half anywhere, with the ends themselves included.
inline gantry::Project randomProject(std::mt19937_64& random) {
    using namespace gantry;
    const auto below = [&](int n) { return static_cast<int>(random() % static_cast<unsigned>(n)); };
    const auto unit = [&] { return std::uniform_real_distribution<double>(0, 1)(random); };
    Project p;
    const int axes = below(5);
    for (int i = 0; i < axes; ++i) {
        Axis a;
        a.id = "axis" + std::to_string(i);
        a.name = a.id;
        const auto kind = [&](std::size_t kinds) {
            return static_cast<std::size_t>(below(static_cast<int>(kinds)));
        };
        const auto item = [&](auto& m) {
            for (int k = below(3); k > 0; --k) {
                m.items.emplace_back();
                m.items.back().id = "item" + std::to_string(k);
            }
        };
        if (below(2)) {
            RotaryMechanism r;
            r.output = makeKind<RotaryOutput>(kind(std::variant_size_v<RotaryOutput>));
            item(r);
            for (int k = below(3); k > 0; --k)
                r.boom.discs.push_back({"disc" + std::to_string(k), "Disc", 1.0, 2});
            a.mechanism = r;
        } else {
            LinearMechanism l;
            l.output = makeKind<LinearOutput>(kind(std::variant_size_v<LinearOutput>));
            item(l);
            a.mechanism = l;
        }
        a.motor = makeKind<Motor>(kind(std::variant_size_v<Motor>));
        for (int k = below(5); k > 0; --k) {
            Link link = makeKind<Link>(kind(std::variant_size_v<Link>));
            linkId(link) = "link" + std::to_string(k);
            a.links.push_back(link);
        }
        p.axes.push_back(a);
        if (below(3) == 0) {
            addCandidate(p, i);
            p.axes.back().motor = makeKind<Motor>(kind(std::variant_size_v<Motor>));
        }
    }
    for (int i = below(4); i > 0; --i) {
        Shot s;
        s.id = "shot" + std::to_string(i);
        s.name = s.id;
        for (const Axis& a : p.axes) {
            if (below(4) == 0) continue;
            const bool timed = below(2) == 1;
            Movement m;
            if (kindOf(a) == AxisKind::Linear) {
                if (timed)
                    m = ByTime<AxisKind::Linear>{};
                else
                    m = BySpeed<AxisKind::Linear>{};
            } else {
                if (timed)
                    m = ByTime<AxisKind::Rotary>{};
                else
                    m = BySpeed<AxisKind::Rotary>{};
            }
            s.moves.push_back({a.id, m});
        }
        p.shots.push_back(s);
    }
    for (int i = below(3); i > 0; --i) {
        RigMove m;
        m.id = "move" + std::to_string(i);
        if (!p.shots.empty() && below(2))
            m.shot = p.shots[static_cast<std::size_t>(below(static_cast<int>(p.shots.size())))].id;
        for (int k = below(3); k > 0; --k) m.targets.emplace_back().id = "target" + std::to_string(k);
        for (int k = below(3); k > 0 && !p.axes.empty(); --k) {
            AxisBlock& block = m.blocks.emplace_back();
            block.id = "block" + std::to_string(k);
            block.axis = p.axes[static_cast<std::size_t>(below(static_cast<int>(p.axes.size())))].id;
        }
        for (int k = below(6); k > 0; --k) {
            KeyPose& pose = m.poses.emplace_back();
            pose.id = "pose" + std::to_string(k);
            for (const Axis& a : p.axes) {
                if (below(4) == 0) continue;
                PosePlace place{a.id, AxisPlace<AxisKind::Linear>{}};
                if (kindOf(a) == AxisKind::Rotary) place.place = AxisPlace<AxisKind::Rotary>{};
                pose.places.push_back(place);
            }
            if (!m.targets.empty() && below(2)) pose.arrive.target = m.targets.back().id;
            if (!p.axes.empty() && below(2)) pose.arrive.speedOf = p.axes.back().id;
        }
        p.moves.push_back(m);
    }
    // What stands beside the axes: payload, rooms, kits, later additions.
    for (int k = below(3); k > 0; --k) {
        const std::string id = "part" + std::to_string(k);
        p.payload.emplace_back().id = id;
        p.keepOut.emplace_back().id = id;
        p.kits.emplace_back().id = id;
        p.profiles.emplace_back().id = id;
        p.later.emplace_back().id = id;
    }
    const bool wild = below(2) == 1;
    const auto within = [&](double low, double high) {
        switch (below(12)) {
        case 0:
            return low;
        case 1:
            return high;
        default:
            break;
        }
        if (low > 0 && high / low > 100) return std::clamp(low * std::pow(high / low, unit()), low, high);
        return low + (high - low) * unit();
    };
    for (FieldRef& f : allFields(p)) {
        const double low = wild ? f.info.min : std::max(f.info.min, f.info.usualMin);
        const double high = wild ? f.info.max : std::min(f.info.max, f.info.usualMax);
        if (auto** d = std::get_if<double*>(&f.target))
            **d = within(low, high);
        else if (auto** e = std::get_if<Estimate*>(&f.target)) {
            (*e)->value = within(low, high);
            (*e)->source = static_cast<Source>(below(6));
            (*e)->tolerance = within(0, wild ? 10 : 0.5);
        } else if (auto** n = std::get_if<int*>(&f.target))
            **n = static_cast<int>(within(low, high));
        else if (auto** b = std::get_if<bool*>(&f.target))
            **b = below(2) == 1;
        else if (auto* c = std::get_if<ChoiceRef>(&f.target))
            c->assign(c->target, below(static_cast<int>(c->keys.size())));
    }
    return p;
}
