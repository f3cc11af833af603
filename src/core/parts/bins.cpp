// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/bins.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

namespace gantry::parts {
namespace {

using WheelFamily = ratiofinder::Family;
using ratiofinder::Wheel;

constexpr std::array gearTeeth{12, 14, 15, 16, 18, 20, 22, 24, 25, 28, 30, 32,  36,
                               40, 45, 48, 50, 56, 60, 64, 70, 72, 80, 90, 100, 120};
constexpr std::array pulleyTeeth{14, 15, 16, 18, 20, 22, 24, 25, 28, 30, 32,  36,
                                 40, 44, 48, 50, 60, 64, 72, 80, 90, 96, 100, 120};

WheelFamily gears(double module) {
    return {"module " + std::to_string(static_cast<int>(std::lround(module * 1e4))), true, module, 0.93,
            0.0003 / (module * 20.0) * 0.5};
}
WheelFamily pulleys(double pitch, int profile) {
    return {"pitch " + std::to_string(static_cast<int>(std::lround(pitch * 1e6))) + '/' +
                std::to_string(profile),
            false, pitch / std::numbers::pi, 0.95, 0.0};
}

} // namespace

ratiofinder::Bin stockBin(Stock stock) {
    std::vector<Wheel> wheels;
    const bool gear = stock == Stock::GearsHalf || stock == Stock::GearsOne;
    const double width = stock == Stock::GearsHalf ? 0.004 : stock == Stock::Pulleys5 ? 0.015 : 0.009;
    const auto add = [&](int teeth) { wheels.push_back({teeth, 8, 0, 0, width}); };
    if (gear)
        for (const int t : gearTeeth) add(t);
    else
        for (const int t : pulleyTeeth) add(t);
    switch (stock) {
    case Stock::GearsHalf:
        return {std::move(wheels), {gears(0.0005)}};
    case Stock::GearsOne:
        return {std::move(wheels), {gears(0.001)}};
    case Stock::Pulleys2:
        return {std::move(wheels), {pulleys(0.002, 1)}};
    case Stock::Pulleys3:
        return {std::move(wheels), {pulleys(0.003, 1)}};
    case Stock::Pulleys5:
        break;
    }
    return {std::move(wheels), {pulleys(0.005, 2)}};
}

ratiofinder::Bin shelfBin(std::span<const Part> shelf) {
    std::vector<Wheel> wheels;
    std::vector<WheelFamily> families;
    std::map<std::string, int> known;
    for (const Part& p : shelf) {
        if ((p.family != "gear" && p.family != "pulley") || p.count < 1) continue;
        int profile = 1;
        for (const auto& [key, member] : p.choices)
            for (int i = 0; key == "profile" && i < 3; ++i)
                if (ChoiceNames<BeltProfile>::keys[static_cast<std::size_t>(i)] == member) profile = i;
        const WheelFamily family = p.family == "gear"
                                       ? gears(numberOf(p, "module_m").value_or(0.001))
                                       : pulleys(numberOf(p, "pitch_m").value_or(0.002), profile);
        const auto [it, isNew] = known.try_emplace(family.name, static_cast<int>(families.size()));
        if (isNew) families.push_back(family);
        const int teeth = static_cast<int>(numberOf(p, "teeth").value_or(0.0));
        if (teeth < 1 || teeth > 60000) continue;
        // Several entries of one size are one size of which there are more.
        const auto same = std::find_if(wheels.begin(), wheels.end(), [&](const Wheel& w) {
            return w.teeth == teeth && w.family == it->second;
        });
        if (same != wheels.end())
            same->count = same->onHand = same->count + p.count;
        else
            wheels.push_back({teeth, p.count, it->second, p.count,
                              numberOf(p, p.family == "gear" ? "face_width_m" : "width_m").value_or(0.008)});
    }
    return {std::move(wheels), std::move(families)};
}

Link linkOf(const ratiofinder::Bin& bin, const ratiofinder::Stage& stage) {
    const Wheel &a = bin.wheels()[static_cast<std::size_t>(stage.driver)],
                &b = bin.wheels()[static_cast<std::size_t>(stage.driven)];
    const WheelFamily& family = bin.families()[static_cast<std::size_t>(a.family)];
    const auto fill = [&](auto& s) {
        s.motorTeeth = a.teeth;
        s.loadTeeth = b.teeth;
        s.figures.efficiency = assumed(family.efficiency, 0.04);
        s.figures.backlash = assumed(family.backlash);
    };
    if (family.gears) {
        GearStage s;
        fill(s);
        s.module = family.module;
        s.faceWidth = a.width;
        return s;
    }
    BeltStage s;
    fill(s);
    s.pitch = assumed(family.module * std::numbers::pi, 0.0);
    s.width = a.width;
    return s;
}

} // namespace gantry::parts
