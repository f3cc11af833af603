// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "app/stations/station.h"

#include <QElapsedTimer>
#include <QTimer>
#include <functional>

class QComboBox;
class QMenu;
class QScrollArea;
class QPushButton;
class QToolButton;

namespace gantry::app {

class JogPane;
class LeastTimeJob;
class LensView;
class MoveDesk;
class MovePlanView;
class MoveTimeline;

/// Key poses, timed and aimed: from above and from the side, through the lens, and in time.
class MovesStation : public Station {
    Q_OBJECT
public:
    explicit MovesStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Moves"); }
    void refresh() override;
    void applyTheme() override;
    void showMoment(int move, double time) override;
    QStringList rules() const override {
        return {"move_plan",    "move_limits",    "move_travel",   "move_framing",   "move_torque",
                "move_pulses",  "move_resonance", "move_tipping",  "move_clearance", "move_own_parts",
                "move_focus",   "move_judder",    "move_stepping", "move_jitter",    "move_drift",
                "move_horizon", "move_held",      "move_approach", "move_run_on",    "move_choices"};
    }
    const MoveDesk& desk() const { return *desk_; }

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    void makeMenus();
    void addBlockMenus(QMenu& menu);
    void addTurntables(QMenu& menu);
    void askForTime();
    void fitToTime(double whole);
    void storeView();
    void targetFromViews();
    void place();
    void showHead();
    void showFields();
    void showHeadMoved();
    void wantLeast();
    void newMove();
    void storePose();
    void addTarget();
    void play(bool on);
    void tick();
    void saveTable(bool json);
    QString headLine() const;
    QString bestTime() const;
    QList<FieldSlot> poseFields() const;
    /// Changes the move in hand as one step; `how` takes the project and the move's index.
    void change(const QString& what, const std::function<void(Project&, int)>& how);

    MoveDesk* desk_;
    QComboBox *moves_, *lanes_;
    QPushButton *store_, *target_, *menu_, *play_, *sides_;
    MovePlanView* plan_;
    LensView* lens_;
    MoveTimeline* timeline_;
    QScrollArea* fieldsArea_;
    FieldGroup* fields_;
    JogPane* jog_;
    LeastTimeJob* least_;
    QTimer clock_;
    QElapsedTimer since_;
    double startedAt_ = 0.0;
    QString line_;
};

} // namespace gantry::app
