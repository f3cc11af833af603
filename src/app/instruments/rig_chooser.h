// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/rigs/rigs.h"

#include <QAbstractButton>
#include <QList>

namespace gantry::app {

/// One kind of rig, drawn.
class RigTile : public QAbstractButton {
    Q_OBJECT
public:
    RigTile(const rigs::RigInfo& info, QWidget* parent);
    rigs::RigKind kind() const { return info_.kind; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    rigs::RigInfo info_;
};

/// The drawn choice of rigs to start from.
class RigChooser : public QWidget {
    Q_OBJECT
public:
    explicit RigChooser(QWidget* parent = nullptr);
    int heightFor(int width) const;

signals:
    void chosen(rigs::RigKind kind);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    QList<RigTile*> tiles_;
};

} // namespace gantry::app
