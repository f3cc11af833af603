// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "support/near.h"

#include <QTest>
#include <numbers>
#include <random>

using namespace gantry::units;
Q_DECLARE_METATYPE(gantry::units::Kind)

class UnitsTest : public QObject {
    Q_OBJECT
    static double read(const char* text, Kind kind, System system = System::Metric) {
        const ParseResult r = parse(text, kind, system);
        return std::holds_alternative<double>(r) ? std::get<double>(r) : std::nan("");
    }
    static QString refusal(const char* text, Kind kind) {
        const ParseResult r = parse(text, kind, System::Metric);
        return std::holds_alternative<ParseError>(r)
                   ? QString::fromStdString(std::get<ParseError>(r).sentence)
                   : QString();
    }
private slots:
    void reads_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<int>("kind");
        QTest::addColumn<double>("si");
        const auto row = [](const char* text, Kind k, double si) {
            QTest::newRow(text) << QString::fromUtf8(text) << static_cast<int>(k) << si;
        };
        row("3 1/8 in", Kind::Length, 0.079375);
        row("12\"", Kind::Length, 0.3048);
        row("1/4 in", Kind::Length, 0.00635);
        row("30,5 mm", Kind::Length, 0.0305);
        row("30.5mm", Kind::Length, 0.0305);
        row("5 ft 3 in", Kind::Length, 1.6002);
        row("5ft3in", Kind::Length, 1.6002);
        row("-18 mm", Kind::Length, -0.018);
        row("12.5 µm", Kind::Length, 12.5e-6);
        row("0.4 Nm", Kind::Torque, 0.4);
        row("57 oz in", Kind::Torque, 57 * 0.00706155181422604);
        row("40 N·cm", Kind::Torque, 0.4);
        row("12 lb", Kind::Mass, 5.44310844);
        row("57 g cm²", Kind::Inertia, 5.7e-6);
        row("57 g·cm^2", Kind::Inertia, 5.7e-6);
        row("1.8 deg", Kind::Angle, 0.031415926535897934);
        row("90°", Kind::Angle, 1.5707963267948966);
        row("400 rpm", Kind::RotationRate, 41.88790204786391);
        row("1 ft in 15 min", Kind::Speed, 0.3048 / 900);
        row("20 cm over 30 s", Kind::Speed, 0.2 / 30);
        row("1 in/min", Kind::Speed, 0.0254 / 60);
        row("1 in in 15 min", Kind::Speed, 0.0254 / 900);
        row("2 m per hour", Kind::Speed, 2.0 / 3600);
        row("90° in 4 s", Kind::AngularSpeed, 0.39269908169872414);
        row("1/50 s", Kind::Time, 0.02);
        row("2h30m", Kind::Time, 9000);
        row("1 min 30 s", Kind::Time, 90);
        row("1.5 ohm", Kind::Resistance, 1.5);
        row("2.8 mH", Kind::Inductance, 0.0028);
        row("850 mA", Kind::Current, 0.85);
        row("6 V", Kind::Voltage, 6);
        row("20T", Kind::Count, 20);
        row("57:11", Kind::Ratio, 57.0 / 11.0);
        row("3", Kind::Ratio, 3);
        row("95 %", Kind::Percentage, 0.95);
        row("95", Kind::Percentage, 0.95);
        row("40 kHz", Kind::Frequency, 40000);
        row("800", Kind::Acceleration, 0.8);
        row("4000 mm/s³", Kind::Jerk, 4);
        row("8 N·m/°", Kind::AngularStiffness, 8 * 57.29577951308232);
        row("0.125 in", Kind::Length, 0.003175);
        row("1e-3 m", Kind::Length, 0.001);
    }
    void reads() {
        QFETCH(QString, text);
        QFETCH(int, kind);
        QFETCH(double, si);
        VERIFY_NEAR(read(text.toUtf8().constData(), static_cast<Kind>(kind)), si, 1e-12);
    }
    void bareNumberTakesShownUnit() {
        QCOMPARE(read("79", Kind::Length), 0.079);
        VERIFY_NEAR(read("2", Kind::Length, System::Inch), 0.0508, 1e-12);
        VERIFY_NEAR(read("2", Kind::Mass, System::Inch), 0.90718474, 1e-12);
    }
    void refusesThousandsLookalikes() {
        QVERIFY(refusal("1,100", Kind::Length).contains("1100 or 1.1"));
        QVERIFY(refusal("1.100 mm", Kind::Length).contains("1100 or 1.1"));
        QVERIFY(refusal("2.032 mm", Kind::Length).contains("2032 or 2.0320"));
        QVERIFY(refusal("1.234.567", Kind::Length).contains("thousands"));
        QCOMPARE(read("2.0320 mm", Kind::Length), 0.002032);
    }
    void refusesNonsenseWithAReason() {
        QVERIFY(refusal("heavy", Kind::Mass).contains("a mass"));
        QVERIFY(refusal("3 N", Kind::Length).contains("a force"));
        QVERIFY(refusal("", Kind::Length).contains("nothing"));
        QVERIFY(refusal("3 furlongs", Kind::Length).contains("furlongs"));
        QVERIFY(refusal("20.5", Kind::Count).contains("whole"));
        QVERIFY(refusal("1/0 in", Kind::Length).contains("0"));
        QVERIFY(refusal("1e999", Kind::Length).contains("too large"));
        QVERIFY(refusal("nan", Kind::Length).contains("not a number"));
        QVERIFY(refusal("3 4 mm", Kind::Length).contains("without a unit"));
    }
    void formats() {
        QCOMPARE(format(12.5e-6, Kind::Length, System::Metric), std::string("12.5 µm"));
        QCOMPARE(format(0.09883, Kind::Torque, System::Metric), std::string("0.0988 N·m"));
        QCOMPARE(format(1.66e-4, Kind::Inertia, System::Metric), std::string("1660 g·cm²"));
        QCOMPARE(format(0.25, Kind::Speed, System::Metric), std::string("250 mm/s"));
        QCOMPARE(format(20000, Kind::Frequency, System::Metric), std::string("20 kHz"));
        QCOMPARE(format(0.20943951, Kind::Angle, System::Metric), std::string("12°"));
        QCOMPARE(format(3.6776, Kind::Inertia, System::Metric), std::string("36780 kg·cm²"));
        QCOMPARE(format(2.7911, Kind::Acceleration, System::Metric), std::string("2791 mm/s²"));
        QCOMPARE(format(0.0254, Kind::Length, System::Inch), std::string("1 in"));
        QCOMPARE(format(std::nan(""), Kind::Length, System::Metric), std::string("–"));
        QCOMPARE(formatForEditing(0.002032, Kind::Length, System::Metric), std::string("2.0320"));
        QCOMPARE(formatForField(0.035, Kind::PartLength, System::Inch),
                 std::string("35")); // lenses are in mm everywhere
        QCOMPARE(formatForField(1.0 / 3.0, Kind::Mass, System::Metric), std::string("0.33333"));
        QCOMPARE(formatForEditing(-0.0, Kind::Length, System::Metric), std::string("0"));
    }
    void shownIn_data() {
        QTest::addColumn<int>("kind");
        QTest::addColumn<double>("si");
        QTest::addColumn<QString>("metric");
        QTest::addColumn<QString>("inch");
        const auto row = [](Kind kind, double si, const char* metric, const char* inch) {
            QTest::addRow("%d %g", static_cast<int>(kind), si)
                << static_cast<int>(kind) << si << metric << inch;
        };
        // Both sides of where the unit changes, and what a pound and an inch are.
        row(Kind::Length, 0.9e-4, "90 µm", "0.00354 in");
        row(Kind::Length, 1e-4, "0.1 mm", "0.00394 in");
        row(Kind::Length, 9.99, "9990 mm", "393 in");
        row(Kind::Length, 10.0, "10 m", "394 in");
        row(Kind::Length, 0.0, "0 mm", "0 in");
        row(Kind::Mass, 0.49, "490 g", "1.08 lb");
        row(Kind::Mass, 0.5, "0.5 kg", "1.1 lb");
        row(Kind::Mass, 0.45359237, "454 g", "1 lb");
        row(Kind::Force, 4.4482216152605, "4.45 N", "1 lbf");
        row(Kind::Torque, 0.00706155181422604, "0.00706 N·m", "1 oz·in");
        row(Kind::Inertia, 0.9e-3, "9000 g·cm²", "49.2 oz·in²");
        row(Kind::Inertia, 1e-3, "10 kg·cm²", "54.7 oz·in²");
        row(Kind::LoadInertia, 2.926396534292e-4, "2.93 kg·cm²", "1 lb·in²");
        row(Kind::Speed, 0.9e-4, "5.4 mm/min", "0.213 in/min");
        row(Kind::Speed, 1e-4, "0.1 mm/s", "0.236 in/min");
        row(Kind::Speed, 0.0254, "25.4 mm/s", "1 in/s");
        row(Kind::AngularSpeed, std::numbers::pi, "180 °/s", "180 °/s");
        row(Kind::RotationRate, 2.0 * std::numbers::pi, "60 rpm", "60 rpm");
        row(Kind::Acceleration, 0.254, "254 mm/s²", "10 in/s²");
        row(Kind::Jerk, 2.54, "2540 mm/s³", "100 in/s³");
        row(Kind::Time, 0.9e-3, "900 µs", "900 µs");
        row(Kind::Time, 1e-3, "0.001 s", "0.001 s");
        row(Kind::ShortTime, 2e-6, "2 µs", "2 µs");
        row(Kind::Frequency, 999.0, "999 Hz", "999 Hz");
        row(Kind::Frequency, 1000.0, "1 kHz", "1 kHz");
        row(Kind::Stiffness, 175126.835, "175 N/mm", "1000 lbf/in");
        row(Kind::AngularStiffness, 100.0, "1.75 N·m/°", "1.75 N·m/°");
        row(Kind::Stress, 6894757.293, "6.89 MPa", "1000 psi");
        row(Kind::MassPerLength, 1.48816394357, "1.49 kg/m", "1 lb/ft");
        row(Kind::Area, 0.09, "900 cm²", "900 cm²");
        row(Kind::Area, 0.1, "0.1 m²", "0.1 m²");
        row(Kind::Section, 7.5e-7, "0.75 mm²", "0.75 mm²");
        row(Kind::SecondMoment, 2e-8, "2 cm⁴", "2 cm⁴");
        row(Kind::Inductance, 3.2e-3, "3.2 mH", "3.2 mH");
        row(Kind::Percentage, 0.125, "12.5 %", "12.5 %");
        row(Kind::Charge, 18000.0, "5 Ah", "5 Ah");
    }
    void shownIn() {
        QFETCH(int, kind);
        QFETCH(double, si);
        QFETCH(QString, metric);
        QFETCH(QString, inch);
        for (const double sign : {1.0, -1.0}) {
            const QString minus = sign < 0.0 && si != 0.0 ? "-" : "";
            QCOMPARE(QString::fromStdString(format(sign * si, static_cast<Kind>(kind), System::Metric)),
                     minus + metric);
            QCOMPARE(QString::fromStdString(format(sign * si, static_cast<Kind>(kind), System::Inch)),
                     minus + inch);
        }
    }
    /// Digits: three that count, one more for large whole numbers, no zeros behind, no dash for nothing.
    void digits() {
        const auto ratio = [](double x, int n = 3) { return format(x, Kind::Ratio, System::Metric, n); };
        QCOMPARE(ratio(1.005), std::string("1"));
        QCOMPARE(ratio(0.0012345), std::string("0.00123"));
        QCOMPARE(ratio(999.6), std::string("1000"));
        QCOMPARE(ratio(1234.4), std::string("1234"));
        QCOMPARE(ratio(12345.0), std::string("12350"));
        QCOMPARE(ratio(123456.0), std::string("123500"));
        QCOMPARE(ratio(-0.00001, 2), std::string("-0.00001"));
        QCOMPARE(ratio(-0.0), std::string("0"));
        QCOMPARE(ratio(2.0 / 3.0, 5), std::string("0.66667"));
        QCOMPARE(ratio(99.95, 2), std::string("100"));
        QCOMPARE(plainNumber(2.50, 3), std::string("2.5"));
        QCOMPARE(plainNumber(2.0004, 3), std::string("2"));
        QCOMPARE(plainNumber(-0.0001, 3), std::string("0"));
        QCOMPARE(plainNumber(std::nan(""), 3), std::string());
        // What looks like thousands gets one more zero.
        QCOMPARE(formatForEditing(1.234, Kind::Ratio, System::Metric), std::string("1.2340"));
        QCOMPARE(formatForEditing(0.234, Kind::Ratio, System::Metric), std::string("0.234"));
        QCOMPARE(formatForEditing(-12.345, Kind::Ratio, System::Metric), std::string("-12.3450"));
        QCOMPARE(formatForEditing(1234.567, Kind::Ratio, System::Metric), std::string("1234.567"));
    }
    /// What a field shows, it reads back to the same value, in every kind and both systems.
    void editingRoundTrip() {
        std::mt19937_64 random(20261123);
        std::uniform_real_distribution<double> mantissa(-9.99, 9.99);
        std::uniform_int_distribution<int> exponent(-7, 5);
        for (int k = 0; k < static_cast<int>(Kind::kindCount_); ++k) {
            const Kind kind = static_cast<Kind>(k);
            if (kind == Kind::Count) continue;
            for (const System system : {System::Metric, System::Inch})
                for (int i = 0; i < 500; ++i) {
                    const double value = mantissa(random) * std::pow(10.0, exponent(random));
                    const std::string text = formatForEditing(value, kind, system);
                    const ParseResult back = parse(text, kind, system);
                    QVERIFY2(std::holds_alternative<double>(back), text.c_str());
                    if (kind == Kind::TimeOfDay) { // to a microsecond
                        QVERIFY2(std::abs(std::get<double>(back) - value) < 1e-6, text.c_str());
                        continue;
                    }
                    QVERIFY2(isNear(std::get<double>(back), value, 6e-9), text.c_str());
                    QCOMPARE(formatForEditing(std::get<double>(back), kind, system), text);
                    const std::string shown = formatForField(value, kind, system);
                    const ParseResult read = parse(shown, kind, system);
                    QVERIFY2(std::holds_alternative<double>(read), shown.c_str());
                    QVERIFY2(isNear(std::get<double>(read), value, 6e-5), shown.c_str());
                }
        }
    }
    /// Typed with its unit, every spelling of the table reads as its factor.
    void everySpellingReads() {
        for (const Unit& u : unitTable()) {
            const std::string text = "3 " + std::string(u.spelling);
            const ParseResult r = parse(text, u.kind, System::Metric);
            QVERIFY2(std::holds_alternative<double>(r), text.c_str());
            QVERIFY2(isNear(std::get<double>(r), 3 * u.factor, 1e-12), text.c_str());
        }
    }
    void neverThrowsOnGarbage() {
        std::mt19937 random(7);
        const std::string alphabet = "0123456789.,/ -+eE\"'°µinmftshrkgNoz%:²³()\xC2\xB7\xFF";
        std::uniform_int_distribution<std::size_t> pick(0, alphabet.size() - 1), length(0, 24);
        int numbers = 0;
        for (int i = 0; i < 20000; ++i) {
            std::string text;
            for (std::size_t n = length(random); n > 0; --n) text += alphabet[pick(random)];
            const ParseResult r =
                parse(text, static_cast<Kind>(i % static_cast<int>(Kind::kindCount_)), System::Metric);
            if (const double* v = std::get_if<double>(&r)) {
                QVERIFY(std::isfinite(*v));
                ++numbers;
            } else
                QVERIFY(!std::get<ParseError>(r).sentence.empty());
        }
        QVERIFY(numbers > 50);
    }
};

QTEST_APPLESS_MAIN(UnitsTest)
#include "units_test.moc"
