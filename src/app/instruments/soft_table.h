// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

namespace gantry::app {

/// The parts that give way under the camera, softest first, with how long each would swing alone.
class SoftTable : public QWidget {
    Q_OBJECT
public:
    explicit SoftTable(const Context& context, QWidget* parent = nullptr);
    void refresh();
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    QString words_;
};

} // namespace gantry::app
