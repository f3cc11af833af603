// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/rig_view.h"
#include "app/shell/context.h"

#include <QAbstractButton>

class QPushButton;

namespace gantry::app {

/// One axis in the left column: its line pattern, name, drive in a few words and its worst verdict.
class AxisCard : public QAbstractButton {
    Q_OBJECT
public:
    AxisCard(const Context& context, int axis, QWidget* parent);
    void refresh();

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    /// What the card shows, so that one that stays the same is not painted again.
    struct Shown {
        QString name, detail;
        std::optional<State> state;
        int bubble = 0; ///< [px]
        bool chosen = false;
        bool operator==(const Shown&) const = default;
    };

    Context context_;
    int axis_;
    QString detail_;
    const Verdict* worst_ = nullptr;
    std::optional<Shown> shown_;
};

/// The axes from base to lens and the side view.
class AxisColumn : public QWidget {
    Q_OBJECT
public:
    explicit AxisColumn(const Context& context, QWidget* parent = nullptr);
    void refresh();

signals:
    void addAxisWanted();

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void place();
    void move(int step);

    Context context_;
    QList<AxisCard*> cards_;
    QPushButton *add_, *edit_;
    RigView* elevation_;
};

/// Worst verdict about one axis, or of all for −1; set-aside ones only if they are hazards. Null if there is
/// none.
const Verdict* worstVerdict(const Document& document, int axis);

} // namespace gantry::app
