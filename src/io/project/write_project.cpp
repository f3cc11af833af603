// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/acceptable.h"
#include "core/model/describe.h"
#include "io/project/project_file.h"

#include <nlohmann/json.hpp>
#include <unordered_map>
#include <unordered_set>
#include <vector>

namespace gantry::io {
namespace {

using Json = nlohmann::ordered_json;

class Writer {
public:
    Writer(const Project& project, Json& root) : node_(&root) {
        for (const KeptKey& k : project.kept) kept_[k.owner].push_back(&k);
    }

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
        const auto it = kept_.find(owner);
        if (it == kept_.end()) return;
        // The library's ordered objects look a key up by going through all of them, so names are told apart
        // here and new ones only put behind.
        std::unordered_set<std::string_view> known;
        for (const auto& [key, value] : object.items()) known.insert(key);
        std::vector<const KeptKey*> fresh;
        for (const KeptKey* k : it->second)
            if (known.insert(k->key).second) fresh.push_back(k);
        auto& members = object.get_ref<Json::object_t&>();
        members.reserve(members.size() + fresh.size());
        for (const KeptKey* k : fresh) members.emplace_back(k->key, Json::parse(k->rawJson, nullptr, false));
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

    std::unordered_map<std::string_view, std::vector<const KeptKey*>> kept_;
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
    std::string text = root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
    // What came as a compact file must not become too large by being laid out for people.
    if (text.size() > largestFile) text = root.dump(-1, ' ', false, Json::error_handler_t::replace) + '\n';
    return text;
}

bool fitsAFile(const Project& project) {
    return writtenSizeAtMost(project) <= largestFile || writeProject(project).size() <= largestFile;
}

std::string fileObjection(const Project& project) {
    if (std::string why = objectionTo(project); !why.empty()) return why;
    if (fitsAFile(project)) return {};
    return "The project would be larger than the 8 MiB that a file may have. Shorten notes, remove tests, or "
           "split it.";
}

} // namespace gantry::io
