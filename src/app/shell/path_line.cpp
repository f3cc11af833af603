// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/path_line.h"

#include "app/theme/tokens.h"

#include <QPainter>
#include <QPushButton>

namespace gantry::app {
namespace {
constexpr int edge = 14, gap = 6, between = 10;
}

PathLine::PathLine(QWidget* parent) : QWidget(parent), next_(new QPushButton(this)) {
    setObjectName(QStringLiteral("pathLine"));
    setAttribute(Qt::WA_OpaquePaintEvent);
    next_->setObjectName(QStringLiteral("nextStep"));
    next_->setProperty("role", "rowlink");
    connect(next_, &QPushButton::clicked, this, &PathLine::pressed);
}

void PathLine::show(const QString& known, const QString& decides, const QString& next) {
    QStringList parts;
    for (const QString& part : {known, decides})
        if (!part.isEmpty()) parts << part;
    if (parts == parts_ && next == next_->text()) return;
    parts_ = parts;
    const QString text = parts.join(QStringLiteral(" · "));
    next_->setText(next);
    next_->setVisible(!next.isEmpty());
    next_->setAccessibleName(next);
    next_->setAccessibleDescription(text);
    setAccessibleName(text);
    place();
    update();
}

void PathLine::place() {
    const QFontMetrics metrics(textFont(11));
    const int room = width() - 2 * edge,
              wanted = next_->text().isEmpty() ? 0 : metrics.horizontalAdvance(next_->text()) + 2 * gap;
    // What to do is never cut; how well the inputs are known goes first where the line is too short.
    QStringList fitting = parts_;
    const auto used = [&] {
        return fitting.isEmpty() ? 0
                                 : metrics.horizontalAdvance(fitting.join(QStringLiteral(" · "))) + between;
    };
    while (!fitting.isEmpty() && used() + wanted > room + gap) fitting.removeFirst();
    text_ = fitting.join(QStringLiteral(" · "));
    setToolTip(fitting.size() < parts_.size() ? parts_.join(QStringLiteral(" · ")) : QString());
    next_->setGeometry(edge + used(), 2, std::min(wanted, room + gap), height() - 3);
}

void PathLine::resizeEvent(QResizeEvent*) {
    place();
}

void PathLine::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    p.setFont(textFont(11));
    p.setPen(t.second);
    p.drawText(rect().adjusted(edge, 1, -edge, 0), Qt::AlignVCenter, text_);
}

} // namespace gantry::app
