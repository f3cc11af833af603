// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/moves/jog_pane.h"

#include "app/theme/card.h"
#include "core/units/text.h"

#include <QGuiApplication>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <cmath>

namespace gantry::app {
namespace {

constexpr int steps = 2000, head = 26, rowHeight = 28, nameWidth = 50, placeWidth = 80;

units::Kind placeKind(const Axis& axis) {
    return kindOf(axis) == AxisKind::Linear ? units::Kind::Length : units::Kind::Angle;
}

} // namespace

JogPane::JogPane(const Context& context, MoveDesk& desk, QWidget* parent)
    : QWidget(parent), context_(context), desk_(desk), area_(new QScrollArea(this)), inside_(new QWidget),
      lens_(new QLabel(tr("Lens"), inside_)) {
    setObjectName(QStringLiteral("jogPane"));
    area_->setWidget(inside_);
    area_->setFrameShape(QFrame::NoFrame);
    area_->setFocusPolicy(Qt::NoFocus);
    area_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    makeLens();
}

/// Steps of a centimetre, with Shift of ten, held down one after the other.
void JogPane::makeLens() {
    struct Way {
        QString name, key;
        double ahead, left, up;
    };
    for (const Way& w :
         {Way{tr("Ahead"), QStringLiteral("Ahead"), 1, 0, 0},
          Way{tr("Left"), QStringLiteral("Left"), 0, 1, 0}, Way{tr("Up"), QStringLiteral("Up"), 0, 0, 1},
          Way{tr("Back"), QStringLiteral("Back"), -1, 0, 0},
          Way{tr("Right"), QStringLiteral("Right"), 0, -1, 0},
          Way{tr("Down"), QStringLiteral("Down"), 0, 0, -1}}) {
        auto* b = new QPushButton(w.name, inside_);
        b->setObjectName(QStringLiteral("lens") + w.key);
        b->setProperty("small", true);
        b->setAutoRepeat(true);
        b->setAccessibleName(tr("Lens: %1").arg(w.name));
        b->setToolTip(tr("Carries the lens 1 cm, with Shift 10 cm, by all axes that can"));
        connect(b, &QPushButton::clicked, this, [this, w] {
            const double by = QGuiApplication::keyboardModifiers() & Qt::ShiftModifier ? 0.1 : 0.01;
            if (!desk_.jogLens(by * w.ahead, by * w.left, by * w.up))
                emit message(tr("The rig cannot take the lens any farther that way."), false);
        });
        ways_.push_back(b);
    }
}

void JogPane::make(std::size_t count) {
    while (rows_.size() < count) {
        const std::size_t i = rows_.size();
        Row row{new QLabel(inside_), new QSlider(Qt::Horizontal, inside_), new QLineEdit(inside_)};
        row.slider->setRange(0, steps);
        row.slider->setPageStep(steps / 20);
        row.slider->setSingleStep(1);
        row.slider->setObjectName(QStringLiteral("jog%1").arg(i));
        row.place->setObjectName(QStringLiteral("jogPlace%1").arg(i));
        connect(row.slider, &QSlider::valueChanged, this, [this, i](int value) {
            if (showing_) return;
            const double travel = usableTravel(context_.document.project().axes[i]);
            desk_.jog(static_cast<int>(i), travel * value / steps);
        });
        connect(row.place, &QLineEdit::editingFinished, this, [this, i] { typed(i); });
        rows_.push_back(row);
    }
    while (rows_.size() > count) {
        for (QWidget* w :
             {static_cast<QWidget*>(rows_.back().name), static_cast<QWidget*>(rows_.back().slider),
              static_cast<QWidget*>(rows_.back().place)})
            w->deleteLater();
        rows_.pop_back();
    }
}

void JogPane::typed(std::size_t i) {
    if (!rows_[i].place->isModified()) return;
    rows_[i].place->setModified(false);
    const Axis& axis = context_.document.project().axes[i];
    const auto value = units::parse(rows_[i].place->text().toStdString(), placeKind(axis), context_.system());
    if (const double* place = std::get_if<double>(&value)) {
        const double travel = usableTravel(axis);
        if (*place < 0.0 || *place > travel)
            emit message(tr("%1 can go from 0 to %2; the nearest end was taken.")
                             .arg(QString::fromStdString(axis.name), context_.show(travel, placeKind(axis))),
                         false);
        desk_.jog(static_cast<int>(i), *place);
    } else {
        emit message(tr("“%1” is not a position of %2; %3 would be one.")
                         .arg(rows_[i].place->text(), QString::fromStdString(axis.name),
                              QString::fromUtf8(units::kindWords(placeKind(axis)).example.data())),
                     true);
    }
    refresh();
}

void JogPane::refresh() {
    const auto& axes = context_.document.project().axes;
    const std::size_t before = rows_.size();
    make(axes.size());
    const std::vector<double> places = desk_.places();
    showing_ = true;
    for (std::size_t i = 0; i < rows_.size() && i < places.size(); ++i) {
        const QString name = QString::fromStdString(axes[i].name);
        const double travel = usableTravel(axes[i]);
        rows_[i].name->setText(name);
        rows_[i].slider->setAccessibleName(tr("Place of %1").arg(name));
        rows_[i].slider->setEnabled(travel > 0.0);
        rows_[i].slider->setValue(travel > 0.0 ? static_cast<int>(std::lround(places[i] / travel * steps))
                                               : 0);
        rows_[i].place->setAccessibleName(tr("Place of %1").arg(name));
        if (!rows_[i].place->isModified())
            rows_[i].place->setText(context_.typed(places[i], placeKind(axes[i])));
    }
    showing_ = false;
    if (rows_.size() != before) lay();
}

void JogPane::lay() {
    area_->setGeometry(8, head, width() - 14, height() - head - 6);
    const int wide = area_->width() - 12;
    const int below = static_cast<int>(rows_.size()) * rowHeight;
    inside_->resize(wide, below + 2 * rowHeight + 2);
    lens_->setGeometry(4, below, nameWidth, 24);
    const int buttons = nameWidth + 8, button = (wide - buttons - 6) / 3;
    for (int i = 0; i < static_cast<int>(ways_.size()); ++i)
        ways_[static_cast<std::size_t>(i)]->setGeometry(buttons + i % 3 * (button + 3),
                                                        below + i / 3 * rowHeight, button, 24);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const int y = static_cast<int>(i) * rowHeight;
        rows_[i].name->setGeometry(4, y, nameWidth, 24);
        rows_[i].place->setGeometry(wide - placeWidth, y, placeWidth, 24);
        rows_[i].slider->setGeometry(buttons, y, wide - placeWidth - buttons - 8, 24);
        for (QWidget* w : {static_cast<QWidget*>(rows_[i].name), static_cast<QWidget*>(rows_[i].slider),
                           static_cast<QWidget*>(rows_[i].place)})
            w->show();
    }
}

void JogPane::resizeEvent(QResizeEvent*) {
    lay();
}

void JogPane::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paintCard(p, rect().adjusted(0, 0, -1, -1), tr("Where the rig stands"), 4);
}

} // namespace gantry::app
