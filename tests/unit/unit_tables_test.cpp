// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/plain_text.h"
#include "core/units/spelled_time.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "support/near.h"

#include <QStringDecoder>
#include <QTest>
#include <limits>
#include <numbers>

using namespace gantry::units;

/// Units as they are shown, stated a second time; what may be shown at all, against another reader of UTF-8;
/// numbers as people type them.
class UnitTablesTest : public QObject {
    Q_OBJECT
    static double read(const char* text, Kind kind) {
        const ParseResult r = parse(text, kind, System::Metric);
        return std::holds_alternative<double>(r) ? std::get<double>(r) : std::nan("");
    }

private slots:
    void shownUnits() {
        constexpr double deg = std::numbers::pi / 180;
        struct Row {
            Kind kind;
            double magnitude;
            const char* text;
            double factor;
        };
        const Row rows[]{{Kind::Length, 0.3, "mm", 1e-3},
                         {Kind::Length, 9.99, "mm", 1e-3},
                         {Kind::Length, 10.0, "m", 1},
                         {Kind::Length, 9.4e-5, "µm", 1e-6},
                         {Kind::Length, 9.6e-5, "mm", 1e-3},
                         {Kind::Length, -12.0, "m", 1},
                         {Kind::Length, 0.0, "mm", 1e-3},
                         {Kind::PartLength, 1e-6, "mm", 1e-3},
                         {Kind::Angle, 1, "°", deg},
                         {Kind::Mass, 0.499, "g", 1e-3},
                         {Kind::Mass, 0.5, "kg", 1},
                         {Kind::Mass, 0.0, "kg", 1},
                         {Kind::Force, 3, "N", 1},
                         {Kind::Torque, 3, "N·m", 1},
                         {Kind::Inertia, 1e-3, "kg·cm²", 1e-4},
                         {Kind::Inertia, 9e-4, "g·cm²", 1e-7},
                         {Kind::LoadInertia, 1, "kg·cm²", 1e-4},
                         {Kind::Speed, 9e-5, "mm/min", 1e-3 / 60},
                         {Kind::Speed, 1e-4, "mm/s", 1e-3},
                         {Kind::AngularSpeed, 1, "°/s", deg},
                         {Kind::RotationRate, 1, "rpm", 2 * std::numbers::pi / 60},
                         {Kind::Acceleration, 1, "mm/s²", 1e-3},
                         {Kind::AngularAcceleration, 1, "°/s²", deg},
                         {Kind::Jerk, 1, "mm/s³", 1e-3},
                         {Kind::AngularJerk, 1, "°/s³", deg},
                         {Kind::Time, 9e-4, "µs", 1e-6},
                         {Kind::Time, 1e-3, "s", 1},
                         {Kind::ShortTime, 5, "µs", 1e-6},
                         {Kind::Frequency, 999, "Hz", 1},
                         {Kind::Frequency, 1000, "kHz", 1e3},
                         {Kind::Current, 1, "A", 1},
                         {Kind::Voltage, 1, "V", 1},
                         {Kind::Resistance, 1, "ohm", 1},
                         {Kind::Inductance, 1, "mH", 1e-3},
                         {Kind::Stiffness, 1, "N/mm", 1e3},
                         {Kind::AngularStiffness, 1, "N·m/°", 1 / deg},
                         {Kind::Energy, 1, "J", 1},
                         {Kind::Power, 1, "W", 1},
                         {Kind::Ratio, 1, "", 1},
                         {Kind::Percentage, 1, "%", 1e-2},
                         {Kind::Count, 1, "", 1},
                         {Kind::Pixels, 1, "px", 1},
                         {Kind::PixelsPerFrame, 1, "px/frame", 1},
                         {Kind::PixelsPerSecond, 1, "px/s", 1},
                         {Kind::ThermalResistance, 1, "K/W", 1},
                         {Kind::Celsius, 1, "°C", 1},
                         {Kind::Area, 0.1, "m²", 1},
                         {Kind::Area, 0.09, "cm²", 1e-4},
                         {Kind::Section, 1, "mm²", 1e-6},
                         {Kind::SecondMoment, 1, "cm⁴", 1e-8},
                         {Kind::Stress, 1, "MPa", 1e6},
                         {Kind::MassPerLength, 1, "kg/m", 1},
                         {Kind::Charge, 1, "Ah", 3600},
                         {Kind::Money, 1, "", 1},
                         {Kind::Storage, 25e6, "MB", 1e6},
                         {Kind::Storage, 64e9, "GB", 1e9},
                         {Kind::Storage, 2e12, "TB", 1e12},
                         {Kind::TimeOfDay, 1, "", 3600},
                         {Kind::PartsPerMillion, 1, "ppm", 1e-6}};
        bool seen[static_cast<int>(Kind::kindCount_)]{};
        for (const Row& r : rows) {
            const ShownUnit u = shownUnit(r.kind, System::Metric, r.magnitude);
            QCOMPARE(std::string(u.text), std::string(r.text));
            VERIFY_NEAR(u.factor, r.factor, 1e-15);
            seen[static_cast<int>(r.kind)] = true;
        }
        for (const bool s : seen) QVERIFY(s);
    }
    void shownInInches() {
        constexpr double inch = 0.0254, lb = 0.45359237, g = 9.80665;
        const auto is = [](Kind kind, double factor) {
            return isNear(shownUnit(kind, System::Inch, 1.0).factor, factor, 1e-12);
        };
        QVERIFY(is(Kind::Speed, inch));
        QVERIFY(is(Kind::Acceleration, inch));
        QVERIFY(is(Kind::Jerk, inch));
        QVERIFY(is(Kind::Mass, lb));
        QVERIFY(is(Kind::Force, lb * g));
        QVERIFY(is(Kind::PartLength, 1e-3)); // lenses and belts stay metric
        QVERIFY(is(Kind::Angle, std::numbers::pi / 180));
        QVERIFY(is(Kind::Pixels, 1.0));
        QVERIFY(isNear(shownUnit(Kind::Length, System::Inch, 0.5).factor, inch, 1e-12));
    }
    void noNumberIsADash() {
        for (const double bad : {std::nan(""), std::numeric_limits<double>::infinity(),
                                 -std::numeric_limits<double>::infinity()}) {
            QCOMPARE(format(bad, Kind::Length, System::Metric), std::string("–"));
            QCOMPARE(formatNumber(bad, Kind::Length, System::Metric), std::string("–"));
            QCOMPARE(formatForEditing(bad, Kind::Length, System::Metric), std::string());
            QCOMPARE(formatForField(bad, Kind::Length, System::Metric), std::string());
        }
        // Finite, but no longer so in its unit.
        QCOMPARE(format(1e305, Kind::ShortTime, System::Metric), std::string("–"));
    }
    void typedByPeople() {
        QCOMPARE(read("−5 mm", Kind::Length), -0.005); // a real minus sign
        QCOMPARE(read("-5 mm", Kind::Length), -0.005);
        QCOMPARE(read("+5 mm", Kind::Length), 0.005);
        QCOMPARE(read("  5\tmm ", Kind::Length), 0.005);
        VERIFY_NEAR(read("3 1/8 in", Kind::Length), 3.125 * 0.0254, 1e-12);
        VERIFY_NEAR(read("3-1/8 in", Kind::Length), 3.125 * 0.0254, 1e-12);
        VERIFY_NEAR(read("-3 1/8 in", Kind::Length), -3.125 * 0.0254, 1e-12);
        VERIFY_NEAR(read("1 / 4 in", Kind::Length), 0.25 * 0.0254, 1e-12);
        VERIFY_NEAR(read("1/ 4 in", Kind::Length), 0.25 * 0.0254, 1e-12);
        VERIFY_NEAR(read("3 1 / 8 in", Kind::Length), 3.125 * 0.0254, 1e-12);
        QVERIFY(std::isnan(read("1/0 in", Kind::Length)));
        QVERIFY(std::isnan(read("1e999 mm", Kind::Length)));
        QVERIFY(std::isnan(read("1/", Kind::Ratio)));
        QVERIFY(std::isnan(read("1/x", Kind::Ratio)));
        VERIFY_NEAR(read("2 cm2", Kind::Area), 2e-4, 1e-12);
        VERIFY_NEAR(read("7 cm4", Kind::SecondMoment), 7e-8, 1e-12);
        VERIFY_NEAR(read("5 m/s2", Kind::Acceleration), 5.0, 1e-12);
        // A digit behind a unit with more digits or letters behind it begins a new number.
        VERIFY_NEAR(read("1ft2in", Kind::Length), 14 * 0.0254, 1e-12);
        VERIFY_NEAR(read("1 ft 2 in", Kind::Length), 14 * 0.0254, 1e-12);
        VERIFY_NEAR(read("2m30s", Kind::Time) + read("2 min 30 s", Kind::Time) * 0, 150.0, 1e-9);
    }
    void timesAreSpelled() {
        QCOMPARE(spelledTime(6.0), std::string("6 s"));
        QCOMPARE(spelledTime(119.5), std::string("119.5 s"));
        QCOMPARE(spelledTime(120.0), std::string("2 min"));
        QCOMPARE(spelledTime(1796.0), std::string("29 min 56 s"));
        QCOMPARE(spelledTime(28742.0), std::string("7 h 59 min 2 s"));
        QCOMPARE(spelledTime(3600.0), std::string("1 h"));
        QCOMPARE(spelledTime(3599.99), std::string("1 h"));
        QCOMPARE(spelledTime(2 * 86400.0 + 3 * 3600.0 + 29.0), std::string("2 d 3 h"));
        QCOMPARE(spelledTime(std::nan("")), std::string("–"));
        for (const double s : {0.25, 6.0, 130.4, 1796.0, 28742.0, 90000.0})
            QCOMPARE(read(spelledTime(s).c_str(), Kind::Time), s);
    }
    void timesOfDay() {
        const auto shown = [](double s) { return format(s, Kind::TimeOfDay, System::Metric); };
        QCOMPARE(shown(67200.0), std::string("18:40"));
        QCOMPARE(shown(0.0), std::string("00:00"));
        QCOMPARE(shown(3661.4), std::string("01:01:01"));
        QCOMPARE(shown(86399.7), std::string("day 2, 00:00"));
        QCOMPARE(shown(2 * 86400.0 + 21600.0), std::string("day 3, 06:00"));
        QCOMPARE(read("18:40", Kind::TimeOfDay), 67200.0);
        QCOMPARE(read("18:40:05.25", Kind::TimeOfDay), 67205.25);
        QCOMPARE(read("6:40 pm", Kind::TimeOfDay), 67200.0);
        QCOMPARE(read("12:05 am", Kind::TimeOfDay), 300.0);
        QCOMPARE(read("12:05 pm", Kind::TimeOfDay), 43500.0);
        QCOMPARE(read("day 3, 06:00", Kind::TimeOfDay), 2 * 86400.0 + 21600.0);
        QCOMPARE(read("18", Kind::TimeOfDay), 64800.0);
        QCOMPARE(read("9 pm", Kind::TimeOfDay), 75600.0);
        QCOMPARE(read("7.5 h", Kind::TimeOfDay), 27000.0);
        for (const char* bad :
             {"25:00", "18:60", "18:", ":30", "13:00 pm", "18:40 cm", "-1:00", "18:40:61", "9 pm x"})
            QVERIFY2(std::isnan(read(bad, Kind::TimeOfDay)), bad);
        for (const double s : {1.5, 59.999999, 3600.0, 86399.123456, 90061.5})
            QCOMPARE(read(formatForEditing(s, Kind::TimeOfDay, System::Metric).c_str(), Kind::TimeOfDay), s);
    }
    /// Every lead byte with every second byte and the edges of the others, against Qt's decoder. Control
    /// characters and marks that turn the direction of writing are told by their code points.
    void plainTextIsUtf8() {
        int good = 0;
        const auto check = [&](const std::string& s) {
            QStringDecoder decoder(QStringDecoder::Utf8, QStringConverter::Flag::Stateless |
                                                             QStringConverter::Flag::ConvertInitialBom);
            const QString text = decoder(QByteArray::fromStdString(s));
            bool plain = !decoder.hasError() && !text.contains(QChar::ReplacementCharacter);
            for (const char32_t c : text.toUcs4())
                if ((c < 0x20 && c != '\n' && c != '\t') || (c >= 0x7F && c < 0xA0) ||
                    (c >= 0x2028 && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069))
                    plain = false;
            good += plain;
            return isPlainText(s) == plain;
        };
        const unsigned char edges[]{0x00, 0x41, 0x7F, 0x80, 0x8F, 0x90, 0x9F, 0xA0, 0xA6,
                                    0xA7, 0xA8, 0xA9, 0xAA, 0xAE, 0xAF, 0xBF, 0xC0, 0xFF};
        for (int a = 1; a < 256; ++a) {
            QVERIFY(check({char(a)}));
            for (int b = 0; b < 256; ++b) {
                QVERIFY2(check({char(a), char(b)}), qPrintable(QString("%1 %2").arg(a, 0, 16).arg(b, 0, 16)));
                if (a < 0xC0) continue;
                for (const unsigned char c : edges) {
                    QVERIFY2(check({char(a), char(b), char(c)}),
                             qPrintable(QString("%1 %2 %3").arg(a, 0, 16).arg(b, 0, 16).arg(c, 0, 16)));
                    if (a < 0xE0) continue;
                    for (const unsigned char d : edges)
                        QVERIFY2(check({char(a), char(b), char(c), char(d)}),
                                 qPrintable(QString("%1 %2 %3 %4")
                                                .arg(a, 0, 16)
                                                .arg(b, 0, 16)
                                                .arg(c, 0, 16)
                                                .arg(d, 0, 16)));
                }
            }
        }
        QVERIFY(good > 10000);
    }
};

QTEST_APPLESS_MAIN(UnitTablesTest)
#include "unit_tables_test.moc"
