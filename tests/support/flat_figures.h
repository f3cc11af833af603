// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluation.h"
#include "core/results/visitors.h"

#include <string>
#include <vector>

/// A number of an evaluation, and where it stands: "axes/0/shots/1/torque_needed_Nm".
struct FlatFigure {
    std::string path;
    double value = 0.0;
};

/// Collects every figure that has a number.
class FlatFigures {
public:
    std::vector<FlatFigure> all;

    template <class F>
    void figure(const gantry::FigureInfo& info, F& f) {
        if (f) all.push_back({path_ + std::string(info.key), f.value()});
    }
    template <class T>
    void flag(const gantry::FigureInfo&, T&) {}
    template <class T>
    void rank(const gantry::FigureInfo&, T&) {}
    template <class T>
    void outcome(const gantry::FigureInfo&, T&) {}
    template <class T>
    void part(std::string_view key, T& part) {
        inside(std::string(key), [&] { describe(*this, part); });
    }
    template <class T>
    void list(std::string_view key, T& list) {
        for (std::size_t i = 0; i < list.size(); ++i)
            inside(std::string(key) + "/" + std::to_string(i), [&] { describe(*this, list[i]); });
    }

private:
    template <class F>
    void inside(const std::string& step, F f) {
        const std::size_t before = path_.size();
        path_ += step + "/";
        f();
        path_.resize(before);
    }
    std::string path_;
};

/// Every figure of an evaluation.
inline std::vector<FlatFigure> figuresOf(const gantry::Evaluation& evaluation) {
    FlatFigures out;
    describe(out, evaluation);
    return std::move(out.all);
}
