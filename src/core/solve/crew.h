// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <atomic>
#include <cstddef>
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

/// Calls task(i) for every i below `count`, the next that is left by whoever of a crew is free. None may read
/// what another writes.
inline void eachBy(const Crew& crew, std::size_t count, const std::function<void(std::size_t)>& task) {
    std::atomic<std::size_t> left{0};
    doneBy(crew, [&] {
        for (std::size_t i = left++; i < count; i = left++) task(i);
    });
}

} // namespace gantry
