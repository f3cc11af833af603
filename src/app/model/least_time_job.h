// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/tools/least_move_time.h"

#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <optional>
#include <stop_token>

namespace gantry::app {

class Document;

/// Looks in the background for how fast a move could go at best over its path. What was found is kept until
/// something newer takes its place, and says whether it is of the project as it is now.
class LeastTimeJob : public QObject {
    Q_OBJECT
public:
    explicit LeastTimeJob(Document& document, QObject* parent = nullptr);
    ~LeastTimeJob() override;

    /// Wants it of a move, by its id; looks once it has been wanted for 200 ms, unless it is known.
    void want(const QString& move);
    void stop();
    /// Of that move; nothing where none was found yet.
    const LeastMoveTime* of(const QString& move) const;
    bool stale() const; ///< the project has changed since

signals:
    void found();

private:
    struct Found {
        QString move;
        quint64 revision = 0;
        std::optional<LeastMoveTime> least; ///< nothing: the move cannot be planned
    };
    void start();

    Document& document_;
    QString move_;
    std::optional<Found> found_;
    std::stop_source stop_;
    QTimer timer_;
    QThreadPool pool_;
};

} // namespace gantry::app
