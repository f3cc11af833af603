// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/list_card.h"
#include "core/verdicts/completeness.h"

namespace gantry::app {

/// What the shots ask of each axis: fastest, slowest, steepest and finest, each with its shot.
class DemandsCard : public QWidget {
    Q_OBJECT
public:
    explicit DemandsCard(const Context& context, QWidget* parent = nullptr);
    void refresh();
    int wantedHeight() const;
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    QList<QStringList> rows_;
    QString words_;
};

/// What the rig needs besides drives, with ticks for what is there.
class CompletenessCard : public QWidget {
    Q_OBJECT
public:
    explicit CompletenessCard(const Context& context, QWidget* parent = nullptr);
    void refresh();
    int wantedHeight() const;
    QString inWords() const { return words_; }
    QString summary() const; ///< "9 missing"

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    std::vector<CompletenessLine> lines_;
    QString words_;
};

} // namespace gantry::app
