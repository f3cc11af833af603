// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/bench.h"
#include "cli/confidence.h"
#include "cli/explain.h"
#include "cli/find_ratio.h"
#include "cli/intervals.h"
#include "cli/move.h"
#include "cli/simulate.h"
#include "cli/stall_ladder.h"
#include "cli/verdicts.h"

#include <string>
#include <variant>
#include <vector>

namespace gantry::cli {

struct EvaluateCall {
    std::string file;
    bool json = false;
    bool all = false; ///< every figure, one a line
};
struct CheckCall {
    std::string file;
};
struct ExportCall {
    std::string file, as, format, templateFile;
    bool allowMissing = false;
};
struct RigCall {
    std::string name; ///< empty: the list
};
struct SchemaCall {};
struct ResultsCall {};
struct TextsCall {};

/// Something to print and end with: help, the version, a completion script, or a complaint.
struct Answer {
    std::string text;
    int code = 0; ///< 2: the call was wrong, and the text belongs on standard error
};

/// A call on a project file.
template <class Call>
struct OnFile {
    std::string file;
    Call call;
};

using Command =
    std::variant<Answer, EvaluateCall, OnFile<VerdictsCall>, AuditCall, CheckCall, ExportCall,
                 OnFile<SimulateCall>, OnFile<ConfidenceCall>, OnFile<LadderCall>, RatioCall,
                 OnFile<ClaimsCall>, OnFile<WinchCall>, OnFile<PanBarCall>, OnFile<SectionsCall>,
                 OnFile<CompletenessCall>, OnFile<StaleCall>, OnFile<ExplainCall>, OnFile<MoveCall>,
                 OnFile<IntervalsCall>, RigCall, SchemaCall, ResultsCall, TextsCall>;

/// Reads the arguments behind the program's name. What is unknown, missing or out of range is a complaint
/// that names it; nothing is ignored.
Command readCommandLine(const std::vector<std::string>& arguments);

} // namespace gantry::cli
