// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/project/json_guard.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>
#include <vector>

namespace gantry::io {
namespace {

using nlohmann::json;

/// Counts depth and keys. The library itself has no limit on nesting, and lets a second key overwrite the
/// first.
class Guard : public json::json_sax_t {
public:
    explicit Guard(int deepest) : deepest_(deepest) {}
    std::string objection;

    bool null() override { return true; }
    bool boolean(bool) override { return true; }
    bool number_integer(number_integer_t v) override {
        return exact(v >= -largestWhole && v <= largestWhole, std::to_string(v));
    }
    bool number_unsigned(number_unsigned_t v) override {
        return exact(v <= static_cast<number_unsigned_t>(largestWhole), std::to_string(v));
    }
    bool number_float(number_float_t value, const string_t& text) override {
        if (!std::isfinite(value)) return object("the number " + text.substr(0, 40) + " is too large");
        // Whole numbers beyond 64 bits come as these. Under some locales the library shows another decimal
        // mark.
        return exact(text.find_first_not_of("-0123456789") != string_t::npos, text.substr(0, 40));
    }
    bool string(string_t&) override { return true; }
    bool binary(binary_t&) override { return true; }
    bool start_object(std::size_t) override {
        keys_.emplace_back();
        return deeper();
    }
    bool end_object() override {
        keys_.pop_back();
        --depth_;
        return true;
    }
    bool start_array(std::size_t) override { return deeper(); }
    bool end_array() override {
        --depth_;
        return true;
    }
    bool key(string_t& name) override {
        if (keys_.back().insert(name).second) return true;
        return object("the key “" + name.substr(0, 60) + "” stands twice in one object");
    }
    bool parse_error(std::size_t position, const std::string&,
                     const nlohmann::detail::exception& e) override {
        constexpr int numberOutOfRange = 406; // the library's number for it
        if (e.id == numberOutOfRange) objection = "a number in it is too large";
        position_ = position;
        return false;
    }
    std::size_t position() const { return position_; }

private:
    /// Whole numbers beyond 2^53 would come back as others.
    static constexpr number_integer_t largestWhole = 9007199254740992;
    bool exact(bool is, const std::string& text) {
        return is || object("the whole number " + text +
                            " has more digits than are kept (at most 9007199254740992)");
    }
    bool object(std::string why) {
        objection = std::move(why);
        return false;
    }
    bool deeper() {
        return ++depth_ <= deepest_ ||
               object("it is nested deeper than " + std::to_string(deepest_) + " levels");
    }

    int deepest_;
    int depth_ = 0;
    std::size_t position_ = 0;
    std::vector<std::set<std::string>> keys_;
};

} // namespace

std::string jsonObjection(std::string_view text, int deepest) {
    Guard guard(deepest);
    if (json::sax_parse(text.begin(), text.end(), &guard)) return {};
    if (!guard.objection.empty()) return guard.objection;
    const std::string_view before = text.substr(0, std::min(guard.position(), text.size()));
    const auto line = std::count(before.begin(), before.end(), '\n') + 1;
    const auto lastBreak = before.rfind('\n');
    const std::size_t column =
        lastBreak == std::string_view::npos ? before.size() : before.size() - lastBreak;
    return "it is not valid JSON near line " + std::to_string(line) + ", column " + std::to_string(column);
}

} // namespace gantry::io
