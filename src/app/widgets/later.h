// A widget that is made when it is first asked for, so that the window stands without it.
#pragma once

#include <functional>

namespace dotlane::app {

template<class W>
class Later {
  public:
    void by(std::function<W*()> make) { make_ = std::move(make); }
    W* get() {
        if (!widget_) widget_ = make_();
        return widget_;
    }
    W* operator->() { return get(); }
    operator W*() { return get(); }
    /// Null while nobody has asked for it.
    W* made() const { return widget_; }

  private:
    std::function<W*()> make_;
    W* widget_ = nullptr; ///< owned by its parent
};

} // namespace dotlane::app
