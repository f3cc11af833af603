// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/parts/part.h"

#include <iosfwd>
#include <optional>
#include <string>
#include <vector>

namespace gantry::cli {

struct VerdictsCall {
    std::string shelf; ///< table of parts on hand; empty: none
    bool json = false;
    bool fixes = false;
};
/// Every verdict, worst first, with its nominal and its low end, and what is offered for it. Returns the exit
/// code.
int verdicts(const VerdictsCall& call, const Project& project, std::ostream& out, std::ostream& err);

struct AuditCall {
    std::vector<std::string> files;
    std::string shelf;
};
/// Every fix of every verdict that wants mending, applied and assessed anew. 1: less than nine tenths of
/// those verdicts have a good one.
int audit(const AuditCall& call, const std::vector<Project>& projects, std::ostream& out, std::ostream& err);

/// The parts on hand in a table; nothing, and why on `err`, if it cannot be read.
std::optional<std::vector<parts::Part>> shelfAt(const std::string& file, std::ostream& err);

} // namespace gantry::cli
