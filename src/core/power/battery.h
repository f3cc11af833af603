// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::power {

/// A battery by its label.
struct BatteryParams {
    double capacity = 25200.0;  ///< [A·s] when emptied in ratedTime
    double ratedTime = 72000.0; ///< [s] of the discharge that the capacity is given for; 20 h is usual
    double peukert = 1.05;      ///< [1] exponent, ≥ 1: about 1.05 for lithium, 1.1 to 1.25 for lead
    double usable = 0.9;        ///< [1] share of the capacity that may be used
};

/// Seconds that it feeds `current` [A] > 0: usable · H · (C/(I·H))^k (Peukert, 1897, for constant current).
/// At a current below the rated one it promises more than the label; cold and age take from that.
double runTime(const BatteryParams& b, double current);

} // namespace gantry::power
