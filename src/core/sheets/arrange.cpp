#include "core/sheets/arrange.h"

#include <algorithm>

#include "core/base/text.h"

namespace dotlane {
namespace {

/// What moves as one, by index.
struct Body {
    std::vector<std::size_t> members;
    Box box;
    int group = 0;
};

std::vector<Body> bodies(const std::vector<Lying>& chosen) {
    std::vector<Body> out;
    for (std::size_t i = 0; i < chosen.size(); ++i) {
        const int group = chosen[i].placement.group;
        auto body = std::find_if(out.begin(), out.end(),
                                 [&](const Body& b) { return group != 0 && b.group == group; });
        if (body == out.end()) body = out.insert(out.end(), Body{{}, {}, group});
        body->members.push_back(i);
        body->box.add(chosen[i].box);
    }
    return out;
}

void move(std::vector<Placement>& all, const Body& body, Point by) {
    for (const std::size_t i : body.members)
        all[i].left += mm(by.x), all[i].top += mm(by.y);
}

std::vector<Placement> placements(const std::vector<Lying>& chosen) {
    std::vector<Placement> out;
    out.reserve(chosen.size());
    for (const Lying& one : chosen)
        out.push_back(one.placement);
    return out;
}

} // namespace

std::vector<Placement> aligned(const std::vector<Lying>& chosen, const Box& frame, Across across, Down down) {
    std::vector<Placement> out = placements(chosen);
    for (const Body& body : bodies(chosen)) {
        const Box& b = body.box;
        Point by;
        if (across == Across::left) by.x = frame.x0 - b.x0;
        if (across == Across::middle) by.x = frame.centre().x - b.centre().x;
        if (across == Across::right) by.x = frame.x1 - b.x1;
        if (down == Down::top) by.y = frame.y0 - b.y0;
        if (down == Down::middle) by.y = frame.centre().y - b.centre().y;
        if (down == Down::bottom) by.y = frame.y1 - b.y1;
        move(out, body, by);
    }
    return out;
}

Result<std::vector<Placement>> distributed(const std::vector<Lying>& chosen, Way way,
                                           const std::optional<Box>& frame) {
    std::vector<Body> all = bodies(chosen);
    if (all.size() < (frame ? 2U : 3U))
        return fail("arrange.few", frame ? say("Choose at least two to spread them over the sheet.")
                                         : say("Choose at least three to spread them: the outer two stay."));
    const auto low = [&](const Box& b) { return way == Way::across ? b.x0 : b.y0; };
    const auto high = [&](const Box& b) { return way == Way::across ? b.x1 : b.y1; };
    std::stable_sort(all.begin(), all.end(), [&](const Body& a, const Body& b) {
        return low(a.box) + high(a.box) < low(b.box) + high(b.box);
    });
    const double from = low(frame ? *frame : all.front().box), to = high(frame ? *frame : all.back().box);
    double filled = 0;
    for (const Body& body : all)
        filled += high(body.box) - low(body.box);
    const double gap = (to - from - filled) / static_cast<double>(all.size() - 1);
    if (gap < -1e-9)
        return fail("arrange.tight",
                    say("They are %1%2 Take one away, or turn them.", number(filled - (to - from), 2),
                        (way == Way::across ? say(" mm too wide to lie side by side there.")
                                            : say(" mm too high to lie one below the other there."))));
    std::vector<Placement> out = placements(chosen);
    double at = from;
    for (const Body& body : all) {
        const double by = at - low(body.box);
        move(out, body, way == Way::across ? Point{by, 0} : Point{0, by});
        at += high(body.box) - low(body.box) + gap;
    }
    return out;
}

std::vector<Placement> turned(const std::vector<Lying>& chosen, Angle by) {
    std::vector<Placement> out = placements(chosen);
    const Point middle = box_of(chosen).centre();
    const Affine turn = Affine::rotation(in_radians(by));
    for (std::size_t i = 0; i < chosen.size(); ++i) {
        // The box after turning needs the part; its middle does not: it is the middle of the box before.
        const Point at = chosen[i].box.centre(), to = middle + turn(at - middle);
        out[i] = turned_about_middle(out[i], chosen[i].extent,
                                     degrees(std::remainder(in_degrees(out[i].turn + by), 360)));
        out[i].left += mm(to.x - at.x), out[i].top += mm(to.y - at.y);
    }
    return out;
}

std::vector<Placement> mirrored(const std::vector<Lying>& chosen) {
    std::vector<Placement> out = placements(chosen);
    const double middle = box_of(chosen).centre().x;
    for (std::size_t i = 0; i < chosen.size(); ++i) {
        // Mirroring what was turned is turning the other way what was mirrored.
        out[i].mirrored = !out[i].mirrored;
        out[i].turn = radians(-in_radians(out[i].turn));
        const Box& was = chosen[i].box; // as wide and high afterwards
        out[i] = with_box_at(out[i], chosen[i].extent, mm(2 * middle - was.x1), mm(was.y0));
    }
    return out;
}

Box box_of(const std::vector<Lying>& chosen) {
    Box out;
    for (const Lying& one : chosen)
        out.add(one.box);
    return out;
}

} // namespace dotlane
