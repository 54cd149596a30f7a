#include <charconv>
#include <cmath>

#include "core/project/format.h"

namespace dotlane {
namespace {

void append(std::string& out, double v) {
    char buffer[32];
    const auto end = std::to_chars(buffer, buffer + sizeof buffer, v).ptr;
    if (out.back() != 'M' && out.back() != 'L' && out.back() != 'C') out += ' ';
    out.append(buffer, end);
}

void append(std::string& out, Point p) {
    append(out, p.x);
    append(out, p.y);
}

class Reader {
  public:
    explicit Reader(std::string_view text)
        : at_(text.data())
        , end_(text.data() + text.size()) {}
    char letter() { return at_ < end_ ? *at_++ : '\0'; }
    char peek() const { return at_ < end_ ? *at_ : '\0'; }
    bool point(Point& p) { return number(p.x) && number(p.y); }

  private:
    bool number(double& v) {
        while (at_ < end_ && *at_ == ' ')
            ++at_;
        const auto [stop, ec] = std::from_chars(at_, end_, v);
        if (ec != std::errc() || !std::isfinite(v)) return false; // from_chars takes "inf" and "nan"
        at_ = stop;
        return true;
    }
    const char* at_;
    const char* end_;
};

} // namespace

std::string path_text(const Shape& shape) {
    std::string out;
    for (const Contour& c : shape.contours) {
        out += 'M';
        append(out, c.start);
        for (const Segment& s : c.segments) {
            out += s.curved ? 'C' : 'L';
            if (s.curved) append(out, s.c1), append(out, s.c2);
            append(out, s.to);
        }
        if (c.closed) out += 'Z';
    }
    return out;
}

std::optional<std::vector<Contour>> contours_from_text(std::string_view text) {
    std::vector<Contour> out;
    Reader in(text);
    while (const char command = in.letter()) {
        if (command == ' ') continue;
        Point p, c1, c2;
        if (command != 'M' && out.empty()) return std::nullopt;
        switch (command) {
        case 'M':
            if (!in.point(p)) return std::nullopt;
            out.push_back({p, {}, false});
            break;
        case 'L':
            if (!in.point(p)) return std::nullopt;
            out.back().line_to(p);
            break;
        case 'C':
            if (!in.point(c1) || !in.point(c2) || !in.point(p)) return std::nullopt;
            out.back().cubic_to(c1, c2, p);
            break;
        case 'Z':
            out.back().closed = true;
            break;
        default:
            return std::nullopt;
        }
    }
    return out;
}

} // namespace dotlane
