// What a style of fill says of itself. Each style is a file in this folder: its own numbers, how they are
// declared, and its row; the lines it draws are computed in core/recipe/fills. The list of all styles is in
// core/project/fills.h, and nothing else names one, unless tests/house/kinds_test.cpp says why.
#pragma once

#include "core/base/progress.h"
#include "core/base/units.h"
#include "core/project/fields.h"

namespace dotlane {

struct FillInput; // core/recipe/fill.h
struct FillLines; // core/recipe/fill.h

struct FillRow {
    const char* key;   ///< "parallel": in files and on the command line
    const char* name;  ///< "Parallel"
    const char* about; ///< one sentence
    /// Spacing of a pattern that is meant to be seen, mm; 0: a style that makes areas solid, spaced by the
    /// tip.
    double open_mm = 0;
    /// About how many segments are drawn on an area of spacing x spacing, beside one for each line; see
    /// `most_fill_segments`.
    double dense = 0;
    /// Straight rows at the fill's angle, the spacing apart: they meet every piece that is wider than that.
    bool rows = false;
    bool toned = false; ///< can be lighter and darker from place to place
};

/// What is done at the ends of lines: a lift after each; a way along the edge to a neighbour where there is
/// one; or such ways that each piece of the surface is one stroke.
enum class FillEnds { apart, joined, one_stroke };

/// What the pattern is anchored to: the top left corner of the part, the middle of what is filled, or the
/// middle of each piece of it.
enum class FillPhase { corner, centre, piece };

/// What becomes of the cells of a pattern that the edge runs through.
enum class FillEdge { cut, whole };

inline void edge_field(FillEdge& edge, Fields& f) {
    f.one_of({"edge", "at the edge", "Cells are cut there, or only whole ones are drawn"}, edge,
             {"cut", "whole"});
}

/// A point as shares of the box that the fill is anchored to, in hundredths.
struct FillCentre {
    double x = 50, y = 50; ///< -100..200
    bool operator==(const FillCentre&) const = default;
};

inline void centre_fields(FillCentre& centre, Fields& f) {
    f.percent({"x", "centre from left", "Share of the width"}, centre.x, -100, 200);
    f.percent({"y", "centre from top", "Share of the height"}, centre.y, -100, 200);
}

} // namespace dotlane
