// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/files.h"

#include "io/files/text_file.h"
#include "io/project/project_file.h"

#include <stdexcept>

std::string sourcePath(const std::string& relative) {
    return std::string(GANTRY_SOURCE "/") + relative;
}

std::string dataPath(const std::string& relative) {
    return sourcePath("data/" + relative);
}

std::string textOfFile(const std::string& path) {
    std::string error;
    const auto text = gantry::io::readTextFile(path, 64u << 20, error);
    if (!text) throw std::runtime_error(error);
    return *text;
}

std::string rigPath(const std::string& rig) {
    return sourcePath((rig == "slide-and-pan" ? "tests/data/" : "data/demo/") + rig + ".gantry");
}

std::string demoText(const std::string& rig) {
    return textOfFile(rigPath(rig));
}

gantry::Project demoProject(const std::string& rig) {
    auto loaded = gantry::io::readProject(demoText(rig));
    if (auto* e = std::get_if<gantry::io::LoadError>(&loaded)) throw std::runtime_error(e->sentence);
    return std::get<gantry::io::LoadedProject>(loaded).project;
}

std::vector<nlohmann::json> referenceCases(const std::string& topic, const std::string& kind) {
    static const nlohmann::json all = [] {
        nlohmann::json out;
        // Parts and axes, the rig as a whole, its moves, and its interval plans.
        for (const char* name : {"reference", "reference-rig", "reference-moves", "reference-bench"})
            out.update(
                nlohmann::json::parse(textOfFile(sourcePath(std::string("tests/data/") + name + ".json"))));
        return out;
    }();
    std::vector<nlohmann::json> out;
    for (const auto& c : all.at(topic))
        if (kind.empty() || c.at("inputs").value("kind", "") == kind || c.value("kind", "") == kind)
            out.push_back(c);
    if (out.empty()) throw std::runtime_error("no worked case for " + topic + " " + kind);
    return out;
}
