// SPDX-License-Identifier: GPL-3.0-or-later
// The only file that instantiates the schema validator, which compiles slowly.
#include "io/project/schema_check.h"

#include "io/project/project_file.h"

#include <nlohmann/json.hpp>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

namespace gantry::io {
namespace {

using nlohmann::json;

const valijson::Schema& compiledSchema() {
    static const json document = json::parse(projectSchema());
    static valijson::Schema schema;
    static const bool ready = [] {
        valijson::SchemaParser parser;
        parser.populateSchema(valijson::adapters::NlohmannJsonAdapter(document), schema);
        return true;
    }();
    (void)ready;
    return schema;
}

/// "<root>", "[axes]", "[0]", "[driver]" … into "axes/slide/driver", and the element itself.
std::pair<std::string, const json*> place(const json& document, const std::vector<std::string>& context) {
    std::string path;
    const json* node = &document;
    for (std::size_t i = 1; i < context.size(); ++i) {
        std::string step = context[i];
        if (step.size() >= 2 && step.front() == '[') step = step.substr(1, step.size() - 2);
        if (node != nullptr && node->is_array()) {
            std::size_t index = 0;
            for (const char c : step)
                if (c >= '0' && c <= '9') index = index * 10 + static_cast<std::size_t>(c - '0');
            node = index < node->size() ? &(*node)[index] : nullptr;
            if (node != nullptr && node->is_object() && node->contains("id") && (*node)["id"].is_string())
                step = (*node)["id"].get<std::string>();
        } else if (node != nullptr && node->is_object()) {
            const auto it = node->find(step);
            node = it != node->end() ? &*it : nullptr;
        }
        path += (path.empty() ? "" : "/") + step;
    }
    return {path.empty() ? "the file" : path, node};
}

} // namespace

std::string schemaObjection(const json& document) {
    valijson::Validator validator(valijson::Validator::kStrongTypes);
    valijson::ValidationResults results;
    const valijson::adapters::NlohmannJsonAdapter target(document);
    if (validator.validate(compiledSchema(), target, &results)) return {};
    valijson::ValidationResults::Error error;
    if (!results.popError(error)) return "the file: does not fit the schema.";
    const auto [path, node] = place(document, error.context);
    std::string sentence = path;
    if (node != nullptr && node->is_primitive())
        sentence += " is " + node->dump(-1, ' ', false, json::error_handler_t::replace).substr(0, 60);
    return sentence + ": " + error.description;
}

} // namespace gantry::io
