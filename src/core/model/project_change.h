// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project.h"

#include <memory>

namespace gantry {

/// What differs between two projects: enough to make either of the other. Members that are alike are not
/// kept, and of lists only the stretch in which they differ.
class ProjectChange {
public:
    ProjectChange(const Project& before, const Project& after);
    ProjectChange(ProjectChange&&) noexcept;
    ProjectChange& operator=(ProjectChange&&) noexcept;
    ~ProjectChange();

    bool empty() const;
    void redo(Project& before) const; ///< requires the project that was given as `before`
    void undo(Project& after) const;  ///< requires the project that was given as `after`

    /// Memory that it holds, about [bytes].
    std::size_t bytes() const { return bytes_; }

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
    std::size_t bytes_ = 0;
};

} // namespace gantry
