#include "app/window/style.h"

#include <QApplication>
#include <QComboBox>
#include <QEvent>
#include <QPainter>
#include <QPalette>
#include <QProxyStyle>
#include <QStyleFactory>

#include "core/base/data_folder.h"
#include "present/theme.h"

namespace dotlane::app {
namespace {

QString sheet_of(const present::Theme& t) {
    // %1 ground %2 panel %3 card %4 ink %5 quiet %6 hairline %7 lamp %8 tide %9 error %10 icons %11 light or
    // dark
    return QStringLiteral(R"(
* { outline: none; }
QMainWindow, #ground { background: %1; }
QWidget { color: %4; font-size: 13px; }
QWidget:disabled { color: %5; }
#panel { background: %2; border-radius: 8px; }
QLabel { background: transparent; }
QLabel[role="title"] { font-size: 19px; font-weight: 600; }
QLabel[role="heading"] { font-size: 14px; font-weight: 600; }
QLabel[role="quiet"] { color: %5; font-size: 12px; }
QLabel[role="body"] { font-size: 13px; }
QLabel[care="true"] { color: %9; font-size: 12px; font-weight: 600; }
QMenuBar { background: %2; border-bottom: 1px solid %6; padding: 2px 4px; }
QMenuBar::item { background: transparent; padding: 4px 10px; border-radius: 5px; }
QMenuBar::item:selected, QMenuBar::item:pressed { background: %6; }
QMenu { background: %3; border: 1px solid %6; padding: 5px; }
QMenu::item { padding: 5px 26px 5px 12px; border-radius: 5px; }
QMenu::item:selected { background: %2; color: %4; }
QMenu::item:disabled { color: %5; }
QMenu::separator { height: 1px; background: %6; margin: 5px 8px; }
QMenu::icon { padding-left: 6px; }
QPushButton[look="pill"] { background: %3; border: 1px solid %6; border-radius: 12px; padding: 4px 13px; min-height: 15px; }
QPushButton[look="pill"]::menu-indicator { image: none; width: 0; }
QPushButton[look="pill"]:hover, QPushButton[look="pill"]:focus { border-color: %7; }
QPushButton[look="pill"]:pressed, QPushButton[look="pill"]:checked { background: %6; }
QPushButton[look="pill"]:disabled { color: %5; background: %2; }
QPushButton[look="main"] { background: %8; color: white; border: none; border-radius: 14px; padding: 6px 22px; font-weight: 600; }
QPushButton[look="main"]:hover { background: %8; border: 1px solid %7; }
QPushButton[look="main"]:focus { border: 2px solid %7; }
QPushButton[look="main"]:disabled { background: %6; color: %5; }
QPushButton[look="link"] { border: none; background: transparent; color: %8; text-decoration: underline; padding: 2px; text-align: left; }
QPushButton[look="link"]:hover, QPushButton[look="link"]:focus { color: %7; }
QLineEdit, QComboBox, QSpinBox, QPlainTextEdit { background: %3; border: 1px solid %6; border-radius: 6px; padding: 3px 7px; selection-background-color: %7; selection-color: white; }
QLineEdit:focus, QPlainTextEdit:focus, QComboBox:focus, QComboBox:on { border-color: %7; }
QLineEdit[wrong="true"] { border: 1px solid %9; }
QLineEdit[look="bare"] { background: transparent; border: 1px solid transparent; padding: 1px 4px; margin-left: -6px; font-size: 14px; font-weight: 600; }
QLineEdit[look="bare"]:hover, QLineEdit[look="bare"]:focus { border-color: %6; background: %3; }
QComboBox { padding-right: 20px; }
QComboBox::drop-down { border: none; width: 20px; }
QComboBox::down-arrow { image: url(%10/chevron-%11.png); width: 12px; height: 12px; }
QComboBoxPrivateContainer { border: none; background: %3; }
QComboBox QAbstractItemView { background: %3; border: 1px solid %6; border-radius: 0; selection-background-color: %2; selection-color: %4; padding: 3px; }
QCheckBox { spacing: 6px; background: transparent; }
QCheckBox:focus, QRadioButton:focus { color: %7; }
QRadioButton { spacing: 6px; background: transparent; }
QCheckBox::indicator, QRadioButton::indicator { width: 14px; height: 14px; border: 1px solid %5; background: %3; }
QCheckBox::indicator { border-radius: 3px; }
QRadioButton::indicator { border-radius: 7px; }
QCheckBox::indicator:hover, QRadioButton::indicator:hover, QCheckBox::indicator:focus, QRadioButton::indicator:focus { border-color: %7; }
QCheckBox::indicator:disabled { border-color: %6; }
QCheckBox::indicator:checked { image: url(%10/tick-%11.png); }
QRadioButton::indicator:checked { image: url(%10/dot-%11.png); }
QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; border: none; }
QScrollBar:vertical { background: transparent; width: 9px; margin: 0; }
QScrollBar::handle:vertical { background: %6; border-radius: 4px; min-height: 26px; }
QScrollBar:horizontal { background: transparent; height: 9px; margin: 0; }
QScrollBar::handle:horizontal { background: %6; border-radius: 4px; min-width: 26px; }
QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
QScrollBar::add-page, QScrollBar::sub-page { background: transparent; }
QSlider::groove:horizontal { background: %6; height: 4px; border-radius: 2px; }
QSlider::sub-page:horizontal { background: %7; border-radius: 2px; }
QSlider::handle:horizontal { background: %3; border: 2px solid %7; width: 10px; margin: -5px 0; border-radius: 7px; }
QSlider::handle:horizontal:hover, QSlider::handle:horizontal:focus { background: %7; }
QSplitter::handle { background: transparent; }
QToolTip { background: #22282c; color: #fffdf9; border: none; padding: 5px 8px; }
QProgressBar { background: %6; border: none; border-radius: 3px; max-height: 6px; }
QProgressBar::chunk { background: %7; border-radius: 3px; }
#glyph-grid, #glyph-others { border: 1px solid %6; border-radius: 6px; background: %3; }
QListView { background: %3; border: 1px solid %6; border-radius: 6px; }
#picker-list { background: transparent; border: none; }
QListView::item { padding: 5px 8px; border-radius: 5px; }
QListView::item:selected { background: %2; color: %4; }
)")
        .arg(t.ground.name(), t.panel.name(), t.card.name(), t.ink.name(), t.quiet.name(), t.hairline.name(),
             t.lamp.name(), t.tide.name(), t.error.name())
        .arg(QString::fromStdString(data_folder()) + "/icons", t.dark ? "dark" : "light");
}

/// Fusion, but for the icon of a menu bar that is too narrow for its menus: Fusion's own loads the engine for
/// vector icons, which costs the window's coming up several milliseconds.
class CalmStyle : public QProxyStyle {
  public:
    CalmStyle()
        : QProxyStyle(QStyleFactory::create("Fusion")) {}
    void drawPrimitive(PrimitiveElement what, const QStyleOption* option, QPainter* painter,
                       const QWidget* widget) const override {
        if (what == PE_PanelMenu && widget && widget->inherits("QComboBoxPrivateContainer"))
            return painter->fillRect(option->rect, present::Theme::current().card); // its list has a rim
        QProxyStyle::drawPrimitive(what, option, painter, widget);
    }
    QIcon standardIcon(StandardPixmap which, const QStyleOption* option,
                       const QWidget* widget) const override {
        if (which != SP_ToolBarHorizontalExtensionButton)
            return QProxyStyle::standardIcon(which, option, widget);
        QPixmap arrows(16, 16);
        arrows.fill(Qt::transparent);
        QPainter painter(&arrows);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(QPen(present::Theme::current().ink, 1.6));
        for (const int x : {4, 8})
            painter.drawPolyline(QPolygonF({QPointF(x, 4), QPointF(x + 4, 8), QPointF(x, 12)}));
        painter.end();
        return QIcon(arrows);
    }
};

/// The wheel scrolls a column; it must not change a list that happens to pass under the pointer.
class WheelScrolls : public QObject {
  public:
    using QObject::QObject;
    bool eventFilter(QObject* on, QEvent* event) override {
        if (event->type() != QEvent::Wheel || !qobject_cast<QComboBox*>(on)) return false;
        event->ignore(); // so that it goes on to the column
        return true;
    }
};

} // namespace

void apply_theme(bool dark) {
    present::load_fonts(QString::fromStdString(data_folder()));
    present::Theme::choose(dark);
    const present::Theme& theme = present::Theme::current();
    static const bool once = [] {
        QApplication::setStyle(new CalmStyle);
        qApp->installEventFilter(new WheelScrolls(qApp));
        return true;
    }();
    (void)once;
    QPalette palette;
    palette.setColor(QPalette::Window, theme.ground);
    palette.setColor(QPalette::WindowText, theme.ink);
    palette.setColor(QPalette::Base, theme.card);
    palette.setColor(QPalette::AlternateBase, theme.panel);
    palette.setColor(QPalette::Text, theme.ink);
    palette.setColor(QPalette::Button, theme.panel);
    palette.setColor(QPalette::ButtonText, theme.ink);
    palette.setColor(QPalette::Highlight, theme.lamp);
    palette.setColor(QPalette::HighlightedText, Qt::white);
    palette.setColor(QPalette::PlaceholderText, theme.quiet);
    palette.setColor(QPalette::Link, theme.tide);
    palette.setColor(QPalette::Disabled, QPalette::Text, theme.quiet);
    palette.setColor(QPalette::Disabled, QPalette::ButtonText, theme.quiet);
    QApplication::setPalette(palette);
    QApplication::setFont(present::ui_font(10));
}

void apply_sheet() {
    qApp->setStyleSheet(sheet_of(present::Theme::current()));
}

void apply_style(bool dark) {
    apply_theme(dark);
    apply_sheet();
}

} // namespace dotlane::app
