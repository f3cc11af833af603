// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/verdicts/rules.h"
#include "core/words/messages.h"

#include <QRegularExpression>
#include <QSet>
#include <QTest>

using namespace gantry;
using namespace gantry::words;

class WordsTest : public QObject {
    Q_OBJECT
    static QString text(MessageId id) {
        return QString::fromUtf8(textOf(id).data(), static_cast<qsizetype>(textOf(id).size()));
    }
private slots:
    void everyMessageUsesKnownPlaceholders() {
        const QRegularExpression placeholder("\\{([^}]*)\\}");
        for (int i = 0; i < static_cast<int>(MessageId::messageCount_); ++i) {
            const QString s = text(static_cast<MessageId>(i));
            QVERIFY(!s.isEmpty());
            auto it = placeholder.globalMatch(s);
            while (it.hasNext()) {
                const QString name = it.next().captured(1);
                QVERIFY2(
                    QSet<QString>({"0", "1", "2", "3", "4", "5", "axis", "shot", "reason", "part", "room"})
                        .contains(name),
                    qPrintable(s));
            }
        }
    }
    void rendersInBothSystems() {
        const Arguments a{{{units::Kind::Torque, 0.0988},
                           {units::Kind::Torque, 0.3106},
                           {units::Kind::RotationRate, 39.27}}};
        QCOMPARE(
            render(MessageId::TorqueText, a, {"Slide", "Reveal"}, units::System::Metric),
            std::string(
                "Shot “Reveal” needs 0.0988 N·m at the end of the ramp; 0.311 N·m is available at 375 rpm."));
        QVERIFY(render(MessageId::TorqueText, a, {"Slide", "Reveal"}, units::System::Inch).find("14 oz·in") !=
                std::string::npos);
    }
    /// The program never says "safe"; cautions stand where someone could be hurt.
    void neverSafe() {
        for (int i = 0; i < static_cast<int>(MessageId::messageCount_); ++i)
            QVERIFY2(!text(static_cast<MessageId>(i)).contains("safe", Qt::CaseInsensitive),
                     qPrintable(text(static_cast<MessageId>(i))));
        QVERIFY(text(MessageId::PowerOffFallsText).contains("secure the camera"));
        QVERIFY(text(MessageId::CurrentText).contains("hot"));
    }
    void everyReasonHasWords() {
        for (int i = 0; i <= static_cast<int>(Reason::OutOfRange); ++i)
            QVERIFY(!reasonText(static_cast<Reason>(i)).empty());
    }
    void ruleKeysAreUniqueAndFound() {
        QSet<QString> keys;
        for (const rules::Rule& r : rules::all()) {
            const QString key = QString::fromUtf8(r.key().data(), static_cast<qsizetype>(r.key().size()));
            QVERIFY(!keys.contains(key));
            keys.insert(key);
            QCOMPARE(rules::all()[static_cast<std::size_t>(rules::indexOf(r.key()))].key(), r.key());
            QVERIFY(!text(r.title).contains('{'));
            QVERIFY(r.bounds().wanted >= 1.0 &&
                    (r.bounds().oversizedFrom == 0.0 || r.bounds().oversizedFrom > r.bounds().wanted));
        }
        QCOMPARE(rules::indexOf("nonsense"), -1);
    }
    void figuresCarryNoNonsense() {
        QVERIFY(!Figure::of(std::nan("")));
        QCOMPARE(Figure::of(INFINITY).reason(), Reason::OutOfRange);
        QCOMPARE(Figure::of(INFINITY, Reason::Unbounded).reason(), Reason::Unbounded);
        QCOMPARE(Figure::of(3.0).value(), 3.0);
        QVERIFY(std::isnan(Figure::none(Reason::NoShot).value()));
    }
};

QTEST_APPLESS_MAIN(WordsTest)
#include "words_test.moc"
