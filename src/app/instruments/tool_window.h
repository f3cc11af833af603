// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QDialog>

class QTimer;

namespace gantry::app {

/// A window beside the main one. It stays open while one works on, and follows: what it shows is made anew
/// after each change of the project, of what is looked at and of the preferences, once for all that change
/// together. It closes with Escape and is gone then.
class ToolWindow : public QDialog {
    Q_OBJECT
public:
    ToolWindow(const Context& context, const QString& name, const QString& title, QWidget* parent);
    /// Shows a tool of that kind: the one that is open, or one made of these.
    template <class Tool, class... More>
    static Tool* open(const Context& context, QWidget* parent, More&&... more) {
        for (Tool* there : parent->findChildren<Tool*>())
            if (there->isVisible()) {
                there->raise();
                there->activateWindow();
                return there;
            }
        auto* tool = new Tool(context, std::forward<More>(more)..., parent);
        tool->show();
        return tool;
    }

protected:
    /// Shows the project as it is now.
    virtual void follow() = 0;
    /// How long after a change it follows [ms], where that takes longer than an edit may.
    void followAfter(int milliseconds);
    void showEvent(QShowEvent* event) override;
    Context context_;

private:
    QTimer* soon_;
};

} // namespace gantry::app
