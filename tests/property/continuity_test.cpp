// SPDX-License-Identifier: GPL-3.0-or-later
// Whatever continuous input is passed from 0.9 to 1.1 of its value, no figure jumps.
#include "core/evaluate/evaluate.h"
#include "core/model/fields.h"
#include "core/rigs/rigs.h"
#include "support/files.h"
#include "support/flat_figures.h"

#include <QTest>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>

using namespace gantry;

namespace {

constexpr int steps = 20;

/// A figure over the steps of an input; shorter where it has no number at some of them.
using Series = std::map<std::string, std::vector<double>>;

/// The step at which a series jumps; −1 if it does not. A jump is more than five times the median step and
/// stands alone: where a figure only begins to follow another law, its steps stay as large.
int jumpOf(const std::vector<double>& f) {
    std::vector<double> step;
    double scale = 0.0;
    for (std::size_t i = 1; i < f.size(); ++i) {
        step.push_back(std::abs(f[i] - f[i - 1]));
        scale = std::max(scale, std::abs(f[i]));
    }
    std::vector<double> sorted = step;
    std::nth_element(sorted.begin(), sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2),
                     sorted.end());
    const double median = sorted[sorted.size() / 2], least = 1e-4 * scale;
    for (std::size_t i = 0; i < step.size(); ++i) {
        const double before = i > 0 ? step[i - 1] : 0.0, after = i + 1 < step.size() ? step[i + 1] : 0.0;
        if (step[i] > least && step[i] > 5.0 * median && step[i] > 3.0 * std::max(before, after))
            return static_cast<int>(i);
    }
    return -1;
}

std::vector<std::pair<std::string, Project>> rigsThatShip() {
    std::vector<std::pair<std::string, Project>> out;
    for (const rigs::RigInfo& info : rigs::all()) out.emplace_back(info.key, rigs::make(info.kind));
    for (const char* demo : {"fernhouse-dolly", "kettle-jib", "moss-orbit"})
        out.emplace_back(demo, demoProject(demo));
    return out;
}

double* valueOf(const FieldRef& f) {
    if (auto* const* e = std::get_if<Estimate*>(&f.target)) return &(*e)->value;
    if (auto* const* d = std::get_if<double*>(&f.target)) return *d;
    return nullptr;
}

} // namespace

class ContinuityTest : public QObject {
    Q_OBJECT
private slots:
    void jumpsAreFound() {
        std::vector<double> f;
        for (int i = 0; i <= steps; ++i) f.push_back(0.01 * i + (i > 7 ? 0.2 : 0.0));
        QCOMPARE(jumpOf(f), 7);
        for (int i = 0; i <= steps; ++i) f[static_cast<std::size_t>(i)] = std::max(1.0, 0.9 + 0.01 * i);
        QCOMPARE(jumpOf(f), -1); // a bend
    }
    void nothingJumps() {
        QStringList jumps;
        std::map<std::string, int> kinds;
        for (auto& [name, project] : rigsThatShip()) {
            Project p = project;
            for (const FieldRef& field : allFields(p)) {
                double* const value = valueOf(field);
                if (value == nullptr || *value == 0.0) continue;
                const double nominal = *value;
                Series series;
                for (int i = 0; i <= steps; ++i) {
                    *value = clampToField(field.info, nominal * (0.9 + 0.2 * i / steps));
                    for (const FlatFigure& f : figuresOf(evaluate(p, Poses::Later)))
                        series[f.path].push_back(f.value);
                }
                *value = nominal;
                for (const auto& [path, f] : series) {
                    if (f.size() != steps + 1) continue;
                    const int at = jumpOf(f);
                    if (at < 0) continue;
                    const std::string figure = path.substr(path.rfind('/') + 1);
                    if (kinds[figure]++ < 3)
                        jumps << QString::fromStdString(name + " " + field.path + ": " + path) +
                                     QStringLiteral(" at %1: %2 to %3")
                                         .arg(at)
                                         .arg(f[static_cast<std::size_t>(at)])
                                         .arg(f[static_cast<std::size_t>(at) + 1]);
                }
            }
        }
        for (const QString& j : jumps) qInfo("%s", qPrintable(j));
        for (const auto& [k, n] : kinds) qInfo("%s %d", k.c_str(), n);
        QVERIFY(jumps.isEmpty());
    }
};

QTEST_APPLESS_MAIN(ContinuityTest)
#include "continuity_test.moc"
