// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/model/fix_job.h"
#include "app/shell/context.h"
#include "core/verdicts/next_step.h"

#include <QMainWindow>
#include <QPointer>
#include <QTimer>

class QLabel;
class QMenu;
class QPushButton;
class QStackedWidget;
class QToolButton;

namespace gantry::app {

class AxisColumn;
class PathLine;
class Recovery;
class Station;
class StationRail;
class VerdictColumn;
class WorkingWindow;

/// The window: station rail above, axes at the left, the station in the middle, verdicts at the right, status
/// below.
class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);
    ~MainWindow() override;

    /// Opens a file and says what went wrong, if anything, in the status line.
    bool openFile(const QString& path);
    /// Offers copies left by windows that ended badly. Returns whether one was taken.
    bool offerRecovery();
    Document& document() { return document_; }
    /// Whether fixes are still being looked for.
    bool looksForFixes() const { return fixes_.looks(); }
    Session& session() { return session_; }
    Preferences& preferences() { return preferences_; }
    void showStation(QStringView id);
    QStringList stationIds() const; ///< in the order of the rail
    QString stationName(QStringView id) const;

protected:
    void closeEvent(QCloseEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    void makeActions();
    int placeOf(QStringView station) const; ///< −1: there is none of that id
    void showPlace(int place);
    void showStationNamed(const QString& name);
    /// Name of the first station that shows a verdict.
    QString stationOf(const Verdict& verdict) const;
    void refreshAll();
    /// Shows what decides in the station in sight, and what to do about it.
    void refreshPath();
    /// Does it.
    void takeNextStep();
    /// Of the chosen axis, what the station at a place shows; worst first.
    std::vector<Matter> mattersAt(int place) const;
    /// Shows how a figure or a verdict comes about, in the window that is there for it.
    void explain(const QString& path);
    /// What stands at the foot while nothing else is to be said.
    void refreshStatus();
    void refreshFileState();
    void restyle();
    void say(const QString& sentence, bool refused);
    /// Takes over what is still being typed in a field.
    void commitTyping();
    bool mayLeave();
    /// Saves to the file there is, or asks for one. The first two return at once, the last when all is done.
    void saveFile();
    void saveFileAs();
    bool saveBeforeLeaving();
    /// A name for the project's file; empty if none was chosen.
    QString askForName();
    void saved(const SaveOutcome& outcome);
    /// Somebody else changed the file: theirs, ours, or a copy. Returns whether ours is on disk in the end.
    bool settleConflict(const QString& path, bool wait);
    void showVersions();
    void openDialog();
    void startEmpty();
    void fillRecent();
    void addAxis(Role role, bool linear);
    void place();

    Document document_;
    Session session_;
    Preferences preferences_;
    Shelf shelf_;
    Context context_;
    FixJob fixes_;
    std::unique_ptr<Recovery> recovery_;

    QWidget* top_;
    QLabel *title_, *saved_;
    StationRail* rail_;
    QToolButton* menuButton_;
    QPushButton *undo_, *redo_, *unitButton_, *themeButton_;
    QMenu* recentMenu_;
    QAction *takeFromDisk_ = nullptr, *versions_ = nullptr;
    AxisColumn* axes_;
    PathLine* path_;
    VerdictColumn* verdicts_;
    QStackedWidget* stack_;
    QLabel* status_;
    QTimer statusTimer_;
    QList<Station*> stations_;
    QPointer<WorkingWindow> working_; ///< while it is open
    NextStep next_;
    QString nextPlace_;         ///< station to go to, where there is nothing to do here
    int nextAxis_ = 0;          ///< and the axis
    bool axesReadOnly_ = false; ///< as the axis column shows it
    bool leaving_ = false;      ///< a save is waited for, which says itself how it went
};

} // namespace gantry::app
