// The run sheet: what a maker takes to the machine. One content, written as text here and as PDF by present.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/derive/workshop.h"

namespace dotlane {

struct RunSheetLine {
    Phrase text;
    bool care = false; ///< what can hurt, said where the hands meet it
};

struct RunSheetRow {
    bool stop = false;
    int number = 0;
    Phrase title;                    ///< "Stop 1" or "F foil: gold foil tip 0.5"
    std::string time;                ///< "4 min 10 s"
    std::vector<RunSheetLine> lines; ///< hands' steps and what to take care of, or the pass's figures
    Colour colour;
    Phrase lies;   ///< of a stop: what lies where when the hands are done
    SheetId sheet; ///< of a stop at which a sheet is loaded or printed for the first time: its picture
                   ///< belongs here
};

/// A part on a sheet, by the number that stands on it in the picture.
struct RunSheetPart {
    int number = 0;
    Phrase name; ///< "Invitation, turned by 90 degrees, mirrored"
    Box box;     ///< mm on the mat
};

struct RunSheetPicture {
    SheetId sheet;
    Phrase title;              ///< "sheet 1: cream card on the standard mat"
    std::vector<Phrase> notes; ///< which face is worked, what is mirrored
    std::vector<RunSheetPart> parts;
    Length mat_width, mat_height;
    Box stock;
};

struct RunSheet {
    std::string title;
    Phrase subtitle;
    std::vector<std::pair<Phrase, std::string>> totals; ///< "Machine", "36 min"
    Phrase lines;                                       ///< where all lines of the project went
    std::vector<Phrase> before;                         ///< to be seen to before the run begins
    std::vector<RunSheetRow> rows;
    std::vector<RunSheetPicture> pictures;
    std::vector<Phrase> findings; ///< errors and cautions that stand
    std::vector<Phrase> reasons, cautions;
    Phrase overridden; ///< not empty: exported in spite of errors; says so
    std::vector<std::string> files;
};

/// The files in which the sheets that are printed stand.
using PrintFiles = std::map<SheetId, std::string>;
RunSheet make_run_sheet(const Derived& derived, const Catalog& catalog, const PrintFiles& prints = {});
/// With the board and every sheet as pictures of characters, in the language of the speaker.
std::string to_text(const RunSheet& sheet, const Derived& derived, const Speaker& speak = in_english);

} // namespace dotlane
