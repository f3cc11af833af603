// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"
#include "core/units/kind.h"
#include "core/working/term.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// How a figure comes about: what goes in, what is computed of it on the way, each with its formula.
namespace gantry::working {

/// One line of a working. Values in SI.
struct Quantity {
    std::string symbol; ///< "J_load"; no two of a working have the same
    std::string label;  ///< "inertia of the load"
    units::Kind kind = units::Kind::Ratio;
    std::string unit; ///< where no kind has it: "N·m/A"; else empty
    double value = 0.0;
    std::string path;    ///< of an input: its field in the project
    std::string formula; ///< of what is computed here
    std::string origin;  ///< of what is neither: a constant, or where it is searched or solved for
    std::vector<std::string> needs{}; ///< symbols that such a search goes by

    bool isInput() const { return !path.empty(); }
};

/// Quantities in the order in which they are needed, the figure itself last.
struct Working {
    std::vector<Quantity> quantities;
    std::string reference; ///< where the model is taken from

    const Quantity& result() const { return quantities.back(); }
};

/// Writes a working down while it is computed.
class Sheet {
public:
    /// @param axis id of the axis that it is about, which names need not say again; empty: of none
    explicit Sheet(const Project& project, std::string axis = {})
        : project_(project), axis_(std::move(axis)) {}
    /// Goes on from a working that is finished.
    Sheet(const Project& project, Working working)
        : project_(project), quantities_(std::move(working.quantities)),
          reference_(std::move(working.reference)) {}

    /// A number of the project. Asking for a field that it has not is a mistake: asserts.
    Term input(const std::string& symbol, const std::string& path);
    /// A result on the way, with its formula. What is a single symbol already keeps that one.
    Term named(const std::string& symbol, std::string label, units::Kind kind, const Term& term);
    /// The same in a unit that no kind has.
    Term named(const std::string& symbol, std::string label, const char* unit, const Term& term);
    /// A number that is searched or solved for elsewhere, or a constant.
    Term found(const std::string& symbol, std::string label, units::Kind kind, double value,
               std::string origin);
    Term found(const std::string& symbol, std::string label, const char* unit, double value,
               std::string origin);
    /// What a search that gave a quantity went by, so that it is shown with it.
    void foundFrom(const std::string& symbol, const std::vector<std::string>& needs);
    /// What stands under a symbol already.
    std::optional<Term> known(const std::string& symbol) const;

    /// Ends with the figure under its own label. Where it is one of the quantities already, that one moves to
    /// the end.
    Working finish(std::string label, units::Kind kind, const Term& figure, std::string reference);

    const Project& project() const { return project_; }
    const Quantity& last() const { return quantities_.back(); }
    const std::string& reference() const { return reference_; }

private:
    Term add(Quantity quantity);

    const Project& project_;
    std::string axis_;
    std::vector<Quantity> quantities_;
    std::string reference_;
};

} // namespace gantry::working
