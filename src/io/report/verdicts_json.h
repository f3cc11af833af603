// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/fix.h"
#include "io/report/results_json.h"

#include <functional>
#include <string>

namespace gantry::io {

/// One verdict, keys as docs/command-line.md lists them.
Json verdictJson(const Project& project, const Verdict& verdict);

/// What is offered for a verdict; may be empty.
using FixesFor = std::function<std::vector<Fix>(const Verdict&)>;

/// The verdicts in the order given, each as `evaluate --json` has it and with `ratio_sum` (the worst case)
/// where one is named; with `fixes` in their order where there is something that finds them.
std::string verdictsJson(const Project& project, const std::vector<Verdict>& verdicts, const FixesFor& fixes);

} // namespace gantry::io
