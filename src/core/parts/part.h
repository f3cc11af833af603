// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace gantry::parts {

/// A part of the library or of the builder's shelf. Its figures stand under the keys that the same fields
/// have in a project, in SI.
struct Part {
    std::string family; ///< key of its Family
    std::string name;
    int count = 0;      ///< owned
    double price = 0.0; ///< in the user's money
    std::string reason; ///< why the figures are realistic, or what the builder noted
    std::vector<std::pair<std::string, double>> numbers;
    std::vector<std::pair<std::string, std::string>> choices;   ///< members of enums, by their file key
    std::vector<std::pair<std::string, std::string>> kept = {}; ///< cells of a table that mean nothing here

    friend bool operator==(const Part&, const Part&) = default;
};

/// A kind of part: its key in tables, its name on screen and the fields that it may have.
struct Family {
    std::string_view key;
    std::string_view label;
    std::vector<FieldInfo> numbers;
    std::vector<std::pair<std::string_view, std::span<const std::string_view>>>
        choices; ///< field key and its members
};

/// All families, in the order they are listed: motors, gearheads, wheels, belts, screws, brakes, drivers,
/// supplies.
const std::vector<Family>& families();

/// Null if there is none of that key.
const Family* findFamily(std::string_view key);

std::optional<double> numberOf(const Part& part, std::string_view key);

/// Where a part can go in an axis.
enum class Place { Motor, Link, Output, Driver, Supply, Brake, Section, Pivot, Nowhere };
Place placeOf(std::string_view family);

/// Puts a part into an axis: a motor, driver, supply, brake, profile or pivot pin takes its place; a gearhead
/// becomes the link at `link`, or a new one next to the motor when link is −1; a pulley or gear changes the
/// motor-side wheel of the link at `link`, or the output's. Figures count as data sheet. Returns why not, or
/// an empty text.
std::string usePart(Project& project, int axis, int link, const Part& part);

/// What can be had: what shops keep, and what the builder owns.
struct Sources {
    std::span<const Part> library{}, shelf{};
};

/// A size in which a part can be had.
struct StockSize {
    double value;
    bool owned; ///< at least one is on the shelf
};

/// Which sizes there are of a family's figure ("teeth"), ascending. With a `fitKey` only of parts that fit by
/// that figure ("pitch_m"); where none is listed that fits, those of any part of the family, to be had
/// somewhere, as bought.
std::vector<StockSize> stockSizes(const Sources& stock, std::string_view family, std::string_view key,
                                  std::string_view fitKey = {}, double fit = 0.0);

/// An outline in which profiles, tubes and rods can be had.
struct SectionSize {
    double width, height;       ///< [m]; a tube's or rod's diameter twice
    std::optional<double> wall; ///< [m] where it is told
    double price;               ///< of a metre, in the user's money; 0: not said
    bool owned;
};

/// Sizes of one outline, ascending by the larger side, then by the smaller; what is owned goes before what is
/// not.
std::vector<SectionSize> sectionSizes(const Sources& stock, SectionShape shape);

/// Whether a profile of these sides lies on the shelf, however it is turned. Where the shelf does not tell
/// its wall [m], it is taken to be `usualWall`.
bool owns(const Sources& stock, const Section& section, double usualWall);

} // namespace gantry::parts
