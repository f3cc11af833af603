// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/verdicts/fix.h"

#include <QMap>
#include <QObject>
#include <QStringList>
#include <QThreadPool>
#include <QTimer>
#include <memory>
#include <stop_token>

namespace gantry::app {

class Document;
class Shelf;

/// Looks for fixes in the background, 150 ms after the last edit, for the verdicts of one axis that are over
/// or tight. An edit drops what is under way.
class FixJob : public QObject {
    Q_OBJECT
public:
    FixJob(Document& document, const Shelf& shelf, QObject* parent = nullptr);
    ~FixJob() override;

    void setAxis(int axis);
    /// Rules by key whose fixes are looked for before all others, from the next edit on.
    void setFirst(const QStringList& rules) { first_ = rules; }
    using Fixes = std::shared_ptr<const std::vector<Fix>>;
    /// Fixes of a rule of the current axis; null while they are still looked for.
    Fixes fixesFor(int rule) const { return found_.value(rule); }
    /// Whether there are more to come.
    bool looks() const { return timer_.isActive() || pool_.activeThreadCount() > 0; }

signals:
    void found(); ///< fixes of one more rule are there

private:
    void restart();
    void start();

    Document& document_;
    const Shelf& shelf_;
    int axis_ = 0;
    QStringList first_;
    QMap<int, Fixes> found_;
    std::stop_source stop_;
    QTimer timer_;
    QThreadPool pool_;
};

} // namespace gantry::app
