#include "app/widgets/number_field.h"

#include <QKeyEvent>
#include <QStyle>

#include "core/base/text.h"
#include "present/words.h"

namespace dotlane::app {

NumberField::NumberField(Kind kind, double low, double high, QWidget* parent)
    : QLineEdit(parent)
    , kind_(kind)
    , low_(low)
    , high_(high) {
    setObjectName("number");
    connect(this, &QLineEdit::returnPressed, this, &NumberField::commit);
    connect(this, &QLineEdit::textEdited, this, [this] { set_wrong({}); });
    show_value();
}

QString NumberField::text_of(double value) const {
    switch (kind_) {
    case Kind::length:
        return QString::fromStdString(to_text(mm(value), unit_, decimals_));
    case Kind::degrees:
        return QString::fromStdString(number(value, decimals_)) + QChar(0x00B0);
    case Kind::em_space:
        return QString::fromStdString(to_text(exact_ ? EmSpace{0, mm(value)} : EmSpace{value, {}}, unit_));
    case Kind::number:
    case Kind::percent:
        break;
    }
    return QString::fromStdString(number(value, decimals_));
}

void NumberField::show_value() {
    const QString text = word_shown_ ? word_ : text_of(value_);
    if (text != this->text()) setText(text);
    setCursorPosition(0);
    set_wrong({});
}

void NumberField::set(double value, LengthUnit unit) {
    value_ = value;
    unit_ = unit;
    word_shown_ = false;
    if (!hasFocus() || !isModified()) show_value();
}

void NumberField::set_em_space(const EmSpace& space, LengthUnit unit) {
    exact_ = space.exact.has_value();
    set(exact_ ? in_mm(*space.exact) : space.percent, unit);
}

void NumberField::set_word(const QString& word, bool shown) {
    word_ = word;
    word_shown_ = shown;
    if (!hasFocus() || !isModified()) show_value();
}

void NumberField::commit() {
    const QString typed = text().trimmed();
    if (!word_.isEmpty() && (typed.isEmpty() || typed == word_ || typed == text_of(value_) + " " + word_)) {
        const bool news = !word_shown_;
        word_shown_ = true;
        show_value();
        if (news) Q_EMIT word_chosen();
        return;
    }
    const bool was_exact = exact_;
    const QString before = text_of(value_);
    const auto read = parsed(typed.toStdString());
    if (!read) return set_wrong(present::words(read.error().message));
    const double value = *read, low = exact_ ? -100 : low_, high = exact_ ? 500 : high_;
    if (!(value >= low && value <= high)) {
        const QString why = tr("It must lie between %1 and %2.").arg(text_of(low), text_of(high));
        exact_ = was_exact;
        return set_wrong(why);
    }
    const bool same = !word_shown_ && text_of(value) == before;
    word_shown_ = false;
    if (same) return show_value();
    value_ = value;
    show_value();
    Q_EMIT committed(value);
}

Result<double> NumberField::parsed(const std::string& typed) {
    switch (kind_) {
    case Kind::length:
        return parse_length(typed, unit_).map(in_mm);
    case Kind::degrees:
        return parse_angle(typed).map(in_degrees);
    case Kind::percent:
        return parse_percent(typed);
    case Kind::em_space:
        return parse_em_space(typed).map([this](const EmSpace& space) {
            exact_ = space.exact.has_value();
            return exact_ ? in_mm(*space.exact) : space.percent;
        });
    case Kind::number:
        break;
    }
    return parse_number(typed);
}

void NumberField::set_wrong(const QString& why) {
    setToolTip(why);
    if (wrong_ == !why.isEmpty()) return;
    wrong_ = !why.isEmpty();
    setProperty("wrong", wrong_);
    style()->unpolish(this);
    style()->polish(this);
}

void NumberField::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && isModified()) {
        show_value();
        return;
    }
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        const double by = event->modifiers() & Qt::ShiftModifier ? 10 * step_ : step_;
        const double next = std::clamp(value_ + (event->key() == Qt::Key_Up ? by : -by), low_, high_);
        if (next == value_ && !word_shown_) return;
        word_shown_ = false;
        value_ = next;
        show_value();
        Q_EMIT committed(value_);
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void NumberField::focusOutEvent(QFocusEvent* event) {
    if (isModified()) commit();
    QLineEdit::focusOutEvent(event);
}

QSize NumberField::sizeHint() const {
    QSize hint = QLineEdit::sizeHint();
    hint.setWidth(fontMetrics().horizontalAdvance("000.00 mm") + 22);
    return hint;
}

} // namespace dotlane::app
