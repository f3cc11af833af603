// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/fields.h"
#include "core/model/size_limits.h"
#include "core/rigs/rigs.h"
#include "io/project/project_file.h"
#include "support/cpu_clock.h"
#include "support/files.h"
#include "support/random_project.h"
#include "support/whole_run.h"

#include <QElapsedTimer>
#include <QFile>
#include <QTest>
#include <iostream>
#include <random>
#include <sys/resource.h>

using namespace gantry;
using nlohmann::json;

/// Files made to hurt: whole rigs with values at their edges, kinds exchanged, lists grown, keys removed,
/// doubled and invented. Each is refused in a sentence or goes through everything the program computes.
///
/// GANTRY_HOSTILE_SECONDS (ctest gives 120) or GANTRY_HOSTILE_FILES say how long; GANTRY_HOSTILE_SEED repeats
/// a run.
class HostileFilesTest : public QObject {
    Q_OBJECT
    std::mt19937_64 random_;
    std::vector<json> rigs_;

    std::size_t below(std::size_t n) { return n > 0 ? static_cast<std::size_t>(random_() % n) : 0; }
    static long asked(const char* name) { return qEnvironmentVariableIntValue(name); }

    json* anywhere(json& root, int most) {
        json* node = &root;
        for (std::size_t depth = 1 + below(static_cast<std::size_t>(most));
             depth > 0 && node->is_structured() && !node->empty(); --depth) {
            auto it = node->begin();
            std::advance(it, static_cast<std::ptrdiff_t>(below(node->size())));
            node = &*it;
        }
        return node;
    }
    json anyNumber() {
        static const double values[]{0.0,  -0.0,  5e-324, -5e-324, 2.2e-308, 1e-300, 1e-30, 1e-12,
                                     1e-9, 1e-6,  1e-3,   1.0,     -1.0,     20.0,   1e3,   1e6,
                                     1e9,  1e15,  1e300,  -1e300,  1e308,    0.5,    0.1,   3.14159,
                                     1e7,  -20.0, 1e4,    100.0,   2.0,      1e-15};
        if (below(8) == 0) return static_cast<std::int64_t>(random_());
        return values[below(std::size(values))];
    }
    std::string anyText() {
        static const std::string texts[]{"",       "slide",  "pan",         "reveal",  "torque", "axes/slide",
                                         "../..",  "a/b",    "<img src=x>", "\x1b[2J", "日本",   "stepper",
                                         "linear", "\u202E", "A",           "1"};
        return below(40) == 0 ? std::string(below(40000), 'x') : texts[below(std::size(texts))];
    }
    void hurt(json& j) {
        json* node = anywhere(j, 8);
        switch (below(14)) {
        case 0:
        case 1:
        case 2:
        case 3: // another number where there is one
            for (int tries = 0; tries < 20 && !node->is_number(); ++tries) node = anywhere(j, 8);
            *node = anyNumber();
            break;
        case 4:
            if (node->is_object() && !node->empty()) node->erase(node->begin());
            break;
        case 5:
            if (node->is_object()) (*node)[anyText()] = *anywhere(j, 4);
            break;
        case 6: // a list grows
            if (node->is_array() && !node->empty()) {
                const json element = (*node)[below(node->size())];
                for (std::size_t n = below(below(10) == 0 ? 300 : 6); n > 0; --n) {
                    node->push_back(element);
                    if (element.is_object() && element.contains("id"))
                        node->back()["id"] = "x" + std::to_string(random_() % 100000);
                }
            }
            break;
        case 7: // another kind
            if (node->is_object() && node->contains("kind")) (*node)["kind"] = anyText();
            break;
        case 8:
            *node = anyText();
            break;
        case 9:
            *node = *anywhere(rigs_[below(rigs_.size())], 8);
            break;
        case 10:
            if (node->is_array() && !node->empty()) node->erase(below(node->size()));
            break;
        case 11:
            if (node->is_array() && node->size() > 1) std::swap(node->front(), node->back());
            break;
        case 12: { // deep
            json deep = 1;
            for (std::size_t n = below(70); n > 0; --n) deep = json::array({deep});
            if (node->is_object()) (*node)["deep"] = deep;
            break;
        }
        default:
            if (node->is_boolean()) *node = !node->get<bool>();
            break;
        }
    }
    /// Values within what fields accept, so that most of it is accepted.
    std::string withinRanges() {
        Project p =
            below(3) == 0
                ? randomProject(random_)
                : std::get<io::LoadedProject>(io::readProject(rigs_[below(rigs_.size())].dump())).project;
        auto refs = allFields(p);
        for (std::size_t n = below(20); n > 0 && !refs.empty(); --n) {
            FieldRef& f = refs[below(refs.size())];
            const double low = f.info.min, high = f.info.max;
            const double u = std::uniform_real_distribution<double>(0, 1)(random_);
            const double values[]{low,
                                  high,
                                  std::clamp(0.0, low, high),
                                  std::clamp(5e-324, low, high),
                                  std::clamp(1e-9, low, high),
                                  low > 0 ? low * std::pow(high / low, u) : low + (high - low) * u * u * u};
            const double v = values[below(6)];
            if (auto** d = std::get_if<double*>(&f.target))
                **d = v;
            else if (auto** e = std::get_if<Estimate*>(&f.target))
                **e = {v, static_cast<Source>(below(6)), below(4) == 0 ? 10.0 : 0.1};
            else if (auto** i = std::get_if<int*>(&f.target))
                **i = static_cast<int>(v);
            else if (auto* c = std::get_if<ChoiceRef>(&f.target))
                c->assign(c->target, static_cast<int>(below(c->keys.size())));
            else if (auto** b = std::get_if<bool*>(&f.target))
                **b = below(2) == 0;
        }
        return io::writeProject(p);
    }

private slots:
    void initTestCase() {
        std::uint64_t seed = qEnvironmentVariable("GANTRY_HOSTILE_SEED").toULongLong();
        if (seed == 0) seed = std::random_device{}();
        std::cout << "GANTRY_HOSTILE_SEED=" << seed << std::endl;
        random_.seed(seed);
        for (const rigs::RigInfo& info : rigs::all())
            rigs_.push_back(json::parse(io::writeProject(rigs::make(info.kind))));
        for (const char* demo :
             {"fernhouse-dolly", "kettle-jib", "moss-orbit", "seedling-stage", "long-bench"})
            rigs_.push_back(json::parse(demoText(demo)));
    }
    void everythingSurvives() {
        const long files = asked("GANTRY_HOSTILE_FILES"), seconds = asked("GANTRY_HOSTILE_SECONDS");
        QElapsedTimer all;
        all.start();
        long done = 0, accepted = 0;
        long long slowest = 0;
        for (; files > 0 ? done < files : all.elapsed() < 1000 * std::max(5L, seconds); ++done) {
            std::string text;
            if (below(2) == 0)
                text = withinRanges();
            else {
                json j = rigs_[below(rigs_.size())];
                for (std::size_t n = 1 + below(4); n > 0; --n) hurt(j);
                text = j.dump(-1, ' ', false, json::error_handler_t::replace);
            }
            CpuClock clock;
            clock.start();
            std::string wrong;
            try {
                const auto read = io::readProject(text);
                if (const auto* e = std::get_if<io::LoadError>(&read)) {
                    if (e->sentence.size() < 30 || e->sentence.size() > 2000)
                        wrong = "a poor sentence: " + e->sentence;
                } else {
                    ++accepted;
                    wrong = wholeRun(std::get<io::LoadedProject>(read).project, below(50));
                }
            } catch (const std::exception& e) {
                wrong = std::string("thrown: ") + e.what();
            }
            slowest = std::max(slowest, clock.elapsed());
#ifdef __SANITIZE_ADDRESS__
            constexpr long long longest = 20000;
#else
            constexpr long long longest = 4000; // the bar of 2 s, on a machine half as fast
#endif
            if (clock.elapsed() > longest) wrong = "it takes " + std::to_string(clock.elapsed()) + " ms";
            if (!wrong.empty()) {
                QFile file("hostile.gantry");
                if (file.open(QIODevice::WriteOnly)) file.write(text.c_str(), qint64(text.size()));
                QFAIL(qPrintable(QStringLiteral("file %1 (kept as hostile.gantry): %2")
                                     .arg(done)
                                     .arg(QString::fromStdString(wrong))));
            }
            if (done % 1000 == 999)
                std::cout << done + 1 << " files, " << accepted << " accepted, slowest " << slowest << " ms"
                          << std::endl;
        }
        rusage use{};
        getrusage(RUSAGE_SELF, &use);
        std::cout << done << " files, " << accepted << " accepted, slowest " << slowest << " ms, at most "
                  << use.ru_maxrss / 1024 << " MiB" << std::endl;
        QVERIFY(done == 0 || accepted * 5 > done);
#ifndef __SANITIZE_ADDRESS__
        QVERIFY(use.ru_maxrss / 1024 < 300);
#endif
    }
};

int main(int argc, char** argv) {
    // Runs on demand take longer than Qt's watchdog allows a test.
    if (!qEnvironmentVariableIsSet("QTEST_FUNCTION_TIMEOUT")) qputenv("QTEST_FUNCTION_TIMEOUT", "36000000");
    HostileFilesTest test;
    return QTest::qExec(&test, argc, argv);
}
#include "hostile_files_test.moc"
