// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/main_window.h"

#include "app/instruments/measure_dialog.h"
#include "app/instruments/working_window.h"
#include "app/model/recovery.h"
#include "app/shell/axis_column.h"
#include "app/shell/path_line.h"
#include "app/shell/plain_labels.h"
#include "app/shell/station_rail.h"
#include "app/shell/verdict_column.h"
#include "app/stations/stations.h"
#include "app/theme/tokens.h"
#include "core/model/edit_axes.h"
#include "core/working/explain.h"

#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QPushButton>
#include <QShortcut>
#include <QStackedWidget>
#include <QToolButton>
#include <algorithm>

namespace gantry::app {
namespace {
/// A key or a state's word, which are plain letters.
QString latin(std::string_view s) {
    return QString::fromLatin1(s.data(), static_cast<qsizetype>(s.size()));
}
constexpr int topHeight = 64, leftWidth = 208, rightWidth = 286, bottomHeight = 28, pathHeight = 22;
} // namespace

MainWindow::MainWindow(QWidget* parent)
    : QMainWindow(parent), context_{document_, session_, preferences_, shelf_}, fixes_(document_, shelf_),
      recovery_(std::make_unique<Recovery>(document_)), top_(new QWidget(this)), title_(new QLabel(top_)),
      saved_(new QLabel(top_)), rail_(new StationRail(top_)), menuButton_(new QToolButton(top_)),
      undo_(new QPushButton(tr("Undo"), top_)), redo_(new QPushButton(tr("Redo"), top_)),
      unitButton_(new QPushButton(top_)), themeButton_(new QPushButton(top_)),
      recentMenu_(new QMenu(tr("Recent"), this)), axes_(new AxisColumn(context_, this)),
      path_(new PathLine(this)), verdicts_(nullptr), stack_(new QStackedWidget(this)),
      status_(new QLabel(this)) {
    verdicts_ = new VerdictColumn(context_, fixes_, this);
    PlainLabels::install();
    setObjectName(QStringLiteral("mainWindow"));
    setAttribute(Qt::WA_OpaquePaintEvent);
    setMinimumSize(1100, 700);
    resize(1280, 800);
    title_->setProperty("role", "title");
    saved_->setProperty("role", "quiet");
    status_->setObjectName(QStringLiteral("status"));
    status_->setProperty("role", "quiet");
    undo_->setObjectName(QStringLiteral("undo"));
    redo_->setObjectName(QStringLiteral("redo"));
    unitButton_->setObjectName(QStringLiteral("units"));
    themeButton_->setObjectName(QStringLiteral("theme"));
    makeActions();
    QStringList names;
    for (const StationEntry& entry : stationEntries()) {
        Station* station = entry.make(context_, stack_);
        stations_.push_back(station);
        stack_->addWidget(station);
        connect(station, &Station::message, this, &MainWindow::say);
        connect(station, &Station::explain, this, &MainWindow::explain);
        names << station->name();
    }
    rail_->setStations(names);
    connect(rail_, &StationRail::chosen, this, &MainWindow::showPlace);
    connect(path_, &PathLine::pressed, this, &MainWindow::takeNextStep);
    connect(verdicts_, &VerdictColumn::explain, this, &MainWindow::explain);
    connect(verdicts_, &VerdictColumn::stationWanted, this, &MainWindow::showStationNamed);
    connect(verdicts_, &VerdictColumn::momentWanted, this, [this](int move, double time) {
        for (Station* s : stations_) s->showMoment(move, time);
    });
    connect(verdicts_, &VerdictColumn::planWanted, this, [this](int plan) {
        for (Station* s : stations_) s->showPlan(plan);
    });
    verdicts_->setStationOf([this](const Verdict& v) { return stationOf(v); });
    connect(&document_, &Document::changed, this, &MainWindow::refreshAll);
    connect(&document_, &Document::fileChanged, this, &MainWindow::refreshFileState);
    connect(&document_, &Document::refused, this, [this](const QString& sentence) { say(sentence, true); });
    connect(&document_, &Document::saveEnded, this, &MainWindow::saved);
    connect(recovery_.get(), &Recovery::troubleChanged, this, [this] {
        refreshFileState();
        if (!recovery_->trouble().isEmpty())
            say(tr("No recovery copy can be kept: %1 Save often.").arg(recovery_->trouble()), true);
    });
    connect(&session_, &Session::changed, this, [this] {
        fixes_.setAxis(session_.axis());
        refreshAll();
    });
    connect(&preferences_, &Preferences::changed, this, [this] {
        restyle();
        refreshAll();
    });
    statusTimer_.setSingleShot(true);
    connect(&statusTimer_, &QTimer::timeout, this, [this] { say({}, false); });
    restyle();
    showPlace(0);
    refreshFileState();
}

MainWindow::~MainWindow() {
    document_.disconnect(this);
}

void MainWindow::makeActions() {
    auto* menu = new QMenu(this);
    const auto action = [&](const QString& text, const QKeySequence& keys, auto call) {
        QAction* a = menu->addAction(text, this, call);
        a->setShortcut(keys);
        addAction(a);
        return a;
    };
    action(tr("New, empty"), QKeySequence::New, [this] {
        if (mayLeave()) startEmpty();
    });
    action(tr("Start from my parts"), {}, [this] {
        if (!mayLeave()) return;
        startEmpty();
        showStation(u"brief");
        stations_[placeOf(u"brief")]->startFromWhatIHave();
    })->setObjectName(QStringLiteral("actionWhatIHave"));
    action(tr("Open…"), QKeySequence::Open, [this] { openDialog(); });
    menu->addMenu(recentMenu_);
    connect(recentMenu_, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    menu->addSeparator();
    action(tr("Save"), QKeySequence::Save, [this] {
        saveFile();
    })->setObjectName(QStringLiteral("actionSave"));
    action(tr("Save as…"), QKeySequence(QStringLiteral("Ctrl+Shift+S")), [this] { saveFileAs(); });
    versions_ = action(tr("Restore an earlier version…"), {}, [this] { showVersions(); });
    versions_->setObjectName(QStringLiteral("actionVersions"));
    takeFromDisk_ = action(tr("Load what is on disk"), {}, [this] {
        QString error;
        if (!document_.takeFromDisk(error)) say(error, true);
    });
    takeFromDisk_->setObjectName(QStringLiteral("actionTakeFromDisk"));
    menu->addSeparator();
    action(tr("Quit"), QKeySequence::Quit, [this] { close(); });
    menuButton_->setText(tr("Project"));
    menuButton_->setObjectName(QStringLiteral("projectMenu"));
    menuButton_->setMenu(menu);
    menuButton_->setPopupMode(QToolButton::InstantPopup);
    menuButton_->setFocusPolicy(Qt::StrongFocus);

    auto* stack = document_.undoStack();
    for (auto [button, forward] : {std::pair{undo_, false}, std::pair{redo_, true}}) {
        auto* shortcut = new QShortcut(forward ? QKeySequence::Redo : QKeySequence::Undo, this);
        const auto go = [stack, isForward = forward] { isForward ? stack->redo() : stack->undo(); };
        connect(shortcut, &QShortcut::activated, this, go);
        connect(button, &QPushButton::clicked, this, go);
    }
    const auto enable = [this, stack] {
        undo_->setEnabled(stack->canUndo());
        redo_->setEnabled(stack->canRedo());
        undo_->setToolTip(stack->canUndo() ? tr("Undo: %1").arg(stack->undoText()) : tr("Nothing to undo"));
        redo_->setToolTip(stack->canRedo() ? tr("Redo: %1").arg(stack->redoText()) : tr("Nothing to redo"));
        undo_->setAccessibleDescription(undo_->toolTip());
        redo_->setAccessibleDescription(redo_->toolTip());
    };
    connect(stack, &EditHistory::indexChanged, this, enable);
    enable();
    connect(unitButton_, &QPushButton::clicked, this, [this] {
        preferences_.setSystem(preferences_.system() == units::System::Metric ? units::System::Inch
                                                                              : units::System::Metric);
    });
    connect(themeButton_, &QPushButton::clicked, this,
            [this] { preferences_.setNight(!preferences_.night()); });
    for (int i = 0; i < 9; ++i) {
        auto* shortcut = new QShortcut(QKeySequence(Qt::ALT | static_cast<Qt::Key>(Qt::Key_1 + i)), this);
        connect(shortcut, &QShortcut::activated, this, [this, i] {
            if (i < stations_.size()) showPlace(i);
        });
    }
    auto* axisMenu = new QMenu(this);
    axisMenu->setObjectName(QStringLiteral("axisMenu"));
    for (const Role role : {Role::Slide, Role::Lift, Role::Swing, Role::BoomTilt, Role::Pan, Role::Tilt,
                            Role::Roll, Role::Focus, Role::Zoom, Role::Turntable})
        axisMenu->addAction(QString::fromStdString(nameOfRole(role)), this,
                            [this, role] { addAxis(role, true); });
    axisMenu->addAction(tr("Other, straight"), this, [this] { addAxis(Role::Other, true); });
    axisMenu->addAction(tr("Other, turning"), this, [this] { addAxis(Role::Other, false); });
    connect(axes_, &AxisColumn::addAxisWanted, this,
            [this, axisMenu] { axisMenu->popup(axes_->mapToGlobal(QPoint(leftWidth - 40, 120))); });
}

int MainWindow::placeOf(QStringView station) const {
    const auto entries = stationEntries();
    const auto it =
        std::find_if(entries.begin(), entries.end(), [&](const StationEntry& e) { return station == e.id; });
    return it == entries.end() ? -1 : static_cast<int>(it - entries.begin());
}

QStringList MainWindow::stationIds() const {
    QStringList out;
    for (const StationEntry& e : stationEntries()) out << e.id;
    return out;
}

QString MainWindow::stationName(QStringView id) const {
    const int place = placeOf(id);
    return place < 0 ? QString() : stations_[place]->name();
}

void MainWindow::showStation(QStringView id) {
    if (const int place = placeOf(id); place >= 0) showPlace(place);
}

void MainWindow::showPlace(int place) {
    stack_->setCurrentIndex(place);
    rail_->setCurrent(place);
    stations_[place]->refresh();
    verdicts_->setStation(stations_[place]->name(), stations_[place]->rules());
    fixes_.setFirst(stations_[place]->rules());
    refreshPath();
    refreshStatus();
}

void MainWindow::showStationNamed(const QString& name) {
    showPlace(static_cast<int>(rail_->names().indexOf(name)));
}

QString MainWindow::stationOf(const Verdict& verdict) const {
    const QString rule = latin(ruleKey(verdict));
    for (const Station* s : stations_)
        if (s->rules().contains(rule)) return s->name();
    return {};
}

void MainWindow::addAxis(Role role, bool linear) {
    int added = 0;
    document_.change(tr("Add an axis"), [&](Project& p) { added = gantry::addAxis(p, role, linear); });
    session_.setAxis(added);
}

void MainWindow::refreshAll() {
    session_.fit(document_.project());
    fixes_.setAxis(session_.axis());
    axes_->refresh();
    verdicts_->refresh();
    stations_[stack_->currentIndex()]->refresh();
    for (int i = 0; i < static_cast<int>(stations_.size()); ++i) {
        const QStringList rules = stations_[i]->rules();
        const Verdict* worst = nullptr;
        for (const Verdict& v : document_.assessment().verdicts) {
            if (setAsideFor(document_.project(), v) != nullptr && !v.hazard) continue;
            if (rules.contains(latin(ruleKey(v))) && (worst == nullptr || worseThan(v, *worst))) worst = &v;
        }
        rail_->setWorst(i, worst != nullptr ? worst->state : State::Unknown);
    }
    if (title_->text() != document_.displayName()) title_->setText(document_.displayName());
    refreshPath();
    refreshStatus();
}

std::vector<Matter> MainWindow::mattersAt(int place) const {
    const QStringList rules = stations_[place]->rules();
    std::vector<Matter> out = matters(document_.project(), document_.assessment().verdicts);
    std::erase_if(out, [&](const Matter& m) {
        return !concerns(*m.verdict, session_.axis()) ||
               !anyRuleOf(m, [&](std::string_view key) { return rules.contains(latin(key)); });
    });
    return out;
}

void MainWindow::refreshPath() {
    const auto toDo = [this](int place) {
        const NextStep step = nextStep(document_.project(), mattersAt(place));
        return std::pair{step, QString::fromStdString(toDoSentence(step, document_.project()))};
    };
    const int here = stack_->currentIndex();
    const auto [step, what] = toDo(here);
    next_ = step;
    nextPlace_.clear();
    nextAxis_ = session_.axis();
    QString next = what;
    // Where nothing is left to be done, the way goes on along the rail, first to what wants mending.
    for (int i = 1; next.isEmpty() && i < stations_.size(); ++i) {
        const int place = (here + i) % static_cast<int>(stations_.size());
        if (toDo(place).second.isEmpty()) continue;
        nextPlace_ = stations_[place]->name();
        next = tr("go on to %1").arg(nextPlace_);
    }
    if (next.isEmpty())
        for (const Matter& m : matters(document_.project(), document_.assessment().verdicts)) {
            const Verdict& v = *m.verdict;
            if (!mendable(v.state) || setAsideFor(document_.project(), v) != nullptr) continue;
            nextPlace_ = stationOf(v);
            nextAxis_ = v.axis;
            next = tr("go on to %1: %2, %3")
                       .arg(QString::fromStdString(
                                document_.project().axes[static_cast<std::size_t>(v.axis)].name),
                            QString::fromStdString(title(v)), latin(stateWord(v.state)));
            break;
        }
    if (next.isEmpty()) {
        next_.measure =
            guessThatCounts(document_.project(), document_.assessment().verdicts, session_.axis());
        if (!next_.measure.empty())
            next = QString::fromStdString(
                measureGuessSentence(document_.project(), next_.measure, session_.axis()));
    }
    const Axis* axis = context_.axis();
    const QString known =
        axis == nullptr ? QString()
                        : tr("%1: %2").arg(QString::fromStdString(axis->name),
                                           QString::fromStdString(
                                               sentence(knowledgeOf(document_.project(), session_.axis()))));
    path_->show(known, QString::fromStdString(decidesSentence(next_, context_.system())),
                axis == nullptr  ? tr("Next: add an axis at the left")
                : next.isEmpty() ? QString()
                                 : tr("Next: %1").arg(next));
}

void MainWindow::takeNextStep() {
    if (context_.axis() == nullptr) {
        axes_->setFocus();
    } else if (!nextPlace_.isEmpty()) {
        const QString place = nextPlace_; // going to the axis looks for the next step anew
        session_.setAxis(nextAxis_);
        showStationNamed(place);
    } else if (!next_.measure.empty()) {
        auto* dialog = new MeasureDialog(context_, QString::fromStdString(next_.measure), this);
        dialog->setAttribute(Qt::WA_DeleteOnClose);
        dialog->open();
    } else if (next_.verdict) {
        verdicts_->showCard(*next_.verdict);
    }
}

void MainWindow::explain(const QString& path) {
    const Assessment& now = document_.assessment();
    const std::string asked = path.toStdString();
    const working::Explained found =
        working::explain(document_.project(), now.evaluation, now.verdicts, asked);
    if (!std::holds_alternative<working::Explanation>(found)) {
        say(tr("How this figure comes about is not written down."), false);
        return;
    }
    if (working_ == nullptr) working_ = new WorkingWindow(context_, this);
    working_->setPath(asked);
    working_->show();
}

void MainWindow::refreshStatus() {
    if (statusTimer_.isActive()) return; // what was said still stands
    const std::vector<Verdict>& verdicts = document_.assessment().verdicts;
    const auto countOf = [&](State state) {
        return std::count_if(verdicts.begin(), verdicts.end(),
                             [&](const Verdict& v) { return v.state == state; });
    };
    QString left = stations_[stack_->currentIndex()]->standing();
    if (const AxisEvaluation* e = left.isEmpty() ? context_.axisEvaluation() : nullptr) {
        const QString name = QString::fromStdString(context_.axis()->name);
        const QString unit = e->model.kind == AxisKind::Linear ? tr("mm") : tr("degree");
        if (const auto& exact = e->model.exactStepsPerUnit)
            left = tr("%1: %2 steps per %3 exactly · ")
                       .arg(name,
                            exact->denominator() == 1 ? QString::number(exact->numerator())
                                                      : QString::fromStdString(exact->text()),
                            unit);
        else if (e->steps.stepsPerUnit)
            left = tr("%1: about %2 steps per %3 · ")
                       .arg(name, context_.show(e->steps.stepsPerUnit, units::Kind::Ratio, 5), unit);
        else
            left = tr("%1: takes no steps · ").arg(name);
    }
    status_->setText(left + tr("%1 verdicts, %2 over, %3 at risk")
                                .arg(verdicts.size())
                                .arg(countOf(State::Over))
                                .arg(countOf(State::AtRisk)));
}

void MainWindow::restyle() {
    qApp->setStyleSheet(app::styleSheet()); // not QWidget's own
    unitButton_->setText(preferences_.system() == units::System::Metric ? tr("mm · °") : tr("in · °"));
    unitButton_->setAccessibleName(preferences_.system() == units::System::Metric
                                       ? tr("Units: metric. Switch to inch")
                                       : tr("Units: inch. Switch to metric"));
    themeButton_->setText(preferences_.night() ? tr("Day") : tr("Night"));
    for (Station* s : stations_) s->applyTheme();
    update();
}

void MainWindow::say(const QString& sentence, bool refused) {
    statusTimer_.stop();
    if (status_->property("role").toString() != (refused ? "error" : "quiet")) {
        status_->setProperty("role", refused ? "error" : "quiet");
        status_->setStyleSheet(refused ? QStringLiteral("color: %1").arg(tokens().brick.name()) : QString());
    }
    if (sentence.isEmpty()) {
        refreshStatus();
        return;
    }
    status_->setText(sentence);
    status_->setToolTip(sentence);
    statusTimer_.start(12000);
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!mayLeave()) {
        event->ignore();
        return;
    }
    recovery_->forget();
    event->accept();
}

void MainWindow::place() {
    const int w = width(), h = height();
    top_->setGeometry(0, 0, w, topHeight);
    title_->setGeometry(14, 12, leftWidth - 96, 20);
    saved_->setGeometry(14, 33, leftWidth + 40, 18);
    menuButton_->setGeometry(leftWidth - 78, 9, 70, 26);
    const int right = w - 14;
    themeButton_->setGeometry(right - 62, 18, 62, 28);
    unitButton_->setGeometry(right - 62 - 8 - 64, 18, 64, 28);
    redo_->setGeometry(right - 62 - 8 - 64 - 8 - 58, 18, 58, 28);
    undo_->setGeometry(right - 62 - 8 - 64 - 8 - 58 - 64, 18, 58, 28);
    rail_->setGeometry(leftWidth + 50, 1, undo_->x() - leftWidth - 70, 62);
    const int bottom = h - bottomHeight;
    axes_->setGeometry(0, topHeight, leftWidth, bottom - topHeight);
    verdicts_->setGeometry(w - rightWidth, topHeight, rightWidth, bottom - topHeight);
    path_->setGeometry(leftWidth, topHeight, w - leftWidth - rightWidth, pathHeight);
    stack_->setGeometry(leftWidth, topHeight + pathHeight, w - leftWidth - rightWidth,
                        bottom - topHeight - pathHeight);
    status_->setGeometry(14, bottom + 1, w - 28, bottomHeight - 1);
}

void MainWindow::resizeEvent(QResizeEvent*) {
    place();
}

void MainWindow::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.paper);
    p.fillRect(0, 0, width(), topHeight, t.sheet);
    p.fillRect(0, height() - bottomHeight, width(), bottomHeight, t.sheet);
    p.setPen(t.line);
    p.drawLine(0, topHeight - 1, width(), topHeight - 1);
    p.drawLine(0, height() - bottomHeight, width(), height() - bottomHeight);
}

} // namespace gantry::app
