#include "core/formats/svg/path_data.h"

#include <algorithm>

#include "core/formats/svg/values.h"

namespace dotlane::svg {
namespace {

class PathParser {
  public:
    explicit PathParser(std::string_view d)
        : in_(d) {}

    PathData parse() {
        in_.skip_space();
        while (!in_.done()) {
            const char c = in_.peek();
            const bool letter = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
            if (!letter || !run(c)) {
                out_.complete = false;
                break;
            }
            in_.skip_space();
        }
        finish();
        return std::move(out_);
    }

  private:
    /// Contours are collected in one place, made as large as the text may need, and kept as large as they
    /// are.
    void finish() {
        const std::size_t n = now_.segments.size();
        if (begun_ && n > 8 && n + n / 2 > now_.segments.capacity())
            out_.contours.push_back(std::move(now_)), now_ = {};
        else if (begun_)
            out_.contours.push_back(now_);
        begun_ = false;
    }
    void begin(Point at) {
        finish();
        now_.start = at, now_.closed = false;
        now_.segments.clear();
        begun_at_ = in_.left();
        begun_ = open_ = true;
    }
    /// As many more as the rest of the text has room for, by what those that there are took of it; but not
    /// many times as many, as a few short ones say little of a long text.
    void grow() {
        constexpr std::size_t first = 16, most_times = 8;
        const std::size_t n = now_.segments.size(), left = in_.left();
        if (n < first) return now_.segments.reserve(first);
        const std::size_t taken = std::max<std::size_t>(begun_at_ - left, n), more = left * n / taken;
        now_.segments.reserve(n + first + std::min(more + more / 32, most_times * n));
    }

    /// One command letter with all its repeated argument groups.
    bool run(char letter) {
        in_.advance();
        const char command = letter >= 'a' ? static_cast<char>(letter - 32) : letter;
        relative_ = letter >= 'a';
        if (!started_ && command != 'M') return false;
        if (command == 'Z') return close(), true;
        bool first = true;
        do {
            if (!group(first ? command : command == 'M' ? 'L' : command)) return false;
            first = false;
            in_.skip_separator();
        } while (more_numbers());
        return true;
    }

    bool more_numbers() const {
        const char c = in_.peek();
        return (c >= '0' && c <= '9') || c == '+' || c == '-' || c == '.';
    }

    bool group(char command) {
        Point p, c1, c2;
        switch (command) {
        case 'M':
            if (!point(p)) return false;
            begin(p);
            at_ = start_ = p;
            started_ = true;
            return forget();
        case 'L':
            if (!point(p)) return false;
            return line(p);
        case 'H':
        case 'V': {
            const auto v = in_.number();
            if (!v) return false;
            p = at_;
            if (command == 'H')
                p.x = *v + (relative_ ? at_.x : 0);
            else
                p.y = *v + (relative_ ? at_.y : 0);
            return line(p);
        }
        case 'C':
            return point(c1) && separator() && point(c2) && separator() && point(p) && cubic(c1, c2, p);
        case 'S':
            c1 = last_ == 'C' ? at_ * 2 - control_ : at_;
            return point(c2) && separator() && point(p) && cubic(c1, c2, p);
        case 'Q':
            return point(c1) && separator() && point(p) && quadratic(c1, p);
        case 'T':
            c1 = last_ == 'Q' ? at_ * 2 - control_ : at_;
            return point(p) && quadratic(c1, p);
        case 'A':
            return arc();
        default:
            return false;
        }
    }

    bool arc() {
        const auto rx = in_.number();
        in_.skip_separator();
        const auto ry = in_.number();
        in_.skip_separator();
        const auto turn = in_.number();
        in_.skip_separator();
        const auto large = in_.flag();
        in_.skip_separator();
        const auto sweep = in_.flag();
        in_.skip_separator();
        Point p;
        if (!rx || !ry || !turn || !large || !sweep || !point(p)) return false;
        contour().arc_to(*rx, *ry, *turn, *large, *sweep, p);
        at_ = p;
        return forget();
    }

    bool separator() {
        in_.skip_separator();
        return true;
    }
    bool point(Point& p) {
        const auto x = in_.number();
        in_.skip_separator();
        const auto y = in_.number();
        if (!x || !y) return false;
        p = relative_ ? at_ + Point{*x, *y} : Point{*x, *y};
        return true;
    }
    bool line(Point p) {
        contour().line_to(p);
        at_ = p;
        return forget();
    }
    bool cubic(Point c1, Point c2, Point p) {
        contour().cubic_to(c1, c2, p);
        at_ = p, control_ = c2, last_ = 'C';
        return true;
    }
    bool quadratic(Point c, Point p) {
        contour().quad_to(c, p);
        at_ = p, control_ = c, last_ = 'Q';
        return true;
    }
    /// After "z" a drawing command opens a new contour at the old start.
    Contour& contour() {
        if (!open_) begin(at_);
        if (now_.segments.size() == now_.segments.capacity()) grow();
        return now_;
    }
    void close() {
        if (open_) now_.closed = true;
        open_ = false;
        at_ = start_;
        forget();
    }
    bool forget() {
        last_ = 0;
        return true;
    }

    Scanner in_;
    PathData out_;
    Contour now_;
    Point at_, start_, control_;
    std::size_t begun_at_ = 0; ///< bytes that were left where the contour began
    char last_ = 0;
    bool relative_ = false, started_ = false, open_ = false, begun_ = false;
};

} // namespace

PathData parse_path(std::string_view d) {
    return PathParser(d).parse();
}

} // namespace dotlane::svg
