// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/tool_window.h"

#include <string>

class QLabel;
class QTableWidget;

namespace gantry::app {

/// How a number comes about: what was put in and how it is known, every result on the way with its formula,
/// where it is taken from, and which input moves it most. Another number that is pressed takes its place.
class WorkingWindow : public ToolWindow {
    Q_OBJECT
public:
    WorkingWindow(const Context& context, QWidget* parent);
    /// Path of a figure or a verdict, as working::explain takes it.
    void setPath(const std::string& path);

private:
    void follow() override;
    void sayWhatMoves();
    void fitToContent();

    std::string path_;
    QLabel *head_, *says_, *most_;
    QTableWidget* table_;
    QTimer* later_; ///< what moves it most takes longer than an edit may
};

} // namespace gantry::app
