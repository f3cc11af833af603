// SPDX-License-Identifier: GPL-3.0-or-later
// The only file that instantiates the schema validator, which compiles slowly.
#include "io/project/schema_check.h"

#include "io/project/project_file.h"

#include <cmath>
#include <cstdint>
#include <nlohmann/json.hpp>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

namespace gantry::io {
namespace {

using nlohmann::json;

const json& schemaDocument() {
    static const json document = json::parse(projectSchema());
    return document;
}

const valijson::Schema& compiledSchema() {
    static valijson::Schema schema;
    static const bool ready = [] {
        valijson::SchemaParser parser;
        parser.populateSchema(valijson::adapters::NlohmannJsonAdapter(schemaDocument()), schema);
        return true;
    }();
    (void)ready;
    return schema;
}

/// Where an error is: the path by the names that people know, the element itself, and what the schema says of
/// it.
struct Place {
    std::string path;
    const json* node = nullptr;
    const json* rule = nullptr;
};

/// What names an element of a list: its id, or the axis that a movement is for.
std::string nameOf(const json& element, const std::string& index) {
    for (const char* key : {"id", "axis", "rule"})
        if (const auto it = element.find(key); element.is_object() && it != element.end() && it->is_string())
            return it->get<std::string>();
    return index;
}

/// The rule for a key of an object, looked for in the branch of its kind too.
const json* ruleFor(const json* rule, const json& object, const std::string& key) {
    if (rule == nullptr) return nullptr;
    if (const auto p = rule->find("properties"); p != rule->end() && p->contains(key)) return &(*p)[key];
    if (const auto all = rule->find("allOf"); all != rule->end())
        for (const json& branch : *all)
            if (const auto kind = object.find("kind");
                kind != object.end() && branch["if"]["properties"]["kind"]["const"] == *kind)
                return ruleFor(&branch["then"], object, key);
    return nullptr;
}

/// "<root>", "[axes]", "[0]", "[driver]" … into "axes/slide/driver".
Place placeOf(const json& document, const json& schema, const std::vector<std::string>& context) {
    Place out{{}, &document, &schema};
    for (std::size_t i = 1; i < context.size(); ++i) {
        std::string step = context[i];
        if (step.size() >= 2 && step.front() == '[') step = step.substr(1, step.size() - 2);
        if (out.node != nullptr && out.node->is_array()) {
            std::size_t index = 0;
            for (const char c : step)
                if (c >= '0' && c <= '9') index = index * 10 + static_cast<std::size_t>(c - '0');
            out.node = index < out.node->size() ? &(*out.node)[index] : nullptr;
            out.rule = out.rule != nullptr && out.rule->contains("items") ? &(*out.rule)["items"] : nullptr;
            if (out.node != nullptr) step = nameOf(*out.node, step);
        } else if (out.node != nullptr && out.node->is_object()) {
            const auto it = out.node->find(step);
            out.rule = ruleFor(out.rule, *out.node, step);
            out.node = it != out.node->end() ? &*it : nullptr;
        }
        out.path += (out.path.empty() ? "" : "/") + step;
    }
    return out;
}

std::string shown(const json& value) {
    return value.dump(-1, ' ', false, json::error_handler_t::replace).substr(0, 60);
}

/// What a value is that it must not be, and what it may be.
std::string sentenceFor(const Place& place, const std::string& description) {
    if (place.node == nullptr || place.rule == nullptr) return ": " + description;
    const json &node = *place.node, &rule = *place.rule;
    const std::string type = rule.value("type", std::string());
    if (type == "number" || type == "integer") {
        const std::string title = rule.contains("title") ? " (" + rule["title"].get<std::string>() + ")" : "";
        return title + " is " + (node.is_structured() ? "no number" : shown(node)) + "; it takes " +
               (type == "integer" ? "whole numbers from " : "numbers from ") + shown(rule["minimum"]) +
               " to " + shown(rule["maximum"]) + ".";
    }
    if (const auto options = rule.find("enum"); options != rule.end()) {
        std::string list;
        for (const json& o : *options) list += (list.empty() ? "" : ", ") + o.get<std::string>();
        return " is " + shown(node) + "; it is one of " + list + ".";
    }
    if (node.is_object())
        if (const auto wanted = rule.find("required"); wanted != rule.end())
            for (const json& key : *wanted)
                if (!node.contains(key.get<std::string>())) {
                    std::string sentence = ": the key “" + key.get<std::string>() + "” is missing";
                    if (const json* of = ruleFor(&rule, node, key); of != nullptr && of->contains("enum")) {
                        std::string list;
                        for (const json& o : (*of)["enum"])
                            list += (list.empty() ? "" : ", ") + o.get<std::string>();
                        sentence += "; it is one of " + list;
                    }
                    return sentence + ".";
                }
    if (node.is_array() && rule.contains("maxItems") && node.size() > rule["maxItems"].get<std::size_t>())
        return " holds " + std::to_string(node.size()) + " entries; at most " + shown(rule["maxItems"]) +
               " are possible.";
    if (node.is_string() && rule.contains("maxLength"))
        return " is a text of more than " + shown(rule["maxLength"]) + " letters.";
    const std::string is = node.is_structured() ? (node.is_array() ? "a list" : "an object") : shown(node);
    return " is " + is + "; it must be " +
           (type == "object"    ? "an object"
            : type == "array"   ? "a list"
            : type == "string"  ? "a text"
            : type == "boolean" ? "true or false"
                                : "something else") +
           ".";
}

/// Whole numbers written with a point are whole numbers.
void makeWhole(json& value) {
    constexpr double largest = 9007199254740992.0; // 2^53: all whole numbers up to it are told apart
    if (value.is_number_float()) {
        const double v = value.get<double>();
        if (v == std::floor(v) && std::abs(v) <= largest) value = static_cast<std::int64_t>(v);
    } else if (value.is_structured())
        for (json& element : value) makeWhole(element);
}

} // namespace

std::string schemaObjection(const json& document) {
    json whole = document;
    makeWhole(whole);
    valijson::Validator validator(valijson::Validator::kStrongTypes);
    valijson::ValidationResults results;
    const valijson::adapters::NlohmannJsonAdapter target(whole);
    if (validator.validate(compiledSchema(), target, &results)) return {};
    valijson::ValidationResults::Error error;
    if (!results.popError(error)) return "the file does not fit the schema.";
    const Place place = placeOf(document, schemaDocument(), error.context);
    return (place.path.empty() ? "the file" : place.path) + sentenceFor(place, error.description);
}

} // namespace gantry::io
