// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/intervals/facts_bar.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/intervals/facts.h"
#include "core/units/spelled_time.h"
#include "core/units/text.h"

#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QSignalBlocker>
#include <cmath>

namespace gantry::app {
namespace {

using units::Kind;
constexpr std::array names{"factPictures", "factClip", "factInterval", "factSpeedUp", "factDuration"};
constexpr std::array kinds{Kind::Count, Kind::Time, Kind::Time, Kind::Ratio, Kind::Time};
constexpr int gap = 10, edge = 10, buttonWidth = 66;

} // namespace

FactsBar::FactsBar(const Context& context, PlanDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk) {
    for (int f = 0; f < forms; ++f) {
        auto* edit = new QLineEdit(this);
        edits_[static_cast<std::size_t>(f)] = edit;
        edit->setObjectName(QLatin1String(names[static_cast<std::size_t>(f)]));
        edit->setAccessibleName(label(f));
        connect(edit, &QLineEdit::editingFinished, this, [this, f] { commit(f); });
    }
    for (int g = 0; g < 3; ++g) {
        auto* button = new QPushButton(this);
        computed_[static_cast<std::size_t>(g)] = button;
        button->setProperty("role", "rowlink");
        button->setObjectName(QStringLiteral("computes%1").arg(g));
        connect(button, &QPushButton::clicked, this, [this, g] { follow(static_cast<FollowingFact>(g)); });
    }
}

FollowingFact FactsBar::factOf(int form) {
    return form <= Clip      ? FollowingFact::Pictures
           : form <= SpeedUp ? FollowingFact::Interval
                             : FollowingFact::Duration;
}

QString FactsBar::label(int form) const {
    switch (form) {
    case Pictures:
        return tr("Pictures");
    case Clip:
        return tr("Clip");
    case Interval:
        return tr("Interval");
    case SpeedUp:
        return tr("Speed-up");
    default:
        return tr("Duration");
    }
}

void FactsBar::refresh() {
    const IntervalPlan* plan = desk_.current();
    const IntervalResults* r = desk_.results();
    setEnabled(plan != nullptr && r != nullptr);
    if (plan == nullptr || r == nullptr) {
        for (QLineEdit* e : edits_) e->clear();
        update();
        return;
    }
    const std::array<Figure, forms> values{r->pictures, r->clip, r->interval, r->speedUp, r->duration};
    for (int f = 0; f < forms; ++f) {
        const auto i = static_cast<std::size_t>(f);
        QLineEdit* edit = edits_[i];
        const bool follows = factOf(f) == plan->follows;
        edit->setReadOnly(follows || context_.document.readOnly());
        edit->setProperty("computed", follows);
        if (edit->hasFocus() && edit->isModified()) continue;
        const QSignalBlocker block(edit);
        edit->setText(values[i] && kinds[i] == Kind::Time
                          ? QString::fromStdString(units::spelledTime(values[i].value()))
                          : context_.show(values[i], kinds[i], kinds[i] == Kind::Count ? 8 : 5));
    }
    for (int g = 0; g < 3; ++g) {
        const bool is = static_cast<FollowingFact>(g) == plan->follows;
        QPushButton* button = computed_[static_cast<std::size_t>(g)];
        button->setText(is ? tr("computed") : tr("compute it"));
        button->setEnabled(!is && !context_.document.readOnly());
    }
    update();
}

/// What is computed now becomes what is typed, so that nothing jumps.
void FactsBar::follow(FollowingFact fact) {
    const IntervalResults* r = desk_.results();
    if (r == nullptr) return;
    desk_.change(tr("Computed fact"), [&](IntervalPlan& p) {
        if (r->pictures) p.pictures = static_cast<int>(r->pictures.value());
        if (r->interval && p.gaps == GapsGo::Even) p.interval = r->interval.value();
        if (r->duration) p.duration = r->duration.value();
        p.follows = fact;
    });
}

void FactsBar::commit(int form) {
    const auto i = static_cast<std::size_t>(form);
    QLineEdit* edit = edits_[i];
    const IntervalPlan* plan = desk_.current();
    if (plan == nullptr || !edit->isModified() || edit->isReadOnly()) return;
    edit->setModified(false);
    const units::ParseResult parsed = units::parse(edit->text().toStdString(), kinds[i], context_.system());
    const auto refuse = [&](const QString& why) {
        emit message(tr("%1: %2").arg(label(form), why), true);
        refresh();
    };
    if (const auto* bad = std::get_if<units::ParseError>(&parsed))
        return refuse(QString::fromStdString(bad->sentence));
    const double value = std::get<double>(parsed);
    if (!(value > 0.0)) return refuse(tr("it has to be more than nothing."));
    const double most = static_cast<double>(intervals::mostPictures);
    double interval = value, pictures = value;
    if (form == SpeedUp) interval = intervals::intervalOfSpeedUp(value, plan->clipRate, plan->heldFor);
    if (form == Clip) {
        if (value * plan->clipRate / plan->heldFor > most)
            return refuse(tr("that is more pictures than can be planned."));
        pictures = static_cast<double>(intervals::picturesOfClip(value, plan->clipRate, plan->heldFor));
    }
    if (factOf(form) == FollowingFact::Pictures && pictures > most)
        return refuse(tr("that is more pictures than can be planned."));
    if (factOf(form) == FollowingFact::Interval && (interval < 1e-3 || interval > 1e7))
        return refuse(tr("the interval would be %1.").arg(context_.show(interval, Kind::Time)));
    desk_.change(label(form), [&](IntervalPlan& p) {
        switch (factOf(form)) {
        case FollowingFact::Pictures:
            p.pictures = static_cast<int>(pictures);
            break;
        case FollowingFact::Interval: {
            // Of one that changes, both ends in step.
            const double by = interval / (p.interval > 0.0 ? p.interval : interval);
            p.interval = interval;
            p.lastInterval = p.gaps == GapsGo::Even ? interval : p.lastInterval * by;
            break;
        }
        case FollowingFact::Duration:
            p.duration = value;
            break;
        }
    });
    refresh();
}

void FactsBar::resizeEvent(QResizeEvent*) {
    // Two forms, two forms, and one that is as wide as both.
    const double room = width() - 2 * edge - 2 * gap;
    const double group = room / 3.0;
    for (int g = 0; g < 3; ++g) {
        const double x = edge + g * (group + gap);
        const int first = g * 2, count = g < 2 ? 2 : 1;
        for (int k = 0; k < count; ++k) {
            const double wide = (group - (count - 1) * 6.0) / count;
            const auto form = static_cast<std::size_t>(first) + static_cast<std::size_t>(k);
            edits_[form]->setGeometry(static_cast<int>(x + k * (wide + 6.0)), 26, static_cast<int>(wide), 28);
        }
        // Beside the name of the first form; that of the second has its whole width.
        const QRect box = edits_[static_cast<std::size_t>(first)]->geometry();
        computed_[static_cast<std::size_t>(g)]->setGeometry(box.right() - buttonWidth, 5, buttonWidth, 18);
    }
}

void FactsBar::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paintCard(p, rect().adjusted(0, 0, -1, -1));
    p.setFont(textFont(11));
    p.setPen(tokens().second);
    for (int f = 0; f < forms; ++f) {
        const QRect box = edits_[static_cast<std::size_t>(f)]->geometry();
        const int room = f == Clip || f == SpeedUp ? box.width() : box.width() - buttonWidth - 2;
        p.drawText(QRect(box.left(), 6, room, 18), Qt::AlignLeft | Qt::AlignVCenter,
                   fitted(p.fontMetrics(), label(f), room));
    }
}

} // namespace gantry::app
