// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/model/fields.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QMenu;
class QToolButton;

namespace gantry::app {

/// Edits one field of the project, whatever its kind, found by its path: caption above, value with unit, and
/// how it is known. Takes every unit; refuses with a sentence and keeps the old value; steps with the arrow
/// keys. The menu of the source button also locks the field against fixes.
class FieldEditor : public QWidget {
    Q_OBJECT
public:
    explicit FieldEditor(const Context& context, QWidget* parent = nullptr);

    static constexpr int height_ = 48, captionHeight = 20;

    /// The field to edit; an empty path empties the editor. `caption` replaces the field's own label.
    void setPath(const QString& path, const QString& caption = {});
    QString path() const { return path_; }
    /// Shows the value times this factor, for a second view of the same value (peak of an rms current).
    void setView(double factor) { factor_ = factor; }
    /// Reads the field again.
    void refresh();

    QSize sizeHint() const override { return {132, height_}; }

signals:
    /// A refused or unusual entry: a sentence that names the field, the value and what to do.
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void commit();
    void choose(int index);
    void commitNumber(const FieldRef& field);
    void step(int direction, bool coarse);
    void apply(double value, const QString& mergeKey);
    void say(const QString& sentence, bool refused);
    void fillSourceMenu();
    void setSource(Source source);
    QString caption(const FieldInfo& info) const;
    enum class Digits { All, Five, Three };
    QString shownText(double si, const FieldInfo& info, Digits digits) const;
    /// Of a number that is not being edited as many digits as there is room for.
    void fitDigits();

    Context context_;
    QString path_, captionOverride_;
    double factor_ = 1.0;
    QLabel* caption_;
    QLineEdit* edit_;
    QToolButton* source_;
    QMenu* menu_;
    QComboBox* combo_ = nullptr;
    QCheckBox* check_ = nullptr;
    QString five_, three_; ///< what is shown, and what where that finds no room
    bool typed_ = false;   ///< the line holds text that was not committed
};

} // namespace gantry::app
