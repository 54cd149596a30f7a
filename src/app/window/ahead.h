// Work on the project to open, done while the window is still being made.
#pragma once

#include <future>
#include <string>

#include "core/derive/workshop.h"

namespace dotlane::app {

/// Evaluates the first part of the project in a file, so that the workshop has it at hand when the window
/// opens it. A file that is no project, or that cannot be read, is passed over: the window says what is wrong
/// with it.
class Ahead {
  public:
    Ahead(Workshop& workshop, std::string path);
    /// The project that the arguments ask for, if any. Before there is an application.
    static std::optional<Ahead> of_arguments(Workshop& workshop, int argc, char** argv);
    /// The project that was read from this file, waited for if need be; null when it was another file or
    /// could not be read.
    std::shared_ptr<const Project> project(const std::string& path) const;

  private:
    std::string path_;
    std::shared_future<std::shared_ptr<const Project>> read_;
    std::future<void> work_; ///< waited for at the end
};

std::string demo_path();

} // namespace dotlane::app
