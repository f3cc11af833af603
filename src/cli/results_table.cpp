// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/results_table.h"

#include "core/tools/chain_table.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/limits.h"
#include "core/units/text.h"
#include "core/words/messages.h"

#include <ostream>
#include <string>

namespace gantry::cli {
namespace {

/// Prints figures one a line: place, label, value.
class TablePrinter {
public:
    TablePrinter(const Project& project, bool linear, std::string place, std::ostream& out)
        : project_(project), linear_(linear), place_(std::move(place)), out_(out) {}

    void figure(const FigureInfo& info, const Figure& f) const {
        if (f.reason() == Reason::NotApplicable) return;
        line(info, f ? units::format(f.value(), info.kindFor(linear_), units::System::Metric)
                     : "not known (" + std::string(words::reasonText(f.reason())) + ")");
    }
    void flag(const FigureInfo& info, bool value) const { line(info, value ? "yes" : "no"); }
    template <class T>
    void rank(const FigureInfo& info, const T& value) const {
        line(info, std::to_string(static_cast<int>(value)));
    }
    template <class E>
    void outcome(const FigureInfo& info, const E& value) const {
        line(info, std::string(ChoiceNames<E>::labels[static_cast<std::size_t>(value)]));
    }
    template <class T>
    void part(std::string_view key, const T& results) const {
        TablePrinter inner(project_, linear_, place_ + '/' + std::string(key), out_);
        describe(inner, results);
    }
    template <class T>
    void list(std::string_view key, const std::vector<T>& all) const {
        for (std::size_t i = 0; i < all.size(); ++i) {
            TablePrinter inner(project_, isLinear(all[i]), place_ + '/' + nameOf(key, all[i], i), out_);
            describe(inner, all[i]);
        }
    }

private:
    void line(const FigureInfo& info, const std::string& value) const {
        out_ << place_.substr(1) << '\t' << info.label << '\t' << value << '\n';
    }
    template <class T>
    bool isLinear(const T&) const {
        return linear_;
    }
    bool isLinear(const AxisEvaluation& e) const { return e.model.kind == AxisKind::Linear; }

    template <class T>
    std::string nameOf(std::string_view key, const T&, std::size_t i) const {
        return std::string(key) + '/' + std::to_string(i + 1);
    }
    std::string nameOf(std::string_view, const AxisEvaluation&, std::size_t i) const {
        return project_.axes[i].id;
    }
    std::string nameOf(std::string_view key, const ShotEvaluation& s, std::size_t) const {
        return std::string(key) + '/' + project_.shots[s.shot.at()].id;
    }

    const Project& project_;
    bool linear_;
    std::string place_;
    std::ostream& out_;
};

/// Prints the keys of one kind of result under each other, those of parts and lists with their path.
class KeyPrinter {
public:
    KeyPrinter(std::string place, std::ostream& out) : place_(std::move(place)), out_(out) {}

    template <class T>
    void figure(const FigureInfo& info, const T&) const {
        row(info);
    }
    template <class T>
    void flag(const FigureInfo& info, const T&) const {
        row(info);
    }
    template <class T>
    void rank(const FigureInfo& info, const T&) const {
        row(info);
    }
    template <class E>
    void outcome(const FigureInfo& info, const E&) const {
        row(info);
    }
    template <class T>
    void part(std::string_view key, const T& results) const {
        KeyPrinter inner(place_ + std::string(key) + '.', out_);
        describe(inner, results);
    }
    template <class T>
    void list(std::string_view key, const std::vector<T>&) const {
        KeyPrinter inner(place_ + std::string(key) + "[].", out_);
        const T one{};
        describe(inner, one);
    }

private:
    void row(const FigureInfo& info) const {
        out_ << "| `" << place_ << info.key << '`';
        if (info.key != info.rotaryKey) out_ << " or `" << info.rotaryKey << '`';
        out_ << " | " << info.label << " |\n";
    }

    std::string place_;
    std::ostream& out_;
};

template <class T>
void printKeys(const std::string& place, const T& results, std::ostream& out) {
    KeyPrinter printer(place, out);
    describe(printer, results);
}

} // namespace

void printAll(const Project& project, const Evaluation& evaluation, std::ostream& out) {
    TablePrinter printer(project, true, "", out);
    describe(printer, evaluation);
}

void printResultKeys(std::ostream& out) {
    out << "| key | what it is |\n| --- | --- |\n";
    printKeys("", Evaluation{}, out);
    printKeys("axes[].limits.", AxisLimits{}, out);
    printKeys("axes[].limits.ramps[].", RampRow{}, out);
    printKeys("axes[].chain[].", ChainColumn{}, out);
}

} // namespace gantry::cli
