// A field for a number that takes arithmetic and units: "3 1/2 in", "8.5in/2", "120mm - 2*6".
#pragma once

#include <QLineEdit>

#include "core/base/measure.h"

namespace dotlane::app {

class NumberField : public QLineEdit {
    Q_OBJECT

  public:
    enum class Kind { length, degrees, number, percent, em_space };
    /// `low` and `high` are in mm, degrees, plain or hundredths (of an em space: of its share).
    NumberField(Kind kind, double low, double high, QWidget* parent = nullptr);

    /// Shown in `unit`; does not emit.
    void set(double value, LengthUnit unit = LengthUnit::mm);
    /// Shows a word instead of a number ("auto"); typing that word back calls `word_chosen`.
    void set_word(const QString& word, bool shown);
    /// Of an em space: hundredths of the em, or millimetres.
    void set_em_space(const EmSpace& space, LengthUnit unit);
    double value() const { return value_; }
    EmSpace em_space() const { return exact_ ? EmSpace{0, mm(value_)} : EmSpace{value_, {}}; }
    bool wrong() const { return wrong_; }
    /// What the arrow keys and the wheel add, in mm, degrees or plain.
    void set_step(double step) { step_ = step; }
    void set_decimals(int decimals) { decimals_ = decimals; }

  Q_SIGNALS:
    void committed(double value);
    void word_chosen();

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    QSize sizeHint() const override;

  private:
    void commit();
    void show_value();
    void set_wrong(const QString& why);
    QString text_of(double value) const;

    Kind kind_;
    double low_, high_, value_ = 0, step_ = 1;
    int decimals_ = 2;
    LengthUnit unit_ = LengthUnit::mm;
    QString word_;
    bool word_shown_ = false, wrong_ = false;
    bool exact_ = false; ///< an em space that is a length
    Result<double> parsed(const std::string& typed);
};

} // namespace dotlane::app
