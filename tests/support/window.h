// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_editor.h"
#include "app/shell/main_window.h"
#include "app/theme/tokens.h"
#include "support/files.h"

#include <QApplication>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QRegularExpression>
#include <QStackedWidget>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTest>
#include <QTimer>
#include <QToolButton>
#include <memory>

/// Sends settings, state and recovery copies to a folder of the test's own. Construct before QApplication is
/// used.
class TestHome {
public:
    TestHome() {
        qputenv("XDG_STATE_HOME", dir_.path().toUtf8());
        qputenv("XDG_CONFIG_HOME", dir_.path().toUtf8());
        qputenv("XDG_DATA_HOME", dir_.path().toUtf8());
        QCoreApplication::setOrganizationName("calm-gantry-test");
        QCoreApplication::setApplicationName("calm-gantry-test");
    }
    QString path(const QString& name) const { return dir_.filePath(name); }

private:
    QTemporaryDir dir_;
};

/// The real window with the demo rig, driven by clicks and keys.
class WindowDriver {
    QTemporaryDir folder_; // outlives the window, which removes its lock from it

public:
    explicit WindowDriver(bool demo = true) {
        gantry::app::loadFonts();
        window = std::make_unique<gantry::app::MainWindow>();
        if (demo) window->openFile(copyOfDemo());
        window->show();
        if (!QTest::qWaitForWindowExposed(window.get())) qWarning("the window is not exposed");
        window->activateWindow();
    }
    std::unique_ptr<gantry::app::MainWindow> window;

    /// A demo file of the test's own: an open project is locked, and tests run side by side.
    QString copyOfDemo() const {
        const QString copy = folder_.filePath(QStringLiteral("fernhouse-dolly.gantry"));
        QFile::copy(QString::fromStdString(rigPath()), copy);
        return copy;
    }

    const gantry::Project& project() const { return window->document().project(); }

    template <class T = QWidget>
    T* find(const QString& name) const {
        for (T* w : window->findChildren<T*>(name))
            if (w->isVisible()) return w;
        return nullptr;
    }
    /// Opens what is folded away on the page in sight.
    void unfold() const {
        for (QPushButton* b : window->findChildren<QPushButton*>(QRegularExpression("^fold_")))
            if (b->isVisible() && !b->isChecked()) b->click();
    }
    /// The line of a field in sight, if need be after what is folded away was opened.
    QLineEdit* field(const QString& path) const {
        auto* editor = find<gantry::app::FieldEditor>(path);
        if (editor == nullptr) unfold();
        if (editor == nullptr) editor = find<gantry::app::FieldEditor>(path);
        return editor != nullptr ? editor->findChild<QLineEdit*>() : nullptr;
    }
    /// Types into a field as a person does and commits with Return.
    void type(const QString& path, const QString& text) const {
        QLineEdit* edit = field(path);
        QVERIFY2(edit != nullptr, qPrintable(path));
        QTest::mouseClick(edit, Qt::LeftButton, {}, QPoint(8, edit->height() / 2));
        QTest::keySequence(edit, QKeySequence::SelectAll);
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
    void click(QWidget* widget, QPoint at = {}) const {
        QVERIFY(widget != nullptr);
        QTest::mouseClick(widget, Qt::LeftButton, {}, at.isNull() ? widget->rect().center() : at);
    }
    /// Opens a button's menu and takes an entry by its text.
    void pickFromMenu(QPushButton* button, const QString& entry) const {
        QVERIFY(button != nullptr && button->menu() != nullptr);
        QMenu* menu = button->menu();
        bool taken = false;
        // The menu blocks until something is chosen, so the choice is made from within its loop, once it is
        // there.
        QTimer poll;
        int tries = 0;
        QObject::connect(&poll, &QTimer::timeout, menu, [&] {
            if (!menu->isVisible() && ++tries < 200) return;
            poll.stop();
            for (QAction* action : menu->actions())
                if (action->text() == entry) {
                    QTest::mouseClick(menu, Qt::LeftButton, {}, menu->actionGeometry(action).center());
                    taken = true;
                    return;
                }
            menu->close();
        });
        poll.start(25);
        QTest::mouseClick(button, Qt::LeftButton);
        QTRY_VERIFY(QApplication::activePopupWidget() == nullptr);
        QVERIFY2(taken, qPrintable(entry));
    }
    /// Goes to a station by its key.
    void station(QStringView id) const {
        const auto number = static_cast<int>(window->stationIds().indexOf(id)) + 1;
        QVERIFY(number > 0);
        // Without a window manager nothing gives the window its focus back after a dialog.
        // A menu that just closed may still be told that it became active; ask until the window really has
        // it.
        // On a busy machine focus can go between the asking and the key, so what counts is the station.
        QTRY_VERIFY(QApplication::activePopupWidget() == nullptr);
        const auto* stack = window->findChild<QStackedWidget*>();
        for (int tries = 0; tries < 200; ++tries) {
            window->activateWindow();
            if (tries > 0) QTest::qWait(20);
            QTest::keyClick(window.get(), static_cast<Qt::Key>(Qt::Key_0 + number), Qt::AltModifier);
            if (stack->currentIndex() == number - 1) return;
        }
        QVERIFY2(false, "the station does not come");
    }
    QString status() const { return find<QLabel>("status")->text(); }
};
