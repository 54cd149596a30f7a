// How much of a file a reader takes before it stops and says so. Any file of up to 20 MB is then taken or
// refused within seconds and a gigabyte of memory, whatever it repeats; more is read only when it was asked
// for.
#pragma once

#include <cstddef>

#include "core/base/phrase.h"

namespace dotlane {

struct ReadLimits {
    std::size_t bytes = 22'000'000;                    ///< of the file, also after it is unpacked
    std::size_t lines = 150'000, segments = 1'500'000; ///< of the drawing, after everything is expanded
    std::size_t visits = 1'500'000;                    ///< elements, each time a reference leads to one
    std::size_t points = 6'000'000;                    ///< when curves are followed to 0.01 mm
    std::size_t crossings = 400'000;                   ///< of filled lines with themselves
    std::size_t pixels = 40'000'000;                   ///< of a picture
    std::size_t edges = 1'500'000;                     ///< between dark and light pixels of a picture
    std::size_t spots = 120'000;                       ///< of dark or light pixels of a picture
    /// For who has been asked and can cancel.
    static ReadLimits large() {
        return {256'000'000, 1'000'000,   10'000'000, 10'000'000, 60'000'000,
                5'000'000,   120'000'000, 20'000'000, 5'000'000};
    }
};

/// "more than 100,000 lines or 1,000,000 segments": for messages, which end with what to do.
Phrase words(const ReadLimits& limits);
Phrase what_to_do_when_large();

} // namespace dotlane
