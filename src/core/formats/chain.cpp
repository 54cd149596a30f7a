#include "core/formats/chain.h"

#include <algorithm>
#include <map>
#include <tuple>

namespace dotlane {
namespace {

Contour reversed(const Contour& c) {
    Contour out{c.end(), {}, c.closed};
    for (std::size_t i = c.segments.size(); i-- > 0;) {
        const Segment& s = c.segments[i];
        out.segments.push_back({s.c2, s.c1, i == 0 ? c.start : c.segments[i - 1].to, s.curved});
    }
    return out;
}

struct End {
    std::size_t line;
    bool start;
};

class Chainer {
  public:
    Chainer(std::vector<DrawnLine> lines, double reach)
        : lines_(std::move(lines))
        , reach_(std::max(reach, 1e-9))
        , used_(lines_.size(), false) {
        for (std::size_t i = 0; i < lines_.size(); ++i)
            if (open(i))
                for (const bool start : {true, false})
                    ends_[cell(at({i, start}))].push_back({i, start});
    }

    std::vector<DrawnLine> run() {
        std::vector<DrawnLine> out;
        for (std::size_t i = 0; i < lines_.size(); ++i) {
            if (used_[i]) continue;
            used_[i] = true;
            DrawnLine line = lines_[i];
            if (open(i)) {
                Contour& c = line.shape.contours.front();
                grow(c, {i, false});
                c = reversed(c);
                grow(c, {i, true});
                c = reversed(c);
                if (c.segments.size() > 1 && distance(c.start, c.end()) <= reach_) {
                    c.segments.back().to = c.start;
                    c.closed = true;
                }
            }
            out.push_back(std::move(line));
        }
        return out;
    }

  private:
    bool open(std::size_t i) const {
        const auto& contours = lines_[i].shape.contours;
        return contours.size() == 1 && !contours.front().closed && !contours.front().segments.empty() &&
               distance(contours.front().start, contours.front().end()) > reach_;
    }
    Point at(End e) const {
        const Contour& c = lines_[e.line].shape.contours.front();
        return e.start ? c.start : c.end();
    }
    using Cell = std::pair<long long, long long>;
    Cell cell(Point p) const { return {std::llround(p.x / reach_ / 2), std::llround(p.y / reach_ / 2)}; }

    /// The one other end that lies here; none when there is none or there are several: a branch is not
    /// guessed.
    std::optional<End> other(End from) const {
        const Point p = at(from);
        const Cell c = cell(p);
        std::optional<End> found;
        for (long long dx = -1; dx <= 1; ++dx)
            for (long long dy = -1; dy <= 1; ++dy) {
                const auto it = ends_.find({c.first + dx, c.second + dy});
                if (it == ends_.end()) continue;
                for (const End& e : it->second) {
                    if ((e.line == from.line && e.start == from.start) || distance(at(e), p) > reach_)
                        continue;
                    const DrawnLine &a = lines_[from.line], &b = lines_[e.line];
                    if (a.group != b.group || a.drawn.stroke != b.drawn.stroke) continue;
                    if (found) return std::nullopt;
                    found = e;
                }
            }
        return found;
    }

    void grow(Contour& c, End from) {
        while (const auto next = other(from)) {
            if (used_[next->line]) return;
            used_[next->line] = true;
            const Contour& piece = lines_[next->line].shape.contours.front();
            const Contour run = next->start ? piece : reversed(piece);
            c.segments.insert(c.segments.end(), run.segments.begin(), run.segments.end());
            from = {next->line, !next->start};
        }
    }

    std::vector<DrawnLine> lines_;
    double reach_;
    std::vector<bool> used_;
    std::map<Cell, std::vector<End>> ends_;
};

} // namespace

std::vector<DrawnLine> chained(std::vector<DrawnLine> lines, Length reach) {
    return Chainer(std::move(lines), in_mm(reach)).run();
}

void settle_page(Drawing& drawing) {
    const Box box = bounds(drawing);
    if (box.empty()) return;
    drawing = transformed(drawing, Affine::translation({-box.x0, -box.y0}));
    drawing.page_width = mm(box.width());
    drawing.page_height = mm(box.height());
}

} // namespace dotlane
