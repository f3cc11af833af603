// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shell/verdict_column.h"

#include "app/instruments/measure_dialog.h"
#include "app/instruments/vial.h"
#include "app/theme/fitted_text.h"
#include "app/theme/tokens.h"
#include "core/verdicts/rules.h"
#include "core/verdicts/side_effects.h"
#include "core/working/explain.h"

#include <QEvent>
#include <QInputDialog>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <algorithm>
#include <cmath>
#include <functional>

namespace gantry::app {

/// A verdict of another place, a line to it. Its sentence is worded when it is asked for: there may be dozens
/// of them, and an edit changes most.
class OtherVerdict : public QPushButton {
public:
    using QPushButton::QPushButton;
    std::function<QString()> says;
    QFont shapedIn; ///< its text was

protected:
    bool event(QEvent* e) override {
        if (e->type() == QEvent::ToolTip && says) setToolTip(says());
        return QPushButton::event(e);
    }
};

namespace {
constexpr int cardWidth = 254, lineHeight = 16, buttonMargin = 8, effectLine = 14;
constexpr int linkLeft = 10;        ///< a link has a margin of its own
constexpr qsizetype firstShown = 3; ///< fixes, before the rest is asked for

/// A text broken into lines of a width; what does not fit into `most` lines ends in an ellipsis.
QString brokenUp(const QString& text, const QFontMetrics& metrics, int width, int most) {
    // A number keeps its unit beside it.
    QStringList words;
    for (const QString& word : text.split(QLatin1Char(' '))) {
        const bool counts = !words.isEmpty() && !words.back().isEmpty() && words.back().back().isDigit();
        if (counts && word.size() <= 8)
            words.back() += QLatin1Char(' ') + word;
        else
            words << word;
    }
    QStringList lines{QString()};
    for (const QString& word : words) {
        const QString longer = lines.back().isEmpty() ? word : lines.back() + QLatin1Char(' ') + word;
        if (lines.back().isEmpty() || metrics.horizontalAdvance(longer) <= width) {
            lines.back() = longer;
            continue;
        }
        if (lines.size() == most) {
            lines.back() = fitted(metrics, longer, width);
            break;
        }
        lines.push_back(word);
    }
    return lines.join(QLatin1Char('\n'));
}
/// The title of a rule by its key.
QString titleOf(const QString& key) {
    return QString::fromUtf8(
        rules::all()[static_cast<std::size_t>(rules::indexOf(key.toStdString()))]->title.text);
}
} // namespace

VerdictCard::VerdictCard(const Context& context, QWidget* parent)
    : QWidget(parent), context_(context), asideButton_(new QPushButton(this)),
      moreButton_(new QPushButton(this)), ratioButton_(new QPushButton(this)),
      momentButton_(new QPushButton(this)) {
    ratioButton_->setProperty("role", "ratio");
    ratioButton_->setObjectName(QStringLiteral("ratio"));
    ratioButton_->setToolTip(tr("Press it to see how it comes about."));
    connect(ratioButton_, &QPushButton::clicked, this, [this] {
        emit explain(QString::fromStdString(working::pathOf(context_.document.project(), verdict_)));
    });
    momentButton_->setProperty("role", "rowlink");
    momentButton_->setObjectName(QStringLiteral("moment"));
    connect(momentButton_, &QPushButton::clicked, this, [this] {
        if (verdict_.plan >= 0)
            emit planWanted(verdict_.plan);
        else
            emit momentWanted(verdict_.move, verdict_.moment.valueOr(0.0));
    });
    asideButton_->setProperty("role", "link");
    moreButton_->setProperty("role", "rowlink");
    moreButton_->setObjectName(QStringLiteral("moreFixes"));
    connect(moreButton_, &QPushButton::clicked, this, [this] {
        all_ = !all_;
        looks_.all = all_;
        placeButtons();
        emit resized();
    });
    connect(asideButton_, &QPushButton::clicked, this,
            [this] { looks_.aside.isEmpty() ? emit setAside(rules_) : emit takeUp(rules_); });
}

VerdictCard::Looks VerdictCard::looksOf(const Matter& matter, const FixJob::Fixes& fixes) const {
    const Verdict& verdict = *matter.verdict;
    const Project& project = context_.document.project();
    const auto ratio = [&](double r) {
        return QString::fromStdString(ratioText(r, verdict.bounds, context_.system()));
    };
    Looks out;
    out.title = QString::fromStdString(title(verdict));
    out.sentence = QString::fromStdString(sentence(verdict, project, context_.system()));
    for (const Verdict* v : matter.alike)
        out.sentence +=
            QLatin1Char(' ') +
            tr("“%1” says the same, ×%2.")
                .arg(QString::fromStdString(title(*v)),
                     QString::fromStdString(ratioText(v->ratio.value(), v->bounds, context_.system())));
    const SetAside* aside = setAsideFor(project, verdict);
    out.aside = aside != nullptr ? QString::fromStdString(aside->reason) : QString();
    if (!out.aside.isEmpty()) out.sentence += QLatin1Char(' ') + tr("Set aside: %1").arg(out.aside);
    out.ratio = !verdict.ratio                ? QStringLiteral("?")
                : verdict.ratio.value() > 100 ? tr("×100+")
                                              : QStringLiteral("×") + ratio(verdict.ratio.value());
    if (less(verdict.ratio, 100.0)) {
        if (verdict.bounds.wanted > 1.0) out.detail = tr("target ×%1").arg(ratio(verdict.bounds.wanted));
        if (verdict.low < verdict.ratio.value() * 0.995)
            out.detail +=
                (out.detail.isEmpty() ? QString() : QStringLiteral(" · ")) +
                (verdict.switches ? tr("low end about ×%1") : tr("low end ×%1")).arg(ratio(verdict.low));
    }
    out.state = verdict.state;
    out.system = context_.system();
    out.bubble = bubblePlace(verdict);
    out.mendable = mendable(verdict.state);
    out.looking = out.mendable && fixes == nullptr && out.aside.isEmpty();
    if (out.aside.isEmpty()) out.fixes = fixes;
    if (out.mendable && out.fixes != nullptr && out.fixes->empty())
        out.advice = QString::fromStdString(advice(verdict));
    if (verdict.move >= 0 && verdict.moment)
        out.moment = tr("Show %1").arg(context_.show(verdict.moment, units::Kind::Time));
    if (verdict.plan >= 0 && project.plans.size() > 1) out.moment = tr("Show the plan");
    out.all = all_;
    out.explained = working::hasWorking(verdict);
    out.readOnly = context_.document.readOnly();
    out.night = context_.preferences.night();
    return out;
}

void VerdictCard::show(const Matter& matter, const FixJob::Fixes& fixes) {
    const Verdict& verdict = *matter.verdict;
    if (verdict.rule != verdict_.rule || verdict.axis != verdict_.axis) all_ = false;
    verdict_ = verdict;
    rules_ = {QString::fromUtf8(ruleKey(verdict))};
    for (const Verdict* v : matter.alike) rules_ << QString::fromUtf8(ruleKey(*v));
    const Looks looks = looksOf(matter, fixes);
    if (looks == looks_ && height_ > 0) return;
    const auto layOut = [](QStaticText& text, const QString& words) {
        text.setText(words);
        text.setTextFormat(Qt::PlainText);
        text.setTextWidth(cardWidth);
        text.prepare({}, textFont(11));
        return words.isEmpty() ? 0 : static_cast<int>(std::ceil(text.size().height()));
    };
    if (looks.sentence != looks_.sentence || height_ == 0)
        sentenceHeight_ = layOut(sentence_, looks.sentence);
    if (looks.advice != looks_.advice || height_ == 0) adviceHeight_ = layOut(advice_, looks.advice);
    looks_ = looks;
    setAccessibleName(looks_.title);
    setAccessibleDescription(QString::fromUtf8(stateWord(verdict.state)) + QStringLiteral(". ") +
                             looks_.sentence);
    placeButtons();
    update();
}

void VerdictCard::placeButtons() {
    const Project& project = context_.document.project();
    ratioButton_->setVisible(looks_.explained);
    ratioButton_->setText(looks_.ratio);
    ratioButton_->setAccessibleName(tr("How %1 of %2 comes about").arg(looks_.ratio, looks_.title));
    const int ratioWidth = QFontMetrics(textFont(12)).horizontalAdvance(looks_.ratio) + 6;
    ratioButton_->setGeometry(cardWidth - ratioWidth, 0, ratioWidth, 20);
    int y = 40 + sentenceHeight_ + 4;
    if (looks_.looking) y += 18;
    if (adviceHeight_ > 0) y += adviceHeight_ + 4;
    const qsizetype found = looks_.fixes != nullptr ? static_cast<qsizetype>(looks_.fixes->size()) : 0;
    const qsizetype buttons = all_ ? found : std::min(found, firstShown);
    while (buttons_.size() < buttons) {
        auto* b = new QPushButton(this);
        b->setProperty("role", "fix");
        const int i = static_cast<int>(buttons_.size());
        b->setObjectName(QStringLiteral("fix%1").arg(i));
        connect(b, &QPushButton::clicked, this,
                [this, i] { emit applyFix((*looks_.fixes)[static_cast<std::size_t>(i)]); });
        buttons_.push_back(b);
        setTabOrder(b, moreButton_);
        setTabOrder(moreButton_, asideButton_);
    }
    const QFontMetrics buttonMetrics(textFont(12)), effectMetrics(textFont(10));
    for (int i = 0; i < static_cast<int>(buttons_.size()); ++i) {
        QPushButton* b = buttons_[i];
        b->setVisible(i < buttons);
        if (i >= buttons) continue;
        const Fix& fix = (*looks_.fixes)[static_cast<std::size_t>(i)];
        const QString label =
            tr("Fix: %1").arg(QString::fromStdString(describe(fix, project, context_.system())));
        const QString shown = brokenUp(label, buttonMetrics, cardWidth - 20, 4);
        const int lines = static_cast<int>(shown.count(QLatin1Char('\n'))) + 1,
                  height = lines * lineHeight + buttonMargin;
        b->setText(shown);
        b->setAccessibleName(label);
        b->setGeometry(
            0, y, lines > 1 ? cardWidth : std::min(cardWidth, buttonMetrics.horizontalAdvance(label) + 20),
            height);
        b->setEnabled(!looks_.readOnly);
        QString effects =
            tr("%1, then %2")
                .arg(QString::fromUtf8(costWords(fix.cost)), QString::fromUtf8(stateWord(fix.stateAfter)));
        for (const SaidEffect& s : saidEffects(fix))
            effects += (s.after == s.before ? tr("; %1 gets worse, still %2") : tr("; %1 becomes %2"))
                           .arg(QString::fromStdString(s.title), QString::fromUtf8(stateWord(s.after)));
        const QString shownEffects = brokenUp(effects, effectMetrics, cardWidth - 8, 3);
        const int effectsHeight =
            (static_cast<int>(shownEffects.count(QLatin1Char('\n'))) + 1) * effectLine + 2;
        b->setToolTip(label + QLatin1Char('\n') + effects);
        b->setAccessibleDescription(effects);
        b->setProperty("effects", shownEffects);
        y += height + effectsHeight;
    }
    // Below, what concerns them all.
    constexpr int rowHeight = 18;
    moreButton_->setVisible(found > firstShown);
    if (found > firstShown) {
        const QString text = all_ ? tr("Fewer fixes") : tr("More fixes (%1)").arg(found - firstShown);
        moreButton_->setText(text);
        moreButton_->setAccessibleName(text + QStringLiteral(" ") + looks_.title);
        moreButton_->setGeometry(0, y, buttonMetrics.horizontalAdvance(text) + 12, rowHeight);
    }
    momentButton_->setVisible(!looks_.moment.isEmpty());
    if (!looks_.moment.isEmpty()) {
        momentButton_->setText(looks_.moment);
        momentButton_->setToolTip(verdict_.plan >= 0 ? tr("Takes the plan in hand that this is about.")
                                                     : tr("Puts the play head there."));
        momentButton_->setAccessibleName(looks_.moment + QStringLiteral(" ") + looks_.title);
        const int at = found > firstShown ? moreButton_->geometry().right() + 8 : 0;
        momentButton_->setGeometry(at, y, buttonMetrics.horizontalAdvance(looks_.moment) + 12, rowHeight);
    }
    asideButton_->setVisible(looks_.mendable || !looks_.aside.isEmpty());
    if (asideButton_->isVisibleTo(this)) {
        asideButton_->setText(looks_.aside.isEmpty() ? tr("Set aside") : tr("Take up again"));
        asideButton_->setAccessibleName(asideButton_->text() + QStringLiteral(" ") + looks_.title);
        const int width = QFontMetrics(textFont(10)).horizontalAdvance(asideButton_->text()) + 10;
        asideButton_->setGeometry(cardWidth - width, y, width, rowHeight);
    }
    if (moreButton_->isVisibleTo(this) || asideButton_->isVisibleTo(this) || momentButton_->isVisibleTo(this))
        y += rowHeight + 2;
    height_ = y + 8;
}

void VerdictCard::paintEvent(QPaintEvent*) {
    QPainter p(this);
    const Tokens& t = tokens();
    paintVial(p, QRectF(0, 3, 64, 14), looks_.state, looks_.bubble);
    p.setPen(t.ink);
    p.setFont(textFont(12));
    const int ratioWidth = p.fontMetrics().horizontalAdvance(looks_.ratio);
    if (!looks_.explained)
        p.drawText(QRect(cardWidth - ratioWidth, 0, ratioWidth, 20), Qt::AlignVCenter, looks_.ratio);
    p.setFont(textFont(12, true));
    p.drawText(QRect(74, 0, cardWidth - 80 - ratioWidth, 20), Qt::AlignVCenter,
               fitted(p.fontMetrics(), looks_.title, cardWidth - 80 - ratioWidth));
    p.setFont(textFont(11, true));
    p.setPen(stateColour(looks_.state));
    const QString word = QString::fromUtf8(stateWord(looks_.state));
    p.drawText(QRect(0, 20, 70, 18), Qt::AlignVCenter, word);
    const int wordWidth = p.fontMetrics().horizontalAdvance(word) + 10;
    p.setFont(textFont(11));
    p.setPen(t.second);
    const int room = cardWidth - wordWidth;
    p.drawText(QRect(wordWidth, 20, room, 18), Qt::AlignVCenter,
               fitted(p.fontMetrics(), looks_.detail, room));
    p.setPen(looks_.aside.isEmpty() ? t.second : t.third);
    p.drawStaticText(0, 40, sentence_);
    if (looks_.looking) {
        p.setPen(t.third);
        p.drawText(QRect(0, 42 + sentenceHeight_, cardWidth, 18), Qt::AlignVCenter, tr("looking for fixes…"));
    }
    if (adviceHeight_ > 0) {
        p.setPen(t.third);
        p.drawStaticText(0, 44 + sentenceHeight_, advice_);
    }
    p.setFont(textFont(10));
    p.setPen(t.second);
    for (const QPushButton* b : buttons_) {
        if (b->isHidden()) continue;
        p.drawText(QRect(4, b->geometry().bottom() + 1, cardWidth - 4, 3 * effectLine), Qt::AlignTop,
                   b->property("effects").toString());
    }
    p.setPen(t.faintLine);
    p.drawLine(0, height() - 1, cardWidth, height() - 1);
}

VerdictColumn::VerdictColumn(const Context& context, FixJob& fixes, QWidget* parent)
    : QWidget(parent), context_(context), fixes_(fixes), scroll_(new QScrollArea(this)),
      content_(new QWidget), fold_(new QPushButton(content_)) {
    setObjectName(QStringLiteral("verdictColumn"));
    setAttribute(Qt::WA_OpaquePaintEvent);
    scroll_->setWidget(content_);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    fold_->setProperty("role", "rowlink");
    fold_->setObjectName(QStringLiteral("foldedVerdicts"));
    connect(fold_, &QPushButton::clicked, this, [this] {
        unfolded_ = !unfolded_;
        refresh();
    });
    connect(&fixes_, &FixJob::found, this, &VerdictColumn::refresh);
}

void VerdictColumn::setStation(const QString& name, const QStringList& rules) {
    station_ = name;
    rules_ = rules;
    refresh();
    scroll_->verticalScrollBar()->setValue(0);
}

bool VerdictColumn::shownHere(const Matter& m) const {
    return concerns(*m.verdict, context_.session.axis()) &&
           anyRuleOf(m, [&](std::string_view key) { return rules_.contains(QString::fromUtf8(key)); });
}

void VerdictColumn::refresh() {
    const std::vector<Matter> all =
        matters(context_.document.project(), context_.document.assessment().verdicts);
    std::vector<const Matter*> list;
    for (const Matter& m : all)
        if (shownHere(m)) list.push_back(&m);
    const auto isAside = [&](const Matter* m) {
        return setAsideFor(context_.document.project(), *m->verdict) != nullptr && !m->verdict->hazard;
    };
    const auto enough = [&](const Matter* m) {
        return !isAside(m) && (m->verdict->state == State::Fine || m->verdict->state == State::Oversized);
    };
    // First what is to be mended, then what was set aside, then what is enough; within these as they come.
    const auto place = [&](const Matter* m) { return enough(m) ? 2 : isAside(m) ? 1 : 0; };
    std::stable_sort(list.begin(), list.end(),
                     [&](const Matter* a, const Matter* b) { return place(a) < place(b); });
    const auto fine = std::count_if(
                   list.begin(), list.end(),
                   [&](const Matter*m) { return enough(m) && m->verdict->state == State::Fine; }),
               oversized = std::count_if(list.begin(), list.end(), enough) - fine;
    const std::size_t before = list.size() - static_cast<std::size_t>(fine + oversized);
    if (!unfolded_) list.resize(before);
    while (cards_.size() < static_cast<qsizetype>(list.size())) {
        auto* card = new VerdictCard(context_, content_);
        connect(card, &VerdictCard::applyFix, this, &VerdictColumn::apply);
        connect(card, &VerdictCard::setAside, this, &VerdictColumn::askSetAside);
        connect(card, &VerdictCard::takeUp, this, &VerdictColumn::takeUp);
        connect(card, &VerdictCard::explain, this, &VerdictColumn::explain);
        connect(card, &VerdictCard::momentWanted, this, &VerdictColumn::momentWanted);
        connect(card, &VerdictCard::planWanted, this, &VerdictColumn::planWanted);
        connect(card, &VerdictCard::resized, this, &VerdictColumn::refresh);
        cards_.push_back(card);
    }
    int y = 4;
    const auto placeFold = [&] {
        fold_->setVisible(fine + oversized > 0);
        if (fine + oversized == 0) return;
        QString text = tr("%1 fine").arg(fine);
        if (oversized > 0) text += tr(", %1 oversized").arg(oversized);
        text += unfolded_ ? tr(": hide") : tr(": show");
        fold_->setText(text);
        fold_->setGeometry(linkLeft, y, QFontMetrics(textFont(12)).horizontalAdvance(text) + 8, 20);
        y += 28;
    };
    for (qsizetype i = 0; i < cards_.size(); ++i) {
        VerdictCard* card = cards_[i];
        const bool used = i < static_cast<qsizetype>(list.size());
        card->setVisible(used);
        if (!used) {
            card->setObjectName({});
            continue;
        }
        if (i == static_cast<qsizetype>(before)) placeFold();
        const Matter& m = *list[static_cast<std::size_t>(i)];
        card->setObjectName(QStringLiteral("verdict_") + QString::fromUtf8(ruleKey(*m.verdict)));
        card->show(m, fixes_.fixesFor(m.verdict->rule));
        card->setGeometry(12, y, cardWidth, card->wantedHeight());
        y += card->wantedHeight() + 6;
    }
    if (list.size() <= before) placeFold();
    y = placeOthers(all, y);
    if (content_->size() != QSize(width() - 2, y)) content_->resize(width() - 2, y);
    update(0, 0, width(), 34);
}

int VerdictColumn::placeOthers(const std::vector<Matter>& all, int y) {
    const Project& project = context_.document.project();
    std::vector<const Verdict*> list;
    for (const Matter& m : all) {
        const Verdict& v = *m.verdict;
        const bool bad =
            v.state == State::Over || v.state == State::AtRisk || (v.hazard && mendable(v.state));
        if (bad && !shownHere(m) && (v.hazard || setAsideFor(project, v) == nullptr)) list.push_back(&v);
    }
    while (others_.size() < static_cast<qsizetype>(list.size())) {
        auto* b = new OtherVerdict(content_);
        b->setProperty("role", "rowlink");
        connect(b, &QPushButton::clicked, this, [this, b] {
            const QString station = b->property("station").toString();
            context_.session.setAxis(b->property("axis").toInt());
            if (station != station_) emit stationWanted(station);
        });
        others_.push_back(b);
    }
    const QFontMetrics metrics(textFont(11));
    for (qsizetype i = 0; i < others_.size(); ++i) {
        OtherVerdict* b = others_[i];
        const bool used = i < static_cast<qsizetype>(list.size());
        b->setVisible(used);
        b->setObjectName(used ? QStringLiteral("other%1").arg(i) : QString());
        if (!used) continue;
        const Verdict& v = *list[static_cast<std::size_t>(i)];
        const QString station =
            rules_.contains(QString::fromUtf8(ruleKey(v))) || !stationOf_ ? station_ : stationOf_(v);
        const QString text =
            tr("%1: %2, %3")
                .arg(v.axis != context_.session.axis()
                         ? QString::fromStdString(project.axes[static_cast<std::size_t>(v.axis)].name)
                         : station,
                     QString::fromStdString(title(v)), QString::fromUtf8(stateWord(v.state)));
        b->says = [this, v] {
            return QString::fromStdString(sentence(v, context_.document.project(), context_.system()));
        };
        // Mostly it is the line that stood there; shaping its text takes longest.
        if (b->accessibleName() != text || b->font() != b->shapedIn) {
            b->shapedIn = b->font();
            b->setText(fitted(metrics, text, cardWidth));
            b->setAccessibleName(text);
            b->resize(std::min(cardWidth, metrics.horizontalAdvance(text)) + 8, 20);
        }
        b->setProperty("axis", v.axis);
        b->setProperty("station", station);
        b->move(linkLeft, y);
        y += 22;
    }
    return y;
}

void VerdictColumn::showCard(const Verdict& verdict) {
    for (VerdictCard* card : cards_) {
        if (card->objectName() != QStringLiteral("verdict_") + QString::fromUtf8(ruleKey(verdict))) continue;
        scroll_->verticalScrollBar()->setValue(card->y());
        if (auto* fix = card->findChild<QPushButton*>(QStringLiteral("fix0"));
            fix != nullptr && fix->isVisibleTo(card))
            fix->setFocus();
    }
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

void VerdictColumn::askSetAside(const QStringList& keys) {
    const QString name = titleOf(keys.front());
    bool ok = false;
    const QString reason = QInputDialog::getText(this, tr("Set aside"),
                                                 tr("Why may “%1” be set aside? The reason is kept in the "
                                                    "project and printed on the settings sheet.")
                                                     .arg(name),
                                                 QLineEdit::Normal, {}, &ok)
                               .trimmed();
    const Axis* axis = context_.axis();
    if (!ok || reason.isEmpty() || axis == nullptr) return;
    context_.document.change(tr("Set aside %1").arg(name), [&, id = axis->id](Project& p) {
        for (const QString& key : keys)
            p.setAside.push_back({key.toStdString(), id, {}, reason.toStdString()});
    });
}

void VerdictColumn::takeUp(const QStringList& keys) {
    const Axis* axis = context_.axis();
    if (axis == nullptr) return;
    context_.document.change(tr("Take up %1 again").arg(titleOf(keys.front())),
                             [&, id = axis->id](Project& p) {
                                 std::erase_if(p.setAside, [&](const SetAside& s) {
                                     return s.axis == id && keys.contains(QString::fromStdString(s.rule));
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
               axis != nullptr
                   ? tr("%1: verdicts for %2, worst first").arg(station_, QString::fromStdString(axis->name))
                   : tr("No axis yet, so nothing to judge"));
}

} // namespace gantry::app
