// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/describe.h"
#include "core/model/size_limits.h"
#include "io/project/project_file.h"

#include <nlohmann/json.hpp>

namespace gantry::io {
namespace {

using Json = nlohmann::ordered_json;

Json schemaOfObject(const Json& properties) {
    Json s;
    s["type"] = "object";
    s["properties"] = properties;
    return s;
}

/// Describes what each field may be. Walks default-made parts, since only their shape matters.
class SchemaBuilder {
public:
    Json properties = Json::object();

    void field(const FieldInfo& info, const double&) { add(info.key, number(info)); }
    void field(const FieldInfo& info, const int&) {
        Json s = number(info);
        s["type"] = "integer";
        add(info.key, s);
    }
    void field(const FieldInfo& info, const bool&) { add(info.key, {{"type", "boolean"}}); }
    void field(const FieldInfo& info, const std::string&) {
        add(info.key, {{"type", "string"}, {"maxLength", mostLetters}});
    }
    void field(const FieldInfo& info, const Estimate&) {
        Json p;
        p["value"] = number(info);
        p["source"] = {{"type", "string"}, {"enum", ChoiceNames<Source>::keys}};
        p["tolerance"] = {{"type", "number"}, {"minimum", 0}, {"maximum", 10}};
        Json s = schemaOfObject(p);
        s["required"] = {"value"};
        add(info.key, s);
    }
    template <class E>
    void choice(const FieldInfo& info, const E&) {
        add(info.key, {{"type", "string"}, {"enum", ChoiceNames<E>::keys}});
    }
    template <class T>
    void part(std::string_view key, const T&) {
        add(key, schemaOf<T>());
    }
    template <class T>
    void parts(std::string_view key, const std::vector<T>&) {
        Json s;
        s["type"] = "array";
        s["maxItems"] = mostOf(key);
        s["items"] = schemaOf<T>();
        add(key, s);
    }
    template <class... Ts>
    void either(std::string_view key, const std::variant<Ts...>&) {
        add(key, schemaOf<std::variant<Ts...>>());
    }
    void texts(std::string_view key, const std::vector<std::string>&) {
        add(key, {{"type", "array"},
                  {"maxItems", mostTextsOf(key)},
                  {"items", {{"type", "string"}, {"maxLength", mostLettersOfOne}}}});
    }

    template <class T>
    static Json schemaOf() {
        if constexpr (requires(T t) { t.index(); })
            return schemaOfVariant(static_cast<const T*>(nullptr));
        else {
            SchemaBuilder inner;
            const T sample{};
            describe(inner, sample);
            Json s = schemaOfObject(inner.properties);
            if (inner.properties.contains("id"))
                s["required"] = {"id"};
            else if (inner.properties.contains("movement"))
                s["required"] = {"axis", "movement"};
            return s;
        }
    }

private:
    static Json number(const FieldInfo& info) {
        return {{"type", "number"}, {"minimum", info.min}, {"maximum", info.max}, {"title", info.label}};
    }
    void add(std::string_view key, Json schema) { properties[std::string(key)] = std::move(schema); }

    template <class... Ts>
    static Json schemaOfVariant(const std::variant<Ts...>*) {
        Json kinds = Json::array({KindName<Ts>::key...});
        Json s;
        s["type"] = "object";
        s["required"] = {"kind"};
        s["properties"] = {{"kind", {{"type", "string"}, {"enum", kinds}}}};
        s["allOf"] = Json::array({Json{{"if", {{"properties", {{"kind", {{"const", KindName<Ts>::key}}}}}}},
                                       {"then", schemaOf<Ts>()}}...});
        return s;
    }
};

} // namespace

std::string projectSchema() {
    SchemaBuilder builder;
    const Project sample;
    describe(builder, sample);
    Json properties;
    properties["format"] = {{"const", "calm-gantry"}};
    properties["version"] = {{"type", "integer"}, {"minimum", 1}, {"maximum", formatVersion}};
    for (auto& [key, value] : builder.properties.items()) properties[key] = value;
    Json schema;
    schema["$schema"] = "http://json-schema.org/draft-07/schema#";
    schema["title"] = "Calm Gantry project";
    schema["type"] = "object";
    schema["required"] = {"format", "version"};
    schema["properties"] = properties;
    return schema.dump(2) + '\n';
}

} // namespace gantry::io
