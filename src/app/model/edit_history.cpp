// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/edit_history.h"

namespace gantry::app {

EditHistory::EditHistory(const Project& project, Apply apply, QObject* parent)
    : QObject(parent), project_(project), apply_(std::move(apply)) {}

void EditHistory::push(const QString& name, Project next, const QString& mergeKey) {
    dropAfter(index_);
    quint64 before = state_;
    Project base = project_;
    const bool merges = !mergeKey.isEmpty() && canUndo() && steps_.back().mergeKey == mergeKey;
    if (merges) {
        steps_.back().change.undo(base);
        before = steps_.back().before;
        dropAfter(index_ - 1);
    }
    Step step{name, mergeKey, ProjectChange(base, next), before, ++lastState_};
    if (step.change.empty()) { // merged back to where it began
        move(count(), before, std::move(next));
        return;
    }
    bytes_ += step.change.bytes();
    steps_.push_back(std::move(step));
    while (steps_.size() > 1 && (steps_.size() > mostSteps || bytes_ > mostBytes)) {
        bytes_ -= steps_.front().change.bytes();
        steps_.pop_front();
    }
    move(count(), lastState_, std::move(next));
}

void EditHistory::undo() {
    if (!canUndo()) return;
    const Step& step = steps_[at(index_ - 1)];
    Project next = project_;
    step.change.undo(next);
    move(index_ - 1, step.before, std::move(next));
}

void EditHistory::redo() {
    if (!canRedo()) return;
    const Step& step = steps_[at(index_)];
    Project next = project_;
    step.change.redo(next);
    move(index_ + 1, step.after, std::move(next));
}

void EditHistory::clear() {
    dropAfter(0);
    index_ = 0;
    clean_ = state_ = ++lastState_;
    emit indexChanged();
    emit cleanChanged();
}

void EditHistory::setClean(quint64 state) {
    const bool was = isClean();
    clean_ = state;
    if (isClean() != was) emit cleanChanged();
}

void EditHistory::dropAfter(int index) {
    while (count() > index) {
        bytes_ -= steps_.back().change.bytes();
        steps_.pop_back();
    }
    index_ = std::min(index_, index);
}

void EditHistory::move(int index, quint64 state, Project next) {
    const bool was = isClean();
    index_ = index;
    state_ = state;
    apply_(std::move(next));
    emit indexChanged();
    if (isClean() != was) emit cleanChanged();
}

} // namespace gantry::app
