// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe_base.h"
#include "core/model/figure.h"

#include <type_traits>

/// What descriptions of results are made of, in the manner of model/describe.h. A struct of results has one
/// `describe(V&, S&...)` that visits its members in the order in which they are printed, for any number of
/// structs of the kind at once: one to read or write it, two or more to compare them.
///
/// A visitor V has
///   v.figure(FigureInfo, Figure&...)
///   v.flag(FigureInfo, bool&...)
///   v.rank(FigureInfo, int&...)           a whole number that orders, such as how loud something is
///   v.outcome(FigureInfo, E&...)          E: an enum with a ChoiceNames table
///   v.part(key, T&...)                    T: a struct with a describe overload
///   v.list(key, std::vector<T>&...)       T: a struct with a describe overload
/// and does nothing with what it does not care for (see visitors.h for a base that has them all).
namespace gantry {

/// A result: its key where it is printed (the unit in it), what it is in plain words, its kind. The two keys
/// and kinds differ where the unit of the axis is in them: the first is for linear axes, the second for
/// turning ones. Printed values are the SI value over `unit`.
struct FigureInfo {
    std::string_view key;
    std::string_view rotaryKey;
    std::string_view label;
    units::Kind kind = units::Kind::Ratio;
    units::Kind rotaryKind = units::Kind::Ratio;
    double unit = 1.0;

    constexpr std::string_view keyFor(bool linear) const { return linear ? key : rotaryKey; }
    constexpr units::Kind kindFor(bool linear) const { return linear ? kind : rotaryKind; }
};

/// A result with one key for all axes.
constexpr FigureInfo result(std::string_view key, std::string_view label, units::Kind kind,
                            double unit = 1.0) {
    return {key, key, label, kind, kind, unit};
}
/// A result with the unit of the axis in its key: of linear axes, and of turning ones.
constexpr FigureInfo result(std::string_view key, units::Kind kind, std::string_view rotaryKey,
                            units::Kind rotaryKind, std::string_view label) {
    return {key, rotaryKey, label, kind, rotaryKind, 1.0};
}

/// A result that is no quantity.
constexpr FigureInfo mark(std::string_view key, std::string_view label) {
    return {key, key, label, units::Kind::Count, units::Kind::Count, 1.0};
}

/// [rad/s] of one turn a minute, for keys in rpm.
constexpr double perMinute = 2.0 * 3.14159265358979323846 / 60.0;

/// Whether a struct's figures are left out where they have no meaning, rather than printed with that reason:
/// those of which every drive has only a few.
template <class T>
constexpr bool printsOnlyWhatApplies = false;

} // namespace gantry
