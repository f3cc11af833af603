// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "support/files.h"
#include "support/window.h"

#include <QSignalSpy>
#include <cmath>

using namespace gantry;
using namespace gantry::app;

class DocumentTest : public QObject {
    Q_OBJECT
    TestHome home_;
    static double contrast(const QColor& a, const QColor& b) {
        const auto luminance = [](const QColor& c) {
            const auto linear = [](double v) {
                return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
            };
            return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
        };
        const double x = luminance(a), y = luminance(b);
        return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
    }
private slots:
    void editsAreNamedUndoneAndMerged() {
        Document d;
        d.newProject(demoProject());
        const auto mass = [](double kg) {
            return [kg](Project& p) { setNumberAt(p, "axes/slide/mechanism/moving_mass_kg", kg); };
        };
        d.change("Set mass", mass(5), "drag");
        d.change("Set mass", mass(6), "drag");
        d.change("Set mass", mass(7), "drag");
        QCOMPARE(d.undoStack()->count(), 1);
        d.change("Rename", [](Project& p) { p.name = "x"; });
        QCOMPARE(d.undoStack()->undoText(), QString("Rename"));
        d.undoStack()->undo();
        d.undoStack()->undo();
        QVERIFY(d.project() == demoProject());
        QVERIFY(!d.edited());
        QSignalSpy spy(&d, &Document::changed);
        d.change("Nothing", [](Project&) {});
        QCOMPARE(spy.count(), 0);
    }
    void savesAtomicallyWithABackup() {
        const QString file = home_.path("a.gantry");
        Document d;
        d.newProject(demoProject());
        QString error;
        QVERIFY(d.saveAs(file, error));
        d.change("Rename", [](Project& p) { p.name = "second"; });
        QVERIFY(d.save(error));
        QVERIFY(textOfFile((file + "~").toStdString()) == demoText());
        QVERIFY(textOfFile(file.toStdString()).find("second") != std::string::npos);
        QVERIFY(!d.saveAs(home_.path("no/folder/b.gantry"), error));
        QVERIFY(error.contains("no such folder"));
        QCOMPARE(d.path(), file);
    }
    void aSecondWindowIsReadOnly() {
        const QString file = home_.path("shared.gantry");
        Document first;
        first.newProject(demoProject());
        QString error;
        QStringList notices;
        QVERIFY(first.saveAs(file, error));
        Document second;
        QVERIFY(second.open(file, error, notices));
        QVERIFY(second.readOnly());
        second.change("Rename", [](Project& p) { p.name = "no"; });
        QCOMPARE(second.project().name, std::string("Fernhouse dolly"));
        QVERIFY(!second.save(error));
        QVERIFY(error.contains("another window"));
        QVERIFY(second.saveAs(home_.path("copy.gantry"), error));
        QVERIFY(!second.readOnly());
    }
    /// Text contrast of at least 4.5:1 in both themes.
    void contrastOfEveryToken() {
        for (const Tokens* t : {&dayTokens(), &nightTokens()})
            for (const QColor& ground : {t->paper, t->sheet})
                for (const QColor& text : {t->ink, t->second, t->third, t->lake, t->moss, t->straw, t->brick,
                                           t->heather, t->rust, t->plum})
                    QVERIFY2(contrast(text, ground) >= 4.5,
                             qPrintable(text.name() + " on " + ground.name() +
                                        QStringLiteral(": %1").arg(contrast(text, ground))));
        for (const Tokens* t : {&dayTokens(), &nightTokens()}) QVERIFY(contrast(t->onLake, t->lake) >= 4.5);
    }
    void axesDifferInColourAndPattern() {
        for (int a = 0; a < 6; ++a)
            for (int b = a + 1; b < 6; ++b) {
                const QPen x = axisPen(a), y = axisPen(b);
                QVERIFY(x.color() != y.color() || x.dashPattern() != y.dashPattern());
                if (b == a + 1)
                    QVERIFY(x.color() != y.color() &&
                            (x.style() != y.style() || x.dashPattern() != y.dashPattern()));
            }
    }
};

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    DocumentTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "document_test.moc"
