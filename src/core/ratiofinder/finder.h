// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/drivetrain/ratio.h"

#include <cstdint>
#include <functional>
#include <memory>
#include <span>
#include <stop_token>
#include <string>
#include <vector>

namespace gantry::ratiofinder {

/// Wheels that fit each other: gears of one module, pulleys of one pitch and tooth shape.
struct Family {
    std::string name;         ///< "module 1", "2 mm round"
    bool gears = true;        ///< gears turn their mate the other way; belts do not
    double module = 0.001;    ///< [m] diameter a tooth; of pulleys pitch/π
    double efficiency = 0.95; ///< [1] of one stage
    double backlash = 0.003;  ///< [rad] of one stage, at its output
};

/// A size of wheel, and how many of it there are.
struct Wheel {
    int teeth = 20;
    int count = 1;        ///< that may be used in one train
    int family = 0;       ///< index of its Family
    int onHand = 1;       ///< of these, owned
    double width = 0.008; ///< [m], for its inertia
};

struct Stage {
    int driver = 0, driven = 0; ///< indices of wheels; the driver sits on the motor's side

    friend bool operator==(const Stage&, const Stage&) = default;
};

enum class Sense { Any, Same, Opposite };

struct Query {
    drivetrain::Ratio target; ///< driven over driver teeth, all stages together
    int leastStages = 1;
    int mostStages = 4;           ///< 1 to 4
    std::size_t most = 20;        ///< trains of different ratio
    double largestDiameter = 0.0; ///< [m] of any wheel; 0: any
    double leastEfficiency = 0.0; ///< [1] of the whole train
    double largestBacklash = 0.0; ///< [rad] at the output; 0: any
    Sense sense = Sense::Any;
    /// Another condition that a ratio must meet (whole steps per unit); empty: none.
    std::function<bool(const drivetrain::Ratio&)> accept;
};

struct Train {
    std::vector<Stage> stages; ///< from the motor, arranged for least inertia
    drivetrain::Ratio ratio;
    double error = 0.0;      ///< [1] ratio/target − 1
    double inertia = 0.0;    ///< [kg·m²] of all its wheels at the motor
    double size = 0.0;       ///< [m] sum of centre distances
    double efficiency = 1.0; ///< [1]
    double backlash = 0.0;   ///< [rad] at the output
    int toBuy = 0;           ///< wheels beyond those on hand
    bool reverses = false;   ///< output turns against the motor
    int gearSets = 1;        ///< different sets of wheels that give this ratio in so few stages
};

/// Searches trains from one bin of wheels. Built once per bin and number of sizes; queries share its half
/// trains.
///
/// Exact: all trains of up to four stages are considered, each physical wheel at most as often as it is
/// there, ratios as fractions. It meets in the middle: every half (one or two stages) is formed and grouped
/// by its ratio, and pairs of groups are visited in order of error, so that the best stand first without
/// forming all trains.
class Bin {
public:
    Bin(std::vector<Wheel> wheels, std::vector<Family> families);
    ~Bin();
    Bin(Bin&&) noexcept;
    Bin& operator=(Bin&&) noexcept;

    /// Trains of different ratio, best first: least error; ties by fewest stages, fewest wheels to buy, least
    /// inertia at the motor, smallest. For one stage count and ratio, the best set in its best arrangement.
    /// What was found so far if a stop is requested.
    std::vector<Train> find(const Query& query, const std::stop_token& stop = {}) const;

    const std::vector<Wheel>& wheels() const;
    const std::vector<Family>& families() const;

private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

/// A train of which one stage is swapped to serve several ratios.
struct ChangeGears {
    std::vector<Stage> fixed;   ///< stages that stay
    std::vector<Stage> swapped; ///< one for each target
    double worstError = 0.0;    ///< [1]
};

/// Best trains with `fixedStages` (0 to 2) that stay and one mesh that is changed for each target. With
/// `sameCentre` the swapped pairs have equal sums of teeth, as gears on fixed shafts must. Best worst error
/// first, different in their fixed stages or swapped sum.
std::vector<ChangeGears> findChangeGears(const Bin& bin, std::span<const drivetrain::Ratio> targets,
                                         int fixedStages, bool sameCentre, std::size_t most,
                                         const std::stop_token& stop = {});

} // namespace gantry::ratiofinder
