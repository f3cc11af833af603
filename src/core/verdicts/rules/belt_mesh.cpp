// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"

namespace gantry::rules {

using M = words::MessageId;
using units::Kind;

static_assert(criteria::teethInMesh.value == 6.0, "the sentence says six");

/// Six teeth in mesh carry a belt's rating; fewer share less.
Finding beltMesh(const AxisView& view) {
    const PartCheck* worst = nullptr;
    for (const PartCheck& p : view.evaluation.checks.parts)
        if (p.meshes.reason() != Reason::NotApplicable &&
            (worst == nullptr || p.meshes.value() < worst->meshes.value()))
            worst = &p;
    if (worst == nullptr) return std::nullopt;
    return found(nullptr, worst->meshes.value(), worst->meshes.reason(), M::MeshText,
                 {{{Kind::Ratio, worst->meshes.value() * criteria::teethInMesh},
                   {Kind::Count, view.partNumber(*worst)}}});
}

} // namespace gantry::rules
