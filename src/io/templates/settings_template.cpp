// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/templates/settings_template.h"

#include <algorithm>
#include <kainjow/mustache.hpp>
#include <stdexcept>

namespace gantry::io {
namespace {

using kainjow::mustache::data;
using Template = kainjow::mustache::mustache;

constexpr int mostLookups = 200'000;

struct Refused : std::runtime_error {
    using std::runtime_error::runtime_error;
};

/// Finds names in the data and notes those that are not there. Partials could take a project's own text as a
/// template, so there are none.
class Context : public kainjow::mustache::context<std::string> {
public:
    Context(const data& root, std::vector<std::string>& missing) : context(&root), missing_(missing) {}

    const data* get(const std::string& name) const override {
        if (++lookups_ > mostLookups)
            throw Refused("the template asks for too many values; does a section repeat itself?");
        const data* found = context::get(name);
        if (found == nullptr && std::find(missing_.begin(), missing_.end(), name) == missing_.end())
            missing_.push_back(name);
        return found;
    }
    const data* get_partial(const std::string& name) const override {
        throw Refused("the template uses the partial “" + name +
                      "”; partials are not supported. Copy its text in.");
    }

private:
    std::vector<std::string>& missing_;
    mutable int lookups_ = 0;
};

std::string identifier(std::string_view text) {
    std::string out;
    for (const char c : text) {
        const bool letter = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
        out += letter ? (c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c) : '_';
    }
    if (!out.empty() && out.front() >= '0' && out.front() <= '9') out.insert(out.begin(), '_');
    return out;
}

/// An empty text opens a section in this library; false does not.
data textOrFalse(const std::string& text) {
    return text.empty() ? data{data::type::bool_false} : data{text};
}

data dataOf(const Setting& s, std::size_t number, bool last) {
    data d{data::type::object};
    d.set("key", s.key);
    d.set("KEY", identifier(s.key));
    d.set("label", s.label);
    d.set("value", s.value);
    d.set("unit", textOrFalse(s.unit));
    d.set("note", textOrFalse(s.note));
    d.set("number", std::to_string(number));
    d.set("known", data{s.value.empty() ? data::type::bool_false : data::type::bool_true});
    d.set("numeric", data{!s.value.empty() && (s.value.front() == '-' ||
                                               (s.value.front() >= '0' && s.value.front() <= '9'))
                              ? data::type::bool_true
                              : data::type::bool_false});
    d.set("last", data{last ? data::type::bool_true : data::type::bool_false});
    return d;
}

data dataOf(const SettingsSheet& sheet) {
    data axes{data::type::list};
    for (std::size_t i = 0; i < sheet.axes.size(); ++i) {
        const AxisSettings& a = sheet.axes[i];
        data axis{data::type::object};
        axis.set("id", a.id);
        axis.set("ID", identifier(a.id));
        axis.set("name", a.name);
        axis.set("kind", a.kind);
        axis.set("axis_unit", a.unit);
        axis.set("index", std::to_string(i));
        axis.set("axis_number", std::to_string(i + 1));
        data rows{data::type::list};
        for (std::size_t k = 0; k < a.rows.size(); ++k) {
            axis.set(a.rows[k].key, a.rows[k].value);
            rows.push_back(dataOf(a.rows[k], k + 1, k + 1 == a.rows.size()));
        }
        axis.set("settings", rows);
        axes.push_back(axis);
    }
    data cautions{data::type::list};
    for (const std::string& c : sheet.cautions) {
        data entry{data::type::object};
        entry.set("caution", c);
        cautions.push_back(entry);
    }
    data root{data::type::object};
    root.set("project", sheet.project);
    root.set("controller", sheet.controller);
    root.set("axis_count", std::to_string(sheet.axes.size()));
    root.set("axes", axes);
    root.set("cautions", cautions);
    return root;
}

/// Deepest nesting of sections, counted on the text since the library recurses without a limit.
int sectionDepth(std::string_view text) {
    int depth = 0, deepest = 0;
    for (std::size_t at = text.find("{{"); at != std::string_view::npos; at = text.find("{{", at + 2)) {
        std::size_t k = at + 2;
        while (k < text.size() && (text[k] == ' ' || text[k] == '\t')) ++k;
        if (k >= text.size()) break;
        if (text[k] == '#' || text[k] == '^')
            deepest = std::max(deepest, ++depth);
        else if (text[k] == '/')
            depth = std::max(0, depth - 1);
    }
    return deepest;
}

/// A tag that changes the delimiters would hide sections from the count above.
bool changesDelimiters(std::string_view text) {
    for (std::size_t at = text.find("{{"); at != std::string_view::npos; at = text.find("{{", at + 2)) {
        std::size_t k = at + 2;
        while (k < text.size() && (text[k] == ' ' || text[k] == '\t')) ++k;
        if (k < text.size() && text[k] == '=') return true;
    }
    return false;
}

} // namespace

FilledTemplate fillTemplate(std::string_view mustache, const SettingsSheet& sheet) {
    FilledTemplate out;
    if (mustache.size() > largestTemplate) {
        out.error = "The template is larger than 256 KiB. Is it the right file?";
        return out;
    }
    if (changesDelimiters(mustache)) {
        out.error = "The template changes its delimiters with {{= =}}; keep to {{ and }}.";
        return out;
    }
    if (sectionDepth(mustache) > deepestTemplate) {
        out.error = "The template has sections more than 32 deep. Flatten it.";
        return out;
    }
    try {
        Template filled{std::string(mustache)};
        if (!filled.is_valid()) {
            out.error = "The template cannot be read: " + filled.error_message();
            return out;
        }
        filled.set_custom_escape([](const std::string& s) { return s; });
        const data root = dataOf(sheet);
        Context context(root, out.missingNames);
        out.text = filled.render(context);
        if (!filled.is_valid()) out.error = "The template cannot be filled: " + filled.error_message();
    } catch (const Refused& refused) {
        out.error = std::string("The template cannot be filled: ") + refused.what();
    }
    if (!out.error.empty()) out.text.clear();
    return out;
}

} // namespace gantry::io
