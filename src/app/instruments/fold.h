// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPushButton>

namespace gantry::app {

/// Folds cards away: closed it is a line in their place, a title and what is assumed while they are hidden;
/// open it is a small link over the head of the first of them, which hides them again.
class Fold : public QPushButton {
    Q_OBJECT
public:
    static constexpr int lineHeight = 32, linkWidth = 48, linkHeight = 22;

    /// @param name after "fold_" it is the object's name
    Fold(const QString& name, const QString& title, QWidget* parent = nullptr);

    void setTitle(const QString& title);
    void setSummary(const QString& summary);
    bool isOpen() const { return isChecked(); }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    void describe();

    QString title_, summary_;
};

} // namespace gantry::app
