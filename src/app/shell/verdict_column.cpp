// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/verdict_column.h"

#include "app/instruments/measure_dialog.h"
#include "app/instruments/vial.h"
#include "app/theme/tokens.h"

#include <QInputDialog>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <algorithm>
#include <cmath>

namespace gantry::app {
namespace {
constexpr int cardWidth = 254, buttonHeight = 24;
QString utf8(std::string_view s) {
    return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}
} // namespace

VerdictCard::VerdictCard(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), asideButton_(new QPushButton(this)) {
    asideButton_->setProperty("role", "link");
    connect(asideButton_, &QPushButton::clicked, this,
            [this] { looks_.aside.isEmpty() ? emit setAside(verdict_) : emit takeUp(verdict_); });
}

VerdictCard::Looks VerdictCard::looksOf(const Verdict& verdict, const FixJob::Fixes& fixes) const {
    const Project& project = context_.document.project();
    const auto ratio = [&](double r) {
        return QString::fromStdString(ratioText(r, verdict.bounds, context_.system()));
    };
    Looks out;
    out.title = QString::fromStdString(title(verdict));
    out.sentence = QString::fromStdString(sentence(verdict, project, context_.system()));
    const SetAside* aside = setAsideFor(project, verdict);
    out.aside = aside != nullptr ? QString::fromStdString(aside->reason) : QString();
    if (!out.aside.isEmpty()) out.sentence += QLatin1Char(' ') + tr("Set aside: %1").arg(out.aside);
    out.ratio = !verdict.ratio                ? QStringLiteral("?")
                : verdict.ratio.value() > 100 ? tr("×100+")
                                              : QStringLiteral("×") + ratio(verdict.ratio.value());
    if (less(verdict.ratio, 100.0)) {
        if (verdict.bounds.wanted > 1.0) out.detail = tr("want ×%1").arg(ratio(verdict.bounds.wanted));
        if (verdict.low < verdict.ratio.value() * 0.995)
            out.detail +=
                (out.detail.isEmpty() ? QString() : QStringLiteral(", ")) +
                (verdict.switches ? tr("low ×%1, switches") : tr("low ×%1")).arg(ratio(verdict.low));
    }
    out.state = verdict.state;
    out.system = context_.system();
    out.bubble = bubblePlace(verdict);
    out.mendable = mendable(verdict.state);
    out.looking = out.mendable && fixes == nullptr && out.aside.isEmpty();
    if (out.aside.isEmpty()) out.fixes = fixes;
    out.readOnly = context_.document.readOnly();
    out.night = context_.preferences.night();
    return out;
}

void VerdictCard::show(const Verdict& verdict, const FixJob::Fixes& fixes) {
    verdict_ = verdict;
    const Looks looks = looksOf(verdict, fixes);
    if (looks == looks_ && height_ > 0) return;
    if (looks.sentence != looks_.sentence || height_ == 0) {
        sentence_.setText(looks.sentence);
        sentence_.setTextFormat(Qt::PlainText);
        sentence_.setTextWidth(cardWidth);
        sentence_.prepare({}, textFont(11));
        sentenceHeight_ = static_cast<int>(std::ceil(sentence_.size().height()));
    }
    looks_ = looks;
    setAccessibleName(looks_.title);
    setAccessibleDescription(utf8(stateWord(verdict.state)) + QStringLiteral(". ") + looks_.sentence);
    placeButtons();
    update();
}

void VerdictCard::placeButtons() {
    const Project& project = context_.document.project();
    int y = 40 + sentenceHeight_ + 4;
    if (looks_.looking) y += 18;
    const int buttons = looks_.fixes != nullptr ? static_cast<int>(looks_.fixes->size()) : 0;
    while (buttons_.size() < buttons) {
        auto* b = new QPushButton(this);
        b->setProperty("role", "fix");
        const int i = static_cast<int>(buttons_.size());
        b->setObjectName(QStringLiteral("fix%1").arg(i));
        connect(b, &QPushButton::clicked, this,
                [this, i] { emit applyFix((*looks_.fixes)[static_cast<std::size_t>(i)]); });
        buttons_.push_back(b);
        setTabOrder(b, asideButton_);
    }
    const QFontMetrics buttonMetrics(textFont(12));
    for (int i = 0; i < static_cast<int>(buttons_.size()); ++i) {
        QPushButton* b = buttons_[i];
        b->setVisible(i < buttons);
        if (i >= buttons) continue;
        const Fix& fix = (*looks_.fixes)[static_cast<std::size_t>(i)];
        const QString label =
            tr("Fix: %1").arg(QString::fromStdString(describe(fix, project, context_.system())));
        b->setText(buttonMetrics.elidedText(label, Qt::ElideRight, cardWidth - 18));
        b->setGeometry(0, y, std::min(cardWidth, buttonMetrics.horizontalAdvance(label) + 20), buttonHeight);
        b->setEnabled(!looks_.readOnly);
        QString effects = tr("%1, then %2").arg(utf8(costWords(fix.cost)), utf8(stateWord(fix.stateAfter)));
        for (const SideEffect& s : fix.sideEffects)
            effects += tr("; %1 becomes %2")
                           .arg(QString::fromStdString(title(s.after)), utf8(stateWord(s.after.state)));
        b->setToolTip(effects);
        b->setAccessibleDescription(effects);
        b->setProperty("effects", effects);
        y += buttonHeight + 16;
    }
    asideButton_->setVisible(looks_.mendable || !looks_.aside.isEmpty());
    if (asideButton_->isVisibleTo(this)) {
        asideButton_->setText(looks_.aside.isEmpty() ? tr("Set aside") : tr("Take up again"));
        asideButton_->setAccessibleName(asideButton_->text() + QStringLiteral(" ") + looks_.title);
        asideButton_->setGeometry(cardWidth - 70, 21, 70, 18);
    }
    height_ = y + 8;
}

void VerdictCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    paintVial(p, QRectF(0, 3, 64, 14), looks_.state, looks_.bubble);
    p.setPen(t.ink);
    p.setFont(textFont(12));
    const int ratioWidth = p.fontMetrics().horizontalAdvance(looks_.ratio);
    p.drawText(QRect(cardWidth - ratioWidth, 0, ratioWidth, 20), Qt::AlignVCenter, looks_.ratio);
    p.setFont(textFont(12, true));
    p.drawText(QRect(74, 0, cardWidth - 80 - ratioWidth, 20), Qt::AlignVCenter,
               p.fontMetrics().elidedText(looks_.title, Qt::ElideRight, cardWidth - 80 - ratioWidth));
    p.setFont(textFont(11, true));
    p.setPen(stateColour(looks_.state));
    const QString word = utf8(stateWord(looks_.state));
    p.drawText(QRect(0, 20, 70, 18), Qt::AlignVCenter, word);
    const int wordWidth = p.fontMetrics().horizontalAdvance(word) + 10;
    p.setFont(textFont(11));
    p.setPen(t.second);
    const int room = cardWidth - wordWidth - (asideButton_->isVisible() ? 68 : 0);
    p.drawText(QRect(wordWidth, 20, room, 18), Qt::AlignVCenter,
               p.fontMetrics().elidedText(looks_.detail, Qt::ElideRight, room));
    p.setPen(looks_.aside.isEmpty() ? t.second : t.third);
    p.drawStaticText(0, 40, sentence_);
    if (looks_.looking) {
        p.setPen(t.third);
        p.drawText(QRect(0, 42 + sentenceHeight_, cardWidth, 18), Qt::AlignVCenter, tr("looking for fixes…"));
    }
    p.setFont(textFont(10));
    p.setPen(t.second);
    for (const QPushButton* b : buttons_) {
        if (b->isHidden()) continue;
        const QString effects = b->property("effects").toString();
        p.drawText(QRect(4, b->geometry().bottom() + 1, cardWidth - 4, 14), Qt::AlignVCenter,
                   p.fontMetrics().elidedText(effects, Qt::ElideRight, cardWidth - 4));
    }
    p.setPen(t.faintLine);
    p.drawLine(0, height() - 1, cardWidth, height() - 1);
}

VerdictColumn::VerdictColumn(const Context& context, FixJob& fixes, QWidget* parent)
    : QWidget(parent), context_(context), fixes_(fixes), scroll_(new QScrollArea(this)),
      content_(new QWidget) {
    setObjectName(QStringLiteral("verdictColumn"));
    scroll_->setWidget(content_);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    connect(&fixes_, &FixJob::found, this, &VerdictColumn::refresh);
}

void VerdictColumn::refresh() {
    std::vector<const Verdict*> list;
    for (const Verdict& v : context_.document.assessment().verdicts)
        if (v.axis == context_.session.axis()) list.push_back(&v);
    const auto isAside = [&](const Verdict* v) {
        return setAsideFor(context_.document.project(), *v) != nullptr && !v->hazard;
    };
    std::stable_sort(list.begin(), list.end(), [&](const Verdict* a, const Verdict* b) {
        if (isAside(a) != isAside(b)) return isAside(b);
        return worseThan(*a, *b);
    });
    while (cards_.size() < static_cast<qsizetype>(list.size())) {
        auto* card = new VerdictCard(context_, content_);
        connect(card, &VerdictCard::applyFix, this, &VerdictColumn::apply);
        connect(card, &VerdictCard::setAside, this, &VerdictColumn::askSetAside);
        connect(card, &VerdictCard::takeUp, this, &VerdictColumn::takeUp);
        cards_.push_back(card);
    }
    int y = 4;
    for (qsizetype i = 0; i < cards_.size(); ++i) {
        VerdictCard* card = cards_[i];
        const bool used = i < static_cast<qsizetype>(list.size());
        card->setVisible(used);
        if (!used) continue;
        const Verdict& v = *list[static_cast<std::size_t>(i)];
        card->setObjectName(QStringLiteral("verdict_") + utf8(ruleKey(v)));
        card->show(v, fixes_.fixesFor(v.rule));
        card->setGeometry(12, y, cardWidth, card->wantedHeight());
        y += card->wantedHeight() + 6;
    }
    if (content_->size() != QSize(width() - 2, y)) content_->resize(width() - 2, y);
    update(0, 0, width(), 34);
}

void VerdictColumn::apply(const Fix& fix) {
    const QString name = tr("Fix: %1").arg(
        QString::fromStdString(describe(fix, context_.document.project(), context_.system())));
    if (!fix.measures.empty()) {
        auto* dialog = new MeasureDialog(context_, QString::fromStdString(fix.measures.front()), window());
        dialog->setAttribute(Qt::WA_DeleteOnClose);
        dialog->open();
        return;
    }
    // The card that sent this is rebuilt by the edit, so the fix must not live in it.
    const Fix chosen = fix;
    context_.document.apply(name, chosen);
}

void VerdictColumn::askSetAside(const Verdict& v) {
    const Verdict verdict = v;
    bool ok = false;
    const QString reason = QInputDialog::getText(this, tr("Set aside"),
                                                 tr("Why may “%1” be set aside? The reason is kept in the "
                                                    "project and printed on the settings sheet.")
                                                     .arg(QString::fromStdString(title(verdict))),
                                                 QLineEdit::Normal, {}, &ok)
                               .trimmed();
    if (!ok || reason.isEmpty()) return;
    context_.document.change(tr("Set aside %1").arg(QString::fromStdString(title(verdict))), [&](Project& p) {
        p.setAside.push_back({std::string(ruleKey(verdict)),
                              p.axes[static_cast<std::size_t>(verdict.axis)].id,
                              {},
                              reason.toStdString()});
    });
}

void VerdictColumn::takeUp(const Verdict& v) {
    const Verdict verdict = v;
    context_.document.change(tr("Take up %1 again").arg(QString::fromStdString(title(verdict))),
                             [&](Project& p) {
                                 std::erase_if(p.setAside, [&](const SetAside& s) {
                                     return s.rule == ruleKey(verdict) &&
                                            s.axis == p.axes[static_cast<std::size_t>(verdict.axis)].id;
                                 });
                             });
}

void VerdictColumn::resizeEvent(QResizeEvent*) {
    scroll_->setGeometry(1, 34, width() - 1, height() - 34);
    refresh();
}

void VerdictColumn::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    p.fillRect(rect(), t.sheet);
    p.setPen(t.line);
    p.drawLine(0, 0, 0, height());
    p.setPen(t.second);
    p.setFont(textFont(11));
    const Axis* axis = context_.axis();
    p.drawText(QRect(12, 10, width() - 24, 20), Qt::AlignVCenter,
               axis != nullptr ? tr("Verdicts for %1, worst first").arg(QString::fromStdString(axis->name))
                               : tr("No axis yet, so nothing to judge"));
}

} // namespace gantry::app
