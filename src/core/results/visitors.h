// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/results/describe_figures.h"

#include <cstddef>
#include <vector>

/// Walks over described results. `describe` of what is walked must be declared before the call.
namespace gantry::results {

/// Calls f(info, figures...) for every figure of one or more results of the same kind, those of their parts
/// and lists included. Of lists the entries that all of them have.
template <class F>
class EachFigure {
public:
    explicit EachFigure(F f) : f_(f) {}

    template <class... Figures>
    void figure(const FigureInfo& info, Figures&... figures) {
        f_(info, figures...);
    }
    template <class... T>
    void flag(const FigureInfo&, T&...) {}
    template <class... T>
    void rank(const FigureInfo&, T&...) {}
    template <class... T>
    void outcome(const FigureInfo&, T&...) {}
    template <class... T>
    void part(std::string_view, T&... parts) {
        describe(*this, parts...);
    }
    template <class First, class... Rest>
    void list(std::string_view, First& first, Rest&... rest) {
        for (std::size_t i = 0; i < first.size() && (... && (i < rest.size())); ++i)
            describe(*this, first[i], rest[i]...);
    }

private:
    F f_;
};

template <class F, class... S>
void forEachFigure(F f, S&... results) {
    EachFigure<F> visitor(f);
    describe(visitor, results...);
}

/// Gives every figure of a result the same reason for having no number, whatever it held.
template <class S>
void failAll(S& results, Reason why) {
    forEachFigure([&](const FigureInfo&, Figure& f) { f = Figure::none(why); }, results);
}

/// The same, but what has no meaning for this drive stays so.
template <class S>
void failWhatApplies(S& results, Reason why) {
    forEachFigure(
        [&](const FigureInfo&, Figure& f) {
            if (f.reason() != Reason::NotApplicable) f = Figure::none(why);
        },
        results);
}

} // namespace gantry::results
