// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/project_change.h"

#include "core/model/describe.h"

#include <algorithm>
#include <tuple>

namespace gantry {
namespace {

/// Memory behind a part beyond its own size.
class Footprint {
public:
    std::size_t bytes = 0;

    template <class T>
    void field(const FieldInfo&, const T& target) {
        if constexpr (std::same_as<T, std::string>) bytes += target.size();
    }
    template <class E>
    void choice(const FieldInfo&, const E&) {}
    template <class T>
    void part(std::string_view, const T& part) {
        describe(*this, part);
    }
    template <class T>
    void parts(std::string_view, const std::vector<T>& list) {
        for (const T& element : list) add(element);
    }
    template <class... Ts>
    void either(std::string_view, const std::variant<Ts...>& choice) {
        std::visit([&](const auto& x) { describe(*this, x); }, choice);
    }
    void texts(std::string_view, const std::vector<std::string>& list) {
        for (const std::string& s : list) add(s);
    }

    template <class T>
    void add(const T& value) {
        bytes += sizeof(T);
        if constexpr (std::same_as<T, std::string>)
            bytes += value.size();
        else if constexpr (std::same_as<T, KeptKey>)
            bytes += value.owner.size() + value.key.size() + value.rawJson.size();
        else if constexpr (requires { value.index(); })
            std::visit([&](const auto& x) { describe(*this, x); }, value);
        else
            describe(*this, value);
    }
};

template <class T>
struct MemberChange {
    std::unique_ptr<std::pair<T, T>> values; ///< before and after, where they differ

    MemberChange(const T& before, const T& after) {
        if (before != after) values = std::make_unique<std::pair<T, T>>(before, after);
    }
    bool empty() const { return values == nullptr; }
    void apply(T& value, bool forward) const {
        if (values != nullptr) value = forward ? values->second : values->first;
    }
    void measure(Footprint& f) const {
        if (values == nullptr) return;
        f.add(values->first);
        f.add(values->second);
    }
};

template <class T>
struct MemberChange<std::vector<T>> {
    std::size_t at = 0;
    std::vector<T> before, after;

    MemberChange(const std::vector<T>& a, const std::vector<T>& b) {
        const std::size_t most = std::min(a.size(), b.size());
        while (at < most && a[at] == b[at]) ++at;
        std::size_t tail = 0;
        while (tail < most - at && a[a.size() - 1 - tail] == b[b.size() - 1 - tail]) ++tail;
        const auto middle = [&](const std::vector<T>& list) {
            return std::vector<T>(list.begin() + static_cast<std::ptrdiff_t>(at),
                                  list.end() - static_cast<std::ptrdiff_t>(tail));
        };
        before = middle(a);
        after = middle(b);
    }
    bool empty() const { return before.empty() && after.empty(); }
    void apply(std::vector<T>& list, bool forward) const {
        if (empty()) return;
        const std::vector<T>&old = forward ? before : after, &fresh = forward ? after : before;
        const auto from = list.begin() + static_cast<std::ptrdiff_t>(at);
        const auto place = list.erase(from, from + static_cast<std::ptrdiff_t>(old.size()));
        list.insert(place, fresh.begin(), fresh.end());
    }
    void measure(Footprint& f) const {
        for (const T& element : before) f.add(element);
        for (const T& element : after) f.add(element);
    }
};

/// Every member of a project. One that is missing here is found by the test of random pairs.
constexpr auto members =
    std::tuple{&Project::name,      &Project::notes,      &Project::camera,  &Project::conditions,
               &Project::supply,    &Project::controller, &Project::base,    &Project::head,
               &Project::equipment, &Project::payload,    &Project::keepOut, &Project::kits,
               &Project::profiles,  &Project::later,      &Project::tests,   &Project::axes,
               &Project::shots,     &Project::moves,      &Project::plans,   &Project::lockedFields,
               &Project::setAside,  &Project::retiredIds, &Project::kept};

template <class... Ts>
std::tuple<MemberChange<Ts>...> changesOf(const Project& a, const Project& b, Ts Project::*... member) {
    return {MemberChange<Ts>(a.*member, b.*member)...};
}

template <class... Ts>
std::tuple<MemberChange<Ts>...> typeOf(const std::tuple<Ts Project::*...>&);
using Changes = decltype(typeOf(members));

} // namespace

struct ProjectChange::Parts {
    Changes changes;

    template <class F>
    void each(F f) const {
        [&]<std::size_t... I>(std::index_sequence<I...>) {
            (f(std::get<I>(changes), std::get<I>(members)), ...);
        }
        (std::make_index_sequence<std::tuple_size_v<Changes>>{});
    }
};

ProjectChange::ProjectChange(const Project& before, const Project& after)
    : parts_(new Parts{
          std::apply([&](auto... member) { return changesOf(before, after, member...); }, members)}) {
    Footprint f;
    parts_->each([&](const auto& change, auto) { change.measure(f); });
    bytes_ = f.bytes + sizeof(Parts);
}
ProjectChange::ProjectChange(ProjectChange&&) noexcept = default;
ProjectChange& ProjectChange::operator=(ProjectChange&&) noexcept = default;
ProjectChange::~ProjectChange() = default;

bool ProjectChange::empty() const {
    bool all = true;
    parts_->each([&](const auto& change, auto) { all = all && change.empty(); });
    return all;
}
void ProjectChange::redo(Project& project) const {
    parts_->each([&](const auto& change, auto member) { change.apply(project.*member, true); });
}
void ProjectChange::undo(Project& project) const {
    parts_->each([&](const auto& change, auto member) { change.apply(project.*member, false); });
}

} // namespace gantry
