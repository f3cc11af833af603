// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/working/figure_path.h"

#include "core/model/describe.h"
#include "core/tools/capability.h"

#include <array>
#include <functional>

namespace gantry::working {
namespace {

/// Visitor of described results that keeps count of where it is.
class Walk {
public:
    Walk(const Project& project, std::function<void(PlacedFigure)> visit, bool withCapability)
        : project_(project), visit_(std::move(visit)), withCapability_(withCapability) {}

    void figure(const FigureInfo& info, const Figure& f) {
        const std::string key(info.keyFor(linear_));
        visit_({path_ + key, key, info, f, axis_, shot_, linear_, std::nullopt, 0});
    }
    template <class... T>
    void flag(const FigureInfo&, T&...) {}
    template <class... T>
    void rank(const FigureInfo&, T&...) {}
    template <class... T>
    void outcome(const FigureInfo&, T&...) {}
    template <class T>
    void part(std::string_view key, const T& part) {
        const std::string before = path_;
        path_ += std::string(key) + "/";
        describe(*this, part);
        path_ = before;
    }
    /// Of one axis, with its place in the project.
    void axis(const AxisEvaluation& e, std::size_t index) {
        axis_ = static_cast<int>(index);
        evaluation_ = &e;
        linear_ = e.model.kind == AxisKind::Linear;
        path_ = "axes/" + project_.axes[index].id + "/";
        describe(*this, e);
        if (withCapability_) capability(e);
    }
    template <class T>
    void list(std::string_view key, const std::vector<T>& list) {
        const std::string before = path_;
        for (std::size_t i = 0; i < list.size(); ++i) {
            path_ = before + std::string(key) + "/" + enter(list[i], i) + "/";
            describe(*this, list[i]);
            if constexpr (std::is_same_v<T, ShotEvaluation>) chain(list[i]);
        }
        path_ = before;
        shot_ = nullptr;
    }

private:
    std::string enter(const ShotEvaluation& e, std::size_t) {
        shot_ = &e;
        return project_.shots[e.shot.at()].id;
    }
    std::string enter(const AxisMoveResults& move, std::size_t) const { return project_.moves[move.move].id; }
    std::string enter(const PartCheck& part, std::size_t) const {
        if (part.link < 0) return "output";
        return std::string(partId(
            project_.axes[static_cast<std::size_t>(axis_)].links[static_cast<std::size_t>(part.link)]));
    }

    /// What the drive can do; found by searching, so only where it is asked for.
    void capability(const AxisEvaluation& e) {
        const Capability c = gantry::capability(project_.axes[static_cast<std::size_t>(axis_)], e);
        const ShotEvaluation* worst = e.worst();
        if (worst != nullptr && worst->problem != Reason::None) worst = nullptr;
        const std::string before = path_;
        path_ += "capability/";
        shot_ = worst;
        describe(*this, c);
        shot_ = nullptr;
        path_ = before;
    }
    /// The drive-train table of a shot.
    void chain(const ShotEvaluation& shot) {
        const Axis& axis = project_.axes[static_cast<std::size_t>(axis_)];
        for (const ChainColumn& c : chainColumns(axis, *evaluation_, shot)) {
            // Every stage has its own column, a linear axis one more on the shaft before its output.
            const std::size_t stages = c.part == ChainPart::Link ? static_cast<std::size_t>(c.link) + 1
                                       : c.part == ChainPart::Output && linear_ ? axis.links.size()
                                       : c.part == ChainPart::Driver || c.part == ChainPart::Motor
                                           ? 0
                                           : evaluation_->model.chain.stages.size();
            const std::string place = path_ + "chain/" + std::string(chainPartKey(axis, c)) + "/";
            const auto cell = [&](const char* key, const char* label, const Cell& shown) {
                const FigureInfo info = result(key, label, shown.kind);
                visit_({place + key, key, info, shown.figure, axis_, &shot, linear_, c.part, stages});
            };
            cell("speed", "speed", c.speed);
            cell("needed", "needed", c.needed);
            cell("available", "available", c.available);
            cell("inertia", "inertia", c.inertia);
            cell("microstep", "finest step", c.microstep);
            cell("lag", "lag of the rotor", c.lag);
            cell("stretch", "stretch of the drive", c.stretch);
            cell("play", "backlash", c.play);
        }
    }

    const Project& project_;
    std::function<void(PlacedFigure)> visit_;
    bool withCapability_;
    std::string path_;
    int axis_ = -1;
    const AxisEvaluation* evaluation_ = nullptr;
    const ShotEvaluation* shot_ = nullptr;
    bool linear_ = true;
};

void walk(const Project& project, const Evaluation& e, const std::function<void(PlacedFigure)>& visit) {
    for (std::size_t i = 0; i < e.axes.size(); ++i) Walk(project, visit, true).axis(e.axes[i], i);
    Walk whole(project, visit, false);
    whole.part("supply", e.supply);
    whole.part("rig", e.rig);
}

/// Whether a path is that of a figure, by either of its keys.
bool names(std::string_view path, const PlacedFigure& f) {
    const std::string_view place = std::string_view(f.path).substr(0, f.path.size() - f.key.size());
    if (!path.starts_with(place)) return false;
    const std::string_view key = path.substr(place.size());
    return key == f.info.key || key == f.info.rotaryKey;
}

} // namespace

std::string_view chainPartKey(const Axis& axis, const ChainColumn& column) {
    static constexpr std::array names{"driver", "motor", "link", "output", "belt", "load", "picture"};
    if (column.part == ChainPart::Link) return partId(axis.links[static_cast<std::size_t>(column.link)]);
    return names[static_cast<std::size_t>(column.part)];
}

std::vector<PlacedFigure> allFigures(const Project& project, const Evaluation& evaluation) {
    std::vector<PlacedFigure> out;
    walk(project, evaluation, [&](PlacedFigure f) { out.push_back(std::move(f)); });
    return out;
}

std::optional<PlacedFigure> figureAt(const Project& project, const Evaluation& evaluation,
                                     std::string_view path) {
    for (std::size_t i = 0; i < evaluation.axes.size(); ++i)
        if (path.starts_with("axes/" + project.axes[i].id + "/"))
            return figureAt(project, i, evaluation.axes[i], path);
    std::optional<PlacedFigure> out;
    const auto take = [&](PlacedFigure f) {
        if (!out && names(path, f)) out = std::move(f);
    };
    Walk whole(project, take, false);
    whole.part("supply", evaluation.supply);
    whole.part("rig", evaluation.rig);
    return out;
}

std::optional<PlacedFigure> figureAt(const Project& project, std::size_t axis,
                                     const AxisEvaluation& evaluation, std::string_view path) {
    std::optional<PlacedFigure> out;
    Walk(
        project,
        [&](PlacedFigure f) {
            if (!out && names(path, f)) out = std::move(f);
        },
        path.find("/capability/") != std::string_view::npos)
        .axis(evaluation, axis);
    return out;
}

} // namespace gantry::working
