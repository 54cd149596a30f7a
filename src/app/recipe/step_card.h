// A step of the recipe: its numbers edited in place, what it did, its lane, on or off, its place in the
// order.
#pragma once

#include <QCheckBox>
#include <QComboBox>

#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/field_form.h"
#include "app/widgets/grip.h"
#include "app/widgets/plate_button.h"

namespace dotlane::app {

class StepCard : public Card {
    Q_OBJECT

  public:
    StepCard(Session& session, StepId step, QWidget* parent = nullptr);
    void refresh();
    StepId step() const { return step_; }

    /// To this place among the steps, 0 the first.
    void move_to(int place);

  Q_SIGNALS:
    void lane_opened(dotlane::LaneId lane);
    void dragged(const QPoint& global);
    void dropped(const QPoint& global);
    void given_up();
    void ways_wanted();   ///< other ways to fill
    void pieces_wanted(); ///< to choose which pieces are filled

  protected:
    void keyPressEvent(QKeyEvent* event) override;

  private:
    const Step* current() const;
    void edit(const QString& text, const std::function<void(Step&)>& how, const QString& merge = {});
    void move(int by);
    void show_sources(const Step& step);
    void show_second(const Step& step, const StepKind& kind);
    QString what_it_did(const Step& step);

    Session& session_;
    StepId step_;
    QCheckBox* on_;
    PlateButton* plate_;
    FieldForm* form_;
    QWidget* sources_; ///< what happens to the lines that an outline was made of
    PlateButton* sources_lane_;
    QPushButton* sources_aside_;
    QComboBox* second_; ///< the other line sets that a step works with
    QLabel* figures_;
    Grip* grip_;
    QPushButton* aside_;
    QPushButton* ways_;
    QPushButton* pieces_;
};

/// Shipped families first, as they are fit for cards; then what is installed.
QStringList font_names(FontShelf& shelf, Lettering::Kind kind);
/// All parts but the chosen one.
std::vector<std::pair<PartId, QString>> other_parts(const Session& session);
/// "pieces 4, before 6": the figures that a source or a step gives, in the project's unit.
QStringList figure_words(const std::vector<Figure>& figures, LengthUnit unit);

} // namespace dotlane::app
