// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/controller/controller_station.h"

#include "app/instruments/caption.h"
#include "app/model/write_bytes.h"
#include "app/theme/tokens.h"
#include "core/model/edit_axes.h"
#include "io/files/text_file.h"
#include "io/templates/settings_template.h"

#include <QClipboard>
#include <QComboBox>
#include <QFile>
#include <QFileDialog>
#include <QFileInfo>
#include <QGuiApplication>
#include <QHeaderView>
#include <QMenu>
#include <QPainter>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableView>
#include <algorithm>
#include <array>

namespace gantry::app {
namespace {
constexpr int edge = 14, gap = 10;

template <class Text>
QString joined(const std::vector<Text>& names) {
    QStringList out;
    for (const auto& n : names) out << QString::fromStdString(n);
    return out.join(QStringLiteral(", "));
}

constexpr int choicesWidth = 108;

QStringList idsOfSpeeds(const Axis& axis) {
    QStringList out;
    std::visit(
        [&](const auto& m) {
            for (const auto& speed : m.motion.speeds) out << QString::fromStdString(speed.id);
        },
        axis.mechanism);
    return out;
}
} // namespace

void SettingsModel::setRows(const std::vector<io::Setting>& rows) {
    std::vector<Line> lines;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        lines.push_back({i, false});
        if (!rows[i].note.empty()) lines.push_back({i, true});
    }
    if (lines != lines_) {
        beginResetModel();
        rows_ = rows;
        lines_ = std::move(lines);
        endResetModel();
        return;
    }
    rows_ = rows;
    if (!rows_.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, 2));
}

int SettingsModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(lines_.size());
}

QVariant SettingsModel::headerData(int section, Qt::Orientation orientation, int role) const {
    static const std::array<const char*, 3> names{QT_TR_NOOP("Setting"), QT_TR_NOOP("Type in"),
                                                  QT_TR_NOOP("Unit")};
    if (role == Qt::TextAlignmentRole)
        return section == 1 ? QVariant(Qt::AlignVCenter | Qt::AlignRight)
                            : QVariant(Qt::AlignVCenter | Qt::AlignLeft);
    if (role != Qt::DisplayRole || orientation != Qt::Horizontal) return {};
    return tr(names[static_cast<std::size_t>(section)]);
}

QVariant SettingsModel::data(const QModelIndex& index, int role) const {
    const Line& line = lines_[static_cast<std::size_t>(index.row())];
    const io::Setting& s = rows_[line.setting];
    if (line.note) {
        if (role == Qt::ForegroundRole) return tokens().second;
        if (role == Qt::FontRole) return textFont(11);
        if (role != Qt::DisplayRole || index.column() != 0) return {};
        return QStringLiteral("   ") + QString::fromStdString(s.note);
    }
    if (role == Qt::TextAlignmentRole && index.column() == 1)
        return QVariant(Qt::AlignVCenter | Qt::AlignRight);
    if (role == Qt::ForegroundRole && index.column() != 1)
        return index.column() == 0 ? tokens().ink : tokens().second;
    if (role == Qt::FontRole && index.column() == 1) return textFont(12, true);
    if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
    switch (index.column()) {
    case 0:
        return QString::fromStdString(s.label);
    case 1:
        return s.value.empty() ? QStringLiteral("–") : QString::fromStdString(s.value);
    default:
        return QString::fromStdString(s.unit);
    }
}

ControllerStation::ControllerStation(const Context& context, QWidget* parent)
    : Station(context, parent), controller_(new FieldGroup(context, this)),
      motion_(new FieldGroup(context, this)), table_(new QTableView(this)), choice_(new QComboBox(this)),
      open_(new QPushButton(tr("Template…"), this)), copy_(new QPushButton(tr("Copy"), this)),
      save_(new QPushButton(tr("Save…"), this)), insist_(new QPushButton(tr("Use it all the same"), this)),
      times_(makeChoices(tr("Fixed times"), "fixedTimes")),
      speeds_(makeChoices(tr("Fixed speeds"), "fixedSpeeds")), text_(new QPlainTextEdit(this)),
      settingsTitle_(new Caption(false, this)), textTitle_(new Caption(false, this)),
      problem_(new Caption(true, this)) {
    table_->setModel(&model_);
    table_->setObjectName(QStringLiteral("settingsTable"));
    table_->setAccessibleName(tr("Settings of the chosen axis"));
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(21);
    table_->horizontalHeader()->setHighlightSections(false);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setShowGrid(false);
    table_->setTabKeyNavigation(false);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    choice_->setObjectName(QStringLiteral("templateChoice"));
    choice_->setAccessibleName(tr("Form of the text"));
    open_->setObjectName(QStringLiteral("openTemplate"));
    copy_->setObjectName(QStringLiteral("copySettings"));
    save_->setObjectName(QStringLiteral("saveSettings"));
    insist_->setObjectName(QStringLiteral("insistOnTemplate"));
    text_->setObjectName(QStringLiteral("settingsText"));
    text_->setAccessibleName(tr("Settings as text"));
    text_->setReadOnly(true);
    text_->setTabChangesFocus(true);
    text_->setLineWrapMode(QPlainTextEdit::NoWrap);
    problem_->setVisible(false);
    insist_->setVisible(false);
    textTitle_->setText(tr("As text"));
    for (FieldGroup* g : {controller_, motion_}) connect(g, &FieldGroup::message, this, &Station::message);
    connect(choice_, &QComboBox::activated, this, &ControllerStation::renderText);
    connect(open_, &QPushButton::clicked, this, &ControllerStation::openTemplate);
    connect(copy_, &QPushButton::clicked, this, &ControllerStation::copy);
    connect(save_, &QPushButton::clicked, this, &ControllerStation::save);
    connect(insist_, &QPushButton::clicked, this, [this] {
        usable_ = true;
        insist_->setVisible(false);
        copy_->setEnabled(true);
        save_->setEnabled(true);
    });
    times_->setToolTip(tr("For a controller that offers a few times for a move, and no others"));
    speeds_->setToolTip(tr("For an axis that runs at a few speeds, and at no others"));
    const auto choose = [this](QPushButton* button, const QString& text, auto how) {
        button->menu()->addAction(text, this, [this, text, how] {
            context_.document.change(text, [&](Project& p) { how(p, context_.session.axis()); });
        });
    };
    choose(times_, tr("Add a time"), [](Project& p, int) { addFixedTime(p); });
    choose(times_, tr("Remove the last time"), [](Project& p, int) { removeFixedTime(p); });
    choose(speeds_, tr("Add a speed"), [](Project& p, int axis) { addFixedSpeed(p, axis); });
    choose(speeds_, tr("Remove the last speed"), [](Project& p, int axis) { removeFixedSpeed(p, axis); });
    fillTemplates();
}

/// A menu of what there is a few of, in the head of a card.
QPushButton* ControllerStation::makeChoices(const QString& title, const char* name) {
    auto* button = new QPushButton(title, this);
    button->setObjectName(QLatin1String(name));
    button->setProperty("small", true);
    button->setProperty("menu", true);
    button->setMenu(new QMenu(button));
    return button;
}

void ControllerStation::fillTemplates() {
    for (const io::SettingsForm& form : io::settingsForms())
        choice_->addItem(tr(std::string(form.name).c_str()), QString::fromUtf8(form.id.data()));
    choice_->addItem(tr("Numbered list"), QStringLiteral(":/templates/numbered-list.mustache"));
    choice_->addItem(tr("Constants for C and C++"), QStringLiteral(":/templates/constants-header.mustache"));
}

void ControllerStation::openTemplate() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Template for settings"), {},
                                                      tr("Mustache templates (*.mustache);;All files (*)"));
    if (path.isEmpty()) return;
    choice_->addItem(QFileInfo(path).fileName(), path);
    choice_->setCurrentIndex(choice_->count() - 1);
    renderText();
}

void ControllerStation::renderText() {
    const QString source = choice_->currentData().toString();
    QString text, problem;
    bool missing = false;
    const io::SettingsForm* form = io::findSettingsForm(source.toStdString());
    extension_ = form != nullptr ? QString::fromUtf8(form->extension.data()) : QStringLiteral("txt");
    if (form != nullptr)
        text = QString::fromStdString(form->write(sheet_));
    else {
        // One that ships with the program, or the user's own.
        std::string why;
        std::optional<std::string> mustache;
        if (QFile shipped(source); source.startsWith(QLatin1Char(':')) && shipped.open(QIODevice::ReadOnly))
            mustache = shipped.readAll().toStdString();
        else
            mustache = io::readTextFile(QFile::encodeName(source).toStdString(), io::largestTemplate, why);
        if (!mustache)
            problem = QString::fromStdString(why);
        else {
            const io::FilledTemplate filled = io::fillTemplate(*mustache, sheet_);
            problem = QString::fromStdString(filled.error);
            text = QString::fromStdString(filled.text);
            if (problem.isEmpty() && !filled.missingNames.empty()) {
                missing = true;
                problem = tr("Names that the settings do not have: %1").arg(joined(filled.missingNames));
            }
        }
    }
    // The view knows only one kind of line end; what is copied and saved has its own.
    if (text != exact_) {
        exact_ = text;
        text_->setPlainText(text);
    }
    usable_ = problem.isEmpty();
    problem_->setText({}, problem);
    problem_->setVisible(!problem.isEmpty());
    insist_->setVisible(missing);
    copy_->setEnabled(usable_);
    save_->setEnabled(usable_);
    place();
}

void ControllerStation::copy() {
    QGuiApplication::clipboard()->setText(exact_);
    emit message(tr("Settings copied."), false);
}

void ControllerStation::save() {
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Save settings"), context_.document.displayName() + tr(" settings.") + extension_);
    if (path.isEmpty()) return;
    const QString problem = writeBytes(path, exact_.toUtf8());
    emit message(problem.isEmpty() ? tr("Settings saved to %1.").arg(path) : problem, !problem.isEmpty());
}

void ControllerStation::refresh() {
    const Axis* axis = context_.axis();
    controller_->setTitle(tr("Controller"), tr("whole project"));
    const Project& project = context_.document.project();
    QList<FieldSlot> whole{{QStringLiteral("controller/name"), tr("Name")},
                           {QStringLiteral("controller/pulse_ceiling_hz"), {}},
                           {QStringLiteral("controller/decimals_kept"), {}},
                           {QStringLiteral("controller/ramps"), {}},
                           {QStringLiteral("controller/speed_unit"), {}}};
    for (std::size_t i = 0; i < project.controller.times.size(); ++i)
        whole.push_back({QStringLiteral("controller/times/%1/time_s")
                             .arg(QString::fromStdString(project.controller.times[i].id)),
                         tr("Fixed time %1").arg(i + 1)});
    controller_->setFields(whole);
    motion_->setVisible(axis != nullptr);
    speeds_->setVisible(axis != nullptr);
    for (QPushButton* b : {times_, speeds_}) b->setEnabled(!context_.document.readOnly());
    times_->menu()->actions().last()->setEnabled(!project.controller.times.empty());
    if (axis != nullptr) {
        motion_->setTitle(QString::fromStdString(axis->name), tr("limits and homing"));
        const QString base = QStringLiteral("axes/%1/").arg(QString::fromStdString(axis->id));
        const QString u = kindOf(*axis) == AxisKind::Linear ? QStringLiteral("m") : QStringLiteral("rad");
        QList<FieldSlot> fields;
        for (const QString& key :
             {"max_speed_" + u + "_s", "max_acceleration_" + u + "_s2", "jerk_" + u + "_s3",
              "instant_speed_step_" + u + "_s", "soft_limit_margin_" + u, "homing_speed_" + u + "_s",
              "homing_back_off_" + u, QStringLiteral("home_end"), QStringLiteral("reversed")})
            fields.push_back({base + QStringLiteral("mechanism/motion/") + key, {}, 1.0});
        for (const char* key : {"idle_delay_s", "shortest_pulse_s", "enable_active_low"})
            fields.push_back({base + QStringLiteral("driver/") + QLatin1String(key), {}, 1.0});
        const QStringList speeds = idsOfSpeeds(*axis);
        for (qsizetype i = 0; i < speeds.size(); ++i)
            fields.push_back(
                {base + QStringLiteral("mechanism/motion/speeds/%1/speed_%2_s").arg(speeds[i], u),
                 tr("Fixed speed %1").arg(i + 1)});
        speeds_->menu()->actions().last()->setEnabled(!speeds.isEmpty());
        motion_->setFields(fields);
    }
    sheet_ = context_.document.results().settings();
    const auto i = static_cast<std::size_t>(context_.session.axis());
    model_.setRows(i < sheet_.axes.size() ? sheet_.axes[i].rows : std::vector<io::Setting>{});
    for (int row = 0; row < model_.rowCount(); ++row) {
        const int wanted = model_.isNote(row) ? 3 : 1;
        if (table_->columnSpan(row, 0) != wanted) table_->setSpan(row, 0, 1, wanted);
    }
    settingsTitle_->setText(tr("Type in"), axis != nullptr
                                               ? tr("for %1").arg(QString::fromStdString(axis->name))
                                               : tr("no axis yet"));
    renderText();
}

void ControllerStation::place() {
    const int w = width() - 2 * edge;
    int y = 12;
    for (FieldGroup* g : {controller_, motion_}) {
        if (!g->isVisibleTo(this)) continue;
        g->setGeometry(edge, y, w, g->heightFor(w));
        QPushButton* choices = g == controller_ ? times_ : speeds_;
        choices->setGeometry(edge + w - choicesWidth - 12, y + 4, choicesWidth, 20);
        choices->raise();
        g->setHeaderRoom(w - choicesWidth - 24);
        y += g->height() + gap;
    }
    const int half = (w - gap) * 52 / 100, rest = w - half - gap, right = edge + half + gap;
    settingsTitle_->setGeometry(edge, y, half, 27);
    textTitle_->setGeometry(right, y, 70, 27);
    choice_->setGeometry(right + 70, y, std::max(90, rest - 70 - 84 - 6), 27);
    open_->setGeometry(right + rest - 84, y, 84, 27);
    y += 33;
    const int bottom = height() - 12;
    table_->setGeometry(edge, y, half, bottom - y);
    table_->setColumnWidth(0, 190);
    table_->setColumnWidth(1, 84);
    copy_->setGeometry(right, bottom - 28, 80, 28);
    save_->setGeometry(right + 86, bottom - 28, 80, 28);
    insist_->setGeometry(right + 172, bottom - 28, 150, 28);
    int textBottom = bottom - 36;
    if (problem_->isVisibleTo(this)) {
        problem_->setGeometry(right, textBottom - 30, rest, 30);
        textBottom -= 36;
    }
    text_->setGeometry(right, y, rest, textBottom - y);
}

void ControllerStation::resizeEvent(QResizeEvent*) {
    place();
}

} // namespace gantry::app
