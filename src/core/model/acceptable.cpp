// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/acceptable.h"

#include "core/model/describe.h"
#include "core/model/size_limits.h"
#include "core/units/kind.h"
#include "core/units/plain_text.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <tuple>

namespace gantry {
namespace {

/// Letters of a text in UTF-8 (Unicode code points).
std::size_t lettersOf(std::string_view text) {
    return static_cast<std::size_t>(std::count_if(
        text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

std::string number(double v) {
    std::array<char, 40> text{};
    const auto [end, problem] = std::to_chars(text.data(), text.data() + text.size(), v);
    return problem == std::errc() ? std::string(text.data(), end) : std::string();
}

/// Walks a project and keeps where it is, in the file's keys and in the user's names.
class Checker {
public:
    explicit Checker(const Project& project) : project_(project) {}
    std::string objection;

    void field(const FieldInfo& info, const double& v) { range(info, v); }
    void field(const FieldInfo& info, const int& v) { range(info, v); }
    void field(const FieldInfo&, const bool&) {}
    void field(const FieldInfo& info, const std::string& v) { text(info.label, info.key, v, mostLetters); }
    void field(const FieldInfo& info, const Estimate& e) {
        range(info, e.value);
        if (!(e.tolerance >= 0.0 && e.tolerance <= 10.0))
            object(info.label, info.key,
                   "has a tolerance of " + number(e.tolerance) + "; it takes 0 to 10 (1000 %).");
    }
    template <class E>
    void choice(const FieldInfo& info, const E& v) {
        if (static_cast<std::size_t>(v) >= ChoiceNames<E>::keys.size())
            object(info.label, info.key, "has no such choice.");
    }
    template <class T>
    void part(std::string_view key, const T& part) {
        inside(key, {}, [&] { describe(*this, part); });
    }
    template <class T>
    void parts(std::string_view key, const std::vector<T>& list) {
        if (list.size() > mostOf(key))
            object({}, key,
                   "holds " + std::to_string(list.size()) + " entries; at most " +
                       std::to_string(mostOf(key)) + " are possible. Remove some first.");
        for (const T& element : list) {
            const std::size_t before = steps_.size();
            steps_.push_back(key);
            inside(partId(element), nameOfPart(element), [&] { describeElement(*this, element); });
            steps_.resize(before);
        }
    }
    template <class... Ts>
    void either(std::string_view key, const std::variant<Ts...>& choice) {
        inside(key, {}, [&] { describeElement(*this, choice); });
    }
    void texts(std::string_view key, const std::vector<std::string>& list) {
        if (list.size() > mostTextsOf(key))
            object({}, key,
                   "holds " + std::to_string(list.size()) + " entries; at most " +
                       std::to_string(mostTextsOf(key)) + " are possible.");
        for (const std::string& s : list) text({}, key, s, mostLettersOfOne);
    }

private:
    template <class T>
    std::string_view nameOfPart(const T& part) const {
        if constexpr (requires { part.movement; }) {
            const Axis* axis = findAxis(project_, part.axis);
            return axis != nullptr ? std::string_view(axis->name) : std::string_view();
        } else if constexpr (requires { part.name; })
            return part.name;
        else
            return {};
    }
    template <class F>
    void inside(std::string_view step, std::string_view name, F f) {
        steps_.push_back(step);
        if (!name.empty()) names_.push_back(name);
        f();
        if (!name.empty()) names_.pop_back();
        steps_.pop_back();
    }
    void range(const FieldInfo& info, double v) {
        if (v >= info.min && v <= info.max) return;
        object(info.label, info.key,
               "is " + (std::isfinite(v) ? number(v) : std::string("no number")) + "; it takes " +
                   number(info.min) + " to " + number(info.max) + ".");
    }
    void text(std::string_view label, std::string_view key, const std::string& v, std::size_t most) {
        if (!units::isPlainText(v))
            object(label, key, "holds characters that cannot be shown. Type it anew.");
        else if (v.size() > most && lettersOf(v) > most)
            object(label, key,
                   "has " + std::to_string(lettersOf(v)) + " letters; at most " + std::to_string(most) +
                       " are possible. Shorten it.");
    }
    void object(std::string_view label, std::string_view key, const std::string& what) {
        if (!objection.empty()) return;
        std::string path;
        for (const std::string_view s : steps_) path.append(s) += '/';
        path += key;
        std::string words;
        for (const std::string_view n : names_) words.append(n) += ", ";
        words += label;
        if (label.empty() && words.size() > 2) words.resize(words.size() - 2);
        objection = words.empty() ? path + " " + what : words + " (" + path + ") " + what;
    }

    const Project& project_;
    std::vector<std::string_view> steps_, names_;
};

/// Sets what is too small to be real to 0, and makes texts plain.
class Settler {
public:
    void field(const FieldInfo& info, double& v) { v = settled(info, v); }
    void field(const FieldInfo& info, Estimate& e) {
        e.value = settled(info, e.value);
        if (e.tolerance < 1e-9) e.tolerance = 0.0;
    }
    void field(const FieldInfo&, std::string& s) { text(s); }
    void field(const FieldInfo&, int&) {}
    void field(const FieldInfo&, bool&) {}
    template <class E>
    void choice(const FieldInfo&, E&) {}
    template <class T>
    void part(std::string_view, T& part) {
        describe(*this, part);
    }
    template <class T>
    void parts(std::string_view, std::vector<T>& list) {
        for (T& element : list) describeElement(*this, element);
    }
    template <class... Ts>
    void either(std::string_view, std::variant<Ts...>& choice) {
        describeElement(*this, choice);
    }
    void texts(std::string_view, std::vector<std::string>& list) {
        for (std::string& s : list) text(s);
    }

private:
    static void text(std::string& s) {
        if (!units::isPlainText(s)) s = units::plainText(s);
    }
};

/// Brings numbers into the ranges of their fields.
class Clamper {
public:
    void field(const FieldInfo& info, double& v) { v = std::clamp(v, info.min, info.max); }
    void field(const FieldInfo& info, Estimate& e) { e.value = std::clamp(e.value, info.min, info.max); }
    void field(const FieldInfo& info, int& v) {
        v = static_cast<int>(std::clamp<double>(v, std::ceil(info.min), std::floor(info.max)));
    }
    template <class T>
    void field(const FieldInfo&, T&) {}
    template <class E>
    void choice(const FieldInfo&, E&) {}
};

/// Counts what the writer writes, line by line, rounded up.
class Meter {
public:
    std::size_t bytes = 200;

    void field(const FieldInfo& info, const Estimate&) {
        line(info.key, 2);
        bytes += 3 * (indent() + 4) + 90;
    }
    void field(const FieldInfo& info, const std::string& s) { line(info.key, escaped(s)); }
    template <class T>
    void field(const FieldInfo& info, const T&) {
        line(info.key, 26);
    }
    template <class E>
    void choice(const FieldInfo& info, const E&) {
        line(info.key, 40);
    }
    template <class T>
    void part(std::string_view key, const T& part) {
        block(key, [&] { describe(*this, part); });
    }
    template <class T>
    void parts(std::string_view key, const std::vector<T>& list) {
        block(key, [&] {
            for (const T& element : list) block({}, [&] { describeElement(*this, element); });
        });
    }
    template <class... Ts>
    void either(std::string_view key, const std::variant<Ts...>& choice) {
        block(key, [&] { describeElement(*this, choice); });
    }
    void texts(std::string_view key, const std::vector<std::string>& list) {
        block(key, [&] {
            for (const std::string& s : list) line({}, escaped(s));
        });
    }
    static std::size_t escaped(std::string_view s) {
        std::size_t n = 2;
        for (const char c : s) n += static_cast<unsigned char>(c) < 0x20 ? 6 : c == '"' || c == '\\' ? 2 : 1;
        return n;
    }

private:
    std::size_t indent() const { return 2 * depth_ + 2; }
    void line(std::string_view key, std::size_t value) { bytes += indent() + key.size() + value + 7; }
    template <class F>
    void block(std::string_view key, F f) {
        line(key, 2);
        ++depth_;
        f();
        --depth_;
        bytes += indent() + 3;
    }
    template <class T>
    void walk(const T& element) {
        if constexpr (requires { element.index(); }) {
            line("kind", 40);
            std::visit([&](const auto& x) { describe(*this, x); }, element);
        } else
            describe(*this, element);
    }

    std::size_t depth_ = 0;
};

} // namespace

double settled(const FieldInfo& info, double value) {
    return std::abs(value) < units::leastMagnitude(info.kind) && info.min <= 0.0 && info.max >= 0.0 ? 0.0
                                                                                                    : value;
}

void clampToFields(Link& link) {
    Clamper clamper;
    std::visit([&](auto& l) { describe(clamper, l); }, link);
}

void settle(Project& project) {
    Settler settler;
    describe(settler, project);
    const auto byPlace = [](const KeptKey& a, const KeptKey& b) {
        return std::tie(a.owner, a.key) < std::tie(b.owner, b.key);
    };
    if (!std::is_sorted(project.kept.begin(), project.kept.end(), byPlace))
        std::sort(project.kept.begin(), project.kept.end(), byPlace);
}

std::string objectionTo(const Project& project) {
    Checker checker(project);
    describe(checker, project);
    if (!checker.objection.empty()) return checker.objection;
    std::size_t movements = 0;
    for (const Shot& shot : project.shots) movements += shot.moves.size();
    if (movements > mostMovements)
        return "the shots move axes " + std::to_string(movements) + " times in all; at most " +
               std::to_string(mostMovements) + " are possible. Leave axes at rest, or split the project.";
    std::size_t places = 0;
    for (const RigMove& move : project.moves)
        for (const KeyPose& pose : move.poses) places += pose.places.size();
    if (places > mostPlaces)
        return "the moves' poses place axes " + std::to_string(places) + " times in all; at most " +
               std::to_string(mostPlaces) + " are possible. Remove moves, or split the project.";
    std::size_t parts = 0;
    for (const Axis& axis : project.axes)
        parts += axis.links.size() + std::visit([](const auto& m) { return m.items.size(); }, axis.mechanism);
    if (parts > mostAxisParts)
        return "the axes have " + std::to_string(parts) + " links and items in all; at most " +
               std::to_string(mostAxisParts) + " are possible. Combine some, or split the project.";
    if (project.kept.size() > mostKeptKeys)
        return "the file holds " + std::to_string(project.kept.size()) +
               " keys that are not understood; at most " + std::to_string(mostKeptKeys) +
               " are possible. Remove them with a text editor.";
    const std::vector<std::string> wrong = inconsistencies(project);
    return wrong.empty() ? std::string() : wrong.front();
}

std::size_t writtenSizeAtMost(const Project& project) {
    Meter meter;
    describe(meter, project);
    for (const KeptKey& k : project.kept) meter.bytes += Meter::escaped(k.key) + k.rawJson.size() + 40;
    return meter.bytes;
}

} // namespace gantry
