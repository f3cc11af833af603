// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/words/messages.h"

#include <nlohmann/json.hpp>
#include <string>
#include <string_view>

namespace gantry::io {

using Json = nlohmann::ordered_json;

/// Puts a null under a key, and why under `<key>_why`.
void putNone(Json& j, const std::string& key, std::string_view why);

/// Puts a figure under a key: its number in `unit`, or null and the reason under `<key>_why`.
void put(Json& j, const std::string& key, const Figure& f, double unit = 1.0);

/// Writes described results into a JSON object: a figure as its number or null and why, a part as an object
/// of its own, a list as an array.
class ResultsWriter {
public:
    ResultsWriter(Json& j, const Project& project, const Axis* axis, bool onlyWhatApplies = false)
        : j_(j), project_(project), axis_(axis), onlyWhatApplies_(onlyWhatApplies) {}

    void figure(const FigureInfo& info, const Figure& f) {
        if (onlyWhatApplies_ && f.reason() == Reason::NotApplicable) return;
        put(j_, std::string(info.keyFor(linear())), f, info.unit);
    }
    void flag(const FigureInfo& info, bool value) { j_[std::string(info.keyFor(linear()))] = value; }
    template <class T>
    void rank(const FigureInfo& info, const T& value) {
        j_[std::string(info.keyFor(linear()))] = static_cast<int>(value);
    }
    template <class E>
    void outcome(const FigureInfo& info, const E& value) {
        j_[std::string(info.keyFor(linear()))] = ChoiceNames<E>::keys[static_cast<std::size_t>(value)];
    }
    template <class T>
    void part(std::string_view key, const T& results) {
        j_[std::string(key)] = object(results);
    }
    template <class T>
    void list(std::string_view key, const std::vector<T>& all) {
        Json array = Json::array();
        for (const T& one : all) array.push_back(object(one));
        j_[std::string(key)] = std::move(array);
    }

private:
    bool linear() const { return axis_ == nullptr || kindOf(*axis_) == AxisKind::Linear; }

    template <class T>
    Json object(const T& results) {
        Json child = Json::object();
        if (startObject(child, results)) {
            ResultsWriter writer(child, project_, axis_, printsOnlyWhatApplies<T>);
            describe(writer, results);
        }
        return child;
    }
    /// What tells one object of a list from another, or why there is nothing in it (then false).
    template <class T>
    bool startObject(Json&, const T&) {
        return true;
    }
    bool startObject(Json& child, const ShotEvaluation& s) {
        child["id"] = project_.shots[s.shot.at()].id;
        return true;
    }
    bool startObject(Json& child, const AxisMoveResults& m) {
        child["id"] = project_.moves[m.move].id;
        return true;
    }
    bool startObject(Json& child, const PartCheck& p) {
        child["part"] =
            p.link < 0 ? std::string("output") : linkId(axis_->links[static_cast<std::size_t>(p.link)]);
        return true;
    }
    bool startObject(Json& child, const AxisStructure& s) {
        if (s.problem != Reason::None) child["why"] = words::reasonText(s.problem);
        return s.problem == Reason::None;
    }

    Json& j_;
    const Project& project_;
    const Axis* axis_;
    bool onlyWhatApplies_;
};

} // namespace gantry::io
