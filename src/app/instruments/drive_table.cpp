// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/drive_table.h"

#include "app/instruments/part_words.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"

#include <QHeaderView>
#include <QPainter>
#include <QStyledItemDelegate>
#include <algorithm>
#include <array>
#include <cmath>

namespace gantry::app {
namespace {

enum Row { Speed, Needed, Available, Inertia, Microstep, Lag, StretchPlay, rows_ };

/// The figure that a row shows of a part; of stretch and play the one that is there.
const Cell* mainCell(int row, const ChainColumn& c) {
    switch (row) {
    case Speed:
        return &c.speed;
    case Needed:
        return &c.needed;
    case Available:
        return &c.available;
    case Inertia:
        return &c.inertia;
    case Microstep:
        return &c.microstep;
    case Lag:
        return &c.lag;
    default:
        return c.stretch.figure.reason() != Reason::NotApplicable ? &c.stretch : &c.play;
    }
}

/// What a cell's figure is called in a path.
const char* keyOf(int row, const ChainColumn& c) {
    static constexpr std::array keys{"speed", "needed", "available", "inertia", "microstep", "lag"};
    if (row < StretchPlay) return keys[static_cast<std::size_t>(row)];
    return mainCell(row, c) == &c.stretch ? "stretch" : "play";
}

/// Draws one line of text and the rule below; the style sheet's own drawing is three times slower.
class Delegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Tokens& t = tokens();
        if (option.state & QStyle::State_Selected) p->fillRect(option.rect, t.lakeWash);
        p->setPen(t.faintLine);
        p->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
        const bool last = index.column() == index.model()->columnCount() - 1;
        p->setFont(textFont(index.column() == 0 ? 12 : 11, last));
        p->setPen(index.column() == 0 ? t.second : last ? t.lake : t.ink);
        const QString s = index.data(Qt::DisplayRole).toString();
        const QRect box = option.rect.adjusted(index.column() == 0 ? 0 : 1, 0, -1, 0);
        p->drawText(box, index.column() == 0 ? Qt::AlignVCenter | Qt::AlignLeft : Qt::AlignCenter,
                    fitted(p->fontMetrics(), s, box.width()));
        const QVariant range = index.data(DriveTableModel::relativeRangeRole);
        if (!range.isValid()) return;
        const double share = std::clamp(range.toDouble() / 0.5, 0.0, 1.0);
        const int half = static_cast<int>(std::lround(share * (option.rect.width() - 16) / 2.0));
        if (half < 1) return;
        const int middle = option.rect.center().x(), y = option.rect.bottom() - 2;
        p->setPen(t.heather);
        p->drawLine(middle - half, y, middle + half, y);
        if (share < 1.0) return;
        // More than the cell can show: open ends.
        for (int side : {-1, 1}) p->drawLine(middle + side * half, y, middle + side * (half - 3), y - 3);
    }
};

} // namespace

DriveTableModel::DriveTableModel(const Context& context, QObject* parent)
    : QAbstractTableModel(parent), context_(context) {}

void DriveTableModel::setColumns(const std::vector<ChainColumn>& columns,
                                 const std::vector<ChainColumn>& spread) {
    spread_ = spread;
    if (columns.size() != columns_.size()) {
        beginResetModel();
        columns_ = columns;
        endResetModel();
        shown_ = cells();
        return;
    }
    columns_ = columns;
    // Each by itself, since a table paints all between the first and the last.
    std::vector<QVariant> shown = cells();
    for (std::size_t i = 0; i < shown.size(); ++i) {
        const int at = static_cast<int>(i / 2);
        const QModelIndex cell = index(at / columnCount(), at % columnCount());
        if (shown_.size() != shown.size() || shown[i] != shown_[i]) emit dataChanged(cell, cell);
    }
    shown_ = std::move(shown);
}

std::vector<QVariant> DriveTableModel::cells() const {
    std::vector<QVariant> out;
    for (int row = 0; row < rows_; ++row)
        for (int column = 0; column < columnCount(); ++column)
            for (const int role : {int(Qt::DisplayRole), relativeRangeRole})
                out.push_back(data(index(row, column), role));
    return out;
}

int DriveTableModel::rowCount(const QModelIndex&) const {
    return rows_;
}
int DriveTableModel::columnCount(const QModelIndex&) const {
    return static_cast<int>(columns_.size()) + 1;
}

QVariant DriveTableModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole || orientation != Qt::Horizontal || section == 0) return {};
    return partName(context_, columns_[static_cast<std::size_t>(section) - 1]);
}

QVariant DriveTableModel::data(const QModelIndex& index, int role) const {
    const bool spoken = role == Qt::AccessibleTextRole || role == Qt::ToolTipRole;
    if (role != Qt::DisplayRole && !spoken && role != relativeRangeRole) return {};
    const std::size_t at = static_cast<std::size_t>(std::max(0, index.column() - 1));
    const ChainColumn* spread = spread_.size() == columns_.size() ? &spread_[at] : nullptr;
    if (role == relativeRangeRole) {
        const Cell* cell = index.column() > 0 ? mainCell(index.row(), columns_[at]) : nullptr;
        if (cell == nullptr || spread == nullptr) return {};
        const Figure& range = mainCell(index.row(), *spread)->figure;
        if (!range || range.value() <= 0.0 || !cell->figure || cell->figure.value() == 0.0) return {};
        return range.value() / std::abs(cell->figure.value());
    }
    static const std::array<const char*, rows_> names{
        QT_TR_NOOP("Speed"),       QT_TR_NOOP("Needed"), QT_TR_NOOP("Available"),     QT_TR_NOOP("Inertia"),
        QT_TR_NOOP("Finest step"), QT_TR_NOOP("Lag"),    QT_TR_NOOP("Give, backlash")};
    if (index.column() == 0) return tr(names[static_cast<std::size_t>(index.row())]);
    if (role == Qt::ToolTipRole)
        return mainCell(index.row(), columns_[at])->figure
                   ? tr("%1\nPress it to see how it comes about.")
                         .arg(cellWithRange(index.row(), columns_[at], spread))
                   : cellText(index.row(), columns_[at]);
    return spoken ? cellWithRange(index.row(), columns_[at], spread) : cellText(index.row(), columns_[at]);
}

QString DriveTableModel::cellWithRange(int row, const ChainColumn& column, const ChainColumn* spread) const {
    QString text = cellText(row, column);
    const Cell* cell = mainCell(row, column);
    if (spread == nullptr || !cell->figure) return text;
    const Figure& range = mainCell(row, *spread)->figure;
    if (!range || range.value() <= 0.0) return text;
    const double low = cell->figure.value() - range.value(), high = cell->figure.value() + range.value();
    return tr("%1, between %2 and %3")
        .arg(text, context_.show(cell->figure.value() > 0.0 ? std::max(0.0, low) : low, cell->kind),
             context_.show(high, cell->kind));
}

QString DriveTableModel::cellText(int row, const ChainColumn& c) const {
    const auto text = [&](const Cell& cell) {
        if (cell.figure) return context_.show(cell.figure, cell.kind);
        return cell.figure.reason() == Reason::NotApplicable ? QStringLiteral("·") : QStringLiteral("?");
    };
    switch (row) {
    case Speed:
        return text(c.speed);
    case Needed:
        // Never a "needed" current that would invite too little: the least for the wanted margin, said as
        // such.
        if (c.part == ChainPart::Driver)
            return c.needed.figure ? tr("min. %1").arg(text(c.needed)) : text(c.needed);
        return text(c.needed);
    case Available:
        return c.part == ChainPart::Driver && c.available.figure ? tr("set %1").arg(text(c.available))
                                                                 : text(c.available);
    case Inertia:
        return c.part == ChainPart::Picture && c.inertia.figure ? tr("%1 : 1").arg(text(c.inertia))
                                                                : text(c.inertia);
    case Microstep:
        return c.part == ChainPart::Driver && c.microstep.figure ? tr("1 pulse") : text(c.microstep);
    case Lag:
        return text(c.lag);
    case StretchPlay: {
        if (!c.stretch.figure && !c.play.figure) return text(c.stretch);
        if (!c.play.figure) return text(c.stretch);
        if (!c.stretch.figure) return text(c.play);
        // A unit that both have is said once.
        QString stretch = text(c.stretch);
        const QString play = text(c.play);
        const qsizetype unit = play.lastIndexOf(QLatin1Char(' '));
        if (unit > 0 && stretch.endsWith(play.mid(unit))) stretch.chop(play.size() - unit);
        return QStringLiteral("%1, %2").arg(stretch, play);
    }
    default:
        return {};
    }
}

const char* DriveTableModel::figureKey(const QModelIndex& index) const {
    if (index.column() < 1) return nullptr;
    const ChainColumn& c = columns_[static_cast<std::size_t>(index.column()) - 1];
    return mainCell(index.row(), c)->figure ? keyOf(index.row(), c) : nullptr;
}

DriveTable::DriveTable(const Context& context, QWidget* parent) : QTableView(parent), model_(context) {
    setObjectName(QStringLiteral("driveTable"));
    setAccessibleName(tr("Drive-train table"));
    setModel(&model_);
    setItemDelegate(new Delegate(this));
    horizontalHeader()->hide();
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(rowHeight);
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    setShowGrid(false);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setTabKeyNavigation(false);
    setSelectionMode(QAbstractItemView::SingleSelection);
    const auto press = [this](const QModelIndex& at) {
        const char* key = at.isValid() ? model_.figureKey(at) : nullptr;
        if (key != nullptr) emit numberPressed(at.column() - 1, key);
    };
    connect(this, &QTableView::clicked, this, press);
    connect(this, &QTableView::activated, this, press);
    connect(selectionModel(), &QItemSelectionModel::currentChanged, this, [this](const QModelIndex& now) {
        if (!now.isValid() || now.column() == 0) return;
        emit message(QStringLiteral("%1, %2: %3")
                         .arg(now.siblingAtColumn(0).data().toString(),
                              model_.headerData(now.column(), Qt::Horizontal, Qt::DisplayRole).toString(),
                              now.data(Qt::AccessibleTextRole).toString()));
    });
}

void DriveTable::setColumns(const std::vector<ChainColumn>& columns, const std::vector<ChainColumn>& spread) {
    const int before = model_.columnCount();
    model_.setColumns(columns, spread);
    if (before != model_.columnCount()) placeColumns();
}

void DriveTable::resizeEvent(QResizeEvent* event) {
    QTableView::resizeEvent(event);
    placeColumns();
}

void DriveTable::placeColumns() {
    const int n = model_.columnCount() - 1;
    if (n <= 0) return;
    setColumnWidth(0, labelWidth_);
    const double each = static_cast<double>(width() - labelWidth_) / n;
    for (int i = 0; i < n; ++i)
        setColumnWidth(i + 1, static_cast<int>((i + 1) * each) - static_cast<int>(i * each));
}

} // namespace gantry::app
