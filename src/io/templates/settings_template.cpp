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

/// Gives the content of every tag, cut as the library's parser cuts it (any white space around it, line
/// breaks too), until `take` says false.
template <class F>
void forEachTag(std::string_view text, F take) {
    for (std::size_t at = text.find("{{"); at != std::string_view::npos;) {
        std::size_t begin = at + 2;
        const bool triple = begin < text.size() && text[begin] == '{';
        if (triple) ++begin;
        const std::size_t end = text.find(triple ? "}}}" : "}}", begin);
        if (end == std::string_view::npos) return; // an open tag, which the library reports
        std::string_view content = text.substr(begin, end - begin);
        constexpr std::string_view blanks = " \t\n\v\f\r";
        content.remove_prefix(std::min(content.size(), content.find_first_not_of(blanks)));
        if (!take(content)) return;
        at = text.find("{{", end + (triple ? 3 : 2));
    }
}

/// Why a template is not given to the library, which walks sections by recursion without a limit and, with
/// other delimiters, would find sections that are not counted here.
std::string structureObjection(std::string_view text) {
    int depth = 0;
    std::string why;
    forEachTag(text, [&](std::string_view tag) {
        const char kind = tag.empty() ? ' ' : tag.front();
        if (kind == '=') why = "The template changes its delimiters with {{= =}}; keep to {{ and }}.";
        if (kind == '#' || kind == '^') ++depth;
        if (kind == '/') --depth;
        if (depth > deepestTemplate) why = "The template has sections more than 32 deep. Flatten it.";
        return why.empty();
    });
    return why;
}

} // namespace

FilledTemplate fillTemplate(std::string_view mustache, const SettingsSheet& sheet) {
    FilledTemplate out;
    if (mustache.size() > largestTemplate) {
        out.error = "The template is larger than 256 KiB. Is it the right file?";
        return out;
    }
    if (out.error = structureObjection(mustache); !out.error.empty()) return out;
    try {
        Template filled{std::string(mustache)};
        if (!filled.is_valid()) {
            out.error = "The template cannot be read: " + filled.error_message() + ". Correct it there.";
            return out;
        }
        filled.set_custom_escape([](const std::string& s) { return s; });
        const data root = dataOf(sheet);
        Context context(root, out.missingNames);
        out.text = filled.render(context);
        if (!filled.is_valid()) out.error = "The template cannot be filled: " + filled.error_message() + ".";
    } catch (const Refused& refused) {
        out.error = std::string("The template cannot be filled: ") + refused.what();
    }
    if (!out.error.empty()) out.text.clear();
    return out;
}

} // namespace gantry::io
