// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/toothed_wheel.h"
#include "app/instruments/vial.h"
#include "app/shell/station_rail.h"
#include "app/theme/curve.h"
#include "app/theme/tokens.h"

#include <QApplication>
#include <QSignalSpy>
#include <QTest>
#include <cmath>

using namespace gantry;
using namespace gantry::app;

class InstrumentsTest : public QObject {
    Q_OBJECT
    static double place(double ratio, double wanted, double oversized = 0) {
        Verdict v;
        v.ratio = Figure::of(ratio);
        v.low = ratio;
        v.bounds = {wanted, oversized};
        v.state = stateOf(ratio, v.bounds);
        return bubblePlace(v);
    }
private slots:
    /// Between the lines when fine, right of them when tight, at the end when over, left when oversized.
    void bubbleSaysTheState() {
        for (double r = 0.05; r < 1; r += 0.1) QVERIFY(place(r, 2) > 0.85);
        for (double r = 1; r < 2; r += 0.1) QVERIFY(place(r, 2) > 2.0 / 3 && place(r, 2) < 0.85);
        for (double r = 2; r < 6; r += 0.2) QVERIFY(place(r, 2, 6) > 1.0 / 3 && place(r, 2, 6) < 2.0 / 3);
        QVERIFY(place(7, 2, 6) < 1.0 / 3);
    }
    void bubbleMovesRightAsItGetsTighter() {
        double last = 0;
        for (double r = 5.9; r > 0.5; r -= 0.01) {
            QVERIFY(place(r, 2, 6) >= last - 1e-12);
            last = place(r, 2, 6);
        }
    }
    void vialIsPaintedInItsStateColour() {
        QImage image(64, 14, QImage::Format_RGB32);
        image.fill(Qt::white);
        QPainter p(&image);
        paintVial(p, QRectF(0, 0, 64, 14), State::Over, 0.87);
        p.end();
        int coloured = 0;
        for (int x = 44; x < 64; ++x)
            for (int y = 0; y < 14; ++y) {
                const QColor c(image.pixel(x, y));
                coloured +=
                    std::abs(c.red() - tokens().brick.red()) + std::abs(c.green() - tokens().brick.green()) <
                    12;
            }
        QVERIFY(coloured > 20);
    }
    /// A curve of many points has its ink where its points are, as wide as its pen.
    void curvesAreWhereTheirPointsAre() {
        QImage image(400, 200, QImage::Format_Grayscale8);
        image.fill(Qt::white);
        const auto at = [](double x) { return 100.0 + 70.0 * std::sin(x / 40.0) + (x > 300.0 ? 15.0 : 0.0); };
        QPolygonF curve;
        for (double x = 10.0; x <= 390.0; x += 0.5) curve << QPointF(x, at(x));
        QPainter p(&image);
        p.setRenderHint(QPainter::Antialiasing);
        drawCurve(p, curve, QPen(Qt::black, 2.0));
        p.end();
        for (int x = 14; x < 386; ++x) {
            if (std::abs(x - 300) < 4) continue; // where it jumps
            double ink = 0.0, sum = 0.0;
            for (int y = 0; y < 200; ++y) {
                const double dark = 1.0 - qGray(image.pixel(x, y)) / 255.0;
                ink += dark;
                sum += dark * (y + 0.5);
            }
            const double slope = 70.0 / 40.0 * std::cos((x + 0.5) / 40.0);
            QVERIFY2(std::abs(sum / ink - at(x + 0.5)) < 0.4, qPrintable(QString::number(x)));
            const double wide = ink / std::hypot(1.0, slope);
            QVERIFY2(std::abs(wide - 2.0) < 0.2, qPrintable(QString("%1 at %2").arg(wide).arg(x)));
        }
    }
    /// Dashes go on over every bend: as much is drawn as the pattern says, in parts as long as it says.
    void dashesGoOnOverBends() {
        QImage image(400, 60, QImage::Format_Grayscale8);
        image.fill(Qt::white);
        QPolygonF curve; // bends everywhere by more than is left out
        for (int x = 10; x <= 390; x += 3) curve << QPointF(x, 30.5 + (x / 3 % 2 == 0 ? 0.6 : -0.6));
        QPainter p(&image);
        p.setRenderHint(QPainter::Antialiasing);
        QPen pen(Qt::black, 2.0);
        pen.setDashPattern({4.0, 2.0});
        drawCurve(p, curve, pen);
        p.end();
        double ink = 0.0;
        int parts = 0;
        bool before = false;
        for (int x = 0; x < 400; ++x) {
            double column = 0.0;
            for (int y = 0; y < 60; ++y) column += 1.0 - qGray(image.pixel(x, y)) / 255.0;
            ink += column;
            const bool drawn = column > 1.0;
            parts += drawn && !before;
            before = drawn;
        }
        const double length = 380.0 * std::hypot(3.0, 1.2) / 3.0;
        QVERIFY2(std::abs(ink / (2.0 * length) - 2.0 / 3.0) < 0.05,
                 qPrintable(QString::number(ink / length)));
        QVERIFY2(std::abs(parts - length / 12.0) <= 1.5, qPrintable(QString::number(parts)));
    }
    /// A wheel drawn with n teeth has n outer corners pairs: counted by walking round just below the rim.
    void wheelsHaveTheirTrueToothCount() {
        for (const int teeth : {12, 20, 57, 104}) {
            const QPainterPath wheel = toothedWheel({}, 100, teeth);
            const double depth = std::min(18.0, 100 * 2 * M_PI / teeth * 0.45);
            int edges = 0;
            bool inside = wheel.contains(QPointF(100 - depth / 2, 0));
            for (int i = 1; i <= 36000; ++i) {
                const double a = 2 * M_PI * i / 36000;
                const bool now = wheel.contains(QPointF(std::cos(a), std::sin(a)) * (100 - depth / 2));
                edges += now != inside;
                inside = now;
            }
            QCOMPARE(edges / 2, teeth);
        }
    }
    void railGoesWhereItIsClicked() {
        StationRail rail;
        rail.resize(600, 62);
        rail.setStations({"One", "Two", "Three"});
        rail.show();
        QSignalSpy chosen(&rail, &StationRail::chosen);
        QTest::mouseClick(&rail, Qt::LeftButton, {}, QPoint(300 + 150, 40));
        QCOMPARE(chosen.takeFirst().at(0).toInt(), 2);
        QTest::mouseClick(&rail, Qt::LeftButton, {}, QPoint(300, 20));
        QCOMPARE(chosen.takeFirst().at(0).toInt(), 1);
        rail.setCurrent(1);
        QCOMPARE(rail.accessibleName(), QString("Station 2 of 3: Two"));
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    InstrumentsTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "instruments_test.moc"
