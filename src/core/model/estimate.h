// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry {

/// How an uncertain input is known.
enum class Source { Measured, Counted, DataSheet, Label, Guess, Assumed };

/// Tolerance that a source starts with, relative [1]: a careful measurement 2 %, a count 0, a data sheet 10
/// %, a label 15 %, a guess or an assumption 50 %.
constexpr double defaultTolerance(Source source) {
    switch (source) {
    case Source::Measured:
        return 0.02;
    case Source::Counted:
        return 0.0;
    case Source::DataSheet:
        return 0.10;
    case Source::Label:
        return 0.15;
    case Source::Guess:
    case Source::Assumed:
        break;
    }
    return 0.50;
}

/// An uncertain input: value in the SI unit of its field, where it comes from, and its relative tolerance
/// [1].
struct Estimate {
    double value = 0.0;
    Source source = Source::Assumed;
    double tolerance = defaultTolerance(Source::Assumed);

    friend bool operator==(const Estimate&, const Estimate&) = default;
};

constexpr Estimate estimate(double value, Source source) {
    return {value, source, defaultTolerance(source)};
}
constexpr Estimate assumed(double value, double tolerance = 0.5) {
    return {value, Source::Assumed, tolerance};
}

} // namespace gantry
