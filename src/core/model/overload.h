// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry {

/// One function of several for std::visit: a kind without a function of its own does not compile.
template <class... Fs>
struct overload : Fs... {
    using Fs::operator()...;
};
template <class... Fs>
overload(Fs...) -> overload<Fs...>;

} // namespace gantry
