// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/brief/brief_lists.h"

#include "app/theme/card.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/tools/demands.h"

#include <QPainter>
#include <algorithm>

namespace gantry::app {
using units::Kind;

namespace {

constexpr int rowHeight = 20;

} // namespace

DemandsCard::DemandsCard(const Context& context, QWidget* parent) : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("demandsCard"));
    setAccessibleName(tr("Demands by shot"));
}

void DemandsCard::refresh() {
    rows_.clear();
    words_.clear();
    const Project& p = context_.document.project();
    const Evaluation& e = context_.document.assessment().evaluation;
    for (std::size_t i = 0; i < e.axes.size(); ++i) {
        const AxisDemands& d = context_.document.results().demands(i);
        const bool linear = e.axes[i].model.kind == AxisKind::Linear;
        const auto cell = [&](const Demand& demand, Kind kind) {
            if (!demand.shot) return QStringLiteral("–");
            return tr("%1, %2").arg(context_.show(demand.value, kind),
                                    QString::fromStdString(p.shots[demand.shot.at()].name));
        };
        const Kind speed = linear ? Kind::Speed : Kind::AngularSpeed;
        rows_ << QStringList{QString::fromStdString(p.axes[i].name), cell(d.fastest, speed),
                             cell(d.slowest, speed),
                             cell(d.steepest, linear ? Kind::Acceleration : Kind::AngularAcceleration),
                             cell(d.finest, linear ? Kind::Length : Kind::Angle)};
        words_ += rows_.back().join(QStringLiteral("; ")) + QStringLiteral(". ");
    }
    setAccessibleDescription(words_);
    update();
}

int DemandsCard::wantedHeight() const {
    return 50 + rowHeight * static_cast<int>(rows_.size());
}

void DemandsCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect(), tr("Demands by shot"), 4);
    const Tokens& t = tokens();
    const QStringList heads{tr("Axis"), tr("Fastest"), tr("Slowest"), tr("Steepest"),
                            tr("Finest, a picture")};
    const int first = 110, each = (width() - 24 - first) / 4;
    const auto cell = [&](int column, int y, const QString& text) {
        const QRect box(column == 0 ? 12 : 12 + first + (column - 1) * each, y,
                        column == 0 ? first : each - 6, rowHeight);
        p.drawText(box, Qt::AlignVCenter, fitted(p.fontMetrics(), text, box.width()));
    };
    p.setFont(textFont(11));
    p.setPen(t.second);
    for (int c = 0; c < 5; ++c) cell(c, 24, heads[c]);
    int y = 24 + rowHeight;
    for (const QStringList& row : rows_) {
        p.setPen(t.faintLine);
        p.drawLine(12, y, width() - 12, y);
        p.setPen(t.ink);
        for (int c = 0; c < 5; ++c) cell(c, y, row[c]);
        y += rowHeight;
    }
}

CompletenessCard::CompletenessCard(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context) {
    setObjectName(QStringLiteral("completenessCard"));
    setAccessibleName(tr("Checklist: still missing"));
}

void CompletenessCard::refresh() {
    lines_ = context_.document.results().completeness();
    words_.clear();
    for (const CompletenessLine& l : lines_)
        words_ +=
            tr("%1: %2. ")
                .arg(QString::fromUtf8(l.what.text), l.state == Completeness::There     ? tr("there")
                                                     : l.state == Completeness::Missing ? tr("missing")
                                                                                        : tr("not needed"));
    setAccessibleDescription(words_);
    update();
}

QString CompletenessCard::summary() const {
    const auto missing = std::count_if(lines_.begin(), lines_.end(), [](const CompletenessLine& l) {
        return l.state == Completeness::Missing;
    });
    return missing == 0 ? tr("nothing missing") : tr("%1 missing").arg(missing);
}

int CompletenessCard::wantedHeight() const {
    return 32 + rowHeight * static_cast<int>(lines_.size());
}

void CompletenessCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect(), tr("Checklist: %1").arg(summary()), 4);
    const Tokens& t = tokens();
    const int room = width() - 24;
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        const CompletenessLine& l = lines_[i];
        const int x = 12, y = 26 + static_cast<int>(i) * rowHeight;
        // Word and place carry the meaning; colour repeats it.
        p.setFont(textFont(11, true));
        p.setPen(l.state == Completeness::There     ? t.moss
                 : l.state == Completeness::Missing ? t.brick
                                                    : t.third);
        p.drawText(QRect(x, y, 64, rowHeight), Qt::AlignVCenter,
                   l.state == Completeness::There     ? tr("there")
                   : l.state == Completeness::Missing ? tr("missing")
                                                      : tr("–"));
        p.setFont(textFont(11));
        p.setPen(l.state == Completeness::NotNeeded ? t.third : t.ink);
        const QString text = tr("%1: %2").arg(QString::fromUtf8(l.what.text), QString::fromUtf8(l.why.text));
        p.drawText(QRect(x + 58, y, room - 64, rowHeight), Qt::AlignVCenter,
                   fitted(p.fontMetrics(), text, room - 64));
    }
}

} // namespace gantry::app
