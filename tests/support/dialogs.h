// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QApplication>
#include <QDialog>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QTest>
#include <QTimer>
#include <functional>

/// Answers one modal dialog of one kind, while this object lives and no longer. A dialog of another kind is
/// rejected and fails the test in words.
template <class Kind>
class Answer {
public:
    explicit Answer(std::function<void(Kind*)> act) : act_(std::move(act)) {
        QObject::connect(&poll_, &QTimer::timeout, [this] { look(); });
        poll_.start(20);
    }
    Answer(const Answer&) = delete;
    Answer& operator=(const Answer&) = delete;
    bool came() const { return came_; }
    /// Waits until the dialog came and was answered.
    bool comes(int milliseconds = 5000) const {
        return QTest::qWaitFor([this] { return came_ && QApplication::activeModalWidget() == nullptr; },
                               milliseconds);
    }

private:
    void look() {
        auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
        if (dialog == nullptr || !dialog->isVisible()) return;
        poll_.stop();
        if (auto* wanted = qobject_cast<Kind*>(dialog)) {
            came_ = true;
            act_(wanted);
            return;
        }
        const QString text =
            QStringLiteral("a %1 came (“%2”) where a %3 was to be answered")
                .arg(QString::fromLatin1(dialog->metaObject()->className()), dialog->windowTitle(),
                     QString::fromLatin1(Kind::staticMetaObject.className()));
        dialog->reject();
        QTest::qFail(qPrintable(text), __FILE__, __LINE__);
    }

    std::function<void(Kind*)> act_;
    QTimer poll_;
    bool came_ = false;
};

/// Fails the test if any dialog comes while it lives.
class NoDialog {
public:
    NoDialog() {
        QObject::connect(&poll_, &QTimer::timeout, [this] {
            auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
            if (dialog == nullptr || !dialog->isVisible()) return;
            poll_.stop();
            const QString text =
                QStringLiteral("a dialog came that must not: “%1”").arg(dialog->windowTitle());
            dialog->reject();
            QTest::qFail(qPrintable(text), __FILE__, __LINE__);
        });
        poll_.start(20);
    }
    NoDialog(const NoDialog&) = delete;
    NoDialog& operator=(const NoDialog&) = delete;

private:
    QTimer poll_;
};

/// Presses a button of a message box, by what it is or by its words.
inline std::function<void(QMessageBox*)> press(QMessageBox::StandardButton which) {
    return [which](QMessageBox* box) { QTest::mouseClick(box->button(which), Qt::LeftButton); };
}
inline std::function<void(QMessageBox*)> press(const QString& words) {
    return [words](QMessageBox* box) {
        for (QAbstractButton* b : box->buttons())
            if (b->text().remove(QLatin1Char('&')) == words) {
                QTest::mouseClick(b, Qt::LeftButton);
                return;
            }
        box->reject();
        QTest::qFail(qPrintable("no button “" + words + "” in: " + box->text()), __FILE__, __LINE__);
    };
}
/// Types a name into a file dialog and takes it.
inline std::function<void(QFileDialog*)> typeName(const QString& path) {
    return [path](QFileDialog* dialog) {
        auto* edit = dialog->findChild<QLineEdit*>("fileNameEdit");
        edit->setText(path);
        QTest::keyClick(edit, Qt::Key_Return);
        if (dialog->isVisible()) dialog->reject(); // a name it does not take
    };
}
