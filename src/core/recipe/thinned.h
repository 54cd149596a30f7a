// Which of its lines or dots a fill draws, so that its ink is as dark as wished. Internal to recipe.
//
// Method: candidates (short pieces of lines, or dots) stand so close that all of them together are solid.
// Each is given the squares of a grid that are nearer to it than to others, and with them the ink that is
// wished there. They are gone through in order; one is drawn when what is still wished at it comes to about
// half of the ink that it would add, and what is left over or was too much is handed on to those nearby that
// come later (error diffusion: R. Floyd and L. Steinberg, An adaptive algorithm for spatial greyscale, 1976;
// here on points instead of a grid, and with the ink as it really overlaps). Then whatever is still too light
// or too dark on squares of 8 x 8 mm is mended, see tone_windows.h.
#pragma once

#include <functional>

#include "core/base/progress.h"
#include "core/geometry/region.h"
#include "core/recipe/tone_ink.h"

namespace dotlane {

/// A short piece of a line, or a dot.
struct Candidate : InkWay {
    std::uint32_t line = 0; ///< which it is a piece of; pieces of one line stand one after another
    bool dot() const { return a == b; }
    Point middle() const { return (a + b) * 0.5; }
};

/// Pieces of about this length, mm, > 0. Those of parallel lines stand beside one another.
std::vector<Candidate> candidates_of(const Polylines& lines, double piece);

/// Of candidates that stand about `pitch` apart (mm, > 0), those that are drawn with a tip: 0 or 1 for each.
std::vector<char> thinned(const std::vector<Candidate>& candidates, double pitch, Length tip,
                          const Region& region, const Tone& tone, Progress& progress);

/// The same where each counts as one, and `wished(i)` is how much of one is wished at it, 0..1.
std::vector<char> thinned_evenly(const std::vector<Candidate>& candidates, double pitch,
                                 const std::function<double(std::size_t)>& wished, Progress& progress);

/// What is drawn of lines: pieces that follow one another are one line again, closed where all of it is.
Polylines kept(const std::vector<Candidate>& candidates, const std::vector<char>& drawn);

} // namespace dotlane
