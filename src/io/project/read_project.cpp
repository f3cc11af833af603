// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/acceptable.h"
#include "core/model/describe.h"
#include "core/model/tolerance.h"
#include "core/units/plain_text.h"
#include "io/project/json_guard.h"
#include "io/project/project_file.h"
#include "io/project/schema_check.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <set>

namespace gantry::io {
namespace {

using nlohmann::json;

/// Fills a project from a document that fits the schema, so types need no further look.
class Reader {
public:
    Reader(Project& project, const json& root) : project_(project), node_(&root) {
        known_ = {"format", "version"};
    }

    void field(const FieldInfo& info, double& v) {
        get(info.key, [&](const json& j) { v = settled(info, j.get<double>()); });
    }
    void field(const FieldInfo& info, int& v) {
        // "20.0" is a whole number too, and the schema has kept the value within what an int can be.
        get(info.key, [&](const json& j) { v = static_cast<int>(j.get<double>()); });
    }
    void field(const FieldInfo& info, bool& v) {
        get(info.key, [&](const json& j) { v = j.get<bool>(); });
    }
    void field(const FieldInfo& info, std::string& v) {
        get(info.key, [&](const json& j) { v = shown(j, info.key); });
    }
    void field(const FieldInfo& info, Estimate& e) {
        get(info.key, [&](const json& j) {
            e.value = settled(info, j.at("value").get<double>());
            if (j.contains("source"))
                e.source = static_cast<Source>(indexIn(ChoiceNames<Source>::keys, j["source"]));
            e.tolerance = j.contains("tolerance") ? j["tolerance"].get<double>()
                                                  : usualTolerance(info, e.source, e.value);
            keepUnknown(j, {"value", "source", "tolerance"}, path_ + std::string(info.key));
        });
    }
    template <class E>
    void choice(const FieldInfo& info, E& v) {
        get(info.key, [&](const json& j) { v = static_cast<E>(indexIn(ChoiceNames<E>::keys, j)); });
    }
    template <class T>
    void part(std::string_view key, T& part) {
        get(key, [&](const json& j) { enter(std::string(key), j, part); });
    }
    template <class T>
    void parts(std::string_view key, std::vector<T>& list) {
        get(key, [&](const json& j) {
            list.clear();
            for (const json& element : j) {
                list.emplace_back();
                std::string place(key);
                char mark = '/';
                for (const std::string_view part : idKeysOf<T>()) {
                    const json* id = nameOf(element, part);
                    place +=
                        mark + (id != nullptr ? units::plainText(id->get<std::string>()) : std::string());
                    mark = '@';
                }
                enter(place, element, list.back());
            }
        });
    }
    template <class... Ts>
    void either(std::string_view key, std::variant<Ts...>& choice) {
        get(key, [&](const json& j) { enter(std::string(key), j, choice); });
    }
    void texts(std::string_view key, std::vector<std::string>& list) {
        get(key, [&](const json& j) {
            list.clear();
            for (const json& text : j) list.push_back(shown(text, key));
        });
    }

    /// Texts that held what cannot be shown, by their places.
    std::vector<std::string> replaced;

    void finish() { keepUnknown(*node_, known_, {}); }

private:
    template <class F>
    void get(std::string_view key, F take) {
        known_.insert(std::string(key));
        if (const auto it = node_->find(std::string(key)); it != node_->end()) take(*it);
    }

    std::string shown(const json& j, std::string_view key) {
        std::string text = j.get<std::string>();
        if (units::isPlainText(text)) return text;
        replaced.push_back(path_ + std::string(key));
        return units::plainText(text);
    }

    static const json* nameOf(const json& element, std::string_view key) {
        const auto it = element.find(std::string(key));
        return it != element.end() && it->is_string() ? &*it : nullptr;
    }

    template <class Keys>
    static std::size_t indexIn(const Keys& keys, const json& name) {
        const std::string text = name.get<std::string>();
        return static_cast<std::size_t>(std::find(keys.begin(), keys.end(), text) - keys.begin());
    }

    template <class T>
    void enter(const std::string& step, const json& j, T& part) {
        const json* outerNode = std::exchange(node_, &j);
        std::set<std::string> outerKnown = std::exchange(known_, {});
        const std::size_t length = path_.size();
        path_ += step + '/';
        fill(j, part);
        keepUnknown(j, known_, path_.substr(0, path_.size() - 1));
        path_.resize(length);
        known_ = std::move(outerKnown);
        node_ = outerNode;
    }

    template <class T>
    void fill(const json&, T& part) {
        describe(*this, part);
    }
    template <class... Ts>
    void fill(const json& j, std::variant<Ts...>& choice) {
        const std::string kind = j.at("kind").get<std::string>();
        known_.insert("kind");
        ((kind == KindName<Ts>::key ? describe(*this, choice.template emplace<Ts>()) : void()), ...);
    }

    void keepUnknown(const json& j, const std::set<std::string>& known, const std::string& owner) {
        for (const auto& [key, value] : j.items())
            if (!known.contains(key)) project_.kept.push_back({owner, key, value.dump()});
    }

    Project& project_;
    const json* node_;
    std::set<std::string> known_;
    std::string path_;
};

/// Version 1 knew one output for linear axes and did not name its kind.
void migrate(json& document) {
    if (!document.contains("version") || document["version"] != 1) return;
    if (const auto axes = document.find("axes"); axes != document.end() && axes->is_array())
        for (json& axis : *axes) {
            if (!axis.is_object() || !axis.contains("mechanism") || !axis["mechanism"].is_object()) continue;
            json& mechanism = axis["mechanism"];
            if (mechanism.value("kind", json()) == "linear" && mechanism.contains("output") &&
                mechanism["output"].is_object() && !mechanism["output"].contains("kind"))
                mechanism["output"]["kind"] = "belt";
        }
    document["version"] = formatVersion;
}

LoadError refuse(std::string why) {
    return {"This file cannot be opened: " + units::plainSentence(why)};
}

} // namespace

std::variant<LoadedProject, LoadError> readProject(std::string_view text) {
    if (text.size() > largestFile)
        return refuse("it is larger than 8 MiB. A project file is a few kilobytes; is it the right file?");
    if (std::string why = jsonObjection(text, deepestNesting); !why.empty())
        return refuse(why + ". Restore the copy that ends in “~”, or mend the file with a text editor.");
    json document = json::parse(text, nullptr, false);
    if (!document.is_object() || !document.contains("format") || document["format"] != "calm-gantry")
        return refuse(
            "it is not a Calm Gantry project (“format” is not “calm-gantry”). Choose a .gantry file.");
    if (document.contains("version") && document["version"].is_number_integer() &&
        document["version"] > formatVersion)
        return refuse("it was written by a newer version of Calm Gantry (file version " +
                      document["version"].dump() + ", this program reads up to " +
                      std::to_string(formatVersion) + "). Update the program to open it.");
    migrate(document);
    if (std::string why = schemaObjection(document); !why.empty())
        return refuse(why + " Correct it in the file with a text editor.");
    LoadedProject loaded;
    try {
        Reader reader(loaded.project, document);
        describe(reader, loaded.project);
        reader.finish();
        for (const std::string& place : reader.replaced)
            loaded.notices.push_back(place + ": characters that cannot be shown were replaced");
    } catch (
        const json::exception& e) { // the schema should have caught it; a file must never end the program
        return refuse(std::string("a value has an unexpected form (") + e.what() + ").");
    }
    settle(loaded.project);
    if (const std::string why = objectionTo(loaded.project); !why.empty()) return refuse(why);
    if (!fitsAFile(loaded.project))
        return refuse(
            "saved with everything it leaves out it would be larger than 8 MiB. Split it, or remove keys "
            "that are not understood.");
    for (const KeptKey& k : loaded.project.kept)
        loaded.notices.push_back(units::plainSentence((k.owner.empty() ? "" : k.owner + "/") + k.key) +
                                 ": kept, not understood");
    return loaded;
}

} // namespace gantry::io
