// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "app/stations/station.h"
#include "io/exports/settings_forms.h"

#include <QAbstractTableModel>

class QComboBox;
class QPlainTextEdit;
class QPushButton;
class QTableView;

namespace gantry::app {

class Caption;

/// Settings of one axis: name, value, unit, note.
class SettingsModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void setRows(const std::vector<io::Setting>& rows);
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : 3; }
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    /// Whether a row is the note on the setting above it, which takes the whole width.
    bool isNote(int row) const { return lines_[static_cast<std::size_t>(row)].note; }

private:
    struct Line {
        std::size_t setting;
        bool note;
        friend bool operator==(const Line&, const Line&) = default;
    };
    std::vector<io::Setting> rows_;
    std::vector<Line> lines_;
};

/// Which numbers do I type in? The settings of each axis, and the same through a template of the user's.
class ControllerStation : public Station {
    Q_OBJECT
public:
    explicit ControllerStation(const Context& context, QWidget* parent = nullptr);
    QString name() const override { return tr("Controller"); }
    void refresh() override;
    QStringList rules() const override {
        return {"rounding", "settings", "stopping", "pulse_rate", "steps_set"};
    }

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    QPushButton* makeChoices(const QString& title, const char* name);
    void fillTemplates();
    void openTemplate();
    void renderText();
    void copy();
    void save();
    void place();

    FieldGroup *controller_, *motion_;
    QTableView* table_;
    SettingsModel model_;
    QComboBox* choice_;
    QPushButton *open_, *copy_, *save_, *insist_, *times_, *speeds_;
    QPlainTextEdit* text_;
    Caption *settingsTitle_, *textTitle_, *problem_;
    io::SettingsSheet sheet_;
    QString exact_;     ///< the text as it is copied and saved
    QString extension_; ///< that its file gets
    bool usable_ = true;
};

} // namespace gantry::app
