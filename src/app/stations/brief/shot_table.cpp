// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/brief/shot_table.h"

#include <algorithm>
#include <array>

namespace gantry::app {

ShotTableModel::ShotTableModel(const Context& context, QObject* parent)
    : QAbstractTableModel(parent), context_(context) {}

void ShotTableModel::refresh() {
    const int rows = static_cast<int>(context_.document.project().shots.size());
    if (rows != rows_) {
        beginResetModel();
        rows_ = rows;
        endResetModel();
    } else if (rows_ > 0)
        emit dataChanged(index(0, 0), index(rows_ - 1, columnCount() - 1));
}

int ShotTableModel::rowCount(const QModelIndex&) const {
    return rows_;
}
int ShotTableModel::columnCount(const QModelIndex&) const {
    return 7;
}

QVariant ShotTableModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role == Qt::TextAlignmentRole)
        return section == 0 ? QVariant(Qt::AlignVCenter | Qt::AlignLeft)
                            : QVariant(Qt::AlignVCenter | Qt::AlignRight);
    if (role != Qt::DisplayRole || orientation != Qt::Horizontal) return {};
    static const std::array<const char*, 7> names{
        QT_TR_NOOP("Shot"),      QT_TR_NOOP("Lens"),         QT_TR_NOOP("Subject at"), QT_TR_NOOP("Distance"),
        QT_TR_NOOP("Top speed"), QT_TR_NOOP("Acceleration"), QT_TR_NOOP("Time")};
    return tr(names[static_cast<std::size_t>(section)]);
}

QVariant ShotTableModel::data(const QModelIndex& index, int role) const {
    if (role == Qt::TextAlignmentRole)
        return index.column() == 0 ? QVariant(Qt::AlignVCenter | Qt::AlignLeft)
                                   : QVariant(Qt::AlignVCenter | Qt::AlignRight);
    if (role != Qt::DisplayRole || index.row() >= static_cast<int>(context_.document.project().shots.size()))
        return {};
    const Shot& shot = context_.document.project().shots[static_cast<std::size_t>(index.row())];
    using units::Kind;
    switch (index.column()) {
    case 0:
        return QString::fromStdString(shot.name);
    case 1:
        return context_.show(shot.focalLength, Kind::PartLength);
    case 2:
        return context_.show(shot.subjectDistance, Kind::Length);
    default:
        break;
    }
    const AxisEvaluation* e = context_.axisEvaluation();
    if (e == nullptr) return {};
    const auto it = std::find_if(e->shots.begin(), e->shots.end(),
                                 [&](const ShotEvaluation& s) { return s.shot.row() == index.row(); });
    if (it == e->shots.end()) return index.column() == 3 ? tr("at rest") : QString();
    if (it->problem != Reason::None && index.column() > 3)
        return index.column() == 6 ? tr("too short") : QStringLiteral("–");
    const bool linear = e->model.kind == AxisKind::Linear;
    switch (index.column()) {
    case 3:
        return context_.show(it->distance, linear ? Kind::Length : Kind::Angle);
    case 4:
        return context_.show(it->motion.topSpeed, linear ? Kind::Speed : Kind::AngularSpeed);
    case 5:
        return context_.show(it->motion.acceleration,
                             linear ? Kind::Acceleration : Kind::AngularAcceleration);
    default:
        return context_.show(it->motion.time, Kind::Time);
    }
}

} // namespace gantry::app
