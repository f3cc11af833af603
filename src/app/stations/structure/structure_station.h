// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "app/stations/station.h"

class QComboBox;
class QPushButton;
class QScrollArea;

namespace gantry::app {

class RigView;
class StructureLists;
class SoftTable;
class StructurePlot;
class TippingPolar;

/// Will it stand, balance, stay stiff and not break? The rig to scale with what can be dragged, tipping by
/// direction, what happens along the range, and which part is the softest.
class StructureStation : public Station {
    Q_OBJECT
public:
    explicit StructureStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Structure"); }
    void refresh() override;
    void applyTheme() override;
    QStringList rules() const override {
        return {"sag",    "settling",  "rail_tipping", "rail_clamps", "beam_strength",
                "pivot",  "balance",   "hand_driven",  "tipping",     "anchors",
                "tether", "clearance", "weight",       "money"};
    }

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void placeStands();
    void balanceIt();
    void fillFields();
    void place();
    QList<FieldSlot> headFields() const;
    QString headLine() const;

    RigView* view_;
    TippingPolar* polar_;
    StructurePlot* plot_;
    SoftTable* soft_;
    QWidget* content_; ///< what scrolls: fields, then lists
    FieldGroup* fields_;
    StructureLists* lists_;
    QScrollArea* scroll_;
    QComboBox* part_;
    QPushButton *above_, *best_, *more_;
    QString line_;
};

} // namespace gantry::app
