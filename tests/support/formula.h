// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>
#include <map>
#include <numbers>
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

/// A small evaluator of printed formulas that shares nothing with the program: text and values in, a number
/// out. Throws std::runtime_error where it cannot read one.
class Formula {
public:
    Formula(std::string text, const std::map<std::string, double>& values)
        : text_(std::move(text)), values_(values) {}

    double value() {
        const double out = sum();
        space();
        if (at_ != text_.size()) fail("something is left");
        return out;
    }

private:
    [[noreturn]] void fail(const std::string& why) const {
        throw std::runtime_error(why + " at " + std::to_string(at_) + " of " + text_);
    }
    void space() {
        while (at_ < text_.size() && text_[at_] == ' ') ++at_;
    }
    bool take(std::string_view sign) {
        space();
        if (!std::string_view(text_).substr(at_).starts_with(sign)) return false;
        at_ += sign.size();
        return true;
    }
    double sum() {
        double out = product();
        for (;;) {
            if (take("+"))
                out += product();
            else if (take("−"))
                out -= product();
            else
                return out;
        }
    }
    double product() {
        double out = factor();
        for (;;) {
            if (take("·"))
                out *= factor();
            else if (take("/"))
                out /= factor();
            else
                return out;
        }
    }
    double factor() {
        if (take("−")) return -factor();
        double out = atom();
        while (take("²")) out *= out;
        return out;
    }
    double atom() {
        space();
        if (take("(")) {
            const double out = sum();
            if (!take(")")) fail("no closing bracket");
            return out;
        }
        if (take("√")) return std::sqrt(arguments().at(0));
        if (at_ < text_.size() && (std::isdigit(static_cast<unsigned char>(text_[at_])) != 0)) {
            std::size_t used = 0;
            const double out = std::stod(text_.substr(at_), &used);
            at_ += used;
            return out;
        }
        std::string name;
        while (at_ < text_.size()) {
            const auto c = static_cast<unsigned char>(text_[at_]);
            // Greek letters are 0xCE and 0xCF with one more byte; every sign of the formula begins otherwise.
            if (c == 0xCE || c == 0xCF) {
                name += text_.substr(at_, 2);
                at_ += 2;
            } else if (std::isalnum(c) != 0 || c == '_') {
                name += text_[at_++];
            } else {
                break;
            }
        }
        if (name.empty()) fail("no name");
        if (name == "π") return std::numbers::pi;
        if (at_ < text_.size() && text_[at_] == '(') return call(name, arguments());
        const auto there = values_.find(name);
        if (there == values_.end()) fail("nothing says what " + name + " is");
        return there->second;
    }
    std::vector<double> arguments() {
        if (!take("(")) fail("no arguments");
        std::vector<double> out{sum()};
        while (take(";")) out.push_back(sum());
        if (!take(")")) fail("no closing bracket");
        return out;
    }
    double call(const std::string& name, const std::vector<double>& a) const {
        if (name == "sin") return std::sin(a.at(0));
        if (name == "cos") return std::cos(a.at(0));
        if (name == "tan") return std::tan(a.at(0));
        if (name == "asin") return std::asin(a.at(0));
        if (name == "atan") return std::atan(a.at(0));
        if (name == "abs") return std::abs(a.at(0));
        if (name == "ln") return std::log(a.at(0));
        if (name == "exp") return std::exp(a.at(0));
        if (name == "round") return std::round(a.at(0));
        if (name == "pow") return std::pow(a.at(0), a.at(1));
        if (name == "min") return std::min(a.at(0), a.at(1));
        if (name == "max") return std::max(a.at(0), a.at(1));
        fail("no function " + name);
    }

    std::string text_;
    const std::map<std::string, double>& values_;
    std::size_t at_ = 0;
};
