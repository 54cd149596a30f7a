#include "app/widgets/field_form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QCompleter>
#include <QCoreApplication>
#include <QGridLayout>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/widgets/card.h"
#include "app/widgets/focus.h"
#include "app/widgets/number_field.h"
#include "app/widgets/side_panel.h"
#include "app/widgets/typing.h"

namespace dotlane::app {

struct FieldForm::Row {
    enum class Kind {
        length,
        degrees,
        number,
        percent,
        em_space,
        whole,
        flag,
        choice,
        line,
        lines,
        font,
        part
    };
    Kind kind = Kind::line;
    QString key, label, help;
    double low = 0, high = 0, value = 0;                     ///< mm, degrees or plain
    bool empty = false, may_be_empty = false, exact = false; ///< `exact`: an em space that is a length
    bool seldom = false;
    QStringList words;
    QString text;
    std::vector<PartId> parts; ///< of the words; the value is one of their numbers
    bool same_value(const Row& o) const {
        return key == o.key && value == o.value && empty == o.empty && exact == o.exact && text == o.text;
    }
    bool same_control(const Row& o) const {
        return kind == o.kind && key == o.key && low == o.low && high == o.high && words == o.words;
    }
};

namespace {

using Row = FieldForm::Row;

QString tr_field(const char* text) {
    return QCoreApplication::translate("Fields", text);
}

/// Reads every member into a row.
class Lister final : public Fields {
  public:
    std::vector<Row> rows;
    void length(FieldName name, Length& value, Length low, Length high) override {
        Row& row = add(Row::Kind::length, name);
        row.low = in_mm(low), row.high = in_mm(high), row.value = in_mm(value);
    }
    void maybe_length(FieldName name, std::optional<Length>& value, Length low, Length high,
                      const char* word) override {
        Length shown = value.value_or(mm(0));
        length(name, shown, low, high);
        rows.back().may_be_empty = true;
        rows.back().empty = !value;
        rows.back().words = {tr_field(word)};
    }
    void angle(FieldName name, Angle& value) override {
        Row& row = add(Row::Kind::degrees, name);
        row.low = -3600, row.high = 3600, row.value = in_degrees(value);
    }
    void number(FieldName name, double& value, double low, double high) override {
        Row& row = add(Row::Kind::number, name);
        row.low = low, row.high = high, row.value = value;
    }
    void percent(FieldName name, double& value, double low, double high) override {
        number(name, value, low, high);
        rows.back().kind = Row::Kind::percent;
    }
    void em_space(FieldName name, EmSpace& value, double low, double high) override {
        Row& row = add(Row::Kind::em_space, name);
        row.low = low, row.high = high, row.exact = value.exact.has_value();
        row.value = value.exact ? in_mm(*value.exact) : value.percent;
    }
    void whole(FieldName name, int& value, int low, int high) override {
        Row& row = add(Row::Kind::whole, name);
        row.low = low, row.high = high, row.value = value;
    }
    void flag(FieldName name, bool& value) override { add(Row::Kind::flag, name).value = value; }
    void choice(FieldName name, int& value, std::span<const char* const> words) override {
        if (words.size() < 2) return; // nothing to choose
        Row& row = add(Row::Kind::choice, name);
        row.value = value;
        for (const char* word : words)
            row.words << tr_field(word).replace('-', ' ');
    }
    void text(FieldName name, std::string& value, TextKind kind) override {
        add(kind == TextKind::plain   ? Row::Kind::line
            : kind == TextKind::lines ? Row::Kind::lines
                                      : Row::Kind::font,
            name)
            .text = QString::fromStdString(value);
    }
    void part(FieldName name, PartId& value) override { add(Row::Kind::part, name).value = value.value; }
    bool all() const override { return false; }

  private:
    Row& add(Row::Kind kind, FieldName name) {
        Row row;
        row.kind = kind;
        row.key = name.key;
        row.label = tr_field(name.label);
        row.help = *name.help ? tr_field(name.help) : QString();
        row.seldom = name.seldom;
        rows.push_back(std::move(row));
        return rows.back();
    }
};

/// Sets one member to what its control says.
class Setter final : public Fields {
  public:
    explicit Setter(Row row)
        : row_(std::move(row)) {}
    void length(FieldName name, Length& value, Length, Length) override {
        if (mine(name)) value = mm(row_.value);
    }
    void maybe_length(FieldName name, std::optional<Length>& value, Length, Length, const char*) override {
        if (mine(name)) value = row_.empty ? std::nullopt : std::optional(mm(row_.value));
    }
    void angle(FieldName name, Angle& value) override {
        if (mine(name)) value = degrees(row_.value);
    }
    void number(FieldName name, double& value, double, double) override {
        if (mine(name)) value = row_.value;
    }
    void em_space(FieldName name, EmSpace& value, double, double) override {
        if (mine(name)) value = row_.exact ? EmSpace{0, mm(row_.value)} : EmSpace{row_.value, {}};
    }
    void whole(FieldName name, int& value, int, int) override {
        if (mine(name)) value = static_cast<int>(std::lround(row_.value));
    }
    void flag(FieldName name, bool& value) override {
        if (mine(name)) value = row_.value != 0;
    }
    void choice(FieldName name, int& value, std::span<const char* const>) override {
        if (mine(name)) value = static_cast<int>(row_.value);
    }
    void text(FieldName name, std::string& value, TextKind) override {
        if (mine(name)) value = row_.text.toStdString();
    }
    void part(FieldName name, PartId& value) override {
        if (mine(name)) value = PartId{static_cast<std::uint32_t>(row_.value)};
    }
    bool all() const override { return true; }

  private:
    bool mine(FieldName name) const { return row_.key == QLatin1String(name.key); }
    Row row_;
};

/// Text of several lines that grows with them.
class TextBox : public QPlainTextEdit {
  public:
    explicit TextBox(QWidget* parent)
        : QPlainTextEdit(parent) {
        setTabChangesFocus(true);
        setVerticalScrollBarPolicy(Qt::ScrollBarAsNeeded);
        setLineWrapMode(QPlainTextEdit::WidgetWidth);
        setFixedHeight(fontMetrics().lineSpacing() * 2 + 14);
    }
};

} // namespace

FieldForm::FieldForm(QWidget* parent)
    : QWidget(parent)
    , grid_(new QGridLayout)
    , more_(link_button({}, this)) {
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(5);
    all->addLayout(grid_);
    all->addWidget(more_, 0, Qt::AlignLeft);
    more_->setObjectName("more-fields");
    more_->hide();
    connect(more_, &QPushButton::clicked, this, [this] {
        open_ = !open_;
        Q_EMIT opened();
    });
    grid_->setContentsMargins(0, 0, 0, 0);
    grid_->setHorizontalSpacing(8);
    grid_->setVerticalSpacing(5);
    grid_->setColumnStretch(0, 1);
    grid_->setColumnStretch(1, 1);
}

FieldForm::~FieldForm() = default;

void FieldForm::set_empty_value(const QString& key, Length value) {
    empty_values_[key] = value;
}

void FieldForm::show_fields(const Visit& visit, LengthUnit unit, const Visit& fresh) {
    unit_ = unit;
    Lister lister, offered;
    visit(lister);
    if (fresh) fresh(offered);
    const auto as_offered = [&](const Row& row) {
        return row.seldom && std::any_of(offered.rows.begin(), offered.rows.end(),
                                         [&](const Row& o) { return o.same_value(row); });
    };
    more_->setVisible(std::any_of(lister.rows.begin(), lister.rows.end(), as_offered));
    more_->setText(open_ ? tr("Fewer settings") : tr("More settings"));
    if (!open_) std::erase_if(lister.rows, as_offered);
    for (Row& row : lister.rows)
        if (row.kind == Row::Kind::font && fonts_)
            row.words = fonts_();
        else if (row.kind == Row::Kind::part && parts_)
            for (const auto& [id, name] : parts_())
                row.parts.push_back(id), row.words << name;
    const bool same = std::equal(rows_.begin(), rows_.end(), lister.rows.begin(), lister.rows.end(),
                                 [](const Row& a, const Row& b) { return a.same_control(b); });
    if (!same) rebuild(lister.rows);
    rows_ = lister.rows;
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const Row& row = rows_[i];
        QWidget* w = controls_[i];
        if (auto* number = qobject_cast<NumberField*>(w)) {
            const auto empty = empty_values_.find(row.key);
            if (row.kind == Row::Kind::em_space)
                number->set_em_space(row.exact ? EmSpace{0, mm(row.value)} : EmSpace{row.value, {}}, unit_);
            else
                number->set(row.empty && empty != empty_values_.end() ? in_mm(empty->second) : row.value,
                            unit_);
            if (row.may_be_empty) number->set_word(row.words.front(), row.empty);
        } else if (auto* tick = qobject_cast<QCheckBox*>(w)) {
            tick->setChecked(row.value != 0);
        } else if (auto* box = qobject_cast<QComboBox*>(w)) {
            if (row.kind == Row::Kind::font) {
                if (!being_typed(box->lineEdit())) box->setCurrentText(row.text);
            } else if (row.kind == Row::Kind::part) {
                const auto at = std::find(row.parts.begin(), row.parts.end(),
                                          PartId{static_cast<std::uint32_t>(row.value)});
                box->setCurrentIndex(at == row.parts.end() ? -1 : static_cast<int>(at - row.parts.begin()));
            } else {
                box->setCurrentIndex(static_cast<int>(row.value));
            }
        } else if (auto* line = qobject_cast<QLineEdit*>(w)) {
            if (!being_typed(line)) line->setText(row.text);
        } else if (auto* text = qobject_cast<QPlainTextEdit*>(w)) {
            if (text->toPlainText() != row.text && !text->hasFocus()) {
                const QSignalBlocker quiet(text);
                text->setPlainText(row.text);
            }
        }
    }
}

void FieldForm::rebuild(const std::vector<Row>& rows) {
    const QString held = take_focus(this);
    while (QLayoutItem* item = grid_->takeAt(0)) {
        if (QWidget* w = item->widget()) {
            w->hide(); // it may be the sender of what led here
            w->deleteLater();
        }
        delete item;
    }
    controls_.clear();
    int at = 0; // cells taken, two a row
    for (const Row& row : rows) {
        QWidget* w = control(row);
        w->setObjectName(row.key);
        w->setToolTip(row.help);
        w->setAccessibleName(row.label);
        controls_.push_back(w);
        const bool wide = row.kind == Row::Kind::lines || row.kind == Row::Kind::font ||
                          row.kind == Row::Kind::part ||
                          (row.kind == Row::Kind::flag && row.label.size() > 16);
        const bool first_flag = row.kind == Row::Kind::flag && controls_.size() > 1 &&
                                rows[controls_.size() - 2].kind != Row::Kind::flag;
        if ((wide || first_flag) && at % 2 == 1) ++at;
        QWidget* cell = row.kind == Row::Kind::flag ? w : captioned(row.label, w, this);
        grid_->addWidget(cell, at / 2, at % 2, 1, wide ? 2 : 1,
                         row.kind == Row::Kind::flag ? Qt::AlignBottom : Qt::Alignment());
        cell->show();
        at += wide ? 2 : 1;
    }
    give_focus(this, held);
}

QWidget* FieldForm::control(const Row& row) {
    const auto tell = [this, key = row.key](const std::function<void(Row&)>& change) {
        for (const Row& now : rows_)
            if (now.key == key) {
                Row next = now;
                change(next);
                Q_EMIT edited(key, now.label, std::make_shared<Setter>(next));
                return;
            }
    };
    switch (row.kind) {
    case Row::Kind::length:
    case Row::Kind::degrees:
    case Row::Kind::number:
    case Row::Kind::percent:
    case Row::Kind::em_space:
    case Row::Kind::whole: {
        const auto kind = row.kind == Row::Kind::length     ? NumberField::Kind::length
                          : row.kind == Row::Kind::degrees  ? NumberField::Kind::degrees
                          : row.kind == Row::Kind::percent  ? NumberField::Kind::percent
                          : row.kind == Row::Kind::em_space ? NumberField::Kind::em_space
                                                            : NumberField::Kind::number;
        auto* field = new NumberField(kind, row.low, row.high, this);
        if (row.kind == Row::Kind::whole) field->set_decimals(0);
        if (row.kind == Row::Kind::degrees) field->set_step(5);
        if (row.kind == Row::Kind::length && row.high <= 100) field->set_step(0.05);
        if (row.may_be_empty) {
            field->setPlaceholderText(row.words.front());
            connect(field, &NumberField::word_chosen, this, [tell] { tell([](Row& r) { r.empty = true; }); });
        }
        connect(field, &NumberField::committed, this, [tell, field](double v) {
            const bool exact = field->em_space().exact.has_value();
            tell([v, exact](Row& r) { r.value = v, r.empty = false, r.exact = exact; });
        });
        return field;
    }
    case Row::Kind::flag: {
        auto* tick = new QCheckBox(row.label, this);
        connect(tick, &QCheckBox::clicked, this, [tell](bool on) { tell([on](Row& r) { r.value = on; }); });
        return tick;
    }
    case Row::Kind::choice: {
        auto* box = new QComboBox(this);
        box->addItems(row.words);
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(4);
        connect(box, &QComboBox::activated, this, [tell](int i) { tell([i](Row& r) { r.value = i; }); });
        return box;
    }
    case Row::Kind::part: {
        auto* box = new QComboBox(this);
        box->addItems(row.words);
        box->setPlaceholderText(tr("choose a part"));
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        connect(box, &QComboBox::activated, this, [tell](int i) {
            tell([i](Row& r) { r.value = r.parts[static_cast<std::size_t>(i)].value; });
        });
        return box;
    }
    case Row::Kind::font: {
        auto* box = new QComboBox(this);
        box->setEditable(true);
        box->setInsertPolicy(QComboBox::NoInsert);
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->addItems(row.words);
        box->completer()->setCompletionMode(QCompleter::PopupCompletion);
        box->completer()->setFilterMode(Qt::MatchContains);
        const auto take = [tell, box] {
            const QString text = box->currentText().trimmed();
            tell([text](Row& r) { r.text = text; });
        };
        connect(box, &QComboBox::activated, this, take);
        on_typed(box->lineEdit(), this, take);
        return box;
    }
    case Row::Kind::line: {
        auto* line = new QLineEdit(this);
        // What it is then is said behind its help.
        const QString empty = tr_field("empty: ");
        const qsizetype said = row.help.indexOf(empty);
        line->setPlaceholderText(said < 0 ? tr("none") : row.help.mid(said + empty.size()));
        on_typed(line, this, [tell, line] {
            const QString text = line->text();
            tell([text](Row& r) { r.text = text; });
        });
        return line;
    }
    case Row::Kind::lines: {
        auto* text = new TextBox(this);
        connect(text, &QPlainTextEdit::textChanged, this,
                [tell, text] { tell([now = text->toPlainText()](Row& r) { r.text = now; }); });
        return text;
    }
    }
    return nullptr;
}

} // namespace dotlane::app
