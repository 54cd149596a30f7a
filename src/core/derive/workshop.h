// The one pipeline: project -> evaluated parts -> sheets -> plan, with the one list of checks. The window and
// the CLI both call it; neither computes anything on its own.
#pragma once

#include <atomic>
#include <deque>
#include <functional>
#include <mutex>

#include "core/derive/derived.h"
#include "core/derive/stages.h"

namespace dotlane {

class Workshop {
  public:
    explicit Workshop(Catalog catalog);

    const Catalog& catalog() const { return *catalog_; }
    /// Another one from now on: a maker has kept something of a tool. The old ones stay, as does what was
    /// derived with them. Waits for what is being derived. One that says the same changes nothing.
    void take_catalog(Catalog catalog);
    /// The fonts that ship with the program are read when they are first asked for. Any thread.
    FontShelf& fonts();
    /// Called from the working thread with what can be drawn already: parts and sheets, before the plan; and
    /// before that, where a first part is asked for, with that part (and those it takes lines of) alone.
    using Early = std::function<void(std::shared_ptr<const Derived>)>;
    /// Evaluates, lays out, checks and plans. Null when cancelled. May be called from any thread; calls take
    /// turns.
    std::shared_ptr<const Derived> derive(std::shared_ptr<const Project> project,
                                          Progress& progress = no_progress(), const Early& early = {},
                                          const Wanted& wanted = {});
    /// A project with the first machine of the catalog and nothing in it.
    Project new_project(std::string name) const;
    /// What is kept of the project that was derived last: for tests of what an edit costs. Not while
    /// deriving.
    Stages& stages() { return stages_; }

  private:
    std::deque<Catalog> catalogs_;
    std::atomic<const Catalog*> catalog_; ///< the last one
    std::mutex turn_;                     ///< of derive: it guards the stages
    std::once_flag fonts_ready_;
    FontShelf fonts_;
    Stages stages_;
};

} // namespace dotlane
