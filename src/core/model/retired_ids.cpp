// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/retired_ids.h"

#include "core/model/describe.h"
#include "core/model/size_limits.h"

#include <algorithm>
#include <charconv>
#include <set>

namespace gantry {
namespace {

struct Numbered {
    std::string_view family;
    int number = 1;
};

/// "slide-12" is the twelfth of the family "slide", "slide" the first.
Numbered numbered(std::string_view id) {
    const auto dash = id.rfind('-');
    int n = 0;
    if (dash != std::string_view::npos && dash > 0 && dash + 1 < id.size()) {
        const auto [end, problem] = std::from_chars(id.data() + dash + 1, id.data() + id.size(), n);
        if (problem == std::errc() && end == id.data() + id.size() && n >= 2) return {id.substr(0, dash), n};
    }
    return {id, 1};
}

/// Places of all elements of lists, with the path that keys not understood and locks give them.
struct Places {
    std::set<std::string, std::less<>> paths;
    std::set<std::string, std::less<>> ids;
};

/// Of an outline, what no id is made of.
constexpr char endOfLine = '\x1e', beforeId = '\x1f';

/// Those places in one text, a line each in file order, of which each edit compares two: a path, and behind
/// it the id where it is one that may be retired.
class Outline {
public:
    std::string lines;

    template <class T>
    void field(const FieldInfo&, const T&) {}
    template <class E>
    void choice(const FieldInfo&, const E&) {}
    template <class T>
    void part(std::string_view key, const T& part) {
        inside(key, [&] { describe(*this, part); });
    }
    template <class T>
    void parts(std::string_view key, const std::vector<T>& list) {
        for (const T& element : list) {
            const auto look = [&] {
                lines.append(path_, 0, path_.size() - 1);
                if constexpr (
                    requires { element.id; } || requires { element.index(); })
                    if constexpr (!std::same_as<T, DriveCandidate>) (lines += beforeId) += partId(element);
                lines += endOfLine;
                describeElement(*this, element);
            };
            inside(key, [&] { inside(partId(element), look); });
        }
    }
    template <class... Ts>
    void either(std::string_view key, const std::variant<Ts...>& choice) {
        inside(key, [&] { describeElement(*this, choice); });
    }
    void texts(std::string_view, const std::vector<std::string>&) {}

private:
    template <class F>
    void inside(std::string_view step, F f) {
        const std::size_t before = path_.size();
        path_.append(step) += '/';
        f();
        path_.resize(before);
    }
    std::string path_;
};

std::string outlineOf(const Project& project) {
    Outline outline;
    describe(outline, project);
    return std::move(outline.lines);
}

Places placesOf(std::string_view outline) {
    Places places;
    while (!outline.empty()) {
        const std::string_view line = outline.substr(0, outline.find(endOfLine));
        outline.remove_prefix(line.size() + 1);
        const std::size_t space = line.find(beforeId);
        places.paths.emplace(line.substr(0, space));
        if (space != std::string_view::npos) places.ids.emplace(line.substr(space + 1));
    }
    return places;
}

} // namespace

bool isWithin(std::string_view path, std::string_view place) {
    return path.starts_with(place) && (path.size() == place.size() || path[place.size()] == '/');
}

void retireId(Project& project, std::string_view id) {
    const Numbered gone = numbered(id);
    for (std::string& known : project.retiredIds)
        if (const Numbered k = numbered(known); k.family == gone.family) {
            if (k.number < gone.number) known = id;
            return;
        }
    // A full list would make the file unreadable; by then ids are numbers nobody remembers.
    if (project.retiredIds.size() < mostLinkedTexts && id.size() <= mostLettersOfOne)
        project.retiredIds.emplace_back(id);
}

bool isRetired(const Project& project, std::string_view id) {
    const Numbered wanted = numbered(id);
    for (const std::string& known : project.retiredIds)
        if (const Numbered k = numbered(known); k.family == wanted.family) return wanted.number <= k.number;
    return false;
}

void copyKept(Project& project, std::string_view from, std::string_view to) {
    std::vector<KeptKey> copies;
    for (const KeptKey& k : project.kept)
        if (isWithin(k.owner, from))
            copies.push_back({std::string(to) + k.owner.substr(from.size()), k.key, k.rawJson});
    project.kept.insert(project.kept.end(), copies.begin(), copies.end());
}

void settleRemoved(const Project& before, Project& next) {
    // A version that is put back knows nothing of what was retired since.
    for (const std::string& id : before.retiredIds) retireId(next, id);
    const std::string old = outlineOf(before), now = outlineOf(next);
    if (old == now) return; // nothing was removed, as mostly
    const Places was = placesOf(old), is = placesOf(now);
    for (const std::string& id : was.ids)
        if (!is.ids.contains(id)) retireId(next, id);
    std::vector<std::string_view> gone;
    for (const std::string& path : was.paths)
        if (!is.paths.contains(path)) gone.push_back(path);
    if (gone.empty()) return;
    const auto isGone = [&](std::string_view path) {
        return std::any_of(gone.begin(), gone.end(), [&](std::string_view g) { return isWithin(path, g); });
    };
    std::erase_if(next.lockedFields, isGone);
    for (RigMove& move : next.moves) {
        if (isGone("shots/" + move.shot)) move.shot.clear();
        for (KeyPose& pose : move.poses)
            if (isGone("moves/" + move.id + "/targets/" + pose.arrive.target)) {
                pose.arrive.target.clear();
                pose.arrive.kind = SegmentKind::Straight;
            }
    }
    for (IntervalPlan& plan : next.plans) {
        if (isGone("moves/" + plan.move)) plan.move.clear();
        if (isGone("shots/" + plan.shot)) plan.shot.clear();
    }
    std::erase_if(next.kept, [&](const KeptKey& k) { return isGone(k.owner); });
    std::erase_if(next.setAside, [&](const SetAside& s) {
        const auto missing = [&](const char* list, const std::string& id) {
            const std::string place = list + id;
            return !id.empty() && was.paths.contains(place) && !is.paths.contains(place);
        };
        return missing("axes/", s.axis) || missing("shots/", s.shot);
    });
}

} // namespace gantry
