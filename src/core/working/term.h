// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <initializer_list>
#include <span>
#include <string>
#include <vector>

namespace gantry::working {

/// A number that remembers how it was made: what is computed with it is computed and written down by the same
/// operation, so that what is written cannot say anything else. Written with + − · /, brackets, ², π and the
/// functions below; symbols are letters, digits and underscores. Any number is allowed, NaN too.
class Term {
public:
    Term(double constant); // NOLINT(google-explicit-constructor): numbers stand in formulas as they are
    static Term symbol(std::string name, double value);

    double value() const { return value_; }
    const std::string& text() const { return text_; }

    friend Term operator+(const Term& a, const Term& b);
    friend Term operator-(const Term& a, const Term& b);
    friend Term operator*(const Term& a, const Term& b);
    friend Term operator/(const Term& a, const Term& b);
    friend Term operator-(const Term& a);
    friend Term squared(const Term& a);
    friend Term called(const char* function, double value, std::span<const Term> arguments);

private:
    /// How tightly a text holds together.
    enum class Binds { Sum, Product, Sign, Atom };
    Term(double value, std::string text, Binds binds)
        : value_(value), text_(std::move(text)), binds_(binds) {}
    std::string within(Binds outer) const;
    friend Term joined(const Term& a, const Term& b, const char* sign, double value, Binds own, Binds right);

    double value_;
    std::string text_;
    Binds binds_;
};

/// A function of that name, its value worked out already.
Term called(const char* function, double value, std::span<const Term> arguments);

Term pi();
Term sqrt(const Term& a);
Term sin(const Term& a);
Term cos(const Term& a);
Term tan(const Term& a);
Term asin(const Term& a);
Term atan(const Term& a);
Term abs(const Term& a);
Term ln(const Term& a);
Term exp(const Term& a);
Term round(const Term& a); ///< to the nearest whole number, halves away from zero
Term power(const Term& base, const Term& exponent);
Term hypot(const Term& a, const Term& b);
Term min(const Term& a, const Term& b);
Term max(const Term& a, const Term& b);
/// What is not zero of them, added; zero where nothing is left.
Term sum(std::span<const Term> terms);
Term sum(std::initializer_list<Term> terms);

} // namespace gantry::working
