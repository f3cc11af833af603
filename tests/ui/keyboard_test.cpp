// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/station_rail.h"
#include "support/window.h"

#include <QSet>

using namespace gantry::app;

/// Every station by Tab alone: all that can be changed is reached, and everything with focus has a name.
class KeyboardTest : public QObject {
    Q_OBJECT
    TestHome home_;

    static QSet<QWidget*> walk(WindowDriver& d) {
        QSet<QWidget*> seen;
        d.find("stationRail")->setFocus();
        for (int i = 0; i < 400; ++i) {
            QWidget* focus = QApplication::focusWidget();
            if (focus == nullptr || seen.contains(focus)) break;
            seen.insert(focus);
            QTest::keyClick(focus, Qt::Key_Tab);
        }
        return seen;
    }
private slots:
    void everyControlIsReachedAndNamed_data() {
        QTest::addColumn<QString>("station");
        for (const QString& id : WindowDriver().window->stationIds())
            QTest::addRow("%s", qPrintable(id)) << id;
    }
    void everyControlIsReachedAndNamed() {
        QFETCH(QString, station);
        WindowDriver d;
        d.station(station);
        const QSet<QWidget*> seen = walk(d);
        for (QWidget* w : d.window->findChildren<QWidget*>()) {
            if (!w->isVisible() || !w->isEnabled() || !(w->focusPolicy() & Qt::TabFocus) ||
                w->focusProxy() != nullptr)
                continue;
            if (qobject_cast<QLineEdit*>(w) && w->parentWidget()->inherits("QComboBox")) continue;
            const QString what =
                QStringLiteral("%1 “%2” in %3")
                    .arg(w->metaObject()->className(), w->objectName(), w->parentWidget()->objectName());
            QVERIFY2(seen.contains(w), qPrintable(what + " is not reached by Tab"));
            auto* button = qobject_cast<QAbstractButton*>(w);
            QVERIFY2(!w->accessibleName().isEmpty() || (button && !button->text().isEmpty()),
                     qPrintable(what + " has no name"));
        }
        QVERIFY(seen.size() > 15);
    }
    void railByArrowKeys() {
        WindowDriver d;
        auto* rail = d.find("stationRail");
        rail->setFocus();
        QTest::keyClick(rail, Qt::Key_Right);
        QVERIFY(d.find("rigView") != nullptr);
        QTest::keyClick(rail, Qt::Key_Right);
        QVERIFY(d.find("driveTable") != nullptr);
        QTest::keyClick(rail, Qt::Key_Right);
        QVERIFY(d.find("envelopePlot") != nullptr);
        QTest::keyClick(rail, Qt::Key_Right);
        QVERIFY(d.find("moveTimeline") != nullptr);
        QTest::keyClick(rail, Qt::Key_Right);
        QVERIFY(d.find("intervalLanes") != nullptr);
        QTest::keyClick(rail, Qt::Key_Right);
        QVERIFY(d.find("settingsTable") != nullptr);
        for (int i = 0; i < 4; ++i) QTest::keyClick(rail, Qt::Key_Left);
        QVERIFY(d.find("driveTable") != nullptr);
    }
    void chainByArrowKeys() {
        WindowDriver d;
        d.station(u"drives");
        auto* chain = d.find("chainView");
        chain->setFocus();
        QTest::keyClick(chain, Qt::Key_Right);
        QVERIFY2(chain->accessibleDescription().startsWith("Pulley, 20T"),
                 qPrintable(chain->accessibleDescription()));
        QVERIFY(d.field("axes/slide/mechanism/output/teeth") != nullptr);
        QTest::keyClick(chain, Qt::Key_Left);
        QTest::keyClick(chain, Qt::Key_Left);
        QVERIFY(chain->accessibleDescription().startsWith("Driver"));
    }
    void axisBySpace() {
        WindowDriver d;
        auto* card = d.find("axisCard1");
        card->setFocus();
        QTest::keyClick(card, Qt::Key_Space);
        QCOMPARE(d.window->session().axis(), 1);
        QVERIFY(d.status().contains("416/9"));
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    KeyboardTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "keyboard_test.moc"
