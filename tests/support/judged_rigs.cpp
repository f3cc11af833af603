// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/judged_rigs.h"

#include "support/files.h"
#include "support/judged_parts.h"

#include <stdexcept>

namespace judged {

/// What builds a case; null if nothing does.
static Build builderOf(const std::string& id) {
    for (const Builders* all : {&railBuilders(), &armBuilders()})
        if (const auto it = all->find(id); it != all->end()) return it->second;
    return nullptr;
}

const std::vector<json>& cases() {
    static const json all = json::parse(textOfFile(sourcePath("tests/data/judged-rigs.json")));
    static const std::vector<json> out = all.at("cases").get<std::vector<json>>();
    return out;
}

const json& caseOf(const std::string& id) {
    for (const json& c : cases())
        if (c.at("id") == id) return c;
    throw std::runtime_error("no case " + id);
}

bool canBuild(const std::string& id) {
    return builderOf(id) != nullptr;
}

Project rigOf(const json& c, char variant) {
    Inputs in(c.at("inputs"));
    Project p = builderOf(c.at("id").get<std::string>())(in, variant);
    if (!in.unread().empty()) throw std::runtime_error("inputs without a field: " + in.unread());
    return p;
}

} // namespace judged
