// The chosen sheet's numbers: stock, mat, machine; and the chosen placed part's place, turn, mirror and
// copies.
#pragma once

#include <QCheckBox>
#include <QComboBox>

#include "app/commands/session.h"
#include "app/recipe/finding_list.h"
#include "app/sheets/arrange_card.h"
#include "app/sheets/marks_card.h"
#include "app/widgets/card.h"
#include "app/widgets/number_field.h"
#include "app/widgets/side_panel.h"
#include "core/commands/sheets.h"

namespace dotlane::app {

class SheetPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit SheetPanel(Session& session, QWidget* parent = nullptr);

    // Also commands of the window.
    void add_sheet();
    void place_part();
    void remove_placed();
    void duplicate();
    ArrangeCard& arrange() { return *arrange_; }

  Q_SIGNALS:
    void place_wanted(const dotlane::PlaceBox& box);

  private:
    QWidget* sheet_card();
    QWidget* placed_card();
    void show_sheet();
    void show_findings();
    void change_sheet(const QString& text, ChangeSheet change);
    void change_placed(const QString& text, ChangePlaced change, const QString& merge = {});
    const Placement* placed() const;
    Extent extent_of_placed(const Placement& placement) const;
    void make_copies();
    void choose_placed(const std::vector<PlacementId>& made);

    Session& session_;
    QComboBox *machine_, *stock_, *mat_;
    QLineEdit* name_;
    Card* placed_;
    ArrangeCard* arrange_;
    MarksCard* marks_;
    QLabel *placed_name_, *usable_;
    NumberField *left_, *top_, *turn_, *columns_, *rows_, *gap_;
    QCheckBox* mirrored_;
    QPushButton* remove_sheet_;
    FindingList* findings_;
    bool filling_ = false;
};

} // namespace dotlane::app
