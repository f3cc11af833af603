// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/parallax_dialog.h"

#include "app/stations/moves/move_desk.h"
#include "core/tools/parallax.h"
#include "core/units/text.h"

#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <limits>

namespace gantry::app {

using units::Kind;

ParallaxDialog::ParallaxDialog(const Context& context, const MoveDesk& desk, QWidget* parent)
    : ToolWindow(context, QStringLiteral("parallaxDialog"), tr("Parallax"), parent), desk_(desk),
      near_(new QLineEdit), far_(new QLineEdit), wanted_(new QLineEdit), result_(new QLabel) {
    resize(520, 300);
    auto* form = new QFormLayout;
    const auto row = [&](const QString& label, QLineEdit* edit, const char* name) {
        edit->setAccessibleName(label);
        edit->setObjectName(QLatin1String(name));
        form->addRow(label, edit);
        connect(edit, &QLineEdit::textChanged, this, &ParallaxDialog::compute);
    };
    row(tr("What is near"), near_, "parallaxNear");
    row(tr("Background"), far_, "parallaxFar");
    row(tr("Target shift"), wanted_, "parallaxWanted");
    far_->setPlaceholderText(tr("empty: as far as can be"));
    wanted_->setPlaceholderText(tr("empty, or a share of the frame, as 10 %"));
    result_->setWordWrap(true);
    result_->setAlignment(Qt::AlignTop);
    result_->setObjectName(QStringLiteral("parallaxResult"));
    auto* close = new QPushButton(tr("Close"));
    close->setAutoDefault(false);
    auto* all = new QVBoxLayout(this);
    all->addLayout(form);
    all->addWidget(result_, 1);
    all->addWidget(close, 0, Qt::AlignRight);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(&desk_, &MoveDesk::changed, this, &ParallaxDialog::follow); // another move was taken in hand
}

void ParallaxDialog::follow() {
    const auto& shots = context_.document.project().shots;
    // What stands half way to the subject is what one looks past.
    if (near_->text().isEmpty() && !shots.empty())
        near_->setText(context_.typed(0.5 * shots.front().subjectDistance, Kind::Length));
    compute();
}

std::optional<double> ParallaxDialog::read(const QLineEdit* edit, Kind kind) {
    const auto parsed = units::parse(edit->text().toStdString(), kind, context_.system());
    if (const auto* bad = std::get_if<units::ParseError>(&parsed)) {
        result_->setText(tr("%1: %2").arg(edit->accessibleName(), QString::fromStdString(bad->sentence)));
        return std::nullopt;
    }
    const double value = std::get<double>(parsed);
    if (value > 0.0) return value;
    result_->setText(tr("%1 must be more than zero.").arg(edit->accessibleName()));
    return std::nullopt;
}

void ParallaxDialog::compute() {
    const auto empty = [](const QLineEdit* edit) { return edit->text().trimmed().isEmpty(); };
    const auto near = read(near_, Kind::Length);
    if (!near) return;
    double far = std::numeric_limits<double>::infinity();
    if (!empty(far_)) {
        const auto typed = read(far_, Kind::Length);
        if (!typed) return;
        far = *typed;
        if (far <= *near)
            return result_->setText(tr("The background must be farther away than what is near."));
    }
    const MoveScene& scene = desk_.scene();
    const double wide = context_.document.project().camera.deliveredWidth;
    QStringList said;
    if (!empty(wanted_)) {
        const auto share = read(wanted_, Kind::Percentage);
        if (!share) return;
        said << tr("For %1 of the frame the lens goes %2 across its view.")
                    .arg(context_.show(*share, Kind::Percentage),
                         context_.show(travelForParallax(desk_.focal(), *share * wide, *near, far),
                                       Kind::Length));
    }
    const PlannedMove* m = desk_.planned();
    if (m == nullptr || m->plan.segments.empty()) {
        said << tr("Store two poses, or take a ready-made move, to see what it gives.");
        return result_->setText(said.join(QLatin1Char('\n')));
    }
    for (const SegmentPlan& s : m->plan.segments) {
        const geometry::Frame from = cameraAt(scene, m->plan.trajectory, s.from).frame,
                              to = cameraAt(scene, m->plan.trajectory, s.to).frame;
        const double focal = scene.pixelsPerMetre * focalLengthAt(scene, m->plan.trajectory, s.from);
        const double travel = travelAcross(from, to), shift = parallax(focal, travel, *near, far);
        const QString name = tr("%1 to %2")
                                 .arg(QString::fromStdString(poseLetter(s.pose - 1)),
                                      QString::fromStdString(poseLetter(s.pose)));
        said << (travel < 1e-3
                     ? tr("%1: the lens does not go across its view, so nothing shifts.").arg(name)
                     : tr("%1: the lens goes %2 across its view; what is near shifts by %3, %4 of the "
                          "frame.")
                           .arg(name, context_.show(travel, Kind::Length), context_.show(shift, Kind::Pixels),
                                context_.show(shift / wide, Kind::Percentage)));
    }
    result_->setText(said.join(QLatin1Char('\n')));
}

} // namespace gantry::app
