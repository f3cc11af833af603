// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/project/project_file.h"
#include "io/text_file.h"

#include <nlohmann/json.hpp>
#include <stdexcept>

inline std::string textOfFile(const std::string& path) {
    std::string error;
    const auto text = gantry::io::readTextFile(path, 64u << 20, error);
    if (!text) throw std::runtime_error(error);
    return *text;
}

inline std::string demoText() {
    return textOfFile(GANTRY_DATA "/demo/fernhouse-dolly.gantry");
}

inline gantry::Project demoProject() {
    auto loaded = gantry::io::readProject(demoText());
    if (auto* e = std::get_if<gantry::io::LoadError>(&loaded)) throw std::runtime_error(e->sentence);
    return std::get<gantry::io::LoadedProject>(loaded).project;
}

/// Worked cases of one topic whose inputs have this "kind" (all of them for an empty kind).
inline std::vector<nlohmann::json> referenceCases(const std::string& topic, const std::string& kind = {}) {
    static const nlohmann::json all = nlohmann::json::parse(textOfFile(GANTRY_TEST_DATA "/reference.json"));
    std::vector<nlohmann::json> out;
    for (const auto& c : all.at(topic))
        if (kind.empty() || c.at("inputs").value("kind", "") == kind) out.push_back(c);
    if (out.empty()) throw std::runtime_error("no worked case for " + topic + " " + kind);
    return out;
}
