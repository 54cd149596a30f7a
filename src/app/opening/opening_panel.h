// A file that has been read and waits to be taken in: its size is settled, each colour's lane is confirmed or
// changed. Nothing of the project changes before "Take it in".
#pragma once

#include <QButtonGroup>
#include <QComboBox>
#include <memory>

#include "app/bench/canvas.h"
#include "app/commands/opener.h"
#include "app/commands/session.h"
#include "app/widgets/card.h"
#include "app/widgets/number_field.h"
#include "app/widgets/side_panel.h"
#include "core/opening/opening.h"

namespace dotlane::app {

/// The drawing as its file drew it.
class OpeningView : public Canvas {
    Q_OBJECT

  public:
    explicit OpeningView(QWidget* parent = nullptr);
    void show_drawing(const Opened& opened, double factor, LengthUnit unit);
    void show_picture(const OpenedPicture& opened, Length width, LengthUnit unit);

  protected:
    dotlane::Box world() const override;
    Painting content() const override;
    std::size_t weight() const override { return ~std::size_t{0}; } // a file may hold anything
    void paint_overlay(QPainter& painter) override;

  private:
    std::shared_ptr<const Drawing> drawing_;
    QImage picture_;
    dotlane::Box box_;
    double factor_ = 1;
};

class OpeningPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit OpeningPanel(Session& session, QWidget* parent = nullptr);
    void show_file(std::shared_ptr<OpenedFile> file);
    void forget() { file_.reset(); }
    bool waiting() const { return file_ != nullptr; }

  Q_SIGNALS:
    void scaled(const dotlane::Opened& opened, double factor);
    void picture_scaled(const dotlane::OpenedPicture& opened, dotlane::Length width);
    void picture_taken(const dotlane::OpenedPicture& opened);
    void as_picture_wanted(); ///< of the file that is shown
    void taken();             ///< the part is in the project and chosen
    void given_up();

  private:
    void build();
    void build_soon();
    void begin_with(const StepKind* kind);
    void treat(const Finding& finding);
    QWidget* size_card();
    QWidget* begin_card();
    QWidget* asked_size(const QString& file_name, const std::vector<ScaleChoice>& choices, double width_now,
                        std::function<Result<ScaleChoice>(Length)> for_width);
    QWidget* gathering_card(std::size_t index);
    void fill_tools(QComboBox* tools, std::size_t index);
    void set_factor(double factor);
    void take();

    Session& session_;
    const Opened& opened() const { return file_->opened; }
    std::shared_ptr<OpenedFile> file_;
    std::optional<double> factor_;
    StationColumn* stations_;
    QPushButton* take_;
    QButtonGroup* sizes_ = nullptr;
    NumberField* width_ = nullptr;
    QComboBox* begin_ = nullptr;     ///< null: it is no drawing
    const StepKind* kind_ = nullptr; ///< that the part is to begin with; null: none
    QLabel* result_ = nullptr;
};

} // namespace dotlane::app
