// --only and --without: what this run makes, without changing the project.
#pragma once

#include <CLI/CLI.hpp>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/project/not_this_run.h"
#include "core/project/project.h"

namespace dotlane::cli {

class Only {
  public:
    void declare(CLI::App& app);
    /// Errors: "cli.unknown", those of names.h.
    Result<NotThisRun> left_out(const Project& project) const;

  private:
    std::vector<std::string> only_, without_;
};

} // namespace dotlane::cli
