// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "app/instruments/rig_chooser.h"
#include "app/stations/brief/shot_table.h"
#include "app/stations/station.h"

class QComboBox;
class QPushButton;
class QScrollArea;
class QTableView;

namespace gantry::app {

class Caption;
class CompletenessCard;
class DemandsCard;
class Fold;
class ListCard;
class RigView;

/// What must this rig do? First the rig, drawn, with the numbers that decide; then its shots; the rest is
/// folded away into lines that say what they assume.
class BriefStation : public Station {
    Q_OBJECT
public:
    explicit BriefStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Brief"); }
    void refresh() override;
    QStringList rules() const override { return {"judder", "travel", "ease", "weight", "money"}; }

    /// Adds a belt slider of which everything is a marked assumption and puts the cursor into the first
    /// field.
    void startFromWhatIHave() override;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    enum class Given { AtRest, SpeedAndAcceleration, TimeAndEase };
    int shotIndex() const;
    void addShot();
    void removeShot();
    void startRig(rigs::RigKind kind);
    void setGiven(Given given);
    void place();
    void refreshDeciding();
    void refreshShot();
    QString fromMove(const Axis& axis, int shot) const;
    void refreshFolds();
    QList<Fold*> folds() const;
    void connectLists();
    void refreshLists();
    QString takenAs(const Shot& shot) const;
    QString laterWords() const;

    QScrollArea* scroll_;
    QWidget* page_;
    RigView* view_;
    FieldGroup *deciding_, *rig_, *axis_, *shot_, *shotMore_, *move_, *limits_, *equipment_;
    Fold *shotFold_, *axisFold_, *rigFold_, *payloadFold_, *checklistFold_, *laterFold_;
    ListCard *payload_, *later_;
    DemandsCard* demands_;
    CompletenessCard* completeness_;
    QPushButton *startButton_, *otherRig_, *addShot_, *removeShot_;
    RigChooser* chooser_;
    QComboBox* given_;
    QTableView* table_;
    ShotTableModel model_;
    Caption *capability_, *shotsTitle_, *startHint_, *laterSays_;
    int chosenShot_ = 0;
    bool choosing_ = false; ///< another rig is being chosen over the one there is
};

} // namespace gantry::app
