// Other ways to make a fill, each with a picture of it and what it would come to: told, not tried.
#pragma once

#include <QFutureWatcher>

#include "app/commands/session.h"
#include "app/widgets/picker.h"
#include "core/derive/inking.h"

namespace dotlane::app {

class FillPicker : public Picker {
    Q_OBJECT

  public:
    explicit FillPicker(Session& session, QWidget* parent = nullptr);
    ~FillPicker() override;
    /// Of a step of the part that is chosen now.
    void open_for(StepId step);
    StepId step() const { return step_; }
    /// Whether all that it tells is worked out.
    bool ready() const { return ready_; }
    /// Gives the fill the way with this key, if it is still there.
    void take(const QString& key);

  private:
    struct Ways {
        std::vector<FillOption> options; ///< the fill as it is, first
        std::vector<std::pair<AngleGoal, AngleSearch>> angles;
    };
    void show(const Ways& ways);
    void stop();

    Session& session_;
    StepId step_;
    bool ready_ = false;
    Ways ways_;
    QFutureWatcher<std::shared_ptr<const Ways>> watcher_;
    std::unique_ptr<Progress> working_;
};

} // namespace dotlane::app
