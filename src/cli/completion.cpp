// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/completion.h"

namespace gantry::cli {
namespace {

std::string joined(const std::vector<std::string>& words) {
    std::string out;
    for (const std::string& w : words) out += (out.empty() ? "" : " ") + w;
    return out;
}

} // namespace

std::string completionScript(const std::string& program, const std::vector<CommandWords>& commands) {
    std::vector<std::string> names;
    for (const CommandWords& c : commands) names.push_back(c.name);
    std::string out = "# Completion for bash. Made by `" + program +
                      " completion bash`; source it from your ~/.bashrc.\n"
                      "_calm_gantry_cli() {\n"
                      "    local word=${COMP_WORDS[COMP_CWORD]} words=\n"
                      "    if [ \"$COMP_CWORD\" -eq 1 ]; then\n"
                      "        words=\"" +
                      joined(names) +
                      " --help --version\"\n"
                      "    else\n"
                      "        case ${COMP_WORDS[1]} in\n";
    for (const CommandWords& c : commands)
        out += "        " + c.name + ") words=\"" + joined(c.options) + "\" ;;\n";
    out +=
        "        esac\n"
        "    fi\n"
        "    mapfile -t COMPREPLY < <(compgen -W \"$words\" -- \"$word\")\n"
        "    case $word in -*) ;; *) [ \"$COMP_CWORD\" -gt 1 ] && mapfile -t -O ${#COMPREPLY[@]} COMPREPLY "
        "< <(compgen -f -- \"$word\") ;; esac\n"
        "}\n"
        "complete -o filenames -F _calm_gantry_cli " +
        program + "\n";
    return out;
}

} // namespace gantry::cli
