// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/model/fix_job.h"
#include "app/shell/context.h"
#include "core/verdicts/matters.h"

#include <QStaticText>
#include <QStringList>
#include <QWidget>
#include <functional>

class QPushButton;
class QScrollArea;

namespace gantry::app {

class OtherVerdict;

/// One matter: vial, title, ratio, sentence, what says the same, and the fixes that were found for it.
class VerdictCard : public QWidget {
    Q_OBJECT
public:
    VerdictCard(const Context& context, QWidget* parent);
    /// `fixes` null: none looked for yet (or none to look for). What looks as before is not painted again.
    void show(const Matter& matter, const FixJob::Fixes& fixes);
    int wantedHeight() const { return height_; }

signals:
    void applyFix(const gantry::Fix& fix);
    void setAside(const QStringList& keys);
    void takeUp(const QStringList& keys);
    void explain(const QString& path);
    /// Asks to put the play head where a verdict about a move finds its worst.
    void momentWanted(int move, double time);
    /// Asks to take the interval plan in hand that a verdict is about.
    void planWanted(int plan);
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
        QString moment; ///< when in a move, where it is about one
        bool looking = false, mendable = false, readOnly = false, night = false, all = false,
             explained = false;

        friend bool operator==(const Looks&, const Looks&) = default;
    };
    Looks looksOf(const Matter& matter, const FixJob::Fixes& fixes) const;
    void placeButtons();

    Verdict verdict_;
    QStringList rules_; ///< of the matter, by key, the verdict's own first
    Looks looks_;
    QList<QPushButton*> buttons_;
    QPushButton *asideButton_, *moreButton_, *ratioButton_, *momentButton_;
    bool all_ = false;              ///< every fix is shown, not only the first
    QStaticText sentence_, advice_; ///< laid out once, painted often
    int sentenceHeight_ = 0, adviceHeight_ = 0, height_ = 0;
};

/// What the station in sight says of the chosen axis, one card a matter, worst first; then what was set
/// aside, hazards in their place. What is fine or more than enough is counted in one line, which unfolds it.
/// Last a line for each matter of another station or axis that is over or at risk, or that warns of what may
/// fall; pressing it goes there.
class VerdictColumn : public QWidget {
    Q_OBJECT
public:
    VerdictColumn(const Context& context, FixJob& fixes, QWidget* parent = nullptr);
    /// A station in sight by its name and the rules that it shows.
    void setStation(const QString& name, const QStringList& rules);
    /// Which station shows a verdict, by name.
    void setStationOf(std::function<QString(const Verdict&)> stationOf) { stationOf_ = std::move(stationOf); }
    void refresh();
    /// Brings a verdict's card into sight and gives its first fix the focus.
    void showCard(const Verdict& verdict);

signals:
    void stationWanted(const QString& name);
    /// Asks to show how a verdict's ratio comes about, by its path.
    void explain(const QString& path);
    void momentWanted(int move, double time);
    void planWanted(int plan);

protected:
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void apply(const Fix& fix);
    void askSetAside(const QStringList& keys);
    void takeUp(const QStringList& keys);
    bool shownHere(const Matter& matter) const;
    int placeOthers(const std::vector<Matter>& all, int y);

    Context context_;
    FixJob& fixes_;
    QScrollArea* scroll_;
    QWidget* content_;
    QList<VerdictCard*> cards_;
    QString station_;
    QStringList rules_; ///< of the station in sight
    std::function<QString(const Verdict&)> stationOf_;
    QPushButton* fold_;
    bool unfolded_ = false;
    QList<OtherVerdict*> others_; ///< of other stations and axes, a line each
};

} // namespace gantry::app
