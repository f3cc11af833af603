// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/project_change.h"

#include <QObject>
#include <deque>
#include <functional>

namespace gantry::app {

/// Undo and redo by what each edit changed. Unlike Qt's own stack it has a ceiling of memory, forgetting the
/// oldest edits first, and can mark the state of an earlier moment as saved, since a save takes its time.
class EditHistory : public QObject {
    Q_OBJECT
public:
    /// Called with what the project becomes.
    using Apply = std::function<void(Project)>;
    EditHistory(const Project& project, Apply apply, QObject* parent = nullptr);

    static constexpr int mostSteps = 500;
    static constexpr std::size_t mostBytes = 256u << 20;

    /// One more edit: the project becomes `next`. Edits with the same non-empty key that follow each other
    /// count as one.
    void push(const QString& name, Project next, const QString& mergeKey);
    void undo();
    void redo();
    void clear();

    int count() const { return static_cast<int>(steps_.size()); }
    int index() const { return index_; }
    bool canUndo() const { return index_ > 0; }
    bool canRedo() const { return index_ < count(); }
    QString undoText() const { return canUndo() ? steps_[at(index_ - 1)].name : QString(); }
    QString redoText() const { return canRedo() ? steps_[at(index_)].name : QString(); }
    std::size_t bytes() const { return bytes_; }

    /// The state that the project is in now; differs from all others.
    quint64 state() const { return state_; }
    /// From now on the project is clean whenever it is in this state.
    void setClean(quint64 state);
    void setClean() { setClean(state_); }
    bool isClean() const { return clean_ == state_; }

signals:
    void indexChanged();
    void cleanChanged();

private:
    struct Step {
        QString name, mergeKey;
        ProjectChange change;
        quint64 before, after;
    };
    static std::size_t at(int i) { return static_cast<std::size_t>(i); }
    void dropAfter(int index);
    void move(int index, quint64 state, Project next);

    const Project& project_;
    Apply apply_;
    std::deque<Step> steps_;
    int index_ = 0;
    std::size_t bytes_ = 0;
    quint64 state_ = 0, clean_ = 0, lastState_ = 0;
};

} // namespace gantry::app
