// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/stations/drives/part_fields.h"
#include "app/stations/station.h"
#include "core/tools/chain_table.h"

class QComboBox;
class QMenu;
class QPushButton;
class QTabBar;

namespace gantry::app {

class ChainView;
class DriveTable;
class ProfilePlot;
class TorquePlot;

/// Which motor, which gears, which pulley? What the drive can do in one line, the chain with its table, the
/// editor of the chosen part, torque against speed and the motion profile.
class DrivesStation : public Station {
    Q_OBJECT
public:
    explicit DrivesStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Drives"); }
    void refresh() override;
    void applyTheme() override;
    QStringList rules() const override;

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    void fillShots();
    void choosePart(int column);
    void refreshEditor();
    void refreshKinds();
    void setKind(int index);
    void addLink(int kind);
    void removeLink();
    void moveLink(int step);
    void addElement();
    void removeElement();
    const ChainColumn* chosenColumn() const;
    /// Asks to show how a number of the table comes about.
    void explainCell(int column, const char* key);
    void place();
    QRect headCard() const;

    QComboBox* shots_;
    QPushButton *tools_, *add_, *remove_, *earlier_, *later_;
    QComboBox* kind_;
    QTabBar* pages_;
    QPushButton *addElement_, *removeElement_;
    ChainView* chain_;
    DriveTable* table_;
    FieldGroup* editor_;
    TorquePlot* torque_;
    ProfilePlot* profile_;
    std::vector<ChainColumn> columns_;
    QList<FieldPage> fieldPages_;
    QString shotList_, capability_;
};

} // namespace gantry::app
