#include "core/formats/dxf/entities.h"

#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/formats/dxf/reader.h"

namespace dotlane::dxf {
namespace {

using std::numbers::pi;

/// Counter-clockwise from one parameter to the other, at most once around; equal ones are a full turn.
/// `major` and `minor` are the half axes.
Contour arc(Point centre, Point major, Point minor, double from, double to) {
    double sweep = std::fmod(to - from, 2 * pi);
    if (sweep < 1e-12) sweep += 2 * pi;
    Contour c{centre + major * std::cos(from) + minor * std::sin(from), {}, sweep > 2 * pi - 1e-9};
    c.arc_about(centre, major, minor, from, sweep);
    return c;
}

Contour round_arc(const Record& r, double from_degrees, double to_degrees) {
    const double radius = r.number(40);
    // A turn more or less is the same angle: without losing digits to thousands of them.
    const double from = std::fmod(from_degrees, 360), to = std::fmod(to_degrees, 360);
    return arc(r.point(10), {radius, 0}, {0, radius}, from * pi / 180, to * pi / 180);
}

Contour ellipse_arc(const Record& r) {
    const Point major = r.point(11);
    const double ratio = r.number(40, 1);
    // Drawn in the drawing's own plane; a direction from below turns its sense about.
    const double side = r.number(230, 1) < 0 ? -1 : 1;
    return arc(r.point(10), major, Point{-major.y, major.x} * (ratio * side), r.number(41),
               r.number(42, 2 * pi));
}

Contour light_polyline(const Record& r) {
    std::vector<Vertex> vertices;
    for (const Group& g : r.groups) {
        if (g.code == 10) vertices.push_back({{number_of(g), 0}, 0});
        if (vertices.empty()) continue;
        if (g.code == 20) vertices.back().at.y = number_of(g);
        if (g.code == 42) vertices.back().bulge = number_of(g);
    }
    return polyline(vertices, (r.whole(70) & 1) != 0);
}

std::optional<Contour> spline(const Record& r, std::map<std::string, int>& told) {
    std::vector<Point> controls, fits;
    std::vector<double> weights, knots;
    for (const Group& g : r.groups) {
        if (g.code == 10) controls.push_back({number_of(g), 0});
        if (g.code == 20 && !controls.empty()) controls.back().y = number_of(g);
        if (g.code == 11) fits.push_back({number_of(g), 0});
        if (g.code == 21 && !fits.empty()) fits.back().y = number_of(g);
        if (g.code == 40) knots.push_back(number_of(g));
        if (g.code == 41) weights.push_back(number_of(g));
    }
    Contour c = spline_contour(r.whole(71, 3), controls, weights, knots, (r.whole(70) & 1) != 0);
    if (c.segments.empty() && fits.size() > 1) {
        c.start = fits.front();
        for (std::size_t i = 1; i < fits.size(); ++i)
            c.line_to(fits[i]);
        ++told["curves of splines known only by points on them (taken as straight lines)"];
    }
    if (!c.segments.empty()) return c;
    ++told["broken splines"];
    return std::nullopt;
}

} // namespace

Affine plane_of(const Record& r) {
    struct Vector {
        double x, y, z;
        Vector cross(const Vector& o) const {
            return {y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x};
        }
        Vector unit() const {
            const double l = std::sqrt(x * x + y * y + z * z);
            return {x / l, y / l, z / l};
        }
    };
    const Vector given{r.number(210), r.number(220), r.number(230, 1)};
    if (given.x == 0 && given.y == 0 && given.z >= 0) return {};
    const Vector normal = given.unit();
    const bool near_z = std::abs(normal.x) < 1.0 / 64 && std::abs(normal.y) < 1.0 / 64;
    const Vector across = (near_z ? Vector{0, 1, 0} : Vector{0, 0, 1}).cross(normal).unit();
    const Vector up = normal.cross(across).unit();
    return {across.x, across.y, up.x, up.y, 0, 0};
}

Contour polyline(const std::vector<Vertex>& vertices, bool closed) {
    Contour c;
    const std::size_t n = vertices.size();
    for (std::size_t i = 0; n > 0 && i < n + (closed ? 1 : 0); ++i) {
        const Vertex& v = vertices[i % n];
        if (i == 0) {
            c.start = v.at;
            continue;
        }
        // bulge = tan(angle / 4), positive: counter-clockwise (DXF reference). Flatter than any tool can
        // follow is straight.
        const double bulge = vertices[i - 1].bulge, chord = distance(c.end(), v.at);
        if (std::abs(bulge) > 1e-9 && chord > 0) {
            const double r = chord * (1 + bulge * bulge) / (4 * std::abs(bulge));
            c.arc_to(r, r, 0, std::abs(bulge) > 1, bulge > 0, v.at);
        } else if (i < n) {
            c.line_to(v.at); // the last edge of a closed one is implied
        }
    }
    c.closed = closed && n > 1;
    return c;
}

namespace {

std::optional<Contour> any_contour(const Record& r, std::map<std::string, int>& told) {
    // Lines, points, ellipses and splines stand in the drawing's own plane, the others in one of their own.
    if (r.kind == "LINE") {
        Contour c{r.point(10), {}, false};
        c.line_to(r.point(11));
        return c;
    }
    if (r.kind == "POINT") return Contour{r.point(10), {}, false};
    if (r.kind == "ELLIPSE") return ellipse_arc(r);
    if (r.kind == "SPLINE") return spline(r, told);
    if (r.kind == "CIRCLE") return transformed(round_arc(r, 0, 0), plane_of(r));
    if (r.kind == "ARC") return transformed(round_arc(r, r.number(50), r.number(51)), plane_of(r));
    if (r.kind == "LWPOLYLINE") {
        Contour c = light_polyline(r);
        if (r.has(10)) return transformed(c, plane_of(r));
        ++told["polylines without points"];
    }
    return std::nullopt;
}

} // namespace

std::optional<Contour> contour_of(const Record& r, std::map<std::string, int>& told) {
    auto c = any_contour(r, told);
    if (!c || r.kind == "POINT") return c;
    if (const Box box = bounds(*c); box.width() > 0 || box.height() > 0) return c;
    ++told[to_say("lines without any length")];
    return std::nullopt;
}

std::string left_out(std::string_view kind) {
    static constexpr struct {
        const char *kind, *words;
    } known[] = {{"TEXT", to_say("texts")},
                 {"MTEXT", to_say("texts")},
                 {"ATTRIB", to_say("texts")},
                 {"ARCALIGNEDTEXT", to_say("texts")},
                 {"HATCH", to_say("hatches")},
                 {"SOLID", to_say("solids")},
                 {"TRACE", to_say("solids")},
                 {"3DFACE", to_say("faces")},
                 {"IMAGE", to_say("pictures")},
                 {"XLINE", to_say("endless lines")},
                 {"RAY", to_say("endless lines")},
                 {"LEADER", to_say("dimensions")},
                 {"DIMENSION", to_say("dimensions")},
                 // Told on their own when they cannot be taken.
                 {"LINE", ""},
                 {"ARC", ""},
                 {"CIRCLE", ""},
                 {"ELLIPSE", ""},
                 {"SPLINE", ""},
                 {"LWPOLYLINE", ""},
                 // What nobody would miss: frames of views, the forms of texts.
                 {"VIEWPORT", ""},
                 {"ATTDEF", ""},
                 {"SEQEND", ""}};
    for (const auto& k : known)
        if (kind == k.kind) return k.words;
    return "objects of the kind " + valid_utf8(kind.substr(0, 40));
}

} // namespace dotlane::dxf
