// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/solve/root.h"

#include "support/near.h"

#include <QTest>
#include <cmath>
#include <numbers>

using namespace gantry;

/// Roots, limits of conditions and least values against what is known of the functions.
class SolveTest : public QObject {
    Q_OBJECT
private slots:
    void roots() {
        const auto square = [](double x) { return x * x - 2.0; };
        VERIFY_NEAR(*solve::rootBetween(square, 0.0, 2.0), std::numbers::sqrt2, 1e-13);
        VERIFY_NEAR(*solve::rootBetween([](double x) { return std::cos(x) - x; }, 0.0, 1.0),
                    0.73908513321516064, 1e-13);
        // At an end, and where there is no bracket.
        QCOMPARE(*solve::rootBetween([](double x) { return x; }, 0.0, 2.0), 0.0);
        QCOMPARE(*solve::rootBetween([](double x) { return x - 2.0; }, 0.0, 2.0), 2.0);
        QVERIFY(!solve::rootBetween(square, 2.0, 3.0));
        QVERIFY(!solve::rootBetween(square, 2.0, 0.0));
        QVERIFY(!solve::rootBetween(square, 0.0, INFINITY));
        QVERIFY(!solve::rootBetween([](double) { return NAN; }, 0.0, 1.0));
    }
    /// Ends that are known are not looked at again, whichever of them lies above nothing.
    void rootsFromKnownEnds() {
        int calls = 0;
        const auto line = [&](double x) {
            ++calls;
            return 3.0 - x;
        };
        const double fromKnown = *solve::rootBetween(line, {1.0, 2.0}, {7.0, -4.0});
        const int known = calls;
        calls = 0;
        const double fromEnds = *solve::rootBetween(line, 1.0, 7.0);
        VERIFY_NEAR(fromKnown, 3.0, 1e-13);
        VERIFY_NEAR(fromEnds, 3.0, 1e-13);
        QCOMPARE(calls, known + 2);
        QCOMPARE(*solve::rootBetween(line, {3.0, 0.0}, {7.0, -4.0}), 3.0);
        QVERIFY(!solve::rootBetween(line, {1.0, 2.0}, {2.0, 1.0}));
    }
    void limitsOfConditions() {
        int calls = 0;
        const auto upTo = [&](double limit) {
            return [&calls, limit](double x) {
                ++calls;
                return x <= limit;
            };
        };
        for (const double limit : {1e-6, 0.25, 1.0 / 3.0, 77.0}) {
            calls = 0;
            const double found = *solve::largestWhere(upTo(limit), 0.0, 100.0);
            QVERIFY(found <= limit); // never beyond
            VERIFY_NEAR(found, limit, 1e-11);
            QVERIFY(calls < 90);
        }
        QCOMPARE(*solve::largestWhere(upTo(200.0), 0.0, 100.0), 100.0);
        QCOMPARE(*solve::largestWhere(upTo(5.0), 5.0, 5.0), 5.0);
        QVERIFY(!solve::largestWhere(upTo(-1.0), 0.0, 100.0));
        QVERIFY(!solve::largestWhere(upTo(50.0), 100.0, 0.0));
        QVERIFY(!solve::largestWhere(upTo(50.0), 0.0, INFINITY));
        // As exactly as is asked, and no more.
        calls = 0;
        const double coarse = *solve::largestWhere(upTo(10.0), 1.0, 100.0, 10);
        VERIFY_NEAR(coarse, 10.0, 2e-3);
        QVERIFY(calls < 25);
    }
    void leastValues() {
        VERIFY_NEAR(solve::leastBetween([](double x) { return (x - 0.3) * (x - 0.3) + 5.0; }, -4.0, 9.0), 5.0,
                    1e-12);
        VERIFY_NEAR(solve::leastBetween([](double x) { return -std::sin(x); }, 0.0, 3.0), -1.0, 1e-12);
        // x·e^x falls to −1/e at −1.
        VERIFY_NEAR(solve::leastBetween([](double x) { return x * std::exp(x); }, -5.0, 2.0),
                    -1.0 / std::numbers::e, 1e-12);
    }
};

QTEST_APPLESS_MAIN(SolveTest)
#include "solve_test.moc"
