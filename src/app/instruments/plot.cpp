// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/plot.h"

#include "app/instruments/field_group.h"
#include "app/model/write_bytes.h"
#include "app/theme/card.h"
#include "app/theme/tokens.h"

#include <QBuffer>
#include <QFileDialog>
#include <QMouseEvent>
#include <QSvgGenerator>
#include <QToolButton>
#include <algorithm>
#include <optional>
#include <qcustomplot.h>

namespace gantry::app {

Plot::Plot(const Context& context, const QString& title, QWidget* parent)
    : QWidget(parent), context_(context), plot_(new QCustomPlot(this)), title_(title),
      menu_(new QToolButton(this)) {
    setAccessibleName(title);
    plot_->setAccessibleName(title);
    plot_->setFocusPolicy(Qt::NoFocus);
    plot_->setNoAntialiasingOnDrag(true);
    // Else each plot that is drawn anew has the whole window painted before the next one is drawn.
    plot_->setPlottingHint(QCP::phImmediateRefresh, false);
    plot_->installEventFilter(this);
    plot_->setMouseTracking(true);
    connect(plot_, &QCustomPlot::afterLayout, this, &Plot::placeLabels);
    menu_->setText(tr("Save plot"));
    menu_->setAccessibleName(tr("Save the plot “%1”").arg(title));
    menu_->setProperty("role", "source");
    connect(menu_, &QToolButton::clicked, this, &Plot::save);
}

void Plot::applyTheme() {
    const Tokens& t = tokens();
    plot_->setBackground(t.sheet);
    for (QCPAxisRect* rect : plot_->axisRects()) styleRect(rect);
}

void Plot::styleRect(QCPAxisRect* rect) const {
    const Tokens& t = tokens();
    for (QCPAxis* axis : rect->axes()) {
        axis->setBasePen(QPen(t.line, 1));
        axis->setTickPen(QPen(t.line, 1));
        axis->setSubTickPen(Qt::NoPen);
        axis->setTickLabelColor(t.second);
        axis->setTickLabelFont(textFont(10));
        axis->setLabelColor(t.second);
        axis->setLabelFont(textFont(10));
        axis->grid()->setPen(QPen(t.faintLine, 1));
        axis->grid()->setZeroLinePen(QPen(t.line, 1));
    }
}

void Plot::put(QCPItemText* label, double x, double y, Qt::Alignment side) {
    label->position->setType(QCPItemPosition::ptPlotCoords);
    label->setPositionAlignment(side);
    label->position->setCoords(x, y);
}

void Plot::keepApart(const QList<QCPItemText*>& texts) {
    labels_.clear();
    for (QCPItemText* t : texts) labels_ << Label{t, t->position->coords(), t->positionAlignment()};
}

namespace {

/// What a text of that size covers beside a point.
QRectF beside(QPointF at, QSizeF size, Qt::Alignment side) {
    const double left = side & Qt::AlignLeft    ? at.x()
                        : side & Qt::AlignRight ? at.x() - size.width()
                                                : at.x() - size.width() / 2.0;
    const double top = side & Qt::AlignTop      ? at.y()
                       : side & Qt::AlignBottom ? at.y() - size.height()
                                                : at.y() - size.height() / 2.0;
    return {{left, top}, size};
}

/// The sides that a label may stand on, its own first. What names a line from above or below does not stand
/// on it before both are taken.
QList<Qt::Alignment> sidesFrom(Qt::Alignment own) {
    const Qt::Alignment upright = own & Qt::AlignVertical_Mask;
    const QList<Qt::Alignment> alongs =
        upright == Qt::AlignTop      ? QList<Qt::Alignment>{Qt::AlignTop, Qt::AlignBottom, Qt::AlignVCenter}
        : upright == Qt::AlignBottom ? QList<Qt::Alignment>{Qt::AlignBottom, Qt::AlignTop, Qt::AlignVCenter}
                                     : QList<Qt::Alignment>{Qt::AlignVCenter, Qt::AlignBottom, Qt::AlignTop};
    QList<Qt::Alignment> out{own};
    for (const Qt::Alignment along : alongs)
        for (const Qt::Alignment across : {Qt::AlignLeft, Qt::AlignRight, Qt::AlignHCenter})
            if (!(across == Qt::AlignHCenter && along == Qt::AlignVCenter)) out << (across | along);
    return out;
}

} // namespace

void Plot::placeLabels() {
    QList<QRectF> taken;
    const QRectF inside = plot_->axisRect() != nullptr ? QRectF(plot_->axisRect()->rect()) : QRectF();
    for (const Label& label : labels_) {
        // As the plot measures it, which is a little more than the text alone.
        const QFontMetrics metrics(label.item->font());
        const QMargins padding = label.item->padding();
        const QSizeF size =
            QSizeF(metrics.boundingRect(0, 0, 0, 0, Qt::TextDontClip, label.item->text()).size()) +
            QSizeF(padding.left() + padding.right() + 1, padding.top() + padding.bottom() + 1);
        const QPointF point(plot_->xAxis->coordToPixel(label.at.x()),
                            plot_->yAxis->coordToPixel(label.at.y()));
        const auto free = [&](const QRectF& box) {
            return inside.adjusted(-2, -2, 2, 2).contains(box) &&
                   std::none_of(taken.begin(), taken.end(),
                                [&](const QRectF& t) { return t.intersects(box); });
        };
        std::optional<QRectF> place;
        constexpr int lines = 8; // up and down
        for (int shift = 0; shift <= 2 * lines && !place; ++shift) {
            const double down = size.height() * (shift % 2 == 1 ? (shift + 1) / 2 : -shift / 2);
            for (const Qt::Alignment side : sidesFrom(label.side))
                if (const QRectF box = beside(point + QPointF(0.0, down), size, side); free(box)) {
                    place = box;
                    break;
                }
        }
        label.item->setVisible(place.has_value());
        if (!place) continue;
        taken << *place;
        label.item->setPositionAlignment(Qt::AlignLeft | Qt::AlignTop);
        label.item->position->setType(QCPItemPosition::ptAbsolute);
        label.item->position->setCoords(place->topLeft());
    }
}

void Plot::setEmptyText(const QString& text) {
    if (text == empty_) return;
    empty_ = text;
    plot_->setVisible(empty_.isEmpty());
    update();
}

void Plot::resizeEvent(QResizeEvent*) {
    // Before it is laid out a widget may be too small to hold any plot; one without an extent cannot be
    // painted.
    plot_->setGeometry(6, 28, std::max(16, width() - 12), std::max(16, height() - 34));
    menu_->setGeometry(width() - 74, 5, 66, 20);
}

void Plot::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintCard(p, rect());
    p.setFont(textFont(12, true));
    p.setPen(tokens().ink);
    p.drawText(QRect(12, 6, width() - 90, 20), Qt::AlignVCenter, title_);
    const int used = p.fontMetrics().horizontalAdvance(title_) + 24;
    p.setFont(textFont(10));
    p.setPen(tokens().lake);
    p.drawText(QRect(used, 6, width() - used - 80, 20), Qt::AlignVCenter | Qt::AlignLeft, readOut_);
    if (!empty_.isEmpty()) {
        p.setFont(textFont(12));
        p.setPen(tokens().second);
        p.drawText(rect().adjusted(24, 40, -24, -20), Qt::AlignCenter | Qt::TextWordWrap, empty_);
    }
}

bool Plot::eventFilter(QObject* watched, QEvent* event) {
    if (watched == plot_ && (event->type() == QEvent::MouseMove || event->type() == QEvent::Leave)) {
        const QString text = event->type() == QEvent::Leave
                                 ? QString()
                                 : readOut(static_cast<QMouseEvent*>(event)->position());
        if (text != readOut_) {
            readOut_ = text;
            setAccessibleDescription(text);
            update(0, 0, width(), 28);
        }
    }
    return QWidget::eventFilter(watched, event);
}

bool Plot::saveTo(const QString& path, QString& error) {
    if (path.endsWith(QLatin1String(".svg"), Qt::CaseInsensitive)) {
        QBuffer drawing;
        QSvgGenerator svg;
        svg.setOutputDevice(&drawing);
        svg.setSize(plot_->size());
        svg.setViewBox(QRect(QPoint(), plot_->size()));
        svg.setTitle(title_);
        QCPPainter painter;
        if (painter.begin(&svg)) {
            painter.setMode(QCPPainter::pmVectorized);
            painter.setMode(QCPPainter::pmNoCaching);
            plot_->toPainter(&painter, plot_->width(), plot_->height());
            painter.end();
        }
        error = writeBytes(path, drawing.data());
    } else if (path.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive)) {
        error = writeBytes(path, QByteArray::fromStdString(csv()));
    } else if (path.endsWith(QLatin1String(".png"), Qt::CaseInsensitive)) {
        error = writePng(path, plot_->toPixmap(0, 0, 2.0).toImage());
    } else {
        error = tr("“%1” has no ending that says its kind. Use .svg, .png or .csv.").arg(path);
    }
    return error.isEmpty();
}

void Plot::save() {
    const QString path = QFileDialog::getSaveFileName(this, tr("Save plot"), title_ + QStringLiteral(".svg"),
                                                      tr("Drawing (*.svg);;Picture (*.png);;Table (*.csv)"));
    QString error;
    if (!path.isEmpty() && !saveTo(path, error)) emit message(error, true);
}

} // namespace gantry::app
