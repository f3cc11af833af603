// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/model/fix_job.h"
#include "app/shell/context.h"

#include <QStaticText>
#include <QWidget>

class QPushButton;
class QScrollArea;

namespace gantry::app {

/// One verdict: vial, title, ratio, sentence, and the fixes that were found for it.
class VerdictCard : public QWidget {
    Q_OBJECT
public:
    VerdictCard(const Context& context, QWidget* parent);
    /// `fixes` null: none looked for yet (or none to look for). What looks as before is not painted again.
    void show(const Verdict& verdict, const FixJob::Fixes& fixes);
    int wantedHeight() const { return height_; }

signals:
    void applyFix(const gantry::Fix& fix);
    void setAside(const gantry::Verdict& verdict);
    void takeUp(const gantry::Verdict& verdict);
    void resized(); ///< it wants another height

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    /// All that the card's looks depend on.
    struct Looks {
        QString title, sentence, ratio, detail, aside;
        QString advice; ///< where something is to be mended and nothing offered does it
        State state = State::Unknown;
        units::System system = units::System::Metric;
        double bubble = 0.0;
        FixJob::Fixes fixes;
        bool looking = false, mendable = false, readOnly = false, night = false, all = false;

        friend bool operator==(const Looks&, const Looks&) = default;
    };
    Looks looksOf(const Verdict& verdict, const FixJob::Fixes& fixes) const;
    void placeButtons();

    Verdict verdict_;
    Looks looks_;
    QList<QPushButton*> buttons_;
    QPushButton *asideButton_, *moreButton_;
    bool all_ = false;              ///< every fix is shown, not only the first
    QStaticText sentence_, advice_; ///< laid out once, painted often
    int sentenceHeight_ = 0, adviceHeight_ = 0, height_ = 0;
};

/// The verdicts of the chosen axis, worst first; then what was set aside, hazards in their place. What is
/// fine or more than enough is counted in one line, which unfolds it. Last a line for each verdict of another
/// axis that is over or at risk, or that warns of what may fall; pressing it goes there.
class VerdictColumn : public QWidget {
    Q_OBJECT
public:
    VerdictColumn(const Context& context, FixJob& fixes, QWidget* parent = nullptr);
    void refresh();

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void apply(const Fix& fix);
    void askSetAside(const Verdict& verdict);
    void takeUp(const Verdict& verdict);

    Context context_;
    FixJob& fixes_;
    QScrollArea* scroll_;
    QWidget* content_;
    QList<VerdictCard*> cards_;
    int placeOthers(int y);

    QPushButton* fold_;
    bool unfolded_ = false;
    QList<QPushButton*> others_; ///< of other axes, a line each
};

} // namespace gantry::app
