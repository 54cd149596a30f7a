// The first station of a recipe: where the lines come from, and the finished size.
#pragma once

#include "app/commands/session.h"
#include "app/recipe/colour_row.h"
#include "app/widgets/card.h"
#include "app/widgets/field_form.h"
#include "app/widgets/number_field.h"

class QComboBox;

namespace dotlane::app {

class SourceCard : public Card {
    Q_OBJECT

  public:
    explicit SourceCard(Session& session, QWidget* parent = nullptr);
    void refresh();

  Q_SIGNALS:
    void glyphs_wanted();
    void layers_wanted(int count, dotlane::Length reveal);

  private:
    void offer_aparts();
    QStringList fonts() const;
    void show_made(const Part& part);
    Session& session_;
    QLineEdit* name_;
    QLabel* origin_;
    QWidget *width_cell_, *height_cell_;
    NumberField *width_, *height_, *quantity_, *layers_, *reveal_;
    FieldForm* form_;
    QPushButton* glyphs_;
    QWidget* layer_row_;
    QPushButton *layer_, *levels_, *pieces_, *apart_;
    ColourRow* colours_;
    QLabel* figures_;
    QComboBox* stock_;
};

} // namespace dotlane::app
