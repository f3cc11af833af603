// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/words/input_name.h"

#include "core/model/fields.h"
#include "core/model/kinds.h"
#include "core/units/text.h"

#include <algorithm>
#include <cctype>

namespace gantry::words {
namespace {

/// The step of a path behind a list's name: "items/camera/mass_kg" behind "items" is "camera". Looks into the
/// path that is given.
std::string_view after(std::string_view path, std::string_view list) {
    for (std::size_t at = path.find(list); at != std::string_view::npos; at = path.find(list, at + 1)) {
        const std::size_t end = at + list.size();
        if ((at > 0 && path[at - 1] != '/') || end >= path.size() || path[end] != '/') continue;
        const std::string_view rest = path.substr(end + 1);
        return rest.substr(0, rest.find('/'));
    }
    return {};
}

std::string quoted(std::string_view name) {
    return "“" + std::string(name) + "”";
}

std::string lowered(std::string_view label) {
    std::string out(label);
    // An abbreviation stays as it is.
    if (out.size() > 1 && std::islower(static_cast<unsigned char>(out[1])) != 0)
        out[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(out[0])));
    return out;
}

std::string ofItem(const std::vector<MassItem>& items, std::string_view id) {
    const auto it = std::find_if(items.begin(), items.end(), [&](const MassItem& m) { return m.id == id; });
    return it != items.end() && !it->name.empty() ? " of " + quoted(it->name) : std::string();
}

/// What the input belongs to, to follow its label.
std::string owner(const Project& project, std::string_view path, std::string_view axisId) {
    if (path.starts_with("payload/")) return ofItem(project.payload, after(path, "payload"));
    if (path.starts_with("base/")) return path.ends_with("/mass_kg") ? " of the base" : "";
    if (!path.starts_with("axes/")) return {};
    const std::string_view id = after(path, "axes");
    const Axis* axis = findAxis(project, id);
    if (axis == nullptr) return {};
    std::string out;
    if (const std::string_view link = after(path, "links"); !link.empty()) {
        for (const Link& l : axis->links)
            if (partId(l) == link) out = " of the " + lowered(labelOf(l));
    } else if (const std::string_view item = after(path, "items"); !item.empty())
        out = std::visit([&](const auto& m) { return ofItem(m.items, item); }, axis->mechanism);
    if (id != axisId) out += ", " + axis->name;
    return out;
}

} // namespace

std::string inputLabel(const Project& project, std::string_view path, std::string_view axis) {
    const std::optional<FieldRef> field = findField(const_cast<Project&>(project), path);
    return field ? "the " + lowered(field->info.label) + owner(project, path, axis) : std::string();
}

std::string inputName(const Project& project, std::string_view path, std::string_view axis,
                      units::System system) {
    // The walk only reads; the const_cast spares a second set of visitors.
    const std::optional<FieldRef> field = findField(const_cast<Project&>(project), path);
    if (!field || !std::holds_alternative<Estimate*>(field->target)) return {};
    const Estimate& e = *std::get<Estimate*>(field->target);
    return inputLabel(project, path, axis) + " (" + units::format(e.value, field->info.kind, system) + " ±" +
           units::plainNumber(100.0 * e.tolerance, 1) + " %, " +
           std::string(ChoiceNames<Source>::labels[static_cast<std::size_t>(e.source)]) + ")";
}

} // namespace gantry::words
