// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "core/model/references.h"
#include "support/window.h"

#include <QCheckBox>
#include <QComboBox>
#include <QSet>
#include <QTabBar>

using namespace gantry;
using namespace gantry::app;

/// Every editor of every station and part, for a straight and a turning axis: it shows an existing field,
/// takes a new value, and one undo brings the old one back.
class EditorsTest : public QObject {
    Q_OBJECT
    TestHome home_;
    QSet<QString> visited_;

    void tryEditor(WindowDriver& d, FieldEditor* editor) {
        const QString path = editor->path();
        Project before = d.project();
        const auto field = findField(before, path.toStdString());
        QVERIFY2(field.has_value() && editor->isEnabled(), qPrintable(path));
        visited_.insert(path);
        const bool names = !namesFor(before, path.toStdString()).empty();
        if (names || std::holds_alternative<ChoiceRef>(field->target)) {
            auto* combo = editor->findChild<QComboBox*>();
            combo->setFocus();
            QTest::keyClick(combo, combo->currentIndex() == 0 ? Qt::Key_Down : Qt::Key_Up);
        } else if (std::holds_alternative<bool*>(field->target)) {
            QTest::keyClick(editor->findChild<QCheckBox*>(), Qt::Key_Space);
        } else {
            auto* line = editor->findChild<QLineEdit*>();
            line->setFocus();
            if (std::holds_alternative<std::string*>(field->target)) {
                QTest::keyClicks(line, "x");
                QTest::keyClick(line, Qt::Key_Return);
            } else {
                // At the upper end of the range a step up cannot change anything.
                const bool atTop = numberAt(before, path.toStdString()) >= field->info.max;
                QTest::keyClick(line, atTop ? Qt::Key_Down : Qt::Key_Up);
            }
        }
        QVERIFY2(!(d.project() == before), qPrintable(path + " cannot be changed"));
        d.window->document().undoStack()->undo();
        QVERIFY2(d.project() == before, qPrintable(path + " is not brought back by one undo"));
    }

    void tryAllShown(WindowDriver& d) {
        QStringList paths;
        for (FieldEditor* e : d.window->findChildren<FieldEditor*>())
            if (e->isVisible()) paths << e->path();
        for (const QString& path : paths) {
            QCoreApplication::processEvents(); // a page may follow what was set last
            tryEditor(d, d.find<FieldEditor>(path));
        }
    }

    /// Every page of Structure, once each for every outline, support and base, since these decide which
    /// fields there are.
    void tryStructure(WindowDriver& d) {
        const auto page = [&](int part) {
            d.find<QComboBox>("structurePart")->setCurrentIndex(part);
            d.window->showStation(u"structure");
        };
        const int parts = d.find<QComboBox>("structurePart")->count();
        for (int part = 0; part < parts; ++part) {
            page(part);
            tryAllShown(d);
        }
        const auto axis = static_cast<std::size_t>(d.window->session().axis());
        for (int kind = 0; kind < 8; ++kind) {
            d.window->document().change("variant", [&](Project& p) {
                p.base.kind = static_cast<BaseKind>(kind % 5);
                if (kind == 1) { // a head with all its axes, and something on everything
                    p.axes[1].role = Role::Tilt;
                    p.axes.push_back(p.axes[1]);
                    p.axes.back().id = "roll";
                    p.axes.back().role = Role::Roll;
                }
                for (Profile& profile : p.profiles) profile.section.shape = static_cast<SectionShape>(kind);
                std::visit(
                    [&](auto& m) {
                        if constexpr (requires { m.rail; }) {
                            m.rail.section.shape = static_cast<SectionShape>(kind);
                            m.rail.support = static_cast<RailSupport>(kind % 3);
                            m.rail.clampBolts = kind % 4;
                        } else {
                            m.boom.section.shape = static_cast<SectionShape>(kind);
                        }
                    },
                    p.axes[axis].mechanism);
            });
            for (int part = 0; part < parts; ++part) {
                page(part);
                for (FieldEditor* e : d.window->findChildren<FieldEditor*>())
                    if (e->isVisible()) visited_.insert(e->path());
            }
            d.window->document().undoStack()->undo();
        }
    }

private slots:
    void everyEditorOfEveryPart() {
        WindowDriver d;
        d.window->document().change("list a section",
                                    [](Project& p) { p.profiles.emplace_back().id = "shelf"; });
        d.window->document().change(
            "a lean", [](Project& p) { std::get<RotaryMechanism>(p.axes[1].mechanism).leanKnown = true; });
        QVERIFY(std::get<RotaryMechanism>(d.project().axes[1].mechanism).leanKnown);
        for (int axis = 0; axis < 2; ++axis) {
            d.window->session().setAxis(axis);
            for (const QString& station : d.window->stationIds()) {
                d.window->showStation(station);
                if (station == "structure") {
                    tryStructure(d);
                    continue;
                }
                if (station != "drives") {
                    d.unfold();
                    tryAllShown(d);
                    continue;
                }
                for (int part = 0; part < 6; ++part) {
                    d.window->session().setChainColumn(part);
                    auto* pages = d.window->findChild<QTabBar*>("partPages");
                    for (int page = 0; page < std::max(1, pages->count()); ++page) {
                        if (pages->isVisible())
                            QTest::mouseClick(pages, Qt::LeftButton, {}, pages->tabRect(page).center());
                        tryAllShown(d);
                    }
                }
            }
        }
        // What people may set and no editor reaches would be an input in name only.
        Project p = d.project();
        QStringList unreachable;
        for (const FieldRef& f : allFields(p)) {
            const QString path = QString::fromStdString(f.path);
            const bool other = path.startsWith("shots/") || path.endsWith("/id") || path.endsWith("/axis") ||
                               // shown as their poses are taken in hand: moves_station_test
                               path.startsWith("moves/") || path == "notes" || path.startsWith("tests/") ||
                               // letters, set by the buttons of Side by side
                               path.endsWith("/candidate") || path.endsWith("/fitted_today");
            if (!other && !visited_.contains(path)) unreachable << path;
        }
        QVERIFY2(unreachable.isEmpty(), qPrintable(unreachable.join(' ')));
    }
    void anEmptyProjectShowsNoDeadEditor() {
        WindowDriver d(false);
        for (const QString& station : d.window->stationIds()) {
            d.window->showStation(station);
            for (FieldEditor* e : d.window->findChildren<FieldEditor*>())
                if (e->isVisible()) QVERIFY2(e->isEnabled(), qPrintable(e->path()));
        }
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    EditorsTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "editors_test.moc"
