// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/evaluate/rig/beam_view.h"

#include <algorithm>
#include <array>
#include <utility>

namespace gantry {
namespace {

// Extruded aluminium, structural steel, rolled carbon tube along its length, birch plywood and timber along
// the grain; printed plastics by their long-term strength across layers.
constexpr std::array materials{
    MaterialFigures{69e9, 26e9, 2700, 150e6, 0.01, false},
    MaterialFigures{210e9, 81e9, 7850, 235e6, 0.01, false},
    MaterialFigures{90e9, 5e9, 1550, 300e6, 0.015, false},
    MaterialFigures{9e9, 0.6e9, 680, 25e6, 0.03, false},
    MaterialFigures{10e9, 0.6e9, 450, 16e6, 0.03, false},
    MaterialFigures{11e9, 0.8e9, 680, 22e6, 0.03, false},
    MaterialFigures{3.0e9, 1.1e9, 1240, 15e6, 0.04, true},
    MaterialFigures{1.9e9, 0.7e9, 1270, 12e6, 0.05, true},
};

structure::SectionFigures flatFigures(const Section& s) {
    switch (s.shape) {
    case SectionShape::NotGiven:
        break;
    case SectionShape::SlottedProfile:
        return structure::slottedProfile(s.width, s.height);
    case SectionShape::SolidRectangle:
        return structure::solidRectangle(s.width, s.height);
    case SectionShape::HollowRectangle:
        return structure::hollowRectangle(s.width, s.height, s.wall);
    case SectionShape::RoundTube:
        return structure::roundTube(s.width, s.wall);
    case SectionShape::RodPair:
        return structure::rodPair(s.width, s.spacing);
    case SectionShape::Tee:
        return structure::tee(s.wall, std::max(s.height - s.flange, 1e-4), s.width, s.flange);
    case SectionShape::Own: {
        structure::SectionFigures own;
        own.upright = s.ownInertia;
        own.sideways = s.ownSideways;
        own.torsion = s.ownTorsion;
        own.uprightEdge = 0.5 * s.height;
        own.sidewaysEdge = 0.5 * s.width;
        own.centroid = own.uprightEdge;
        return own;
    }
    }
    return {};
}

} // namespace

MaterialFigures materialFigures(BeamMaterial material) {
    return materials[static_cast<std::size_t>(material)];
}

structure::SectionFigures sectionFigures(const Section& s) {
    const structure::SectionFigures flat = flatFigures(s);
    return s.onEdge ? structure::turned(flat) : flat;
}

Outline outlineOf(const Section& s) {
    Outline out{s.width, s.height};
    if (s.shape == SectionShape::RoundTube) out.height = s.width;
    if (s.shape == SectionShape::RodPair) out = {s.width + s.spacing, s.width};
    if (s.onEdge) std::swap(out.width, out.height);
    return out;
}

BeamView beamView(const Section& s) {
    BeamView out{sectionFigures(s), materialFigures(s.material)};
    const double factor = s.stiffnessFactor.value;
    out.bendingUpright = out.material.modulus * out.section.upright * factor;
    out.bendingSideways = out.material.modulus * out.section.sideways * factor;
    out.torsion = out.material.shear * out.section.torsion * factor;
    out.massPerMetre = s.shape == SectionShape::Own ? s.ownMass : out.material.density * out.section.area;
    return out;
}

} // namespace gantry
