// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/drives_station.h"

#include "app/instruments/chain_view.h"
#include "app/instruments/drive_table.h"
#include "app/instruments/part_words.h"
#include "app/instruments/profile_plot.h"
#include "app/instruments/torque_plot.h"
#include "app/stations/drives/candidates_dialog.h"
#include "app/stations/drives/capability_line.h"
#include "app/stations/drives/claims_dialog.h"
#include "app/stations/drives/identify_dialog.h"
#include "app/stations/drives/label_dialog.h"
#include "app/stations/drives/parts_dialog.h"
#include "app/stations/drives/ratio_dialog.h"
#include "app/stations/drives/solve_dialog.h"
#include "app/stations/drives/winch_dialog.h"
#include "app/theme/card.h"
#include "app/theme/tokens.h"
#include "core/model/edit_axes.h"
#include "core/model/kind_traits.h"
#include "core/model/kinds.h"
#include "core/tools/change_kind.h"
#include "core/tools/spread.h"
#include "core/working/figure_path.h"

#include <QComboBox>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QTabBar>
#include <algorithm>

namespace gantry::app {
namespace {
constexpr int edge = 14, headBottom = 68, labelWidth = 92, chainTop = 76, tilesHeight = 104;
}

DrivesStation::DrivesStation(const Context& context, QWidget* parent)
    : Station(context, parent), shots_(new QComboBox(this)), tools_(new QPushButton(tr("Tools"), this)),
      add_(new QPushButton(tr("Add a part"), this)), remove_(new QPushButton(tr("Remove"), this)),
      earlier_(new QPushButton(tr("◂"), this)), later_(new QPushButton(tr("▸"), this)),
      kind_(new QComboBox(this)), pages_(new QTabBar(this)), addElement_(new QPushButton(tr("Add"), this)),
      removeElement_(new QPushButton(tr("Remove last"), this)), chain_(new ChainView(context, this)),
      table_(new DriveTable(context, this)), editor_(new FieldGroup(context, this)),
      torque_(new TorquePlot(context, this)), profile_(new ProfilePlot(context, this)) {
    // They stand in the head of the editor.
    for (QWidget* w : std::initializer_list<QWidget*>{kind_, pages_, addElement_, removeElement_}) w->raise();
    shots_->setObjectName(QStringLiteral("shotPicker"));
    shots_->setAccessibleName(tr("Shot"));
    tools_->setObjectName(QStringLiteral("benchTools"));
    tools_->setProperty("menu", true);
    auto* tools = new QMenu(this);
    const auto add = [&]<class Tool>(const QString& name, std::type_identity<Tool>, auto... more) {
        tools->addAction(name, this,
                         [this, more...] { ToolWindow::open<Tool>(context_, window(), more...); });
    };
    add(tr("Find a ratio"), std::type_identity<RatioDialog>{});
    add(tr("Side by side"), std::type_identity<CandidatesDialog>{});
    add(tr("Parts"), std::type_identity<PartsDialog>{}, [this] {
        const ChainColumn* c = chosenColumn();
        return c != nullptr ? c->link : -1;
    });
    add(tr("I only know the label"), std::type_identity<LabelDialog>{});
    add(tr("A motor without a label"), std::type_identity<IdentifyDialog>{});
    add(tr("Check a claim"), std::type_identity<ClaimsDialog>{});
    add(tr("Solve the electronic gear"), std::type_identity<GearDialog>{});
    add(tr("Find the pan bar's angle"), std::type_identity<PanBarDialog>{});
    add(tr("Along the winch"), std::type_identity<WinchDialog>{});
    tools_->setMenu(tools);
    add_->setObjectName(QStringLiteral("addPart"));
    earlier_->setObjectName(QStringLiteral("partEarlier"));
    earlier_->setAccessibleName(tr("Move part towards the motor"));
    later_->setObjectName(QStringLiteral("partLater"));
    later_->setAccessibleName(tr("Move part towards the load"));
    kind_->setObjectName(QStringLiteral("partKind"));
    kind_->setAccessibleName(tr("Kind of part"));
    pages_->setObjectName(QStringLiteral("partPages"));
    pages_->setAccessibleName(tr("Pages of the part"));
    pages_->setDrawBase(false);
    pages_->setExpanding(false);
    addElement_->setObjectName(QStringLiteral("addElement"));
    removeElement_->setObjectName(QStringLiteral("removeElement"));
    auto* menu = new QMenu(this);
    menu->setObjectName(QStringLiteral("addPartMenu"));
    for (std::size_t i = 0; i < kindsOf<Link>().size(); ++i)
        menu->addAction(QString::fromUtf8(kindsOf<Link>()[i].label.data()), this,
                        [this, i] { addLink(static_cast<int>(i)); });
    add_->setMenu(menu);
    add_->setProperty("menu", true);
    for (QPushButton* b : {earlier_, later_, addElement_, removeElement_}) b->setProperty("small", true);
    remove_->setObjectName(QStringLiteral("removePart"));
    editor_->setObjectName(QStringLiteral("partEditor"));
    chain_->setLabelWidth(labelWidth);
    table_->setLabelWidth(labelWidth);
    connect(shots_, &QComboBox::activated, this,
            [this](int i) { context_.session.setShot(shots_->itemData(i).toInt()); });
    connect(chain_, &ChainView::selected, this, &DrivesStation::choosePart);
    connect(chain_, &ChainView::moveWanted, this, &DrivesStation::moveLink);
    connect(earlier_, &QPushButton::clicked, this, [this] { moveLink(-1); });
    connect(later_, &QPushButton::clicked, this, [this] { moveLink(1); });
    connect(kind_, &QComboBox::activated, this, &DrivesStation::setKind);
    connect(pages_, &QTabBar::currentChanged, this, [this] {
        refreshEditor();
        place();
    });
    connect(addElement_, &QPushButton::clicked, this, &DrivesStation::addElement);
    connect(removeElement_, &QPushButton::clicked, this, &DrivesStation::removeElement);
    connect(remove_, &QPushButton::clicked, this, &DrivesStation::removeLink);
    connect(editor_, &FieldGroup::message, this, &Station::message);
    connect(table_, &DriveTable::message, this, [this](const QString& text) { emit message(text, false); });
    connect(table_, &DriveTable::numberPressed, this, &DrivesStation::explainCell);
    connect(torque_, &Plot::message, this, &Station::message);
    connect(profile_, &Plot::message, this, &Station::message);
}

QStringList DrivesStation::rules() const {
    return {"torque",         "pulse_rate",    "power_off",     "standstill",       "resonance",
            "stepping",       "drift",         "jitter",        "repeat",           "framing",
            "backlash",       "focus_pull",    "motor_current", "driver_rating",    "motor_size",
            "duty",           "noise",         "motor_speed",   "case_temperature", "regulator_heat",
            "shaft_load",     "start",         "speed_span",    "following",        "servo_range",
            "tooth_strength", "gear_form",     "belt_mesh",     "belt_preload",     "grip",
            "cord_slack",     "cord_strength", "layers",        "drum_room",        "whirl",
            "buckling",       "guides",        "binding",       "bearing_load",     "friction_sources",
            "emergency_stop", "lens_ring",     "pan_bar",       "hand_driven",      "supply",
            "claim",          "claim_power",   "moving_mass"};
}

void DrivesStation::choosePart(int column) {
    context_.session.setChainColumn(column);
}

void DrivesStation::fillShots() {
    // Rebuilding a combo box costs more than an edit may, so only when the list really differs.
    const AxisEvaluation* e = context_.axisEvaluation();
    const auto& all = context_.document.project().shots;
    QString list;
    if (e != nullptr)
        for (const ShotEvaluation& s : e->shots)
            list += QString::fromStdString(all[s.shot.at()].name) + QLatin1Char('\n');
    if (e != nullptr && e->worst() != nullptr)
        list += QString::number(e->worst()->shot.row()) + QString::number(context_.session.axis());
    if (list != shotList_ || shots_->count() == 0) {
        shotList_ = list;
        shots_->clear();
        if (e == nullptr || e->worst() == nullptr)
            shots_->addItem(tr("no shot moves this axis"), -1);
        else {
            const auto name = [&](const ShotEvaluation& s) {
                return QString::fromStdString(all[s.shot.at()].name);
            };
            shots_->addItem(tr("worst of all shots: %1").arg(name(*e->worst())), -1);
            for (const ShotEvaluation& s : e->shots) shots_->addItem(name(s), s.shot.row());
        }
    }
    const int index = shots_->findData(context_.session.shot());
    shots_->setCurrentIndex(index >= 0 ? index : 0);
}

const ChainColumn* DrivesStation::chosenColumn() const {
    const int n = static_cast<int>(columns_.size());
    return n == 0 ? nullptr
                  : &columns_[static_cast<std::size_t>(std::clamp(context_.session.chainColumn(), 0, n - 1))];
}

void DrivesStation::refreshEditor() {
    const ChainColumn* c = chosenColumn();
    if (c == nullptr) {
        editor_->setTitle(tr("No part"), tr("Add an axis first"));
        editor_->setFields({});
        for (QWidget* w : std::initializer_list<QWidget*>{remove_, earlier_, later_}) w->setEnabled(false);
        for (QWidget* w : std::initializer_list<QWidget*>{kind_, pages_, addElement_, removeElement_})
            w->hide();
        return;
    }
    chain_->setSelected(static_cast<int>(c - columns_.data()));
    QString detail = partFindings(context_, *c);
    if (const ShotEvaluation* s = context_.shotEvaluation(); c->part == ChainPart::Picture && s != nullptr) {
        using units::Kind;
        detail =
            tr("blur %1 · crosses the picture in %2 · position ±%3 · %4 as current falls · shot takes %5")
                .arg(context_.show(s->picture.blur, Kind::Pixels),
                     context_.show(s->picture.crossingTime, Kind::Time),
                     context_.show(s->place.accuracy, Kind::Pixels),
                     context_.show(s->place.idleShift, Kind::Pixels, 2),
                     context_.show(s->motion.time, Kind::Time));
    }
    fieldPages_ = pagesOfPart(context_, *c);
    QStringList titles;
    for (const FieldPage& page : fieldPages_) titles << page.title;
    QStringList shown;
    for (int i = 0; i < pages_->count(); ++i) shown << pages_->tabText(i);
    if (titles != shown) {
        const QSignalBlocker quiet(pages_);
        while (pages_->count() > 0) pages_->removeTab(0);
        for (const QString& title : titles) pages_->addTab(title);
        pages_->setCurrentIndex(0);
    }
    pages_->setVisible(titles.size() > 1);
    const FieldPage page = fieldPages_.value(std::max(0, pages_->currentIndex()));
    editor_->setTitle(partName(context_, *c), detail);
    editor_->setFields(page.fields);
    refreshKinds();
    const bool can = !context_.document.readOnly();
    const bool link = c->part == ChainPart::Link && can;
    remove_->setEnabled(link);
    earlier_->setEnabled(link && c->link > 0);
    later_->setEnabled(link && c->link + 1 < static_cast<int>(context_.axis()->links.size()));
    const bool list = page.list != PageList::None;
    addElement_->setVisible(list);
    removeElement_->setVisible(list);
    addElement_->setText(page.list == PageList::Marks ? tr("Add a mark") : tr("Add an item"));
    addElement_->setEnabled(can);
    removeElement_->setEnabled(can && !page.fields.isEmpty());
}

void DrivesStation::refreshKinds() {
    const ChainColumn* c = chosenColumn();
    const Axis& axis = *context_.axis();
    QStringList names;
    int now = -1;
    const auto fill = [&]<class V>(const V& part) {
        for (const KindInfo& k : kindsOf<V>()) names << QString::fromUtf8(k.label.data());
        now = static_cast<int>(part.index());
    };
    const bool output = c->part == ChainPart::Output || c->part == ChainPart::Belt;
    // A direct axis has no tile for its output, so the load's tile offers it.
    const bool direct = c->part == ChainPart::Load && outputTraits(axis).none;
    if (c->part == ChainPart::Motor) fill(axis.motor);
    if (c->part == ChainPart::Link) fill(axis.links[static_cast<std::size_t>(c->link)]);
    if (output || direct) std::visit([&](const auto& m) { fill(m.output); }, axis.mechanism);
    kind_->setVisible(now >= 0);
    kind_->setEnabled(!context_.document.readOnly());
    if (now < 0) return;
    QStringList shown;
    for (int i = 0; i < kind_->count(); ++i) shown << kind_->itemText(i);
    if (shown != names) {
        kind_->clear();
        kind_->addItems(names);
    }
    kind_->setCurrentIndex(now);
}

void DrivesStation::setKind(int index) {
    const ChainColumn* c = chosenColumn();
    if (c == nullptr || index < 0) return;
    const ChainPart part = c->part;
    const int linkIndex = c->link;
    const auto axisIndex = static_cast<std::size_t>(context_.session.axis());
    const auto kind = static_cast<std::size_t>(index);
    context_.document.change(tr("Change the kind of part"), [&](Project& p) {
        Axis& axis = p.axes[axisIndex];
        if (part == ChainPart::Motor) {
            if (axis.motor.index() != kind) axis.motor = makeKind<Motor>(kind);
        } else if (part == ChainPart::Link) {
            Link& link = axis.links[static_cast<std::size_t>(linkIndex)];
            link = changedKind(link, kind);
        } else {
            std::visit(
                [&](auto& m) {
                    using Output = std::remove_reference_t<decltype(m.output)>;
                    if (m.output.index() != kind) m.output = makeKind<Output>(kind);
                },
                axis.mechanism);
        }
    });
    // The tile of the same part may have moved.
    for (std::size_t i = 0; i < columns_.size(); ++i)
        if (columns_[i].part == part && columns_[i].link == linkIndex)
            context_.session.setChainColumn(static_cast<int>(i));
}

void DrivesStation::refresh() {
    fillShots();
    const Axis* axis = context_.axis();
    capability_ = axis != nullptr
                      ? capabilitySentence(context_)
                      : tr("add an axis at the left, or start from “Start from my parts” in Brief");
    updateHead(headBottom, capability_);
    const AxisEvaluation* e = context_.axisEvaluation();
    const ShotEvaluation* shot = context_.shotEvaluation();
    columns_.clear();
    if (axis != nullptr && e != nullptr)
        columns_ = chainColumns(*axis, *e, shot != nullptr ? *shot : ShotEvaluation{});
    chain_->setColumns(columns_);
    std::vector<ChainColumn> spread;
    if (shot != nullptr)
        spread = columnSpread(
            *axis, *e, context_.document.results().moved(static_cast<std::size_t>(context_.session.axis())),
            static_cast<std::size_t>(shot - e->shots.data()));
    table_->setColumns(columns_, spread);
    table_->setVisible(!columns_.empty());
    chain_->setVisible(!columns_.empty());
    refreshEditor();
    place(); // another part has other pages and kinds in its head
    torque_->show(e, shot);
    profile_->show(e, shot);
    const bool can = axis != nullptr && !context_.document.readOnly();
    add_->setEnabled(can);
    tools_->setEnabled(axis != nullptr);
}

void DrivesStation::applyTheme() {
    torque_->applyTheme();
    profile_->applyTheme();
}

void DrivesStation::addLink(int kind) {
    context_.document.change(tr("Add a part"), [&](Project& p) {
        gantry::addLink(p, context_.session.axis(), static_cast<std::size_t>(kind));
    });
    if (const Axis* axis = context_.axis())
        context_.session.setChainColumn(1 + static_cast<int>(axis->links.size()));
}

void DrivesStation::explainCell(int column, const char* key) {
    const Axis* axis = context_.axis();
    const ShotEvaluation* shot = context_.shotEvaluation();
    if (axis == nullptr || shot == nullptr || column < 0 || column >= static_cast<int>(columns_.size()))
        return;
    const std::string_view part = working::chainPartKey(*axis, columns_[static_cast<std::size_t>(column)]);
    emit explain(QStringLiteral("axes/%1/shots/%2/chain/%3/%4")
                     .arg(QString::fromStdString(axis->id),
                          QString::fromStdString(context_.document.project().shots[shot->shot.at()].id),
                          QString::fromUtf8(part), QString::fromLatin1(key)));
}

void DrivesStation::moveLink(int step) {
    const ChainColumn* c = chosenColumn();
    if (c == nullptr || c->part != ChainPart::Link || context_.document.readOnly()) return;
    const int link = c->link;
    int to = link;
    context_.document.change(tr("Move part"), [&](Project& p) {
        to = gantry::moveLink(p.axes[static_cast<std::size_t>(context_.session.axis())], link, step);
    });
    context_.session.setChainColumn(context_.session.chainColumn() + to - link);
}

void DrivesStation::addElement() {
    const PageList list = fieldPages_.value(pages_->currentIndex()).list;
    context_.document.change(list == PageList::Marks ? tr("Add a mark") : tr("Add an item"), [&](Project& p) {
        list == PageList::Marks ? addRingMark(p, context_.session.axis())
                                : addItem(p, context_.session.axis());
    });
}

void DrivesStation::removeElement() {
    const PageList list = fieldPages_.value(pages_->currentIndex()).list;
    context_.document.change(list == PageList::Marks ? tr("Remove a mark") : tr("Remove an item"),
                             [&](Project& p) {
                                 list == PageList::Marks ? removeRingMark(p, context_.session.axis())
                                                         : removeItem(p, context_.session.axis());
                             });
}

void DrivesStation::removeLink() {
    const ChainColumn* c = chosenColumn();
    if (c == nullptr || c->link < 0) return;
    const int link = c->link;
    context_.document.change(tr("Remove part"),
                             [&](Project& p) { gantry::removeLink(p, context_.session.axis(), link); });
}

void DrivesStation::place() {
    const int w = width() - 2 * edge;
    shots_->setGeometry(edge + 90, headTop, 230, headRow);
    int right = edge + w;
    for (auto [button, width] :
         {std::pair{remove_, 84}, {later_, 40}, {earlier_, 40}, {add_, 108}, {tools_, 84}}) {
        right -= width;
        button->setGeometry(right, headTop, width - 4, headRow);
    }
    const int inner = w - 20;
    chain_->setGeometry(edge + 10, chainTop + 8, inner, tilesHeight);
    const int tableHeight = 7 * DriveTable::rowHeight + 2;
    table_->setGeometry(edge + 10, chainTop + tilesHeight + 14, inner, tableHeight);
    int y = chainTop + tilesHeight + 14 + tableHeight + 18;
    const int editorHeight = editor_->heightFor(w);
    editor_->setGeometry(edge, y, w, editorHeight);
    // Kind and pages stand in the editor's head line, from the right.
    int head = edge + w - 8;
    const auto put = [&](QWidget* widget, int width) {
        if (widget->isHidden()) return;
        head -= width;
        widget->setGeometry(head, y + 3, width - 4, 22);
    };
    put(pages_, pages_->sizeHint().width() + 4);
    put(kind_, 178);
    put(removeElement_, 92);
    put(addElement_, 92);
    editor_->setHeaderRoom(head - edge - 16);
    y += editorHeight + 10;
    const int half = (w - 10) / 2;
    const int plotHeight = std::max(156, height() - y - 12);
    torque_->setGeometry(edge, y, half, plotHeight);
    profile_->setGeometry(edge + half + 10, y, w - half - 10, plotHeight);
}

void DrivesStation::resizeEvent(QResizeEvent*) {
    place();
}

QRect DrivesStation::headCard() const {
    return {edge, 38, width() - 2 * edge, headBottom - 38};
}

void DrivesStation::mouseReleaseEvent(QMouseEvent* event) {
    const qsizetype letter =
        letterAt(event->position().toPoint(), headCard(), 30, tr("Capability"), capability_);
    const Axis* axis = context_.axis();
    const qsizetype first = capability_.indexOf(QLatin1Char(':'));
    if (axis == nullptr || letter <= first || first < 0) return;
    // "… or … or …", as capabilitySentence() has them; what binds them comes last.
    const QString before = capability_.mid(first, letter - first);
    if (before.contains(QLatin1String(" · "))) return;
    const bool linear = kindOf(*axis) == AxisKind::Linear;
    QStringList keys{linear ? QStringLiteral("mass_kg") : QStringLiteral("inertia_kgm2")};
    if (linear) keys << QStringLiteral("slope_rad");
    keys << (linear ? QStringLiteral("acceleration_m_s2") : QStringLiteral("acceleration_rad_s2"))
         << (linear ? QStringLiteral("speed_m_s") : QStringLiteral("speed_rad_s"));
    emit explain(QStringLiteral("axes/%1/capability/%2")
                     .arg(QString::fromStdString(axis->id), keys.value(before.count(tr(" or ")))));
}

void DrivesStation::paintEvent(QPaintEvent*) {
    QPainter p(this);
    paintHead(p, headCard(), 30, tr("Capability"), capability_);
    paintCard(p, QRect(edge, chainTop, width() - 2 * edge, table_->geometry().bottom() + 8 - chainTop));
}

} // namespace gantry::app
