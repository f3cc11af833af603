// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"

#include "core/model/acceptable.h"
#include "core/model/overload.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace gantry {
namespace {

/// Walks a project and keeps the path of where it is. With a wanted path it leaves out parts that cannot lead
/// there.
/// @tparam Found what takes its fields, derived from this
template <class Found>
class PathWalker {
public:
    explicit PathWalker(std::string_view wanted = {}) : wanted_(wanted) {}

    template <class T>
    void part(std::string_view key, T& part) {
        enter(key, [&] { describe(found(), part); });
    }
    template <class T>
    void parts(std::string_view key, std::vector<T>& list) {
        enter(key, [&] {
            for (T& element : list) enter(partId(element), [&] { describeElement(found(), element); });
        });
    }
    template <class... Ts>
    void either(std::string_view key, std::variant<Ts...>& choice) {
        enter(key, [&] { describeElement(found(), choice); });
    }
    void texts(std::string_view, std::vector<std::string>&) {}

protected:
    bool wants(std::string_view key) const {
        return wanted_.empty() || (wanted_.size() == path_.size() + key.size() && wanted_.ends_with(key));
    }
    std::string pathOf(std::string_view key) const { return path_ + std::string(key); }

private:
    Found& found() { return static_cast<Found&>(*this); }
    template <class F>
    void enter(std::string_view step, F inside) {
        const std::size_t before = path_.size();
        path_.append(step);
        path_ += '/';
        if (wanted_.empty() || wanted_.starts_with(path_)) inside();
        path_.resize(before);
    }

    std::string_view wanted_;
    std::string path_;
};

class Walker : public PathWalker<Walker> {
public:
    explicit Walker(std::vector<FieldRef>& out, std::string_view wanted = {})
        : PathWalker(wanted), out_(out) {}

    template <class T>
    void field(const FieldInfo& info, T& target) {
        add(info, &target);
    }
    template <class E>
    void choice(const FieldInfo& info, E& target) {
        ChoiceRef ref{static_cast<int>(target), ChoiceNames<E>::keys, ChoiceNames<E>::labels, &target,
                      [](void* t, int i) { *static_cast<E*>(t) = static_cast<E>(i); }};
        add(info, ref);
    }

private:
    template <class T>
    void add(const FieldInfo& info, T target) {
        if (wants(info.key)) out_.push_back(FieldRef{pathOf(info.key), info, target});
    }

    std::vector<FieldRef>& out_;
};

class EstimatePaths : public PathWalker<EstimatePaths> {
public:
    template <class T>
    void field(const FieldInfo& info, T& target) {
        if constexpr (std::same_as<T, Estimate>) out.emplace_back(&target, pathOf(info.key));
    }
    template <class E>
    void choice(const FieldInfo&, E&) {}

    std::vector<std::pair<const Estimate*, std::string>> out;
};

class EstimateCollector {
public:
    explicit EstimateCollector(std::vector<UncertainInput>& out) : out_(out) {}
    template <class T>
    void field(const FieldInfo& info, T& target) {
        if constexpr (std::same_as<T, Estimate>) out_.push_back({&target, info});
    }
    template <class E>
    void choice(const FieldInfo&, E&) {}
    template <class T>
    void part(std::string_view, T& part) {
        describe(*this, part);
    }
    template <class T>
    void parts(std::string_view, std::vector<T>& list) {
        // Candidates that are not in use change no number of this axis.
        if constexpr (!std::same_as<T, DriveCandidate>)
            for (T& element : list) describeElement(*this, element);
    }
    void texts(std::string_view, const std::vector<std::string>&) {}
    template <class... Ts>
    void either(std::string_view, std::variant<Ts...>& choice) {
        std::visit([&](auto& x) { describe(*this, x); }, choice);
    }

private:
    std::vector<UncertainInput>& out_;
};

template <class T>
std::vector<UncertainInput> collected(T& part, std::size_t about) {
    std::vector<UncertainInput> out;
    out.reserve(about);
    EstimateCollector collector(out);
    describe(collector, part);
    return out;
}

} // namespace

std::vector<FieldRef> allFields(Project& project) {
    std::vector<FieldRef> out;
    Walker walker(out);
    describe(walker, project);
    return out;
}

std::vector<std::pair<const Estimate*, std::string>> pathsOfEstimates(Project& project) {
    EstimatePaths walker;
    describe(walker, project);
    return std::move(walker.out);
}

std::vector<UncertainInput> uncertainInputsOf(Axis& axis) {
    std::vector<UncertainInput> out = collected(axis, 48);
    const auto follows = [&](const Estimate& leader, Estimate& follower) {
        if (leader.value <= 0.0) return;
        for (UncertainInput& input : out)
            if (input.estimate == &leader) input.follower = &follower;
    };
    if (auto* linear = std::get_if<LinearMechanism>(&axis.mechanism))
        follows(linear->runningFriction, linear->staticFriction);
    else if (auto* rotary = std::get_if<RotaryMechanism>(&axis.mechanism))
        follows(rotary->friction, rotary->staticFriction);
    return out;
}

std::vector<UncertainInput> uncertainInputsOf(Supply& supply) {
    return collected(supply, 4);
}

std::vector<UncertainInput> uncertainInputsOf(Base& base) {
    return collected(base, 8);
}

std::vector<UncertainInput> uncertainInputsOf(Head& head) {
    return collected(head, 14);
}

namespace {

template <class T>
std::vector<UncertainInput> collectedOfAll(std::vector<T>& parts) {
    std::vector<UncertainInput> out;
    EstimateCollector collector(out);
    for (T& part : parts) describe(collector, part);
    return out;
}

} // namespace

std::vector<UncertainInput> uncertainInputsOf(std::vector<MassItem>& items) {
    return collectedOfAll(items);
}

std::vector<UncertainInput> uncertainInputsOf(std::vector<RailLoad>& loads) {
    return collectedOfAll(loads);
}

std::vector<Estimate*> estimatesOf(Axis& axis) {
    std::vector<Estimate*> out;
    for (const UncertainInput& input : uncertainInputsOf(axis)) out.push_back(input.estimate);
    return out;
}

std::optional<FieldRef> findField(Project& project, std::string_view path) {
    std::vector<FieldRef> out;
    Walker walker(out, path);
    describe(walker, project);
    if (out.empty()) return std::nullopt;
    return out.front();
}

std::optional<double> numberAt(const Project& project, std::string_view path) {
    // The walk only reads; the const_cast spares a second set of visitors.
    const std::optional<FieldRef> ref = findField(const_cast<Project&>(project), path);
    if (!ref) return std::nullopt;
    if (auto* const* d = std::get_if<double*>(&ref->target)) return **d;
    if (auto* const* e = std::get_if<Estimate*>(&ref->target)) return (*e)->value;
    if (auto* const* i = std::get_if<int*>(&ref->target)) return static_cast<double>(**i);
    if (auto* const* b = std::get_if<bool*>(&ref->target)) return **b ? 1.0 : 0.0;
    return std::nullopt;
}

bool setNumberAt(Project& project, std::string_view path, double value) {
    const std::optional<FieldRef> ref = findField(project, path);
    if (!ref || !std::isfinite(value)) return false;
    if (auto* const* b = std::get_if<bool*>(&ref->target)) {
        **b = value != 0.0;
        return true;
    }
    value = settled(ref->info, value);
    if (value < ref->info.min || value > ref->info.max) return false;
    if (auto* const* d = std::get_if<double*>(&ref->target))
        **d = value;
    else if (auto* const* e = std::get_if<Estimate*>(&ref->target)) {
        // A tolerance that hangs on the length goes with it, unless it was told.
        const bool usual = (*e)->tolerance == usualTolerance(ref->info, (*e)->source, (*e)->value);
        (*e)->value = value;
        if (usual) (*e)->tolerance = usualTolerance(ref->info, (*e)->source, value);
    } else if (auto* const* i = std::get_if<int*>(&ref->target)) {
        if (value != std::floor(value)) return false;
        **i = static_cast<int>(value);
    } else
        return false;
    return true;
}

std::vector<std::string> changedFields(const Project& before, const Project& after) {
    // The walks only read; the const_casts spare a second set of visitors.
    const std::vector<FieldRef> was = allFields(const_cast<Project&>(before)),
                                is = allFields(const_cast<Project&>(after));
    std::unordered_map<std::string_view, const FieldRef*> old;
    for (const FieldRef& f : was) old.emplace(f.path, &f);
    const auto same = [](const FieldRef& a, const FieldRef& b) {
        return std::visit(overload{[](const ChoiceRef& x, const ChoiceRef& y) { return x.index == y.index; },
                                   []<class T>(T* const& x, T* const& y) { return *x == *y; },
                                   [](const auto&, const auto&) { return false; }},
                          a.target, b.target);
    };
    std::vector<std::string> out;
    for (const FieldRef& f : is) {
        const auto it = old.find(f.path);
        if (it == old.end() || !same(*it->second, f)) out.push_back(f.path);
        if (it != old.end()) old.erase(it);
    }
    for (const FieldRef& f : was)
        if (old.contains(f.path)) out.push_back(f.path);
    return out;
}

double clampToField(const FieldInfo& info, double value) {
    return std::clamp(value, info.min, info.max);
}

} // namespace gantry
