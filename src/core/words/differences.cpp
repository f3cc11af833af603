// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/differences.h"

#include "core/model/describe.h"
#include "core/units/text.h"

#include <map>

namespace gantry::words {
namespace {

/// Every field as a line of words: where it is by the user's names, and what it holds.
class Reader {
public:
    struct Field {
        std::string place, value;
    };
    explicit Reader(const Project& project, units::System system) : project_(project), system_(system) {}
    std::vector<std::pair<std::string, Field>> fields; ///< by path, in file order
    std::map<std::string, std::string> elements;       ///< elements of lists: path and name

    void field(const FieldInfo& info, const double& v) { add(info, units::format(v, info.kind, system_, 4)); }
    void field(const FieldInfo& info, const int& v) { add(info, std::to_string(v)); }
    void field(const FieldInfo& info, const bool& v) { add(info, v ? "yes" : "no"); }
    void field(const FieldInfo& info, const std::string& v) {
        if (info.key != "id") add(info, "“" + v.substr(0, 60) + (v.size() > 60 ? "…" : "") + "”");
    }
    void field(const FieldInfo& info, const Estimate& e) {
        add(info, units::format(e.value, info.kind, system_, 4) + " (" +
                      std::string(ChoiceNames<Source>::labels[static_cast<std::size_t>(e.source)]) + ", ±" +
                      units::plainNumber(100.0 * e.tolerance, 1) + " %)");
    }
    template <class E>
    void choice(const FieldInfo& info, const E& v) {
        add(info, std::string(ChoiceNames<E>::labels[static_cast<std::size_t>(v)]));
    }
    template <class T>
    void part(std::string_view key, const T& part) {
        inside(key, {}, [&] { describe(*this, part); });
    }
    template <class T>
    void parts(std::string_view key, const std::vector<T>& list) {
        for (const T& element : list)
            inside(std::string(key) + '/' + std::string(partId(element)), nameOf(element), [&] {
                elements.emplace(path_, place());
                walk(element);
            });
    }
    template <class... Ts>
    void either(std::string_view key, const std::variant<Ts...>& choice) {
        inside(key, {}, [&] { walk(choice); });
    }
    void texts(std::string_view key, const std::vector<std::string>& list) {
        if (key != "told") return; // locks and ids are no part of the rig
        std::string all;
        for (const std::string& line : list) all += (all.empty() ? "" : "; ") + line;
        add(textField("told", "Told of the drive"), all);
    }

private:
    template <class T>
    std::string nameOf(const T& part) const {
        if constexpr (requires { part.movement; }) {
            const Axis* axis = findAxis(project_, part.axis);
            return axis != nullptr ? axis->name : part.axis;
        } else if constexpr (requires { part.name; })
            return part.name.empty() ? std::string(partId(part)) : part.name;
        else
            return std::string(partId(part));
    }
    template <class T>
    void walk(const T& element) {
        if constexpr (requires { element.index(); })
            std::visit(
                [&](const auto& x) {
                    add(kindField, std::string(KindName<std::remove_cvref_t<decltype(x)>>::key));
                    describe(*this, x);
                },
                element);
        else
            describe(*this, element);
    }
    std::string place() const {
        std::string out;
        for (const std::string& n : names_) out += (out.empty() ? "" : ", ") + n;
        return out;
    }
    void add(const FieldInfo& info, std::string value) {
        const std::string where = place();
        fields.push_back({path_ + std::string(info.key),
                          {(where.empty() ? "" : where + ", ") + std::string(info.label), std::move(value)}});
    }
    template <class F>
    void inside(std::string_view step, const std::string& name, F f) {
        const std::size_t before = path_.size();
        path_.append(step) += '/';
        if (!name.empty()) names_.push_back(name);
        f();
        if (!name.empty()) names_.pop_back();
        path_.resize(before);
    }

    const Project& project_;
    units::System system_;
    std::string path_;
    std::vector<std::string> names_;
};

/// Whether a path lies within one of the parts that only one project has.
bool within(const std::string& path, const std::map<std::string, std::string>& parts) {
    const auto after = parts.upper_bound(path);
    return after != parts.begin() && path.starts_with(std::prev(after)->first);
}

/// Parts of one that the other has not, the outermost only.
std::map<std::string, std::string> onlyIn(const Reader& a, const Reader& b) {
    std::map<std::string, std::string> out;
    for (const auto& [path, name] : a.elements)
        if (!b.elements.contains(path) && !within(path, out)) out.emplace(path, name);
    return out;
}

} // namespace

std::vector<std::string> differences(const NamedProject& from, const NamedProject& to, units::System system,
                                     std::size_t most, std::size_t& total) {
    const Project &first = from.project, &second = to.project;
    Reader a(first, system), b(second, system);
    describe(a, first);
    describe(b, second);
    const auto goneParts = onlyIn(a, b), newParts = onlyIn(b, a);
    std::vector<std::string> out;
    total = 0;
    const auto say = [&](std::string line) {
        if (++total <= most) out.push_back(std::move(line));
    };
    for (const auto& [path, name] : goneParts) say(name + ": only in " + std::string(from.name));
    for (const auto& [path, name] : newParts) say(name + ": only in " + std::string(to.name));
    std::map<std::string, const Reader::Field*> others;
    for (const auto& [path, field] : b.fields) others.emplace(path, &field);
    for (const auto& [path, field] : a.fields) {
        if (within(path, goneParts)) continue;
        const auto it = others.find(path);
        if (it == others.end())
            say(field.place + ": " + field.value + " → none");
        else if (it->second->value != field.value)
            say(field.place + ": " + field.value + " → " + it->second->value);
    }
    std::map<std::string, bool> known;
    for (const auto& [path, field] : a.fields) known.emplace(path, true);
    for (const auto& [path, field] : b.fields)
        if (!known.contains(path) && !within(path, newParts)) say(field.place + ": none → " + field.value);
    if (total == 0 && first != second) say("The order of parts, locks, or digits that are not shown");
    return out;
}

} // namespace gantry::words
