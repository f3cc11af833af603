// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/describe.h"
#include "core/model/tolerance.h"

#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace gantry {

/// An enum member seen without its type.
struct ChoiceRef {
    int index = 0;
    std::span<const std::string_view> keys;
    std::span<const std::string_view> labels;
    void* target = nullptr;
    void (*assign)(void* target, int index) = nullptr;
};

/// A field of a given Project, found by walking its description. The pointers live as long as the Project is
/// neither moved nor changed in shape.
struct FieldRef {
    std::string path; ///< "axes/slide/mechanism/output/teeth"; list elements by id
    FieldInfo info;
    std::variant<double*, Estimate*, int*, bool*, std::string*, ChoiceRef> target;
};

/// Every field of a project, in file order.
std::vector<FieldRef> allFields(Project& project);

/// Every estimate of a project with its path, in file order: quicker than all fields.
std::vector<std::pair<const Estimate*, std::string>> pathsOfEstimates(Project& project);

/// Every uncertain input of one axis, in file order, of its candidates only what is in use. Cheap: builds no
/// paths.
std::vector<UncertainInput> uncertainInputsOf(Axis& axis);
/// The same of the supply, of the base, and of the payload.
std::vector<UncertainInput> uncertainInputsOf(Supply& supply);
std::vector<UncertainInput> uncertainInputsOf(Base& base);
std::vector<UncertainInput> uncertainInputsOf(Head& head);
std::vector<UncertainInput> uncertainInputsOf(std::vector<MassItem>& items);
std::vector<UncertainInput> uncertainInputsOf(std::vector<RailLoad>& loads);
/// Every uncertain input of one axis as estimates alone.
std::vector<Estimate*> estimatesOf(Axis& axis);

/// The field at a path, if the project has it.
std::optional<FieldRef> findField(Project& project, std::string_view path);

/// The number of a field, as double: value of an Estimate, an int, or a bool as 0 and 1. Nothing for texts.
std::optional<double> numberAt(const Project& project, std::string_view path);

/// Sets a numeric field if the path exists and the value is finite and within [min, max]; ints must be whole.
/// Returns whether it was set.
bool setNumberAt(Project& project, std::string_view path, double value);

/// Paths of the fields that differ between two projects, and of those that only one of them has, in file
/// order.
std::vector<std::string> changedFields(const Project& before, const Project& after);

/// A value cut to the field's accepted range.
double clampToField(const FieldInfo& info, double value);

} // namespace gantry
