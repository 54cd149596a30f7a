// The one place where what libraries throw becomes an error: around a verb of the command line and a job of
// the window. Everything below answers with values; memory alone can give out anywhere.
#pragma once

#include <new>
#include <stdexcept>

#include "core/base/result.h"

namespace dotlane {

/// The answer of `work`, which gives a Result; error "memory" or "internal" when it throws. What it had
/// changed must be its own until it answers.
template<class Work>
auto caught(Work work) -> decltype(work()) {
    const auto no_memory = [] {
        return fail("memory", say("There is not enough memory for this. Nothing has changed."));
    };
    try {
        return work();
    } catch (const std::bad_alloc&) {
        return no_memory();
    } catch (const std::length_error&) {
        return no_memory();
    } catch (const std::exception& e) {
        return fail("internal",
                    say("Something went wrong inside the program: %1. Nothing has changed; please report it.",
                        as_is(e.what())));
    }
}

} // namespace dotlane
