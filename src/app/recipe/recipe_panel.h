// The recipe of the chosen part: source, line sets, steps in order of evaluation; its findings under them.
#pragma once

#include <QPointer>

#include "app/commands/session.h"
#include "app/widgets/later.h"
#include "app/widgets/side_panel.h"

class QPushButton;

namespace dotlane::app {

class SourceCard;
class LineSetCard;
class StepCard;
class FindingList;
class StepPicker;
class FillPicker;
class Picker;

class RecipePanel : public SidePanel {
    Q_OBJECT

  public:
    explicit RecipePanel(Session& session, QWidget* parent = nullptr);

    /// Makes the cards now; until then there are none, so that the drawing on the bench does not wait for
    /// them.
    void wake();

    /// The steps that can be added, instead of the recipe, until one is chosen.
    void show_picker();
    /// Other ways to make a fill, instead of the recipe, until one is chosen.
    void show_ways(StepId step);

  Q_SIGNALS:
    void lane_opened(dotlane::LaneId lane);
    void step_hovered(dotlane::StepId step); ///< none when the pointer leaves
    void place_wanted(const dotlane::PlaceBox& box);
    void fill_wanted(std::vector<dotlane::LineSetId> sets); ///< none: fill the chosen lines
    void glyphs_wanted();
    void pieces_wanted(dotlane::StepId fill); ///< to choose on the bench which are filled
    void layers_wanted(int count, dotlane::Length reveal);
    void step_wanted(const QString& kind); ///< on the chosen lines

  private:
    void show_recipe();
    void end_picking();
    bool picking() const;
    StepPicker* make_picker();
    FillPicker* make_ways();
    void lay_in(Picker* picker);
    void show_instead(Picker* picker);
    void rebuild();
    void show_findings();
    /// How many steps have their middle above this place of the screen.
    std::size_t steps_above(const QPoint& global) const;
    void drop(StepCard* card, const QPoint& global);
    /// The card that the pointer is on: its result is lit on the bench.
    void light(StepCard* card);

    Session& session_;
    QPushButton* add_;
    Later<StepPicker> picker_;
    Later<FillPicker> ways_;
    StationColumn* stations_;
    FindingList* findings_;
    SourceCard* source_ = nullptr;
    std::vector<LineSetCard*> sets_;
    std::vector<StepCard*> steps_;
    QPointer<StepCard> lit_;
    PartId shown_;
    bool awake_ = false, built_ = false;
    bool follow_on_ = false;
    StepId followed_; ///< the step that was last brought into view
};

} // namespace dotlane::app
