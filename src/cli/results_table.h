// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"

#include <iosfwd>

namespace gantry::cli {

/// Prints every figure of a project in the units of the window, each under its place and with the reason
/// where it has no number.
void printAll(const Project& project, const Evaluation& evaluation, std::ostream& out);

/// Prints what `evaluate --json` tells, as a table: key for linear and for turning axes, what it is.
void printResultKeys(std::ostream& out);

} // namespace gantry::cli
