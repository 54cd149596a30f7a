// The pairs of lines that a DXF file in text form is made of: a group code and its value (DXF reference,
// "Group codes"). Internal to formats/dxf. Counts that a file declares are never trusted: what is there is
// what counts.
#pragma once

#include <string>
#include <string_view>

#include "core/base/phrase.h"
#include <vector>

#include "core/geometry/point.h"

namespace dotlane::dxf {

/// Thrown inside the reader only, turned into an Error at its door.
struct Stop {
    const char* code;
    Phrase message;
    int line = 0;
};

struct Group {
    int code = 0;
    std::string_view value; ///< without blanks around it
    int line = 0;           ///< of the value, counted from 1
};

class Groups {
  public:
    explicit Groups(std::string_view text)
        : text_(text) {}
    /// False at the end of the file. Throws Stop "dxf.not-dxf" where a group code should stand and does not.
    bool next(Group& group);

  private:
    std::string_view line();
    std::string_view text_;
    std::size_t at_ = 0;
    int number_ = 0;
};

/// Everything between one group 0 and the next.
struct Record {
    std::string_view kind; ///< "LINE"
    int line = 0;
    std::vector<Group> groups;

    bool has(int code) const { return find(code) != nullptr; }
    std::string text(int code) const;
    /// Throws Stop "dxf.number" for what is no number, not finite, or beyond 1e9.
    double number(int code, double otherwise = 0) const;
    /// Within int; what is beyond is the nearest that is.
    int whole(int code, int otherwise = 0) const;
    Point point(int x_code) const { return {number(x_code), number(x_code + 10)}; }

  private:
    const Group* find(int code) const;
};

double number_of(const Group& group);
int whole_of(const Group& group);

} // namespace dotlane::dxf
