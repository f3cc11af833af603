// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <string>

namespace gantry::drivetrain {

/// Exact positive fraction in lowest terms. Tooth counts multiply into these without rounding; a product that
/// does not fit 64 bits is refused (nullopt), never wrapped.
class Ratio {
public:
    constexpr Ratio() = default;

    /// numerator/denominator reduced; nullopt unless both are positive.
    static std::optional<Ratio> of(std::int64_t numerator, std::int64_t denominator);

    std::int64_t numerator() const { return numerator_; }
    std::int64_t denominator() const { return denominator_; }
    double value() const { return static_cast<double>(numerator_) / static_cast<double>(denominator_); }

    /// "57/11"; whole numbers keep their denominator: "80/1".
    std::string text() const;

    std::optional<Ratio> times(const Ratio& other) const;
    std::optional<Ratio> dividedBy(const Ratio& other) const;

    friend bool operator==(const Ratio& a, const Ratio& b) {
        return a.numerator_ == b.numerator_ && a.denominator_ == b.denominator_;
    }

private:
    constexpr Ratio(std::int64_t n, std::int64_t d) : numerator_(n), denominator_(d) {}
    std::int64_t numerator_ = 1;
    std::int64_t denominator_ = 1;
};

/// A length [m] as an exact number of nanometres over 10⁹, if it is one to within a millionth of a nanometre;
/// belt pitches and screw leads are. Nothing otherwise.
std::optional<Ratio> exactMetres(double length);

} // namespace gantry::drivetrain
