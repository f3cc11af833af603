// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/drivetrain/ratio.h"

#include <cmath>
#include <numeric>

namespace gantry::drivetrain {

std::optional<Ratio> Ratio::of(std::int64_t numerator, std::int64_t denominator) {
    if (numerator <= 0 || denominator <= 0) return std::nullopt;
    const std::int64_t divisor = std::gcd(numerator, denominator);
    return Ratio(numerator / divisor, denominator / divisor);
}

std::string Ratio::text() const {
    return std::to_string(numerator_) + '/' + std::to_string(denominator_);
}

std::optional<Ratio> Ratio::times(const Ratio& other) const {
    // Reducing crosswise first keeps the products as small as the result allows.
    const std::int64_t a = std::gcd(numerator_, other.denominator_);
    const std::int64_t b = std::gcd(other.numerator_, denominator_);
    std::int64_t n = 0, d = 0;
    if (__builtin_mul_overflow(numerator_ / a, other.numerator_ / b, &n)) return std::nullopt;
    if (__builtin_mul_overflow(denominator_ / b, other.denominator_ / a, &d)) return std::nullopt;
    return Ratio(n, d);
}

std::optional<Ratio> Ratio::dividedBy(const Ratio& other) const {
    return times(Ratio(other.denominator_, other.numerator_));
}

std::optional<Ratio> exactMetres(double length) {
    const double nanometres = length * 1e9;
    const double whole = std::round(nanometres);
    if (!(whole >= 1.0) || whole > 1e15 || std::abs(nanometres - whole) > 1e-6 * std::max(1.0, whole * 1e-6))
        return std::nullopt;
    return Ratio::of(static_cast<std::int64_t>(whole), 1'000'000'000);
}

} // namespace gantry::drivetrain
