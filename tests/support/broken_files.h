// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/project/project_file.h"
#include "support/files.h"

#include <QString>
#include <functional>

/// Why a file is refused; empty if it is not.
inline QString refusal(const std::string& text) {
    const auto r = gantry::io::readProject(text);
    const auto* e = std::get_if<gantry::io::LoadError>(&r);
    return e != nullptr ? QString::fromStdString(e->sentence) : QString();
}

/// The demo file with a change.
inline std::string edited(const std::function<void(nlohmann::json&)>& edit) {
    nlohmann::json j = nlohmann::json::parse(demoText());
    edit(j);
    return j.dump();
}
