// A finding: something a check noticed. It has a stable code, a grade, a place and perhaps a remedy that
// is an ordinary undoable edit. `args` are the named values of the message, for scripts.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/base/id.h"
#include "core/base/phrase.h"

namespace dotlane {

enum class Grade { hint, caution, error };

/// An axis-aligned area on a part or a sheet, mm; empty when x1 < x0.
struct PlaceBox {
    double x0 = 0, y0 = 0, x1 = -1, y1 = -1;
    bool operator==(const PlaceBox&) const = default;
    bool valid() const { return x1 >= x0 && y1 >= y0; }
};

struct FindingPlace {
    PartId part;
    SheetId sheet;
    LineSetId line_set;
    StepId step;
    PlaceBox box;
    bool operator==(const FindingPlace&) const = default;
};

/// An edit that removes the finding. `code` selects the edit in commands/remedies; `label` is its button.
struct Remedy {
    std::string code;
    Phrase label;
    bool operator==(const Remedy&) const = default;
};

struct Finding {
    std::string code; ///< stable, dotted: "lane.none"
    Grade grade = Grade::hint;
    Phrase message;
    std::vector<std::pair<std::string, std::string>> args;
    FindingPlace place = {};
    Remedy remedy = {};
    std::vector<Remedy> more = {}; ///< other ways to remove it
    bool operator==(const Finding&) const = default;
};

using Findings = std::vector<Finding>;

/// What the finding says under this key; none when it says nothing, or no number.
std::optional<double> number_argument(const Finding& finding, std::string_view key);

const char* grade_name(Grade grade);
int count(const Findings& findings, Grade grade);
inline bool blocks_export(const Findings& findings) {
    return count(findings, Grade::error) > 0;
}

} // namespace dotlane
