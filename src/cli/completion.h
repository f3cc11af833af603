// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

namespace gantry::cli {

/// A command as completion sees it.
struct CommandWords {
    std::string name;
    std::vector<std::string> options; ///< "--json"
    std::string argument;             ///< what stands without a name: "FILE", "RATIO"; may be empty
};

/// A script for bash that completes the commands, the options of each, and names of files.
std::string completionScript(const std::string& program, const std::vector<CommandWords>& commands);

} // namespace gantry::cli
