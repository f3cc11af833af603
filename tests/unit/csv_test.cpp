// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/parts/parts_csv.h"
#include "io/tables/csv.h"

#include <QTest>
#include <cmath>
#include <random>

using namespace gantry::io;

/// Tables as they come from spreadsheets, and as they should not.
class CsvTest : public QObject {
    Q_OBJECT
    using Row = std::vector<std::string>;
    struct Read {
        std::vector<Row> rows;
        std::vector<std::size_t> lines;
        std::vector<CsvError> errors;
    };
    static Read read(std::string_view text) {
        Read out;
        CsvReader reader(text);
        Row cells;
        while (reader.next(cells)) {
            out.rows.push_back(cells);
            out.lines.push_back(reader.line());
            out.errors.insert(out.errors.end(), reader.errors().begin(), reader.errors().end());
        }
        return out;
    }
    static std::string utf16(const QString& text, bool little) {
        std::string out = little ? "\xFF\xFE" : "\xFE\xFF";
        for (const QChar c : text) {
            const char low = static_cast<char>(c.unicode() & 0xFF),
                       high = static_cast<char>(c.unicode() >> 8);
            out += little ? std::string{low, high} : std::string{high, low};
        }
        return out;
    }

private slots:
    void everyLineEndAndSeparator() {
        const std::vector<Row> wanted{{"a", "b"}, {"1", "two words"}, {"", "3"}};
        for (const char* end : {"\n", "\r\n", "\r"})
            for (const char* mark : {",", ";", "\t"})
                for (const bool last : {true, false}) {
                    const auto line = [&](const char* a, const char* b) { return std::string(a) + mark + b; };
                    const std::string text = line("a", "b") + end + line("1", "two words") + end +
                                             line("", "3") + (last ? end : "");
                    const Read r = read(text);
                    QVERIFY2(r.rows == wanted, text.c_str());
                    QCOMPARE(r.lines, (std::vector<std::size_t>{1, 2, 3}));
                    QVERIFY(r.errors.empty());
                }
    }
    void quotesHoldWhatTheyMay() {
        const Read r = read("name,note\r\n\"a, \"\"b\"\"\",\"two\r\nlines\"\r\n \"x\" , y \n");
        QCOMPARE(r.rows.size(), std::size_t(3));
        QCOMPARE(r.rows[1], (Row{"a, \"b\"", "two\r\nlines"}));
        QCOMPARE(r.rows[2], (Row{"x", "y"}));
        QCOMPARE(r.lines,
                 (std::vector<std::size_t>{1, 2, 4})); // as a spreadsheet counts the lines of the file
        QVERIFY(r.errors.empty());
    }
    void moreQuotedCellsThanAnybodyNeeds() {
        std::string text;
        Row wanted;
        for (int i = 0; i < 300; ++i) {
            text += (i > 0 ? ",\"c" : "\"c") + std::to_string(i) + "\"";
            wanted.push_back("c" + std::to_string(i));
        }
        QCOMPARE(read(text).rows.at(0), wanted);
    }
    void whatDoesNotFitIsReportedWhereItIs() {
        Read r = read("a,b\nx,\"never closed\ny,z\n");
        QCOMPARE(r.errors.size(), std::size_t(1));
        QCOMPARE(r.errors[0].line, std::size_t(2));
        QCOMPARE(r.errors[0].column, std::size_t(2));
        QVERIFY(r.errors[0].sentence.find("never closed") != std::string::npos);
        r = read("a,b\n\"12\" mm,2\n3,4\n");
        QCOMPARE(r.errors.size(), std::size_t(1));
        QCOMPARE(r.errors[0].line, std::size_t(2));
        QCOMPARE(r.errors[0].column, std::size_t(1));
        QVERIFY(r.errors[0].sentence.find("“mm”") != std::string::npos);
        QCOMPARE(r.rows.size(), std::size_t(3)); // the lines after it are read
        QCOMPARE(r.rows[2], (Row{"3", "4"}));
    }
    void utf16IsReadAsSpreadsheetsWriteIt() {
        for (const bool little : {true, false})
            QCOMPARE(read(utf16("Ä;日本;𝛼\r\n1;2;3\r\n", little)).rows,
                     (std::vector<Row>{{"Ä", "日本", "𝛼"}, {"1", "2", "3"}}));
        const auto parts = readParts(utf16("family\tteeth\tname\npulley\t20\tZähne\n", true),
                                     suggestedColumns(csvHeader(utf16("family\tteeth\tname\n", true))));
        QCOMPARE(parts.parts.size(), std::size_t(1));
        QCOMPARE(parts.parts[0].name, std::string("Zähne"));
    }
    void numbersThatAreNoneAreRefused() {
        for (const char* number : {"nan", "inf", "-inf", "NAN", "1e400", "-1"})
            for (const char* column : {"count", "price", "teeth"}) {
                const std::string text = std::string("family,") + column + "\npulley," + number + "\n";
                const auto table = readParts(text, suggestedColumns(csvHeader(text)));
                QVERIFY2(table.parts.empty() && table.badLines == 1, text.c_str());
                QCOMPARE(table.errors[0].line, std::size_t(2));
                QCOMPARE(table.errors[0].column, std::size_t(2));
            }
    }
    /// What is written is read again, whatever it is.
    void writtenIsReadAgain() {
        std::mt19937 random(3);
        const std::string letters = "ab ,;\"\n\r\t'é0";
        for (int run = 0; run < 500; ++run) {
            const std::size_t columns = 1 + random() % 5;
            std::vector<Row> rows(1 + random() % 6, Row(columns));
            CsvWriter writer(run % 2 ? "\n" : "\r\n");
            for (std::size_t r = 0; r < rows.size(); ++r) {
                for (std::string& cell : rows[r]) {
                    if (r == 0) // headings decide the separator
                        cell = "h" + std::to_string(random() % 100);
                    else
                        for (std::size_t n = random() % 6; n > 0; --n)
                            cell += letters[random() % letters.size()];
                    if (cell.find("\xC3") == std::string::npos) std::erase(cell, '\xA9');
                    writer.cell(cell);
                }
                writer.endLine();
            }
            // A table of one column whose first heading has no comma is still one of commas.
            QVERIFY2(read(writer.text()).rows == rows, writer.text().c_str());
        }
    }
    void numbersReadBackTheSame() {
        std::mt19937_64 random(4);
        for (int i = 0; i < 2000; ++i) {
            const double v =
                std::ldexp(static_cast<double>(random()), static_cast<int>(random() % 200) - 130);
            CsvWriter w;
            w.cell(v);
            QCOMPARE(std::stod(w.text()), v);
            QVERIFY(std::abs(sevenDigits(v) / v - 1.0) < 6e-7);
        }
        CsvWriter w;
        w.line(0.1, 20, std::nan(""), HUGE_VAL, "x");
        QCOMPARE(w.text(), std::string("0.1,20,,,x\r\n"));
        QCOMPARE(sevenDigits(0.123456789), 0.1234568);
    }
};

QTEST_APPLESS_MAIN(CsvTest)
#include "csv_test.moc"
