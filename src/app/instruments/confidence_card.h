// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"
#include "core/sampling/confidence.h"

#include <QWidget>
#include <optional>

class QPushButton;

namespace gantry::app {

/// How sure: of so many rigs within the tolerances, how many fail, and which input matters most to measure.
class ConfidenceCard : public QWidget {
    Q_OBJECT
public:
    explicit ConfidenceCard(const Context& context, QWidget* parent = nullptr);
    /// Nothing: still sampling. `stale`: from before the last change, drawn greyed.
    void show(const std::optional<sampling::Confidence>& confidence, bool stale);

    /// Nothing to tell; says why.
    void clear(const QString& text);

signals:
    /// Asks for the recipe of a field.
    void measureWanted(const QString& path);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    QString caption(const std::string& path) const;

    Context context_;
    std::optional<sampling::Confidence> confidence_;
    bool stale_ = false;
    QString instead_;
    QString measurePath_;
    QPushButton* measure_;
};

} // namespace gantry::app
