// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/tool_window.h"

#include <QShowEvent>
#include <QTimer>

namespace gantry::app {

ToolWindow::ToolWindow(const Context& context, const QString& name, const QString& title, QWidget* parent)
    : QDialog(parent), context_(context), soon_(new QTimer(this)) {
    setObjectName(name);
    setWindowTitle(title);
    setModal(false);
    setAttribute(Qt::WA_DeleteOnClose);
    soon_->setSingleShot(true);
    soon_->setInterval(0);
    connect(soon_, &QTimer::timeout, this, [this] {
        if (isVisible()) follow();
    });
    const auto start = [this] { soon_->start(); };
    connect(&context_.document, &Document::changed, this, start);
    connect(&context_.session, &Session::changed, this, start);
    connect(&context_.preferences, &Preferences::changed, this, start);
}

void ToolWindow::followAfter(int milliseconds) {
    soon_->setInterval(milliseconds);
}

void ToolWindow::showEvent(QShowEvent* event) {
    if (!event->spontaneous()) follow();
    QDialog::showEvent(event);
}

} // namespace gantry::app
