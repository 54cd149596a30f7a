// Text on an arc and along an outline.
#include <cmath>

#include "core/base/text.h"
#include "core/geometry/reshape.h"
#include "core/sources/lettering_layout.h"

namespace dotlane::sources {
namespace {

/// Left and right ends of the text.
std::pair<double, double> extent(const Layout& layout) {
    double left = 1e300, right = -1e300;
    for (const Line& line : layout.lines)
        if (!line.glyphs.empty()) {
            left = std::min(left, line.glyphs.front().x);
            right = std::max(right, line.glyphs.back().x + line.glyphs.back().advance);
        }
    return {left, right};
}

/// A closed line to be walked along: clockwise on screen, from where it lies farthest to the right at half
/// its height.
class Walk {
  public:
    explicit Walk(Ring ring)
        : ring_(std::move(ring)) {
        if (signed_area_mm2(ring_) < 0) std::reverse(ring_.begin(), ring_.end());
        start_at_the_right();
        at_.push_back(0);
        for (std::size_t i = 0; i < ring_.size(); ++i)
            at_.push_back(at_.back() + distance(ring_[i], ring_[(i + 1) % ring_.size()]));
    }
    double length() const { return at_.back(); }
    Point point(double s) const {
        s -= std::floor(s / length()) * length();
        const auto next = std::upper_bound(at_.begin(), at_.end(), s);
        const auto i = std::min(static_cast<std::size_t>(next - at_.begin()), ring_.size()) - 1;
        const double edge = at_[i + 1] - at_[i];
        const Point a = ring_[i], b = ring_[(i + 1) % ring_.size()];
        return edge < 1e-12 ? a : a + (b - a) * ((s - at_[i]) / edge);
    }

  private:
    void start_at_the_right() {
        const double y = bounds(Polyline{ring_, true}).centre().y;
        Point best{-1e300, y};
        std::size_t edge = 0;
        for (std::size_t i = 0; i < ring_.size(); ++i) {
            const Point a = ring_[i], b = ring_[(i + 1) % ring_.size()];
            if ((a.y <= y) == (b.y <= y)) continue;
            const double x = a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y);
            if (x > best.x) best.x = x, edge = i;
        }
        std::rotate(ring_.begin(), ring_.begin() + static_cast<std::ptrdiff_t>(edge) + 1, ring_.end());
        ring_.insert(ring_.begin(), best);
    }
    Ring ring_;
    std::vector<double> at_;
};

} // namespace

void set_on_arc(Layout& layout, const Lettering& spec) {
    const double radius = in_mm(spec.radius);
    const auto [left, right] = extent(layout);
    const double middle = (left + right) / 2;
    for (Line& line : layout.lines)
        for (Glyph& g : line.glyphs) {
            const double x = g.x + g.advance / 2, angle = (x - middle) / radius;
            const Affine upright = Affine::translation({-x, 0});
            const Affine on = spec.inside ? Affine::rotation(-angle) * Affine::translation({0, radius})
                                          : Affine::rotation(angle) * Affine::translation({0, -radius});
            g.shape = transformed(g.shape, on * upright);
        }
}

Result<void> set_along(Layout& layout, const Lettering& spec, const Borrowed* along) {
    if (const auto ok = needs(along, to_say("outline")); !ok) return ok;
    const double off = in_mm(spec.lift) * (spec.inside ? -1 : 1);
    // The baseline's own line, so that the text keeps its width where the edge is bent.
    const Region base = without_holes(offset(along->outline, mm(off)));
    if (base.empty()) return fail("source.text", say("Nothing is left of the outline so far inside."));
    const auto largest = [](const Region& a, const Region& b) { return area(a) < area(b); };
    const auto all = pieces(base);
    const Walk walk(std::max_element(all.begin(), all.end(), largest)->rings.front());
    const auto [left, right] = extent(layout);
    if (right - left > walk.length())
        return fail("source.text", say("The text is %1 mm long, the outline only %2 mm.",
                                       number(right - left, 1), number(walk.length(), 1)));
    const double middle = walk.length() * spec.start / 100;
    for (Line& line : layout.lines)
        for (Glyph& g : line.glyphs) {
            const double x = g.x + g.advance / 2, way = x - (left + right) / 2;
            // Clockwise the outside is on the left hand, where the letters' heads are; inside they look
            // inwards.
            const double s = spec.inside ? middle - way : middle + way, half = std::max(g.advance / 2, 0.2);
            Point u = walk.point(s + half) - walk.point(s - half);
            if (spec.inside) u = u * -1;
            const double d = std::hypot(u.x, u.y);
            if (d > 1e-9) u = u * (1 / d);
            const Point at = walk.point(s);
            g.shape =
                transformed(g.shape, Affine{u.x, u.y, -u.y, u.x, at.x, at.y} * Affine::translation({-x, 0}));
        }
    return {};
}

} // namespace dotlane::sources
