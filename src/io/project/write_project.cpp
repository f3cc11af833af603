// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/describe.h"
#include "io/project/project_file.h"

#include <nlohmann/json.hpp>

namespace gantry::io {
namespace {

using Json = nlohmann::ordered_json;

class Writer {
public:
    Writer(const Project& project, Json& root) : project_(project), node_(&root) {}

    void field(const FieldInfo& info, const double& v) { set(info.key, v); }
    void field(const FieldInfo& info, const int& v) { set(info.key, v); }
    void field(const FieldInfo& info, const bool& v) { set(info.key, v); }
    void field(const FieldInfo& info, const std::string& v) { set(info.key, v); }
    void field(const FieldInfo& info, const Estimate& e) {
        Json estimate;
        estimate["value"] = e.value;
        estimate["source"] = ChoiceNames<Source>::keys[static_cast<std::size_t>(e.source)];
        estimate["tolerance"] = e.tolerance;
        restoreKept(path_ + std::string(info.key), estimate);
        set(info.key, std::move(estimate));
    }
    template <class E>
    void choice(const FieldInfo& info, const E& v) {
        set(info.key, ChoiceNames<E>::keys[static_cast<std::size_t>(v)]);
    }
    template <class T>
    void part(std::string_view key, const T& part) {
        set(key, object(key, part));
    }
    template <class T>
    void parts(std::string_view key, const std::vector<T>& list) {
        Json array = Json::array();
        for (const T& element : list)
            array.push_back(object(std::string(key) + '/' + std::string(partId(element)), element));
        set(key, std::move(array));
    }
    template <class... Ts>
    void either(std::string_view key, const std::variant<Ts...>& choice) {
        set(key, object(key, choice));
    }
    void texts(std::string_view key, const std::vector<std::string>& list) { set(key, Json(list)); }

    /// Puts back the keys of the object at `owner` that were not understood.
    void restoreKept(const std::string& owner, Json& object) const {
        for (const KeptKey& k : project_.kept)
            if (k.owner == owner && !object.contains(k.key))
                object[k.key] = Json::parse(k.rawJson, nullptr, false);
    }

private:
    template <class V>
    void set(std::string_view key, V&& value) {
        (*node_)[std::string(key)] = std::forward<V>(value);
    }

    template <class T>
    Json object(std::string_view step, const T& part) {
        Json json = Json::object();
        Json* outer = std::exchange(node_, &json);
        const std::size_t length = path_.size();
        path_.append(step);
        path_ += '/';
        write(part);
        restoreKept(path_.substr(0, path_.size() - 1), json);
        path_.resize(length);
        node_ = outer;
        return json;
    }

    template <class T>
    void write(const T& part) {
        if constexpr (requires { part.index(); })
            std::visit(
                [&](const auto& x) {
                    set("kind", KindName<std::remove_cvref_t<decltype(x)>>::key);
                    describe(*this, x);
                },
                part);
        else
            describe(*this, part);
    }

    const Project& project_;
    Json* node_;
    std::string path_;
};

} // namespace

std::string writeProject(const Project& project) {
    Json root;
    root["format"] = "calm-gantry";
    root["version"] = formatVersion;
    Writer writer(project, root);
    describe(writer, project);
    writer.restoreKept({}, root);
    return root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

} // namespace gantry::io
