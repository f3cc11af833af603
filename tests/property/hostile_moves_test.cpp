// SPDX-License-Identifier: GPL-3.0-or-later
// Moves as nobody should enter them: each gets a sentence that says what is wrong, no figure is infinite, and
// nothing hangs.
#include "core/evaluate/evaluate.h"
#include "core/evaluate/move/planned_move.h"
#include "core/model/edit_axes.h"
#include "core/model/edit_moves.h"
#include "core/verdicts/moves/move_view.h"
#include "core/verdicts/verdict.h"
#include "io/project/project_file.h"
#include "io/report/evaluation_json.h"
#include "support/files.h"

#include <QElapsedTimer>
#include <QTest>
#include <nlohmann/json.hpp>
#include <regex>

using namespace gantry;

namespace {

Project start(const char* demo = "slide-and-pan") {
    Project p = demoProject(demo);
    p.moves.clear();
    addMove(p);
    p.moves[0].shot = p.shots[0].id;
    return p;
}
/// A pose with all axes at the same share of their travels.
void pose(Project& p, double share, double time = 4.0) {
    std::vector<double> places;
    for (const Axis& a : p.axes) places.push_back(share * usableTravel(a));
    const int last = static_cast<int>(p.moves[0].poses.size()) - 1;
    const int at = storePose(p, 0, last, places);
    p.moves[0].poses[static_cast<std::size_t>(at)].arrive.time = time;
}
void placed(Project& p, std::size_t pose, std::size_t axis, double at) {
    std::visit([&](auto& place) { place.at = at; }, p.moves[0].poses[pose].places[axis].place);
}
AxisBlock block(const char* id, const std::string& axis, double start, double length) {
    AxisBlock b;
    b.id = id;
    b.axis = axis;
    b.start = start;
    b.length = length;
    return b;
}

} // namespace

class HostileMovesTest : public QObject {
    Q_OBJECT
private slots:
    void saysWhatIsWrong_data();
    void saysWhatIsWrong();
};

void HostileMovesTest::saysWhatIsWrong_data() {
    QTest::addColumn<std::string>("file");
    QTest::addColumn<std::string>("rule"); // that is over
    QTest::addColumn<std::string>("says");
    const auto add = [](const char* name, const Project& p, const char* rule, const char* says) {
        QTest::newRow(name) << io::writeProject(p) << std::string(rule) << std::string(says);
    };
    Project p = start();
    add("no pose", p, "move_plan", "two poses");
    pose(p, 0.3);
    add("one pose", p, "move_plan", "two poses");
    pose(p, 0.6);
    Project q = p;
    placed(q, 1, 0, 5.0);
    add("outside", q, "move_travel", "can go from");
    placed(q, 1, 0, -900.0);
    placed(q, 0, 0, 900.0);
    add("far outside", q, "move_travel", "can go from");
    q = p;
    placed(q, 1, 1, 9e3);
    add("turned a thousand times", q, "move_travel", "can go from");
    q = p;
    q.moves[0].poses[1].arrive.time = 1e-3;
    add("in no time", q, "move_limits", "it would do");
    q = p;
    q.moves[0].poses[1].arrive.easeIn = q.moves[0].poses[1].arrive.easeOut = 1.0;
    add("ramps too long", q, "move_plan", "ease in and out");
    q = p;
    for (std::size_t a = 0; a < q.axes.size(); ++a)
        q.moves[0].poses[1].places[a] = q.moves[0].poses[0].places[a];
    add("nothing moves", q, "move_plan", "nothing moves");
    q = p;
    q.moves[0].poses[1].arrive.kind = SegmentKind::Aimed;
    add("aimed at nothing", q, "move_plan", "at no target");
    // On the lens itself, where it is half way.
    addTarget(q, 0, 0.0, 0.0, 1.0);
    q.moves[0].poses[1].arrive.target = q.moves[0].targets[0].id;
    {
        const Evaluation e = evaluate(q, Poses::Later);
        const MoveScene& scene = (*e.planned)[0].scene;
        const geometry::Place at = cameraAt(scene, {(*e.planned)[0].plan.poses[0], {}, {}}).frame.at;
        q.moves[0].targets[0].x = at.x;
        q.moves[0].targets[0].y = at.y;
        q.moves[0].targets[0].z = at.z;
    }
    add("target on the lens", q, "move_plan", "");
    q = p;
    q.moves[0].blocks = {block("a", q.axes[0].id, 0.5, 1.0)};
    add("block on what moves", q, "move_plan", "the poses move that axis too");
    q = p;
    placed(q, 1, 1, std::get<AxisPlace<AxisKind::Rotary>>(q.moves[0].poses[0].places[1].place).at);
    q.moves[0].blocks = {block("a", q.axes[1].id, 0.5, 2.0), block("b", q.axes[1].id, 1.0, 2.0)};
    add("blocks that overlap", q, "move_plan", "Start it later");
    q.moves[0].blocks = {block("a", q.axes[1].id, 3.0, 1e6)};
    add("a block past the end", q, "move_plan", "after the move");
    q = p;
    q.moves[0].poses[1].arrive.pace = SegmentPace::Speed;
    q.moves[0].poses[1].arrive.speedOf = q.axes[1].id;
    placed(q, 1, 1, std::get<AxisPlace<AxisKind::Rotary>>(q.moves[0].poses[0].places[1].place).at);
    add("speed of what stands", q, "move_plan", "does not move there");
    q = start();
    for (int i = 0; i < 500; ++i) {
        pose(q, i % 2 == 0 ? 0.1 : 0.9, 0.01);
        q.moves[0].poses.back().passes = i % 5 != 0;
    }
    add("five hundred poses in a hurry", q, "move_limits", "it would do");
    q = start("kettle-jib");
    addTarget(q, 0, 0.5, 0.0, 1.0);
    for (int i = 0; i < 60; ++i) {
        pose(q, i % 2 == 0 ? 0.1 : 0.9, 0.05);
        q.moves[0].poses.back().arrive.kind = i % 3 == 0 ? SegmentKind::Straight : SegmentKind::Aimed;
        q.moves[0].poses.back().arrive.target = q.moves[0].targets[0].id;
        q.moves[0].poses.back().passes = i % 4 == 0;
    }
    add("a jib that is flung about its target", q, "", "");
}

void HostileMovesTest::saysWhatIsWrong() {
    QFETCH(const std::string, file);
    QFETCH(const std::string, rule);
    QFETCH(const std::string, says);
    QElapsedTimer timer;
    timer.start();
    const auto read = io::readProject(file);
    const auto* loaded = std::get_if<io::LoadedProject>(&read);
    QVERIFY(loaded != nullptr);
    const Project& p = loaded->project;
    const Assessment now = assess(p, {}, Poses::Later);
    const auto j = nlohmann::json::parse(io::evaluationJson(p, now));
    QVERIFY(j.contains("moves"));
    bool over = false;
    std::string sentences;
    for (const Verdict& v : now.verdicts) {
        if (v.move < 0) continue;
        const std::string text = sentence(v, p, units::System::Metric);
        static const std::regex noNumber("\\b(nan|inf)\\b|\\{");
        QVERIFY2(!text.empty() && !std::regex_search(text, noNumber), text.c_str());
        sentences += "[" + std::string(ruleKey(v)) + "] " + text + "\n";
        over = over || (ruleKey(v) == rule && v.state == State::Over && text.find(says) != std::string::npos);
    }
    QVERIFY2(rule.empty() || over, sentences.c_str());
    // What the plan found is said whole, too.
    for (std::size_t m = 0; m < now.evaluation.moves.size(); ++m)
        for (const MoveTrouble& t : now.evaluation.moves[m].troubles)
            QVERIFY(!rules::troubleText(p, p.moves[m], t, units::System::Metric).empty());
    QVERIFY2(timer.elapsed() < 60000, qPrintable(QString::number(timer.elapsed())));
}

QTEST_APPLESS_MAIN(HostileMovesTest)
#include "hostile_moves_test.moc"
