// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

constexpr Message meshText{"The {part} has {0} teeth in mesh; six carry the full load."};

static_assert(criteria::teethInMesh.value == 6.0, "the sentence says six");

/// Six teeth in mesh carry a belt's rating; fewer share less.
static Finding judgeBeltMesh(const AxisView& view) {
    const PartCheck* worst = worstPart(view, &PartCheck::meshes);
    if (worst == nullptr) return std::nullopt;
    return view.naming(
        found(nullptr, worst->meshes, meshText, {{{Kind::Ratio, worst->meshes * criteria::teethInMesh}}}),
        *worst);
}

constinit const Rule beltMesh =
    advising({"Use a larger small pulley or an idler that wraps the belt farther round it."},
             judging(criteria::beltMesh, {"Teeth in mesh"}, judgeBeltMesh, words::listOf<meshText>,
                     tries<&fixes::largerWheels>));

} // namespace gantry::rules
