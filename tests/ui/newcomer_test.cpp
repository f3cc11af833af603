// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/words/input_name.h"
#include "support/window.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QDialog>
#include <QTabBar>
#include <sstream>

using namespace gantry;
using namespace gantry::app;

/// Somebody new, from an empty project to an answer: finds things only by the text that is visible, counts
/// every click and every committed field.
class NewcomerTest : public QObject {
    Q_OBJECT
    TestHome home_;
    int actions_ = 0;

    void press(WindowDriver& d, const QString& text) {
        for (auto* b : d.window->findChildren<QAbstractButton*>())
            if (b->isVisible() && b->isEnabled() && b->text() == text) {
                QTest::mouseClick(b, Qt::LeftButton);
                ++actions_;
                return;
            }
        QFAIL(qPrintable("no button says “" + text + "”"));
    }
    /// Types into the field below a caption.
    void fill(WindowDriver& d, const QString& caption, const QString& text) {
        for (auto* editor : d.window->findChildren<FieldEditor*>()) {
            if (!editor->isVisible()) continue;
            const auto labels = editor->findChildren<QLabel*>();
            if (!std::any_of(labels.begin(), labels.end(),
                             [&](QLabel* l) { return l->isVisible() && l->text() == caption; }))
                continue;
            auto* edit = editor->findChild<QLineEdit*>();
            QVERIFY2(edit != nullptr && edit->isVisible(), qPrintable(caption));
            QTest::mouseClick(edit, Qt::LeftButton, {}, QPoint(8, edit->height() / 2));
            QTest::keySequence(edit, QKeySequence::SelectAll);
            QTest::keyClicks(edit, text);
            QTest::keyClick(edit, Qt::Key_Return);
            ++actions_;
            return;
        }
        QFAIL(qPrintable("no field is called “" + caption + "”"));
    }
    /// Takes an entry of whatever visible list offers it.
    void choose(WindowDriver& d, const QString& entry) {
        for (auto* box : d.window->findChildren<QComboBox*>()) {
            const int index = box->findText(entry);
            if (!box->isVisible() || index < 0) continue;
            box->setFocus();
            for (int guard = 0; box->currentIndex() != index && guard < 30; ++guard)
                QTest::keyClick(box, box->currentIndex() < index ? Qt::Key_Down : Qt::Key_Up);
            ++actions_;
            return;
        }
        QFAIL(qPrintable("no list offers “" + entry + "”"));
    }
    void page(WindowDriver& d, const QString& title) {
        for (auto* tabs : d.window->findChildren<QTabBar*>())
            for (int i = 0; i < tabs->count(); ++i)
                if (tabs->isVisible() && tabs->tabText(i) == title) {
                    QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(i).center());
                    ++actions_;
                    return;
                }
        QFAIL(qPrintable("no page is called “" + title + "”"));
    }
    /// Walks the chain by its arrow keys to the part that screen readers call so.
    void part(WindowDriver& d, const QString& name) {
        auto* chain = d.find("chainView");
        chain->setFocus();
        for (int i = 0; i < 12; ++i) QTest::keyClick(chain, Qt::Key_Left);
        for (int i = 0; i < 12 && !chain->accessibleDescription().startsWith(name + ","); ++i)
            QTest::keyClick(chain, Qt::Key_Right);
        QVERIFY2(chain->accessibleDescription().startsWith(name + ","), qPrintable(name));
        ++actions_;
    }
    void station(WindowDriver& d, QStringView id) {
        d.station(id);
        ++actions_;
    }
    /// Goes on with Tab until something has the focus that is called so; a round without it fails.
    QWidget* tabTo(WindowDriver& d, const QString& text) {
        d.window->activateWindow();
        const auto called = [&](const QWidget* w) {
            const auto* button = qobject_cast<const QAbstractButton*>(w);
            return w != nullptr && w->isVisible() &&
                   (w->accessibleName() == text || (button != nullptr && button->text() == text));
        };
        for (int tabs = 0; tabs < 400; ++tabs) {
            QWidget* at = QApplication::focusWidget();
            if (called(at)) return at;
            QTest::keyClick(at != nullptr ? at : d.window.get(), Qt::Key_Tab);
        }
        return nullptr;
    }
    void pressByTab(WindowDriver& d, const QString& text) {
        QWidget* w = tabTo(d, text);
        QVERIFY2(w != nullptr, qPrintable("Tab reaches no “" + text + "”"));
        QTest::keyClick(w, Qt::Key_Space);
        ++actions_;
    }
    void fillByTab(WindowDriver& d, const QString& caption, const QString& text) {
        auto* edit = qobject_cast<QLineEdit*>(tabTo(d, caption));
        QVERIFY2(edit != nullptr, qPrintable("Tab reaches no field “" + caption + "”"));
        QTest::keySequence(edit, QKeySequence::SelectAll);
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
        ++actions_;
    }
    void chooseByTab(WindowDriver& d, const QString& list, const QString& entry) {
        auto* box = qobject_cast<QComboBox*>(tabTo(d, list));
        QVERIFY2(box != nullptr && box->findText(entry) >= 0, qPrintable(list + ": " + entry));
        for (int guard = 0; box->currentText() != entry && guard < 30; ++guard)
            QTest::keyClick(box, box->currentIndex() < box->findText(entry) ? Qt::Key_Down : Qt::Key_Up);
        ++actions_;
    }
    /// Every input that puts a verdict at risk is named where that verdict is read: nothing that nobody was
    /// shown decides.
    void nothingHiddenDecides(WindowDriver& d) {
        const Project& p = d.project();
        for (const Verdict& v : d.window->document().assessment().verdicts) {
            if (!mendable(v.state)) continue;
            const std::string said = sentence(v, p, units::System::Metric);
            const std::string& axis = p.axes[static_cast<std::size_t>(v.axis)].id;
            for (const std::string& path : v.deciding)
                if (v.state == State::AtRisk) {
                    std::string label = words::inputLabel(p, path, axis);
                    if (label.starts_with("the ")) label.erase(0, 4);
                    QVERIFY2(said.find(label) != std::string::npos,
                             (title(v) + ": " + said + " / " + label).c_str());
                }
        }
        // Of each axis it says how many of its inputs are guesses, and what to do next.
        for (const QString& station : d.window->stationIds()) {
            d.window->showStation(station);
            auto* line = d.find("pathLine");
            QVERIFY2(line != nullptr && line->accessibleName().contains("guesses"),
                     line != nullptr ? qPrintable(line->accessibleName()) : "no line");
        }
    }
    /// Saved, opened again and evaluated by the command line, the rig has an answer.
    void answered(WindowDriver& d, const char* rule) {
        QVERIFY2(actions_ < 25, qPrintable(QString::number(actions_)));
        qInfo("%d actions", actions_);
        QTemporaryDir folder;
        const QString file = folder.filePath("rig.gantry");
        QString error;
        QVERIFY2(d.window->document().saveAs(file, error), qPrintable(error));
        std::ostringstream out, err;
        const int code = cli::run({"evaluate", file.toStdString(), "--json"}, out, err);
        QVERIFY2(code == 0, err.str().c_str());
        QVERIFY2(out.str().find(std::string("\"id\": \"") + rule + "\"") != std::string::npos, rule);
        QVERIFY(out.str().find("\"state\": \"unknown\"") == std::string::npos);
        std::ostringstream again;
        cli::run({"check", file.toStdString()}, again, err);
        QVERIFY(again.str().find("reads well") != std::string::npos);
    }
private slots:
    void init() { actions_ = 0; }
    /// By visible names and Tab alone, each in under 20 actions.
    void sliderByTab() {
        WindowDriver d(false);
        pressByTab(d, "Belt slider");
        fillByTab(d, "Moving mass", "5 kg");
        fillByTab(d, "Slope", "8 deg");
        station(d, u"structure");
        chooseByTab(d, "Part of the structure to edit", "Supports");
        fillByTab(d, "First stand", "200 mm");
        fillByTab(d, "Second stand", "800 mm");
        station(d, u"drives");
        fillByTab(d, "Holding torque", "0.5 Nm");
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).movingMass.value, 5.0);
        QCOMPARE(std::get<LinearMechanism>(d.project().axes[0].mechanism).rail.firstStand, 0.2);
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).holdingTorque.value, 0.5);
        QVERIFY(actions_ < 20);
        answered(d, "torque");
        nothingHiddenDecides(d);
    }
    void panHeadByTab() {
        WindowDriver d(false);
        pressByTab(d, "Pan-tilt head");
        fillByTab(d, "Usable range", "200 deg");
        station(d, u"drives");
        fillByTab(d, "Holding torque", "0.45 Nm");
        station(d, u"structure");
        chooseByTab(d, "Part of the structure to edit", "Base");
        fillByTab(d, "Column height", "1.3 m");
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).holdingTorque.value, 0.45);
        QCOMPARE(d.project().base.height, 1.3);
        QVERIFY(actions_ < 20);
        answered(d, "torque");
        nothingHiddenDecides(d);
    }
    void jibByTab() {
        WindowDriver d(false);
        pressByTab(d, "Jib crane");
        station(d, u"structure");
        chooseByTab(d, "Part of the structure to edit", "Base");
        fillByTab(d, "Column height", "1.1 m");
        pressByTab(d, "Axis Boom");
        chooseByTab(d, "Part of the structure to edit", "Arm");
        fillByTab(d, "Reach", "1.6 m");
        chooseByTab(d, "Part of the structure to edit", "Counterweight");
        fillByTab(d, "Counterweight", "20 kg");
        QCOMPARE(d.project().base.height, 1.1);
        bool reached = false;
        for (const Axis& a : d.project().axes)
            if (const auto* r = std::get_if<RotaryMechanism>(&a.mechanism))
                reached = reached || r->boom.reach == 1.6;
        QVERIFY(reached);
        QVERIFY(actions_ < 20);
        answered(d, "tipping");
        nothingHiddenDecides(d);
    }
    void winchCart() {
        WindowDriver d(false);
        press(d, "Winched cart");
        fill(d, "Moving mass", "11 kg");
        fill(d, "Slope", "10 deg");
        fill(d, "Distance", "5 m");
        fill(d, "Time", "60 s");
        station(d, u"drives");
        part(d, "Winch and cord");
        fill(d, "Drum diameter", "50 mm");
        fill(d, "Cord diameter", "2 mm");
        fill(d, "Breaking load", "1200 N");
        part(d, "Motor");
        fill(d, "Holding torque", "0.9 Nm");
        QCOMPARE(std::get<Stepper>(d.project().axes[0].motor).holdingTorque.value, 0.9);
        QCOMPARE(std::get<WinchOutput>(std::get<LinearMechanism>(d.project().axes[0].mechanism).output)
                     .drumDiameter.value,
                 0.05);
        answered(d, "cord_slack");
    }
    void gearedOrbitBoom() {
        WindowDriver d(false);
        press(d, "Orbit boom");
        fill(d, "Angle", "120 deg");
        fill(d, "Time", "40 s");
        station(d, u"drives");
        part(d, "Motor");
        fill(d, "No-load speed", "20 rpm");
        fill(d, "Stall torque", "4 Nm");
        page(d, "Data, more");
        fill(d, "Knob, highest", "80 %");
        part(d, "Gear pair");
        fill(d, "Teeth, load side", "140");
        part(d, "Load");
        page(d, "Items");
        page(d, "Brake and stop");
        QCOMPARE(std::get<GearedDc>(d.project().axes[0].motor).knob, 0.8);
        QCOMPARE(std::get<GearStage>(d.project().axes[0].links[0]).loadTeeth, 140);
        answered(d, "motor_speed");
    }
    void servoSlider() {
        WindowDriver d(false);
        press(d, "Belt slider");
        fill(d, "Moving mass", "6 kg");
        press(d, "More of Slide");
        fill(d, "Rail length", "1.4 m");
        station(d, u"drives");
        part(d, "Motor");
        choose(d, "Servo, step and direction");
        fill(d, "Rated torque", "0.4 Nm");
        fill(d, "Peak torque", "1.2 Nm");
        page(d, "Position loop");
        fill(d, "Encoder counts", "10000");
        d.pickFromMenu(d.find<QPushButton>("benchTools"), "Solve the electronic gear");
        ++actions_;
        auto* dialog = d.window->findChild<QDialog*>("solveDialog");
        QVERIFY(dialog != nullptr);
        press(d, "Take it");
        QTRY_VERIFY(d.window->findChild<QDialog*>("solveDialog") == nullptr);
        const auto& loop = std::get<ServoMotor>(d.project().axes[0].motor).loop;
        QCOMPARE(loop.gear.numerator * 2, loop.gear.denominator * 5); // 250 counts a mm for 100 steps a mm
        answered(d, "duty");
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    NewcomerTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "newcomer_test.moc"
