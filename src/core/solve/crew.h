// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>

namespace gantry {

/// Does a piece of work on several threads at once and returns when all of them are done. Whoever calls owns
/// the threads; the work shares itself out. Empty: the calling thread does it alone.
using Crew = std::function<void(const std::function<void()>& work)>;

inline void doneBy(const Crew& crew, const std::function<void()>& work) {
    if (crew)
        crew(work);
    else
        work();
}

} // namespace gantry
