// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QTest>
#include <cmath>

/// |actual − expected| within a relative tolerance of |expected| (absolute below `floor`).
inline bool isNear(double actual, double expected, double relative, double floor = 1e-12) {
    return std::abs(actual - expected) <= std::max(relative * std::abs(expected), floor);
}

#define VERIFY_NEAR(actual, expected, relative)                                                              \
    QVERIFY2(isNear((actual), (expected), (relative)), qPrintable(QStringLiteral("%1: got %2, expected %3")  \
                                                                      .arg(QStringLiteral(#actual))          \
                                                                      .arg((actual), 0, 'g', 10)             \
                                                                      .arg((expected), 0, 'g', 10)))

/// The same with a tolerance in the unit of the value, where what is expected may be nothing.
#define VERIFY_NEAR_ABS(actual, expected, absolute)                                                          \
    QVERIFY2(std::abs((actual) - (expected)) <= (absolute),                                                  \
             qPrintable(QStringLiteral("%1: got %2, expected %3")                                            \
                            .arg(QStringLiteral(#actual))                                                    \
                            .arg((actual), 0, 'g', 12)                                                       \
                            .arg((expected), 0, 'g', 12)))
