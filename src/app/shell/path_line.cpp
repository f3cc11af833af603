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
    next_->setObjectName(QStringLiteral("nextStep"));
    next_->setProperty("role", "rowlink");
    connect(next_, &QPushButton::clicked, this, &PathLine::pressed);
}

void PathLine::show(const QString& known, const QString& decides, const QString& next) {
    QStringList parts;
    for (const QString& part : {known, decides})
        if (!part.isEmpty()) parts << part;
    const QString text = parts.join(QStringLiteral(" · "));
    if (text == text_ && next == next_->text()) return;
    text_ = text;
    next_->setText(next);
    next_->setVisible(!next.isEmpty());
    next_->setAccessibleName(next);
    next_->setAccessibleDescription(text);
    setAccessibleName(text);
    place();
    update();
}

void PathLine::place() {
    const int used = text_.isEmpty() ? 0 : QFontMetrics(textFont(11)).horizontalAdvance(text_) + between;
    const int wanted = QFontMetrics(textFont(11)).horizontalAdvance(next_->text()) + 2 * gap;
    next_->setGeometry(edge + used, 2, std::min(wanted, width() - 2 * edge - used + gap), height() - 3);
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
