// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace gantry::app {

/// A line of text that takes no part in layout: bold lead, then the rest, on a card or bare.
class Caption : public QWidget {
    Q_OBJECT
public:
    explicit Caption(bool card, QWidget* parent = nullptr);
    void setText(const QString& lead, const QString& rest = {});
    QString text() const { return lead_ + QLatin1Char(' ') + rest_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    QString lead_, rest_;
    bool card_;
};

} // namespace gantry::app
