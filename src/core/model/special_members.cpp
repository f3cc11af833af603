// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/project.h"

// Copying, moving, comparing and destroying a project takes apart every kind of part that there is. Worked
// out anew in each file that does so, that was a third to a half of compiling.
namespace gantry {

Shot::Shot() = default;
Shot::Shot(const Shot&) = default;
Shot::Shot(Shot&&) noexcept = default;
Shot& Shot::operator=(const Shot&) = default;
Shot& Shot::operator=(Shot&&) noexcept = default;
Shot::~Shot() = default;
bool Shot::operator==(const Shot&) const = default;

LinearMechanism::LinearMechanism() = default;
LinearMechanism::LinearMechanism(const LinearMechanism&) = default;
LinearMechanism::LinearMechanism(LinearMechanism&&) noexcept = default;
LinearMechanism& LinearMechanism::operator=(const LinearMechanism&) = default;
LinearMechanism& LinearMechanism::operator=(LinearMechanism&&) noexcept = default;
LinearMechanism::~LinearMechanism() = default;
bool LinearMechanism::operator==(const LinearMechanism&) const = default;

RotaryMechanism::RotaryMechanism() = default;
RotaryMechanism::RotaryMechanism(const RotaryMechanism&) = default;
RotaryMechanism::RotaryMechanism(RotaryMechanism&&) noexcept = default;
RotaryMechanism& RotaryMechanism::operator=(const RotaryMechanism&) = default;
RotaryMechanism& RotaryMechanism::operator=(RotaryMechanism&&) noexcept = default;
RotaryMechanism::~RotaryMechanism() = default;
bool RotaryMechanism::operator==(const RotaryMechanism&) const = default;

Axis::Axis() = default;
Axis::Axis(const Axis&) = default;
Axis::Axis(Axis&&) noexcept = default;
Axis& Axis::operator=(const Axis&) = default;
Axis& Axis::operator=(Axis&&) noexcept = default;
Axis::~Axis() = default;
bool Axis::operator==(const Axis&) const = default;

Project::Project() = default;
Project::Project(const Project&) = default;
Project::Project(Project&&) noexcept = default;
Project& Project::operator=(const Project&) = default;
Project& Project::operator=(Project&&) noexcept = default;
Project::~Project() = default;
bool Project::operator==(const Project&) const = default;

} // namespace gantry
