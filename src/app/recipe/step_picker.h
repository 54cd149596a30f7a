// The steps that a recipe can get, grouped by what a maker is after, each with a picture of what it would do
// to the part at hand.
#pragma once

#include <QFutureWatcher>

#include "app/commands/session.h"
#include "app/widgets/picker.h"
#include "core/derive/step_picture.h"

namespace dotlane::app {

class StepPicker : public Picker {
    Q_OBJECT

  public:
    explicit StepPicker(Session& session, QWidget* parent = nullptr);
    ~StepPicker() override;
    /// On the part that is chosen now.
    void open();

  private:
    void draw_pictures();
    void stop_drawing();

    using Pictures = std::vector<StepPicture>; ///< as step_kinds()
    Session& session_;
    QFutureWatcher<Pictures> pictures_;
    std::unique_ptr<Progress> drawing_;
};

} // namespace dotlane::app
