// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

namespace gantry::app {

/// Shows every label, message and tooltip of the program as the text it is. Left to themselves Qt's labels
/// take a text that looks like markup for markup, so that a name in a project could open a file.
class PlainLabels : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    /// Watches the application from now on; once is enough.
    static void install();

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
};

} // namespace gantry::app
