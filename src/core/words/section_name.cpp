// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/section_name.h"

#include "core/model/describe.h"
#include "core/units/text.h"

#include <cmath>

namespace gantry::words {

std::string sectionName(const Section& s, units::System system) {
    std::string out(ChoiceNames<SectionShape>::labels[static_cast<std::size_t>(s.shape)]);
    const auto length = [&](double v) { return units::format(v, units::Kind::PartLength, system); };
    switch (s.shape) {
    case SectionShape::NotGiven:
    case SectionShape::Own:
        return out;
    case SectionShape::RoundTube:
        return out + ' ' + length(s.width) + ", wall " + length(s.wall);
    case SectionShape::RodPair:
        return out + ' ' + length(s.width);
    case SectionShape::HollowRectangle:
        out += ' ' + length(s.width) + " × " + length(s.height) + ", wall " + length(s.wall);
        break;
    case SectionShape::SlottedProfile:
    case SectionShape::SolidRectangle:
    case SectionShape::Tee:
        out += ' ' + length(s.width) + " × " + length(s.height);
        break;
    }
    if (std::abs(s.width - s.height) < 1e-6) return out;
    // Whichever way it was entered: tall is on edge.
    return out + ((s.height > s.width) != s.onEdge ? ", on edge" : ", flat");
}

} // namespace gantry::words
