// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tools/structure_solve.h"

#include "core/evaluate/evaluate.h"
#include "core/evaluate/rig/arm_masses.h"
#include "core/evaluate/rig/beam_view.h"
#include "core/model/kind_traits.h"
#include "core/optics/picture.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace gantry {
namespace {

/// Masses of an arm without its counterweight, with a kit in place of what hangs at the end (null: as it is).
std::vector<structure::ArmMass> withoutWeight(const Project& project, const Axis& axis, const Kit* kit) {
    const auto& r = std::get<RotaryMechanism>(axis.mechanism);
    Axis bare = axis;
    auto& boom = std::get<RotaryMechanism>(bare.mechanism).boom;
    boom.counterweight.mass.value = 0.0;
    if (kit == nullptr) return armMasses(project.payload, bare);
    bare.carriesPayload = false;
    auto& items = std::get<RotaryMechanism>(bare.mechanism).items;
    std::erase_if(items, [&](const MassItem& i) { return i.along >= 0.9 * boom.reach; });
    std::vector<structure::ArmMass> out = armMasses(project.payload, bare);
    if (r.boom.arm == ArmKind::ParallelLinks)
        out.push_back({kit->mass.value, r.boom.reach, kit->above, true, 0.0, r.boom.tipOffset});
    else
        out.push_back({kit->mass.value, r.boom.reach + r.boom.tipOffset, kit->above, false});
    return out;
}

double leftOver(std::vector<structure::ArmMass> masses, const RotaryMechanism& r, double mass,
                double behind) {
    masses.push_back({mass, -behind, r.boom.counterweight.above, false});
    double worst = 0.0;
    const double range = std::min(r.range, 2.0 * std::numbers::pi);
    for (int i = 0; i <= 24; ++i)
        worst = std::max(worst, std::abs(structure::gravityTorque(masses, r.lowAngle + range * i / 24.0)));
    return worst;
}

} // namespace

std::optional<structure::TwoSupports> bestStands(const Project& project, const Axis& axis,
                                                 const AxisEvaluation* evaluation) {
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    if (linear == nullptr) return std::nullopt;
    Axis standing = axis;
    Rail& rail = std::get<LinearMechanism>(standing.mechanism).rail;
    rail.support = RailSupport::TwoStands;
    rail.firstStand = 0.2 * linear->railLength;
    rail.secondStand = 0.8 * linear->railLength;
    Reason why = Reason::None;
    const auto setting = railSetting(standing, massesOf(project, standing), why);
    if (!setting) return std::nullopt;
    structure::PictureFactors picture{1.0, 1.0};
    if (const ShotEvaluation* worst = evaluation != nullptr ? evaluation->worst() : nullptr) {
        const Shot& shot = project.shots[worst->shot.at()];
        const double focal = deliveredFocal(project.camera, shot);
        picture = {optics::lateralPixelsPerMetre(focal, shot.subjectDistance), focal};
    }
    auto best =
        structure::bestSupports(setting->rail, setting->carriage, picture, setting->low, setting->high);
    if (best) {
        best->first = std::round(best->first * 1e3) * 1e-3;
        best->second = std::min(linear->railLength, std::round(best->second * 1e3) * 1e-3);
    }
    return best;
}

std::optional<Counterweight> balanceWith(const Project& project, const Axis& axis) {
    const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (r == nullptr || !gravityTurns(axis.role) || r->boom.section.shape == SectionShape::NotGiven)
        return std::nullopt;
    Counterweight out = r->boom.counterweight;
    const auto others = withoutWeight(project, axis, nullptr);
    if (structure::moments(others).along <= 0.0) return std::nullopt; // the rear is the heavier side already
    if (out.mass.value > 0.0) {
        const double behind = -structure::balancingPlace(others, out.mass.value);
        if (behind >= out.nearest && behind <= out.farthest) {
            out.behind = std::round(behind * 1e3) * 1e-3;
            return out;
        }
    }
    out.behind =
        std::clamp(out.behind, std::min(out.nearest, out.farthest), std::max(out.nearest, out.farthest));
    const double mass = std::round(structure::balancingMass(others, -out.behind) * 100.0) / 100.0;
    out.mass = assumed(mass, 0.02);
    return out;
}

std::vector<ChartRow> counterweightChart(const Project& project, const Axis& axis) {
    std::vector<ChartRow> out;
    const auto* r = std::get_if<RotaryMechanism>(&axis.mechanism);
    if (r == nullptr || !gravityTurns(axis.role) || r->boom.section.shape == SectionShape::NotGiven)
        return out;
    const Boom& boom = r->boom;
    const double nearest = std::min(boom.counterweight.nearest, boom.counterweight.farthest),
                 farthest = std::max(boom.counterweight.nearest, boom.counterweight.farthest);
    for (std::size_t k = 0; k < project.kits.size(); ++k) {
        const auto others = withoutWeight(project, axis, &project.kits[k]);
        const double moment = structure::moments(others).along;
        std::optional<ChartRow> best;
        double bestMiss = 0.0;
        int bestCount = 0;
        std::vector<int> counts(boom.discs.size(), 0);
        for (int tried = 0; tried < 4096; ++tried) {
            double mass = boom.counterweight.bare;
            int count = 0;
            for (std::size_t d = 0; d < counts.size(); ++d) {
                mass += counts[d] * boom.discs[d].mass;
                count += counts[d];
            }
            const double wanted = mass > 0.0 ? moment / mass : 1e9;
            const double behind = std::clamp(wanted, nearest, farthest);
            const double miss = std::abs(mass * behind - moment);
            const bool reaches = miss < 1e-9 * std::max(1.0, std::abs(moment));
            const bool better = !best || (reaches && !best->reaches) ||
                                (reaches == best->reaches &&
                                 (reaches ? count < bestCount || (count == bestCount && mass < best->mass)
                                          : miss < bestMiss));
            if (better) {
                best = ChartRow{static_cast<int>(k), counts, mass, behind, reaches, 0.0};
                bestMiss = miss;
                bestCount = count;
            }
            std::size_t d = 0;
            while (d < counts.size() && ++counts[d] > boom.discs[d].count) counts[d++] = 0;
            if (d == counts.size()) break;
        }
        best->left = leftOver(others, *r, best->mass, best->behind);
        out.push_back(*best);
    }
    return out;
}

std::vector<Section> stockSections(const Section& like, const parts::Sources& stock) {
    std::vector<Section> out;
    const auto add = [&](double width, double height, double wall, double price) {
        Section c = like;
        c.onEdge = false;
        c.width = width;
        c.height = height;
        c.wall = wall;
        c.price = price;
        out.push_back(c);
    };
    const std::vector<parts::SectionSize> sizes = parts::sectionSizes(stock, like.shape);
    const bool rods = like.shape == SectionShape::RodPair,
               round = rods || like.shape == SectionShape::RoundTube;
    const double now = round ? like.width : std::max(like.width, like.height);
    const parts::SectionSize* smaller = nullptr;
    std::vector<const parts::SectionSize*> near;
    for (const parts::SectionSize& s : sizes) {
        if (!round && s.width != s.height) continue;
        if (s.width < now * 0.999) smaller = &s;
        if (s.width > now * 1.001 && (rods || near.size() < 2)) near.push_back(&s);
    }
    // Rods are only ever too thin; the height of a section says nothing of them.
    if (smaller != nullptr && !rods) near.insert(near.begin(), smaller);
    for (const parts::SectionSize* s : near)
        add(s->width, rods ? like.height : s->height, s->wall.value_or(like.wall), s->price);
    for (const parts::SectionSize& s : sizes)
        if (!round && std::min(s.width, s.height) < std::max(s.width, s.height) &&
            std::abs(std::min(s.width, s.height) - std::min(like.width, like.height)) < 1e-6)
            add(std::min(s.width, s.height), std::max(s.width, s.height), s.wall.value_or(like.wall),
                s.price);
    if (like.shape == SectionShape::HollowRectangle || like.shape == SectionShape::RoundTube) {
        out.push_back(like);
        out.back().wall = 1.5 * like.wall;
        out.back().price = 0.0;
    } else if (like.shape == SectionShape::SolidRectangle || like.shape == SectionShape::Tee) {
        for (const double factor : {1.25, 1.5, 2.0}) {
            out.push_back(like);
            out.back().height = like.height * factor;
            out.back().price = 0.0;
        }
    }
    if (hasEdge(like)) {
        out.push_back(like);
        out.back().onEdge = !like.onEdge;
    }
    if (const double mass = beamView(like).massPerMetre; mass > 0.0)
        for (Section& s : out)
            if (s.price == 0.0) s.price = like.price * beamView(s).massPerMetre / mass;
    return out;
}

bool hasEdge(const Section& s) {
    return s.shape != SectionShape::NotGiven && s.shape != SectionShape::RoundTube &&
           s.shape != SectionShape::RodPair &&
           (s.shape == SectionShape::Own || s.shape == SectionShape::Tee ||
            std::abs(s.width - s.height) > 1e-6);
}

std::vector<Section> sectionsToTry(const Project& project, const Section& now, const parts::Sources& stock) {
    std::vector<Section> out;
    // What is listed counts with its own price; stock only where nothing of that size is there yet.
    const auto list = [&](const Section& s) {
        if (s != now && s.shape != SectionShape::NotGiven &&
            std::find(out.begin(), out.end(), s) == out.end())
            out.push_back(s);
    };
    for (const Profile& p : project.profiles) {
        list(p.section);
        if (!hasEdge(p.section)) continue;
        Section edge = p.section;
        edge.onEdge = !edge.onEdge;
        list(edge);
    }
    const auto same = [](Section a, const Section& b) {
        a.price = b.price;
        return a == b;
    };
    for (const Section& s : stockSections(now, stock))
        if (!same(s, now) &&
            std::none_of(out.begin(), out.end(), [&](const Section& o) { return same(s, o); }))
            out.push_back(s);
    return out;
}

std::vector<SectionRow> compareSections(const Project& project, const Axis& axis,
                                        const std::vector<Section>& sections) {
    std::vector<SectionRow> out;
    Project tried = project;
    const Axis* found = findAxis(project, axis.id);
    if (found == nullptr) return out;
    const auto index = static_cast<std::size_t>(found - project.axes.data());
    tried.axes[index] = axis;
    RigSetup rig = setupOf(tried);
    const auto* linear = std::get_if<LinearMechanism>(&axis.mechanism);
    const Boom* boom = linear != nullptr ? nullptr : &std::get<RotaryMechanism>(axis.mechanism).boom;
    const double length = linear != nullptr ? linear->railLength : boom->reach + boom->rear;
    std::vector<Section> all{sectionOf(axis)};
    all.insert(all.end(), sections.begin(), sections.end());
    for (const Section& s : all) {
        sectionOf(tried.axes[index]) = s;
        rig.refresh(index);
        const AxisEvaluation e = evaluateAxis(rig, index, Searches::No);
        SectionRow row{s, e.structure, s.price * length, 0.0};
        for (const ShotEvaluation& shot : e.shots)
            if (shot.sag.pixels) row.pixels = std::max(row.pixels, shot.sag.pixels.value());
        out.push_back(row);
    }
    return out;
}

} // namespace gantry
