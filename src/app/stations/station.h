// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shell/context.h"

#include <QWidget>

class QComboBox;

namespace gantry::app {

/// One station's page. It is refreshed when shown and, while shown, on every edit.
class Station : public QWidget {
    Q_OBJECT
public:
    explicit Station(const Context& context, QWidget* parent = nullptr) : QWidget(parent), context_(context) {
        setObjectName(QStringLiteral("stationPage"));
        setAttribute(Qt::WA_OpaquePaintEvent); // nothing below a page is painted for nothing
    }
    virtual QString name() const = 0;
    virtual void refresh() = 0;
    virtual void applyTheme() {}
    /// Begins a rig of which everything is a marked assumption; of the station that offers it.
    virtual void startFromWhatIHave() {}
    /// Goes to a moment [s] of a move; of the station that has a play head.
    virtual void showMoment(int move, double time) {
        Q_UNUSED(move);
        Q_UNUSED(time);
    }
    /// Takes an interval plan in hand; of the station that has them.
    virtual void showPlan(int plan) { Q_UNUSED(plan); }
    /// What the status line says of it, in place of the axis; ends with what sets it off. Empty: nothing.
    virtual QString standing() const { return {}; }
    /// Rules whose worst state the station rail shows here.
    virtual QStringList rules() const = 0;

signals:
    void message(const QString& sentence, bool refused);
    /// Asks to go to another station by its name.
    void goTo(const QString& station);
    /// Asks to show how a figure comes about, by its path.
    void explain(const QString& path);

protected:
    /// Fills the page; whoever paints more fills it too.
    void paintEvent(QPaintEvent* event) override;

    static constexpr int headTop = 2, headRow = 27; ///< the row of names and buttons above the cards
    /// Fills the page and paints its head: the axis' name, and a card whose first line, `lineHeight` high, is
    /// a bold lead and a text beside it.
    /// `title`: in place of the axis' name, of a station that is about the whole rig.
    void paintHead(QPainter& painter, const QRect& card, int lineHeight, const QString& lead,
                   const QString& text, const QString& title = {}) const;
    /// Which letter of the head's text stands at a point; −1 where none does.
    static qsizetype letterAt(QPoint at, const QRect& card, int lineHeight, const QString& lead,
                              const QString& text);
    /// Has the head, down to `bottom`, painted again where its texts have changed. Only the head: everything
    /// that stands on a page is painted with it.
    void updateHead(int bottom, const QString& texts);
    /// What a box chooses among, laid out anew only where it has changed; nobody is told.
    static void showChoices(QComboBox& box, const QStringList& names, int current);

    Context context_;

private:
    QString headTexts_;
};

} // namespace gantry::app
