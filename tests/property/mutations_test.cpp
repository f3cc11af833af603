// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "core/verdicts/ranges.h"
#include "io/project/project_file.h"
#include "io/report/evaluation_json.h"
#include "support/files.h"
#include "support/finite.h"
#include "support/progress.h"

#include <QElapsedTimer>
#include <QTest>
#include <random>

using namespace gantry;
using nlohmann::json;

#ifdef __SANITIZE_ADDRESS__
constexpr int mutations = 400;
#else
constexpr int mutations = 5000;
#endif

/// The demo file, damaged in thousands of ways: each loads, and then evaluates, or is refused with a reason.
class MutationsTest : public QObject {
    Q_OBJECT
    std::mt19937_64 random_{20261123};
    int accepted_ = 0, refused_ = 0;

    std::size_t below(std::size_t n) { return static_cast<std::size_t>(random_() % n); }

    void judgeText(const std::string& text) {
        QElapsedTimer clock;
        clock.start();
        const auto r = io::readProject(text);
        if (const auto* e = std::get_if<io::LoadError>(&r)) {
            QVERIFY(e->sentence.size() > 20);
            ++refused_;
        } else {
            const Project& p = std::get<io::LoadedProject>(r).project;
            std::string culprit;
            QVERIFY2(everyNumberIsFinite(json::parse(io::evaluationJson(p, assess(p))), culprit),
                     culprit.c_str());
            ++accepted_;
        }
        QVERIFY(clock.elapsed() < 5000);
    }

    std::string brokenBytes(std::string text) {
        static const std::vector<std::string> scraps{
            "{",  "}",     "[",       "]",    "\"",  ",",     ":",       "null",        "true",
            "-1", "1e400", "\\u0000", "\xFF", "NaN", "0.0.1", "{\"a\":", "\xEF\xBB\xBF"};
        for (std::size_t n = 1 + below(4); n > 0 && !text.empty(); --n) {
            const std::size_t at = below(text.size());
            switch (below(6)) {
            case 0:
                text[at] = static_cast<char>(below(256));
                break;
            case 1:
                text.erase(at, 1 + below(40));
                break;
            case 2:
                text.insert(at, scraps[below(scraps.size())]);
                break;
            case 3:
                text.resize(at);
                break;
            case 4:
                text.insert(at, text.substr(below(text.size()), below(200)));
                break;
            default:
                std::swap(text[at], text[below(text.size())]);
                break;
            }
        }
        return text;
    }

    /// Adds, removes, swaps and retypes whole values.
    std::string brokenStructure() {
        json j = json::parse(demoText());
        for (std::size_t n = 1 + below(3); n > 0; --n) {
            json* node = &j;
            for (std::size_t depth = 1 + below(6); depth > 0 && node->is_structured() && !node->empty();
                 --depth) {
                auto it = node->begin();
                std::advance(it, static_cast<std::ptrdiff_t>(below(node->size())));
                node = &*it;
            }
            switch (below(7)) {
            case 0:
                *node = nullptr;
                break;
            case 1:
                *node = json::array({1, "two", json::object()});
                break;
            case 2:
                *node = "text";
                break;
            case 3:
                *node = -1e300;
                break;
            case 4:
                if (node->is_structured()) node->clear();
                break;
            case 5:
                if (node->is_object()) (*node)["surprise"] = json::parse(demoText())["axes"];
                break;
            default:
                *node = json::parse(demoText())["shots"];
                break;
            }
        }
        return j.dump();
    }

private slots:
    void bytesAndStructure() {
        const std::string demo = demoText();
        Progress progress("broken files read", mutations / 2);
        for (int i = 0; i < mutations / 2; ++i) {
            progress.step();
            judgeText(i % 2 ? brokenBytes(demo) : brokenStructure());
        }
        QVERIFY(refused_ > mutations / 4);
    }
    /// Values anywhere within the accepted range, ends included, and a few outside.
    void values() {
        const int before = accepted_;
        Progress progress("odd values tried", mutations / 2);
        for (int i = 0; i < mutations / 2; ++i) {
            progress.step();
            Project p = demoProject();
            std::vector<FieldRef> fields = allFields(p);
            for (std::size_t n = 1 + below(8); n > 0; --n) {
                FieldRef& f = fields[below(fields.size())];
                const double u = static_cast<double>(below(1'000'001)) / 1e6;
                const double value = f.info.min > 0 ? f.info.min * std::pow(f.info.max / f.info.min, u)
                                                    : f.info.min + (f.info.max - f.info.min) * u * u * u;
                const double chosen = clampToField(f.info, value);
                if (auto** d = std::get_if<double*>(&f.target))
                    **d = chosen;
                else if (auto** e = std::get_if<Estimate*>(&f.target))
                    (*e)->value = chosen;
                else if (auto** k = std::get_if<int*>(&f.target))
                    **k = static_cast<int>(chosen);
            }
            judgeText(io::writeProject(p));
        }
        QVERIFY(accepted_ - before > mutations / 2 - mutations / 50);
    }
};

QTEST_APPLESS_MAIN(MutationsTest)
#include "mutations_test.moc"
