// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/structure_parts.h"
#include "core/structure/section.h"

namespace gantry {

/// What a material brings to a beam. Typical figures; docs/models/beams.md names where they come from.
struct MaterialFigures {
    double modulus = 0.0;  ///< [Pa] Young's modulus along the beam
    double shear = 0.0;    ///< [Pa]
    double density = 0.0;  ///< [kg/m³]
    double strength = 0.0; ///< [Pa] bending stress that it stands for long, before any factor
    double damping = 0.0;  ///< [1] of critical, of a beam with its joints
    bool printed = false;  ///< creeps; tight at best in a load path
};
MaterialFigures materialFigures(BeamMaterial material);

/// Geometry of a section as it lies, on edge or not. All zero when it is not given.
structure::SectionFigures sectionFigures(const Section& section);

/// How wide and high [m] a section is as it lies.
struct Outline {
    double width = 0.0, height = 0.0;
};
Outline outlineOf(const Section& section);

/// A section with its material, as beams need it.
struct BeamView {
    structure::SectionFigures section;
    MaterialFigures material;
    double bendingUpright = 0.0;  ///< [N·m²] EI against vertical loads
    double bendingSideways = 0.0; ///< [N·m²]
    double torsion = 0.0;         ///< [N·m²] GJ
    double massPerMetre = 0.0;    ///< [kg/m]
    bool given() const { return bendingUpright > 0.0; }
};
BeamView beamView(const Section& section);

} // namespace gantry
