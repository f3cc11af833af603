// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/term.h"

#include <array>
#include <charconv>
#include <cmath>
#include <numbers>

namespace gantry::working {
namespace {

/// The shortest text that reads back as the same number.
std::string shortest(double value) {
    std::array<char, 32> buffer{};
    const auto end = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value).ptr;
    return {buffer.data(), end};
}

Term call(const char* function, double value, std::initializer_list<Term> arguments) {
    return called(function, value, {arguments.begin(), arguments.size()});
}

} // namespace

Term::Term(double constant)
    : value_(constant), text_(shortest(constant)), binds_(constant < 0.0 ? Binds::Sign : Binds::Atom) {
    if (constant < 0.0) text_ = "−" + shortest(-constant);
}

Term Term::symbol(std::string name, double value) {
    return {value, std::move(name), Binds::Atom};
}

std::string Term::within(Binds outer) const {
    return binds_ < outer ? "(" + text_ + ")" : text_;
}

Term joined(const Term& a, const Term& b, const char* sign, double value, Term::Binds own,
            Term::Binds right) {
    return {value, a.within(own) + sign + b.within(right), own};
}

Term operator+(const Term& a, const Term& b) {
    return joined(a, b, " + ", a.value_ + b.value_, Term::Binds::Sum, Term::Binds::Product);
}
Term operator-(const Term& a, const Term& b) {
    return joined(a, b, " − ", a.value_ - b.value_, Term::Binds::Sum, Term::Binds::Product);
}
Term operator*(const Term& a, const Term& b) {
    return joined(a, b, " · ", a.value_ * b.value_, Term::Binds::Product, Term::Binds::Atom);
}
Term operator/(const Term& a, const Term& b) {
    return joined(a, b, " / ", a.value_ / b.value_, Term::Binds::Product, Term::Binds::Atom);
}
Term operator-(const Term& a) {
    return {-a.value_, "−" + a.within(Term::Binds::Atom), Term::Binds::Sign};
}
Term squared(const Term& a) {
    return {a.value_ * a.value_, a.within(Term::Binds::Atom) + "²", Term::Binds::Atom};
}

Term called(const char* function, double value, std::span<const Term> arguments) {
    std::string text = std::string(function) + "(";
    for (std::size_t i = 0; i < arguments.size(); ++i) text += (i > 0 ? "; " : "") + arguments[i].text();
    return {value, text + ")", Term::Binds::Atom};
}

Term pi() {
    return Term::symbol("π", std::numbers::pi);
}
Term sqrt(const Term& a) {
    return call("√", std::sqrt(a.value()), {a});
}
Term sin(const Term& a) {
    return call("sin", std::sin(a.value()), {a});
}
Term cos(const Term& a) {
    return call("cos", std::cos(a.value()), {a});
}
Term tan(const Term& a) {
    return call("tan", std::tan(a.value()), {a});
}
Term asin(const Term& a) {
    return call("asin", std::asin(a.value()), {a});
}
Term atan(const Term& a) {
    return call("atan", std::atan(a.value()), {a});
}
Term abs(const Term& a) {
    return call("abs", std::abs(a.value()), {a});
}
Term ln(const Term& a) {
    return call("ln", std::log(a.value()), {a});
}
Term exp(const Term& a) {
    return call("exp", std::exp(a.value()), {a});
}
Term round(const Term& a) {
    return call("round", std::round(a.value()), {a});
}
Term power(const Term& base, const Term& exponent) {
    return call("pow", std::pow(base.value(), exponent.value()), {base, exponent});
}
Term hypot(const Term& a, const Term& b) {
    return sqrt(squared(a) + squared(b));
}
Term min(const Term& a, const Term& b) {
    return call("min", std::fmin(a.value(), b.value()), {a, b});
}
Term max(const Term& a, const Term& b) {
    return call("max", std::fmax(a.value(), b.value()), {a, b});
}

Term sum(std::span<const Term> terms) {
    const Term* first = nullptr;
    Term out = 0.0;
    for (const Term& t : terms) {
        if (t.value() == 0.0) continue;
        out = first == nullptr ? t : out + t;
        first = &t;
    }
    return out;
}
Term sum(std::initializer_list<Term> terms) {
    return sum(std::span<const Term>(terms.begin(), terms.size()));
}

} // namespace gantry::working
