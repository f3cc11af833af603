// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/gears.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace gantry::drivetrain {
namespace {

constexpr double pressureAngle = 20.0 * std::numbers::pi / 180.0;

struct FormFactor {
    int teeth;
    double y;
};
constexpr std::array formFactors{
    FormFactor{12, 0.245}, FormFactor{13, 0.261},  FormFactor{14, 0.277},  FormFactor{15, 0.290},
    FormFactor{16, 0.296}, FormFactor{17, 0.303},  FormFactor{18, 0.309},  FormFactor{19, 0.314},
    FormFactor{20, 0.322}, FormFactor{21, 0.328},  FormFactor{22, 0.331},  FormFactor{24, 0.337},
    FormFactor{26, 0.346}, FormFactor{28, 0.353},  FormFactor{30, 0.359},  FormFactor{34, 0.371},
    FormFactor{38, 0.384}, FormFactor{43, 0.397},  FormFactor{50, 0.409},  FormFactor{60, 0.422},
    FormFactor{75, 0.435}, FormFactor{100, 0.447}, FormFactor{150, 0.460}, FormFactor{300, 0.472},
    FormFactor{400, 0.480}};
constexpr double rackFormFactor = 0.485;

} // namespace

double centreDistance(int teethA, int teethB, double module) {
    return 0.5 * module * (teethA + teethB);
}

double leastTeethAgainst(int mateTeeth) {
    // 13-11 gives the least pinion for a ratio m; here the mate is given, so m = mate/pinion is found by
    // iteration.
    const double s2 = std::pow(std::sin(pressureAngle), 2);
    double pinion = 17.0;
    for (int i = 0; i < 60; ++i) {
        const double m = std::max(1.0, mateTeeth / pinion);
        pinion = 2.0 / ((1.0 + 2.0 * m) * s2) * (m + std::sqrt(m * m + (1.0 + 2.0 * m) * s2));
    }
    return pinion;
}

double contactRatio(int teethA, int teethB) {
    // In modules: pitch radius z/2, tip radius z/2 + 1, base radius z/2 cos φ.
    const auto tip = [](int z) {
        const double base = 0.5 * z * std::cos(pressureAngle);
        return std::sqrt(std::pow(0.5 * z + 1.0, 2) - base * base);
    };
    const double centre = 0.5 * (teethA + teethB);
    return (tip(teethA) + tip(teethB) - centre * std::sin(pressureAngle)) /
           (std::numbers::pi * std::cos(pressureAngle));
}

double lewisFormFactor(int teeth) {
    const auto above = std::find_if(formFactors.begin(), formFactors.end(),
                                    [&](const FormFactor& f) { return f.teeth >= teeth; });
    if (above == formFactors.begin()) {
        const double slope = formFactors[1].y - formFactors[0].y;
        return std::max(0.1, formFactors[0].y + slope * (teeth - formFactors[0].teeth));
    }
    const FormFactor low = *(above - 1);
    if (above == formFactors.end())
        return low.y + (rackFormFactor - low.y) * (1.0 - static_cast<double>(low.teeth) / teeth);
    const double t = (1.0 / low.teeth - 1.0 / teeth) / (1.0 / low.teeth - 1.0 / above->teeth);
    return low.y + t * (above->y - low.y);
}

double lewisStress(double force, double faceWidth, double module, int teeth, double pitchSpeed) {
    return force * (6.1 + pitchSpeed) / 6.1 / (faceWidth * module * lewisFormFactor(teeth));
}

} // namespace gantry::drivetrain
