// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/parts/part.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace gantry::parts {
namespace {

std::optional<SectionShape> shapeOf(const Part& part) {
    const auto& keys = ChoiceNames<SectionShape>::keys;
    for (const auto& [key, member] : part.choices)
        if (const auto at = std::find(keys.begin(), keys.end(), member); key == "shape" && at != keys.end())
            return static_cast<SectionShape>(at - keys.begin());
    return std::nullopt;
}

} // namespace

std::vector<StockSize> stockSizes(const Sources& stock, std::string_view family, std::string_view key,
                                  std::string_view fitKey, double fit) {
    std::vector<StockSize> fitting, any;
    const auto take = [&](const Part& p, bool owned) {
        const std::optional<double> value = numberOf(p, key);
        if (p.family != family || !value) return;
        const std::optional<double> size = fitKey.empty() ? std::nullopt : numberOf(p, fitKey);
        if (fitKey.empty() || (size && std::abs(*size - fit) < 1e-6)) fitting.push_back({*value, owned});
        any.push_back({*value, false});
    };
    for (const Part& p : stock.shelf) take(p, p.count > 0);
    for (const Part& p : stock.library) take(p, false);
    std::vector<StockSize>& found = fitting.empty() ? any : fitting;
    std::sort(found.begin(), found.end(), [](const StockSize& a, const StockSize& b) {
        return a.value != b.value ? a.value < b.value : a.owned > b.owned;
    });
    found.erase(std::unique(found.begin(), found.end(),
                            [](const StockSize& a, const StockSize& b) { return a.value == b.value; }),
                found.end());
    return found;
}

std::vector<SectionSize> sectionSizes(const Sources& stock, SectionShape shape) {
    std::vector<SectionSize> out;
    const auto take = [&](const Part& p, bool owned) {
        const std::optional<double> width = numberOf(p, "width_m");
        if (p.family != "section" || !width || shapeOf(p) != shape) return;
        out.push_back(
            {*width, numberOf(p, "height_m").value_or(*width), numberOf(p, "wall_m"), p.price, owned});
    };
    for (const Part& p : stock.shelf) take(p, p.count > 0);
    for (const Part& p : stock.library) take(p, false);
    const auto key = [](const SectionSize& s) {
        return std::tuple(std::max(s.width, s.height), std::min(s.width, s.height), s.wall.value_or(0.0));
    };
    std::sort(out.begin(), out.end(), [&](const SectionSize& a, const SectionSize& b) {
        return key(a) != key(b) ? key(a) < key(b) : a.owned > b.owned;
    });
    out.erase(std::unique(out.begin(), out.end(),
                          [&](const SectionSize& a, const SectionSize& b) { return key(a) == key(b); }),
              out.end());
    return out;
}

bool owns(const Sources& stock, const Section& section, double usualWall) {
    const bool rods = section.shape == SectionShape::RodPair, tube = section.shape == SectionShape::RoundTube,
               walled = tube || section.shape == SectionShape::HollowRectangle;
    const auto same = [](double a, double b) { return std::abs(a - b) < 1e-6; };
    const double width = section.width, height = tube || rods ? section.width : section.height;
    const std::vector<SectionSize> all = sectionSizes(stock, section.shape);
    return std::any_of(all.begin(), all.end(), [&](const SectionSize& s) {
        return s.owned && same(std::min(s.width, s.height), std::min(width, height)) &&
               same(std::max(s.width, s.height), std::max(width, height)) &&
               (!walled || same(s.wall.value_or(usualWall), section.wall));
    });
}

} // namespace gantry::parts
