// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/move_table.h"

#include "core/units/constants.h"
#include "core/units/text.h"

#include <charconv>

namespace gantry::io {
namespace {

/// Everything of a move that its tables are made of.
struct Run {
    MoveScene scene;
    std::vector<MoveFrame> frames;
};
Run runOf(const Project& project, const RigMove& move, double rate) {
    const RigSetup rig = setupOf(project, Courses::No);
    Run out{sceneOf(rig, move), {}};
    const MovePlan plan = planMove(move, out.scene);
    out.frames = framesOf(move, out.scene, plan, rate > 0.0 ? rate : out.scene.frameRate);
    return out;
}

/// To a nanometre or a few nanoradians: differences of it twice over still give accelerations.
void number(std::string& out, double value) {
    char text[40];
    const auto end =
        std::to_chars(text, text + sizeof text, value == 0.0 ? 0.0 : value, std::chars_format::fixed, 9);
    out.append(text, end.ptr);
}

Json threeOf(const geometry::Place& p) {
    return Json{p.x, p.y, p.z};
}

std::string quoted(const std::string& text) {
    if (text.find_first_of(",\"\r\n") == std::string::npos) return text;
    std::string out = "\"";
    for (const char c : text) out += c == '"' ? "\"\"" : std::string(1, c);
    return out + '"';
}

} // namespace

Json moveResultsJson(const Project& project, const RigMove& move, const MoveResults& results) {
    Json j;
    j["id"] = move.id;
    ResultsWriter writer(j, project, nullptr);
    describe(writer, results);
    for (std::size_t i = 0; i < results.segments.size(); ++i) {
        Json segment;
        segment["to_pose"] = move.poses[results.segments[i].pose].id;
        segment["to_letter"] = poseLetter(results.segments[i].pose);
        if (results.segments[i].axis >= 0)
            segment["binds_axis"] = project.axes[static_cast<std::size_t>(results.segments[i].axis)].id;
        segment.update(j["segments"][i]);
        j["segments"][i] = segment;
    }
    j["axes"] = Json::array();
    for (std::size_t a = 0; a < results.axes.size(); ++a) {
        Json axis;
        axis["id"] = project.axes[a].id;
        ResultsWriter of(axis, project, &project.axes[a]);
        describe(of, results.axes[a]);
        j["axes"].push_back(axis);
    }
    return j;
}

std::string moveCsv(const Project& project, const RigMove& move, double rate) {
    const Run run = runOf(project, move, rate);
    std::string out = "time_s";
    std::vector<double> units;
    for (const Axis& axis : project.axes) {
        const bool linear = kindOf(axis) == AxisKind::Linear;
        const char* unit = linear ? "m" : "deg";
        units.push_back(linear ? 1.0 : units::degree);
        for (const char* of : {"_", "_speed_", "_acceleration_"}) {
            out += ',' + quoted(axis.id + of + unit);
            if (std::string_view(of) == "_speed_") out += "_s";
            if (std::string_view(of) == "_acceleration_") out += "_s2";
        }
    }
    out += ",camera_x_m,camera_y_m,camera_z_m,forward_x,forward_y,forward_z,up_x,up_y,up_z,lens_mm\r\n";
    for (const MoveFrame& f : run.frames) {
        number(out, f.time);
        const auto add = [&](double value) {
            out += ',';
            number(out, value);
        };
        for (std::size_t a = 0; a < f.axes.size(); ++a)
            for (const double value : {f.axes[a].place, f.axes[a].speed, f.axes[a].acceleration})
                add(value / units[a]);
        const geometry::Frame& c = f.camera.frame;
        for (const geometry::Place& p : {c.at, c.ahead, c.up})
            for (const double value : {p.x, p.y, p.z}) add(value);
        add(f.focalLength * 1e3);
        out += "\r\n";
    }
    return out;
}

std::string moveJson(const Project& project, const RigMove& move, const MoveResults& results, double rate) {
    const Run run = runOf(project, move, rate);
    Json root;
    root["format"] = "calm-gantry-move";
    root["version"] = 1;
    root["results"] = moveResultsJson(project, move, results);
    root["joints"] = Json::array();
    for (const Axis& axis : project.axes)
        root["joints"].push_back(
            {{"axis", axis.id}, {"unit", kindOf(axis) == AxisKind::Linear ? "m" : "rad"}});
    root["frames"] = Json::array();
    for (const MoveFrame& f : run.frames) {
        Json frame;
        frame["time_s"] = f.time;
        for (const trajectory::State& s : f.axes) {
            frame["places"].push_back(s.place);
            frame["speeds"].push_back(s.speed);
            frame["accelerations"].push_back(s.acceleration);
        }
        const geometry::Frame& c = f.camera.frame;
        frame["camera"] = {{"place_m", threeOf(c.at)},
                           {"forward", threeOf(c.ahead)},
                           {"left", threeOf(c.left)},
                           {"up", threeOf(c.up)},
                           {"focal_length_m", f.focalLength}};
        root["frames"].push_back(frame);
    }
    return root.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

} // namespace gantry::io
