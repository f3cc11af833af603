// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/files.h"

#include <QDirIterator>
#include <QFile>
#include <QHash>
#include <QRegularExpression>
#include <QSet>
#include <QTest>

/// Reads the includes of the sources against the table in docs/architecture.md, and looks for what is banned.
class ArchitectureTest : public QObject {
    Q_OBJECT
    static QString read(const QString& path) {
        QFile f(path);
        return f.open(QIODevice::ReadOnly) ? QString::fromUtf8(f.readAll()) : QString();
    }
    template <class F>
    static int eachSource(const QString& folder, F look) {
        int n = 0;
        QDirIterator it(QString::fromStdString(sourcePath({})) + folder, {"*.cpp", "*.h"}, QDir::Files,
                        QDirIterator::Subdirectories);
        while (it.hasNext()) {
            const QString path = it.next();
            look(path, read(path));
            ++n;
        }
        return n;
    }
    /// What is part of a circle or needs one: what needs nothing that is left is taken away until all that is
    /// left needs something that is left.
    static QSet<QString> whatNeedsItself(const QHash<QString, QSet<QString>>& needs) {
        QSet<QString> left(needs.keyBegin(), needs.keyEnd());
        for (bool moved = true; moved;) {
            moved = false;
            for (const QString& one : QSet<QString>(left))
                if (!needs[one].intersects(left)) {
                    left.remove(one);
                    moved = true;
                }
        }
        return left;
    }
private slots:
    void coreRoomsDependOnlyOnWhatTheTableAllows() {
        QHash<QString, QSet<QString>> allowed;
        const QRegularExpression row(QStringLiteral("^\\| `(\\w+)/` \\| [^|]* \\| ([^|]*) ?\\|$"),
                                     QRegularExpression::MultilineOption);
        auto rows = row.globalMatch(read(QString::fromStdString(sourcePath("docs/architecture.md"))));
        while (rows.hasNext()) {
            const auto m = rows.next();
            for (const QString& room :
                 m.captured(2).split(QRegularExpression(QStringLiteral("[^a-z]+")), Qt::SkipEmptyParts))
                allowed[m.captured(1)].insert(room);
            allowed[m.captured(1)].insert(m.captured(1));
        }
        QVERIFY(allowed.size() >= 8);
        const QRegularExpression include(QStringLiteral("#include \"core/(\\w+)/"));
        const int files = eachSource("src/core", [&](const QString& path, const QString& text) {
            const QString room = path.section("/core/", 1).section('/', 0, 0);
            QVERIFY2(allowed.contains(room), qPrintable(room + " is not in the table"));
            auto it = include.globalMatch(text);
            while (it.hasNext()) {
                const QString other = it.next().captured(1);
                QVERIFY2(allowed[room].contains(other), qPrintable(path + " includes " + other));
            }
        });
        QVERIFY(files > 30);
    }
    void theTableHasNoCircle() {
        QHash<QString, QSet<QString>> needs;
        const QRegularExpression include(QStringLiteral("#include \"core/(\\w+)/"));
        eachSource("src/core", [&](const QString& path, const QString& text) {
            const QString room = path.section("/core/", 1).section('/', 0, 0);
            auto it = include.globalMatch(text);
            while (it.hasNext())
                if (const QString other = it.next().captured(1); other != room) needs[room].insert(other);
        });
        const QSet<QString> left = whatNeedsItself(needs);
        QVERIFY2(left.isEmpty(), qPrintable(QStringList(left.values()).join(' ')));
    }
    /// Within evaluate/ every file reads only what stands before it: a header and its source count as one.
    void evaluateFlowsOneWay() {
        QHash<QString, QSet<QString>> needs;
        const QRegularExpression include(QStringLiteral("#include \"core/(evaluate/[\\w/]+)\\.h\""));
        eachSource("src/core/evaluate", [&](const QString& path, const QString& text) {
            const QString unit = path.section("/core/", 1).section('.', 0, -2);
            auto it = include.globalMatch(text);
            needs[unit];
            while (it.hasNext())
                if (const QString other = it.next().captured(1); other != unit) needs[unit].insert(other);
        });
        QVERIFY(needs.size() > 15);
        const QSet<QString> left = whatNeedsItself(needs);
        QVERIFY2(left.isEmpty(), qPrintable(QStringList(left.values()).join(' ')));
    }
    /// Drive, shot, rig and supply read the rig that was set up, never the whole project.
    void noProjectBelowTheSetup() {
        const QRegularExpression named(QStringLiteral("\\bProject\\b")), comment(QStringLiteral("//[^\n]*"));
        int files = 0;
        for (const char* room : {"drive", "shot", "rig", "supply"})
            files +=
                eachSource(QString("src/core/evaluate/%1").arg(room), [&](const QString& path, QString text) {
                    QVERIFY2(!text.remove(comment).contains(named), qPrintable(path));
                });
        QVERIFY(files > 20);
        // What they read is put together in one place.
        QVERIFY(read(QString::fromStdString(sourcePath("src/core/evaluate/rig_setup.h")))
                    .contains("RigSetup setupOf(const Project&"));
    }
    void coreHasNoQtNoFilesNoClock() {
        const QRegularExpression banned(
            QStringLiteral("#include <(Q\\w+|fstream|iostream|filesystem|cstdio|chrono|thread|mutex)>"));
        eachSource("src/core", [&](const QString& path, const QString& text) {
            QVERIFY2(!banned.match(text).hasMatch(), qPrintable(path));
        });
    }
    /// The interface switches the C locale; these would read and write decimal commas.
    void noLocaleDependentNumbers() {
        const QRegularExpression banned(
            QStringLiteral("\\b(strtod|stod|stof|atof|sscanf|sprintf|snprintf|setlocale)\\s*\\("));
        eachSource("src", [&](const QString& path, const QString& text) {
            QVERIFY2(!banned.match(text).hasMatch(), qPrintable(path));
        });
    }
    /// One writer: another way to a file would promise what it does not keep. The log only appends.
    void filesAreWrittenByOneWriter() {
        const QRegularExpression banned(QStringLiteral(
            "QSaveFile|ofstream|\\bfopen\\b|savePng|saveRastered|grab\\(\\)\\.save|QFile::copy|QSettings"));
        eachSource("src", [&](const QString& path, const QString& text) {
            QVERIFY2(!banned.match(text).hasMatch(), qPrintable(path));
        });
    }
    /// One g: a second one could differ.
    void gravityStandsOnce() {
        QStringList places;
        eachSource("src", [&](const QString& path, const QString& text) {
            if (text.contains("9.80665")) places << path;
        });
        QCOMPARE(places.size(), 1);
        QVERIFY2(places[0].endsWith("core/units/constants.h"), qPrintable(places.join(' ')));
    }
    void everySourceNamesItsLicence() {
        for (const char* folder : {"src", "tests", "benchmarks"})
            eachSource(folder, [&](const QString& path, const QString& text) {
                QVERIFY2(text.startsWith("// SPDX-License-Identifier: GPL-3.0-or-later"), qPrintable(path));
            });
    }
    /// The glossary names what is there: every name of the code in it stands in the core.
    void theGlossaryIsOfThisCode() {
        QSet<QString> names;
        const QRegularExpression name(QStringLiteral("\\b[A-Za-z_]\\w*\\b"));
        QDirIterator files(QString::fromStdString(sourcePath("src/core")), {"*.h"}, QDir::Files,
                           QDirIterator::Subdirectories);
        while (files.hasNext())
            for (auto it = name.globalMatch(read(files.next())); it.hasNext();)
                names.insert(it.next().captured());
        const QRegularExpression row(QStringLiteral("^\\| [^|]+ \\| [^|]+ \\| ([^|]+) \\|$"),
                                     QRegularExpression::MultilineOption);
        const QRegularExpression code(QStringLiteral("`([^`]+)`"));
        int found = 0;
        auto rows = row.globalMatch(read(QString::fromStdString(sourcePath("docs/glossary.md"))));
        while (rows.hasNext())
            for (auto it = code.globalMatch(rows.next().captured(1)); it.hasNext();) {
                const QString said = it.next().captured(1);
                if (said.contains(QLatin1Char('/'))) {
                    QVERIFY2(QFile::exists(QString::fromStdString(sourcePath("src/core/")) + said),
                             qPrintable(said));
                    continue;
                }
                ++found;
                for (auto part = name.globalMatch(said); part.hasNext();) {
                    const QString one = part.next().captured();
                    QVERIFY2(one == QLatin1String("s") || names.contains(one), qPrintable(said));
                }
            }
        QVERIFY(found > 40);
    }
};

QTEST_APPLESS_MAIN(ArchitectureTest)
#include "architecture_test.moc"
