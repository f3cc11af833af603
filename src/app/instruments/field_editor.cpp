// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/field_editor.h"

#include "app/instruments/measure_dialog.h"

#include "core/model/references.h"
#include "core/units/text.h"
#include "core/units/unit_table.h"
#include "core/words/empty_hint.h"

#include <QActionGroup>
#include <QCheckBox>
#include <QComboBox>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QStyle>
#include <QToolButton>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {

bool isLocked(const Project& p, const std::string& path) {
    return std::find(p.lockedFields.begin(), p.lockedFields.end(), path) != p.lockedFields.end();
}

} // namespace

FieldEditor::FieldEditor(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), caption_(new QLabel(this)), edit_(new QLineEdit(this)),
      source_(new QToolButton(this)), menu_(new QMenu(this)) {
    caption_->setProperty("role", "caption");
    source_->setProperty("role", "source");
    source_->setPopupMode(QToolButton::InstantPopup);
    source_->setMenu(menu_);
    source_->setFocusPolicy(Qt::StrongFocus);
    edit_->installEventFilter(this);
    setFixedHeight(height_);
    connect(edit_, &QLineEdit::textEdited, this, [this] { typed_ = true; });
    connect(edit_, &QLineEdit::editingFinished, this, &FieldEditor::commit);
    connect(menu_, &QMenu::aboutToShow, this, &FieldEditor::fillSourceMenu);
}

QString FieldEditor::caption(const FieldInfo& info) const {
    return captionOverride_.isEmpty() ? tr(std::string(info.label).c_str()) : captionOverride_;
}

QString FieldEditor::shownText(double si, const FieldInfo& info, Digits digits) const {
    if (si == 0.0 && !words::emptyHint(path_.toStdString()).empty()) return {}; // the hint says what it means
    const auto unit = units::shownUnit(info.kind, context_.system()).text;
    const double value = si * factor_;
    QString s = QString::fromStdString(
        digits == Digits::All    ? units::formatForEditing(value, info.kind, context_.system())
        : digits == Digits::Five ? units::formatForField(value, info.kind, context_.system())
                                 : units::formatNumber(value, info.kind, context_.system(), 3));
    if (!unit.empty()) s += (unit == "°" ? QString() : QStringLiteral(" ")) + QString::fromUtf8(unit);
    return s;
}

void FieldEditor::setPath(const QString& path, const QString& caption) {
    if (path == path_ && caption == captionOverride_) return;
    path_ = path;
    captionOverride_ = caption;
    typed_ = false;
    setObjectName(path);
    edit_->setPlaceholderText(QString::fromUtf8(words::emptyHint(path.toStdString())));
    refresh();
}

void FieldEditor::refresh() {
    const auto field =
        path_.isEmpty() ? std::nullopt
                        : findField(const_cast<Project&>(context_.document.project()), path_.toStdString());
    if (!field) {
        setEnabled(false);
        edit_->clear();
        return;
    }
    setEnabled(!context_.document.readOnly());
    const QString name = caption(field->info);
    if (caption_->text() != name) {
        caption_->setText(name);
        edit_->setAccessibleName(name);
        source_->setAccessibleName(tr("%1: how it is known").arg(name));
    }
    QStringList choices;
    int chosen = -1;
    if (const auto* choice = std::get_if<ChoiceRef>(&field->target)) {
        for (const std::string_view label : choice->labels) choices << QString::fromUtf8(label);
        chosen = choice->index;
    } else if (const auto* named = std::get_if<std::string*>(&field->target)) {
        for (const NamedId& each : namesFor(context_.document.project(), field->path)) {
            if (each.id == **named) chosen = static_cast<int>(choices.size());
            choices << QString::fromStdString(each.name);
        }
    }
    const bool isChoice = !choices.isEmpty();
    const bool isFlag = std::holds_alternative<bool*>(field->target);
    const bool isText = std::holds_alternative<std::string*>(field->target);
    edit_->setVisible(!isChoice && !isFlag);
    source_->setVisible(!isChoice && !isFlag && !isText);
    if (combo_ != nullptr) combo_->setVisible(isChoice);
    if (check_ != nullptr) check_->setVisible(isFlag);
    caption_->setVisible(!isFlag);

    if (isChoice) {
        if (combo_ == nullptr) {
            combo_ = new QComboBox(this);
            combo_->setGeometry(0, 20, width(), 26);
            combo_->setVisible(true);
            connect(combo_, &QComboBox::activated, this, &FieldEditor::choose);
        }
        // An editor is used again for other fields, so the words must be these and not only as many.
        const auto same = [&] {
            if (combo_->count() != choices.size()) return false;
            for (int i = 0; i < combo_->count(); ++i)
                if (combo_->itemText(i) != choices[i]) return false;
            return true;
        };
        if (!same()) {
            combo_->clear();
            combo_->addItems(choices);
        }
        combo_->setAccessibleName(name);
        combo_->setCurrentIndex(chosen);
        return;
    }
    if (isFlag) {
        if (check_ == nullptr) {
            check_ = new QCheckBox(this);
            check_->setGeometry(0, 20, width(), 26);
            check_->setVisible(true);
            connect(check_, &QCheckBox::clicked, this, [this](bool on) { apply(on ? 1.0 : 0.0, {}); });
        }
        check_->setText(name);
        check_->setChecked(*std::get<bool*>(field->target));
        return;
    }
    if (edit_->hasFocus() && typed_) return; // never overwrite what is being typed
    QString shown, known;
    bool weak = false;
    if (isText)
        shown = QString::fromStdString(*std::get<std::string*>(field->target));
    else {
        const double value = numberAt(context_.document.project(), field->path).value_or(0.0);
        shown = shownText(value, field->info, edit_->hasFocus() ? Digits::All : Digits::Five);
        three_ = edit_->hasFocus() ? shown : shownText(value, field->info, Digits::Three);
        if (const auto* e = std::get_if<Estimate*>(&field->target)) {
            known = QString::fromUtf8(ChoiceNames<Source>::labels[static_cast<std::size_t>((*e)->source)]);
            weak = (*e)->source == Source::Guess || (*e)->source == Source::Assumed;
        } else
            known = std::holds_alternative<int*>(field->target) ? tr("counted") : tr("set");
        if (shown.isEmpty()) known = QStringLiteral("…"); // nothing is known of nothing, but may be
        if (isLocked(context_.document.project(), field->path)) known = tr("locked");
    }
    five_ = shown;
    if (isText) three_ = shown;
    if (edit_->text() != shown && edit_->text() != three_) {
        edit_->setText(shown);
        edit_->setCursorPosition(0);
    }
    if (edit_->property("refused").toBool()) {
        edit_->setProperty("refused", false);
        edit_->style()->polish(edit_);
    }
    if (source_->text() != known) source_->setText(known);
    if (source_->property("weak").toBool() != weak) {
        source_->setProperty("weak", weak);
        source_->style()->polish(source_);
    }
    resizeEvent(nullptr);
}

/// Takes one of several words: a choice, or what a text may name.
void FieldEditor::choose(int index) {
    context_.document.change(tr("Set %1").arg(caption_->text()), [&](Project& p) {
        const auto f = findField(p, path_.toStdString());
        if (!f) return;
        if (const auto* choice = std::get_if<ChoiceRef>(&f->target)) {
            choice->assign(choice->target, index);
        } else if (auto* const* named = std::get_if<std::string*>(&f->target)) {
            const std::vector<NamedId> names = namesFor(p, f->path);
            if (index >= 0 && index < static_cast<int>(names.size()))
                **named = names[static_cast<std::size_t>(index)].id;
        }
    });
}

void FieldEditor::resizeEvent(QResizeEvent*) {
    caption_->setGeometry(0, 0, width(), 18);
    edit_->setGeometry(0, 20, width(), 26);
    const int sourceWidth = source_->isVisibleTo(this)
                                ? std::min(source_->fontMetrics().horizontalAdvance(source_->text()) + 6, 70)
                                : 0;
    source_->setGeometry(width() - sourceWidth - 3, 23, sourceWidth, 20);
    // Setting them asks for painting, even those that it has.
    if (edit_->textMargins().right() != sourceWidth) edit_->setTextMargins(0, 0, sourceWidth, 0);
    if (combo_ != nullptr) combo_->setGeometry(0, 20, width(), 26);
    if (check_ != nullptr) check_->setGeometry(0, 20, width(), 26);
    fitDigits();
}

void FieldEditor::fitDigits() {
    if (edit_->hasFocus() || typed_ || five_.isEmpty()) return;
    const int room = edit_->width() - edit_->textMargins().right() - 8;
    const QString& fits = edit_->fontMetrics().horizontalAdvance(five_) <= room ? five_ : three_;
    if (edit_->text() == fits) return;
    edit_->setText(fits);
    edit_->setCursorPosition(0);
}

bool FieldEditor::eventFilter(QObject* watched, QEvent* event) {
    if (watched != edit_) return false;
    if (event->type() == QEvent::FocusIn || event->type() == QEvent::FocusOut) {
        // Every digit for the person who edits, those that can be acted on for the one who reads.
        const bool entering = event->type() == QEvent::FocusIn;
        QMetaObject::invokeMethod(
            this,
            [this, entering] {
                refresh();
                if (entering && !typed_ && edit_->hasFocus()) edit_->selectAll();
            },
            Qt::QueuedConnection);
    }
    if (event->type() == QEvent::FocusOut && typed_ && edit_->property("refused").toBool()) {
        typed_ = false; // a refused entry does not linger: the field goes back to what is true
        QMetaObject::invokeMethod(this, &FieldEditor::refresh, Qt::QueuedConnection);
    }
    if (event->type() == QEvent::ShortcutOverride && !typed_) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo)) {
            event->ignore(); // a line edit would swallow it; without typed text undo belongs to the project
            return true;
        }
    }
    if (event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (!typed_ && (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo))) {
            event->ignore();
            return true;
        }
        if (key->key() == Qt::Key_Up || key->key() == Qt::Key_Down) {
            step(key->key() == Qt::Key_Up ? 1 : -1, key->modifiers().testFlag(Qt::ShiftModifier));
            return true;
        }
        if (key->key() == Qt::Key_Escape && typed_) {
            typed_ = false;
            refresh();
            return true;
        }
    }
    return false;
}

void FieldEditor::commit() {
    if (!typed_) return;
    const auto field = findField(const_cast<Project&>(context_.document.project()), path_.toStdString());
    if (!field) return;
    if (std::holds_alternative<std::string*>(field->target)) {
        typed_ = false;
        const std::string value = edit_->text().toStdString();
        context_.document.change(tr("Set %1").arg(caption_->text()), [&](Project& p) {
            if (const auto f = findField(p, path_.toStdString())) *std::get<std::string*>(f->target) = value;
        });
        refresh();
        return;
    }
    commitNumber(*field);
}

void FieldEditor::commitNumber(const FieldRef& field) {
    const FieldInfo& info = field.info;
    const QString name = caption(info);
    const bool emptied = edit_->text().trimmed().isEmpty() && !edit_->placeholderText().isEmpty();
    const QString entered = emptied ? QStringLiteral("0") : edit_->text();
    const units::ParseResult result = units::parse(entered.toStdString(), info.kind, context_.system());
    if (const auto* error = std::get_if<units::ParseError>(&result)) {
        say(tr("%1: %2 The old value is kept.").arg(name, QString::fromStdString(error->sentence)), true);
        return;
    }
    const double value = std::get<double>(result) / factor_;
    if (value < info.min || value > info.max) {
        say(tr("%1 takes %2 to %3; “%4” is outside. The old value is kept.")
                .arg(name, context_.show(info.min, info.kind, 4), context_.show(info.max, info.kind, 4),
                     entered),
            true);
        return;
    }
    typed_ = false;
    if (value < info.usualMin || value > info.usualMax)
        say(tr("%1 for %2? Usual is %3 to %4. It is taken as typed.")
                .arg(context_.show(value, info.kind), name.toLower(), context_.show(info.usualMin, info.kind),
                     context_.show(info.usualMax, info.kind)),
            false);
    else
        emit message({}, false);
    apply(value, {});
    refresh();
}

void FieldEditor::apply(double value, const QString& mergeKey) {
    context_.document.change(
        tr("Set %1").arg(caption_->isVisibleTo(this) ? caption_->text()
                         : check_                    ? check_->text()
                                                     : QString()),
        [&](Project& p) {
            if (!setNumberAt(p, path_.toStdString(), value)) return;
            // What a person types is no assumption of the program's any more; how it is known is theirs to
            // say.
            if (const auto f = findField(p, path_.toStdString()))
                if (auto* const* e = std::get_if<Estimate*>(&f->target);
                    e != nullptr && (*e)->source == Source::Assumed)
                    (*e)->source = Source::Guess;
        },
        mergeKey);
}

void FieldEditor::step(int direction, bool coarse) {
    if (typed_) commit();
    const auto field = findField(const_cast<Project&>(context_.document.project()), path_.toStdString());
    if (!field || std::holds_alternative<std::string*>(field->target)) return;
    const double now = numberAt(context_.document.project(), field->path).value_or(0.0);
    const double unit = units::shownUnit(field->info.kind, context_.system()).factor;
    double grid = coarse ? 10.0 : 1.0;
    if (!std::holds_alternative<int*>(field->target)) {
        // One step is one in the second significant digit of what is shown.
        const double shown = std::abs(now / unit);
        grid *= unit * (shown > 0.0 ? std::pow(10.0, std::floor(std::log10(shown) + 1e-9) - 1.0) : 1.0);
    }
    const double next = clampToField(field->info, std::round(now / grid + direction) * grid);
    apply(next, path_ + QStringLiteral("/step"));
    refresh();
}

void FieldEditor::say(const QString& sentence, bool refused) {
    if (refused) {
        edit_->setProperty("refused", true);
        edit_->style()->polish(edit_);
    }
    emit message(sentence, refused);
}

void FieldEditor::setSource(Source source) {
    context_.document.change(tr("Set source of %1").arg(caption_->text()), [&](Project& p) {
        if (const auto f = findField(p, path_.toStdString()))
            if (auto* const* e = std::get_if<Estimate*>(&f->target))
                **e = estimateFor(f->info, source, (*e)->value);
    });
}

void FieldEditor::fillSourceMenu() {
    menu_->clear();
    const auto field = findField(const_cast<Project&>(context_.document.project()), path_.toStdString());
    if (!field) return;
    if (!recipes::forField(path_.toStdString()).empty()) {
        menu_->addAction(tr("Measure it …"), this, [this] {
            auto* dialog = new MeasureDialog(context_, path_, window());
            dialog->setAttribute(Qt::WA_DeleteOnClose);
            dialog->open();
        });
        menu_->addSeparator();
    }
    if (const auto* e = std::get_if<Estimate*>(&field->target)) {
        auto* sources = new QActionGroup(menu_);
        for (std::size_t i = 0; i < ChoiceNames<Source>::labels.size(); ++i) {
            QAction* a = menu_->addAction(QString::fromUtf8(ChoiceNames<Source>::labels[i]), this,
                                          [this, i] { setSource(static_cast<Source>(i)); });
            a->setCheckable(true);
            a->setChecked(static_cast<std::size_t>((*e)->source) == i);
            sources->addAction(a);
        }
        const bool rating = field->info.certainty == Certainty::Rating;
        QMenu* tolerance = menu_->addMenu(
            rating ? tr("No tolerance: a rating counts as it is")
                   : tr("Tolerance: ± %1 %")
                         .arg(QString::fromStdString(units::plainNumber((*e)->tolerance * 100, 1))));
        tolerance->setEnabled(!rating);
        for (const double share : {0.0, 0.01, 0.02, 0.05, 0.1, 0.2, 0.3, 0.5, 1.0})
            tolerance->addAction(QStringLiteral("± %1 %").arg(share * 100), this, [this, share] {
                context_.document.change(tr("Set tolerance of %1").arg(caption_->text()), [&](Project& p) {
                    if (const auto f = findField(p, path_.toStdString()))
                        if (auto* const* est = std::get_if<Estimate*>(&f->target)) (*est)->tolerance = share;
                });
            });
        menu_->addSeparator();
    }
    QAction* lock = menu_->addAction(tr("Locked: fixes leave it alone"), this, [this](bool on) {
        context_.document.change(on ? tr("Lock %1").arg(caption_->text())
                                    : tr("Unlock %1").arg(caption_->text()),
                                 [&](Project& p) {
                                     std::erase(p.lockedFields, path_.toStdString());
                                     if (on) p.lockedFields.push_back(path_.toStdString());
                                 });
    });
    lock->setCheckable(true);
    lock->setChecked(isLocked(context_.document.project(), path_.toStdString()));
}

} // namespace gantry::app
