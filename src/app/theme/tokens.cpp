// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/tokens.h"

#include <QApplication>
#include <QFontDatabase>
#include <array>

namespace gantry::app {
namespace {
constexpr auto nightProperty = "gantryNight";
}

const Tokens& dayTokens() {
    static const Tokens t{QColor(0xF3F1EA), QColor(0xFCFBF8), QColor(0xDAD5C9), QColor(0xEAE6DC),
                          QColor(0x1F2A30), QColor(0x58646A), QColor(0x656F72), QColor(0x1E6A74),
                          QColor(0xFCFBF8), QColor(0xE1EEEE), QColor(0x456F42), QColor(0x8F6312),
                          QColor(0xAE412C), QColor(0x67588F), QColor(0xA05522), QColor(0x8A3A5A)};
    return t;
}

const Tokens& nightTokens() {
    static const Tokens t{QColor(0x171C1F), QColor(0x1F262A), QColor(0x34404A), QColor(0x283139),
                          QColor(0xE4E1D8), QColor(0xA9B0AE), QColor(0x8A938F), QColor(0x5FB3BC),
                          QColor(0x171C1F), QColor(0x22383D), QColor(0x86B583), QColor(0xDDB25A),
                          QColor(0xE0806B), QColor(0xA99BCF), QColor(0xDD9A68), QColor(0xD08BA8)};
    return t;
}

bool isNight() {
    return qApp->property(nightProperty).toBool();
}
const Tokens& tokens() {
    return isNight() ? nightTokens() : dayTokens();
}
void setNight(bool night) {
    qApp->setProperty(nightProperty, night);
}

QColor stateColour(State state) {
    const Tokens& t = tokens();
    switch (state) {
    case State::Over:
        return t.brick;
    case State::AtRisk:
        return t.rust;
    case State::Tight:
        return t.straw;
    case State::Fine:
        return t.moss;
    case State::Oversized:
        return t.heather;
    case State::Unknown:
        break;
    }
    return t.third;
}

QPen axisPen(int axisIndex, qreal width) {
    const Tokens& t = tokens();
    const std::array colours{t.lake, t.heather, t.rust, t.plum, t.moss, t.straw};
    static const std::array<QList<qreal>, 4> dashes{QList<qreal>{}, {4, 2}, {1, 1.5}, {5, 1.5, 1, 1.5}};
    const auto i = static_cast<std::size_t>(axisIndex < 0 ? 0 : axisIndex);
    QPen pen(colours[i % colours.size()], width);
    // Patterns change first, so that neighbours differ in both and no pair repeats within twelve axes.
    if (const QList<qreal>& dash = dashes[i % dashes.size()]; !dash.isEmpty()) pen.setDashPattern(dash);
    return pen;
}

QFont textFont(int px, bool bold) {
    QFont f(QStringLiteral("Gantry Text"));
    f.setPixelSize(px);
    f.setBold(bold);
    return f;
}

void loadFonts() {
    QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/GantryText-Regular.otf"));
    QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/GantryText-Bold.otf"));
    QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/GantryMono-Regular.otf"));
}

QString styleSheet() {
    const Tokens& t = tokens();
    QString s = QStringLiteral(R"(
QWidget { color: @ink; font-family: "Gantry Text"; font-size: 12px; }
QDialog { background: @paper; }
QToolTip { background: @sheet; color: @ink; border: 1px solid @line; padding: 4px; }
QLineEdit, QComboBox, QPlainTextEdit { background: @sheet; border: 1px solid @line; border-radius: 4px; padding: 2px 6px;
  selection-background-color: @lake; selection-color: @onLake; }
QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus, QTableView:focus { border: 1px solid @lake; }
QLineEdit[refused="true"] { border: 1px solid @brick; }
QLineEdit:disabled { color: @third; }
QComboBox::drop-down { border: 0; width: 20px; }
QComboBox::down-arrow { image: url(:/icons/open-@theme.svg); width: 12px; height: 12px; }
QComboBox QAbstractItemView, QMenu { background: @sheet; border: 1px solid @line; selection-background-color: @lakeWash; selection-color: @ink; }
QMenu::item { padding: 5px 22px 5px 14px; }
QMenu::item:selected { background: @lakeWash; }
QMenu::item:disabled { color: @third; }
QMenu::separator { height: 1px; background: @line; margin: 3px 8px; }
QPushButton, QToolButton { background: @sheet; border: 1px solid @line; border-radius: 4px; padding: 4px 12px; }
QPushButton:hover, QToolButton:hover { background: @lakeWash; }
QPushButton:focus, QToolButton:focus { border: 1px solid @lake; }
QPushButton:checked, QToolButton:checked { background: @lakeWash; border: 1px solid @lake; color: @lake; }
QPushButton:disabled, QToolButton:disabled { color: @third; }
QPushButton[role="primary"] { background: @lake; color: @onLake; border: 1px solid @lake; }
QPushButton[role="primary"]:disabled { background: @sheet; color: @third; border: 1px solid @line; }
QPushButton[role="fix"] { background: transparent; color: @lake; border: 1px solid @lake; padding: 2px 8px; text-align: left; }
QPushButton[role="link"], QToolButton[role="source"] { background: transparent; border: 0; padding: 0 2px; color: @lake; font-size: 10px; }
QPushButton[role="ratio"] { background: transparent; border: 0; padding: 0; color: @lake; font-size: 12px; text-align: right; }
QPushButton[role="rowlink"] { background: transparent; border: 0; padding: 0 2px; color: @lake; font-size: 11px; text-align: left; }
QToolButton[role="source"][weak="true"] { color: @straw; }
QToolButton[role="source"]::menu-indicator { image: none; width: 0; }
QToolButton::menu-indicator { image: none; width: 0; }
QCheckBox { spacing: 6px; }
QCheckBox::indicator { width: 13px; height: 13px; border: 1px solid @third; border-radius: 3px; background: @sheet; }
QCheckBox::indicator:checked { image: url(:/icons/tick-@theme.svg); border: 1px solid @lake; }
QRadioButton { spacing: 6px; }
QRadioButton::indicator { width: 11px; height: 11px; border: 2px solid @third; border-radius: 7px; background: @sheet; }
QRadioButton::indicator:checked { background: @lake; border: 2px solid @lake; }
QRadioButton:focus { color: @lake; }
QPlainTextEdit { font-family: "Gantry Mono"; font-size: 11px; }
QCheckBox:focus { color: @lake; }
QTableView::item:focus { background: @lakeWash; color: @ink; border: 0; }
QTableView { background: @sheet; border: 1px solid transparent; gridline-color: @faintLine; selection-background-color: @lakeWash; selection-color: @ink; }
QSlider::groove:horizontal { height: 4px; background: @line; border-radius: 2px; }
QSlider::sub-page:horizontal { height: 4px; background: @lake; border-radius: 2px; }
QSlider::handle:horizontal { width: 12px; height: 12px; margin: -4px 0; background: @sheet; border: 1px solid @lake; border-radius: 6px; }
QSlider::handle:horizontal:focus { background: @lake; }
QSpinBox, QProgressBar { background: @sheet; color: @ink; border: 1px solid @line; border-radius: 4px; padding: 2px 6px; }
QHeaderView { background: @sheet; border: 0; }
QHeaderView::section { background: @sheet; color: @second; border: 0; border-bottom: 1px solid @line; padding: 4px 6px; }
QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; border: 0; }
QScrollBar:vertical { background: transparent; width: 9px; margin: 0; }
QScrollBar::handle:vertical { background: @line; border-radius: 4px; min-height: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
QScrollBar:horizontal { background: transparent; height: 9px; margin: 0; }
QScrollBar::handle:horizontal { background: @line; border-radius: 4px; min-width: 24px; }
QTableCornerButton::section { background: @sheet; border: 0; border-bottom: 1px solid @line; }
QTabBar { background: transparent; }
QTabBar::tab { background: transparent; color: @second; border: 0; border-bottom: 2px solid transparent; padding: 1px 7px 2px 7px; font-size: 11px; }
QTabBar::tab:selected { color: @lake; border-bottom: 2px solid @lake; font-weight: bold; }
QTabBar::tab:hover { color: @lake; }
QPushButton[small="true"] { padding: 1px 6px; font-size: 11px; }
QPushButton::menu-indicator { width: 8px; subcontrol-position: right center; subcontrol-origin: padding; right: 5px; }
QPushButton[menu="true"] { padding-right: 18px; }
QLabel[role="caption"] { color: @second; }
QLabel[role="quiet"] { color: @second; }
QLabel[role="title"] { font-size: 14px; font-weight: bold; }
QLabel[role="error"] { color: @brick; }
)");
    const std::array<std::pair<const char*, QColor>, 12> names{{{"@faintLine", t.faintLine},
                                                                {"@lakeWash", t.lakeWash},
                                                                {"@onLake", t.onLake},
                                                                {"@paper", t.paper},
                                                                {"@sheet", t.sheet},
                                                                {"@line", t.line},
                                                                {"@ink", t.ink},
                                                                {"@second", t.second},
                                                                {"@third", t.third},
                                                                {"@lake", t.lake},
                                                                {"@straw", t.straw},
                                                                {"@brick", t.brick}}};
    for (const auto& [name, colour] : names) s.replace(QLatin1String(name), colour.name());
    return s.replace(QLatin1String("@theme"), isNight() ? QLatin1String("night") : QLatin1String("day"));
}

} // namespace gantry::app
