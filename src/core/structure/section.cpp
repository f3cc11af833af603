// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/structure/section.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

namespace gantry::structure {
namespace {

using std::numbers::pi;

double torsionOfRectangle(double width, double height) {
    const double a = std::max(width, height), b = std::min(width, height);
    return a * b * b * b * (1.0 / 3.0 - 0.21 * b / a * (1.0 - b * b * b * b / (12.0 * a * a * a * a)));
}

} // namespace

SectionFigures solidRectangle(double width, double height) {
    return {width * height,
            width * height * height * height / 12.0,
            height * width * width * width / 12.0,
            torsionOfRectangle(width, height),
            0.5 * height,
            0.5 * width,
            0.5 * height};
}

SectionFigures hollowRectangle(double width, double height, double wall) {
    if (2.0 * wall >= std::min(width, height)) return solidRectangle(width, height);
    const double w = width - 2.0 * wall, h = height - 2.0 * wall;
    SectionFigures out = solidRectangle(width, height);
    const SectionFigures hole = solidRectangle(w, h);
    out.area -= hole.area;
    out.upright -= hole.upright;
    out.sideways -= hole.sideways;
    const double mw = width - wall, mh = height - wall;
    out.torsion = 4.0 * mw * mw * mh * mh * wall / (2.0 * (mw + mh));
    return out;
}

SectionFigures roundTube(double diameter, double wall) {
    const double outer = 0.5 * diameter, inner = std::max(0.0, outer - wall);
    const double bending = pi / 4.0 * (std::pow(outer, 4) - std::pow(inner, 4));
    return {pi * (outer * outer - inner * inner), bending, bending, 2.0 * bending, outer, outer, outer};
}

SectionFigures rodPair(double diameter, double spacing) {
    const SectionFigures rod = roundTube(diameter, diameter);
    return {2.0 * rod.area, 2.0 * rod.upright,          2.0 * rod.upright, 2.0 * rod.torsion,
            0.5 * diameter, 0.5 * (spacing + diameter), 0.5 * diameter};
}

SectionFigures tee(double webThickness, double webHeight, double flangeWidth, double flangeThickness) {
    const double web = webThickness * webHeight, flange = flangeWidth * flangeThickness;
    const double webAt = 0.5 * webHeight, flangeAt = webHeight + 0.5 * flangeThickness;
    SectionFigures out;
    out.area = web + flange;
    out.centroid = (web * webAt + flange * flangeAt) / out.area;
    const auto square = [](double x) { return x * x; };
    out.upright = webThickness * std::pow(webHeight, 3) / 12.0 + web * square(webAt - out.centroid) +
                  flangeWidth * std::pow(flangeThickness, 3) / 12.0 +
                  flange * square(flangeAt - out.centroid);
    out.sideways =
        webHeight * std::pow(webThickness, 3) / 12.0 + flangeThickness * std::pow(flangeWidth, 3) / 12.0;
    out.torsion = (webHeight * std::pow(webThickness, 3) + flangeWidth * std::pow(flangeThickness, 3)) / 3.0;
    out.uprightEdge = std::max(out.centroid, webHeight + flangeThickness - out.centroid);
    out.sidewaysEdge = 0.5 * std::max(webThickness, flangeWidth);
    return out;
}

SectionFigures slottedProfile(double width, double height) {
    constexpr double areaShare = 0.40, bendingShare = 0.45, torsionShare = 0.12;
    SectionFigures out = solidRectangle(width, height);
    out.area *= areaShare;
    out.upright *= bendingShare;
    out.sideways *= bendingShare;
    out.torsion *= torsionShare;
    return out;
}

SectionFigures turned(const SectionFigures& section) {
    SectionFigures out = section;
    std::swap(out.upright, out.sideways);
    std::swap(out.uprightEdge, out.sidewaysEdge);
    out.centroid = out.uprightEdge;
    return out;
}

} // namespace gantry::structure
