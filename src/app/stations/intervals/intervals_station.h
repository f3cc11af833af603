// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "app/stations/station.h"

#include <QElapsedTimer>
#include <QTimer>

class QComboBox;
class QMenu;
class QPushButton;
class QScrollArea;

namespace gantry::app {

class FactsBar;
class IntervalLanes;
class PlanDesk;
class RunPlot;

/// Interval and stop-motion plans: one interval as lanes, the whole run, and what fails first.
class IntervalsStation : public Station {
    Q_OBJECT
public:
    explicit IntervalsStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Intervals"); }
    void refresh() override;
    void applyTheme() override;
    QString standing() const override;
    void showPlan(int plan) override;
    QStringList rules() const override {
        return {"plan_run",    "plan_room",    "plan_still",   "plan_travel", "plan_blur",
                "plan_steps",  "plan_storage", "plan_battery", "plan_falls",  "plan_head",
                "plan_timers", "plan_trigger", "plan_sensor",  "plan_pace",   "plan_heat"};
    }
    const PlanDesk& desk() const { return *desk_; }

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void hideEvent(QHideEvent* event) override;

private:
    enum Page { Run, Camera, Light, Power, Presence, Clock, Way, pages };
    void makeMenu();
    void fillRemoveMenu();
    void newPlan(int kind);
    void play(bool on);
    void tick();
    void saveList();
    void saveSheet();
    void goOn();
    void pauseHere();
    void missHere();
    void place();
    void showFields();
    void showHeadMoved();
    QString pageName(int page) const;
    QList<FieldSlot> fieldsOf(int page) const;
    QString headLine() const;
    QString whichIsSharper() const;
    QString whoIsThere() const;

    PlanDesk* desk_;
    QComboBox *plans_, *page_;
    QPushButton *new_, *menu_, *play_;
    FactsBar* facts_;
    IntervalLanes* lanes_;
    RunPlot* run_;
    QScrollArea* fieldsArea_;
    FieldGroup* fields_;
    QMenu* remove_ = nullptr;
    QTimer clock_;
    QElapsedTimer since_;
    double startedAt_ = 0.0;
    QString line_;
};

} // namespace gantry::app
