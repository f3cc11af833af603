// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/recipes/recipe.h"

#include <QDialog>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace gantry::app {

/// Measure it: a recipe for one input, its precaution first, its readings as fields, the value they give.
class MeasureDialog : public QDialog {
    Q_OBJECT
public:
    MeasureDialog(const Context& context, const QString& path, QWidget* parent);

private:
    void showRecipe(int index);
    void compute();
    void take();

    Context context_;
    QString path_;
    std::vector<const recipes::Recipe*> recipes_;
    recipes::Recipe direct_; ///< for fields without a recipe of their own
    const recipes::Recipe* recipe_ = nullptr;
    double value_ = 0.0;
    QComboBox* which_;
    QLabel *precaution_, *steps_, *result_;
    QWidget* readings_;
    QFormLayout* form_;
    QList<QLineEdit*> edits_;
    QPushButton* take_;
};

} // namespace gantry::app
