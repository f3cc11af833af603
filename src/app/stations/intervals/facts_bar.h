// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/intervals/plan_desk.h"

#include <QWidget>
#include <array>

class QLineEdit;
class QPushButton;

namespace gantry::app {

/// The three facts of a run in all their forms: pictures or clip, interval or speed-up, duration. Two are
/// typed, the third is computed; a press changes which.
class FactsBar : public QWidget {
    Q_OBJECT
public:
    FactsBar(const Context& context, PlanDesk& desk, QWidget* parent = nullptr);
    void refresh();
    static constexpr int height_ = 62;

signals:
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    enum Form { Pictures, Clip, Interval, SpeedUp, Duration, forms };
    static FollowingFact factOf(int form);
    void commit(int form);
    void follow(FollowingFact fact);
    QString label(int form) const;

    Context context_;
    PlanDesk& desk_;
    std::array<QLineEdit*, forms> edits_{};
    std::array<QPushButton*, 3> computed_{};
};

} // namespace gantry::app
