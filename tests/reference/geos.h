// Areas and buffers by GEOS (libgeos-dev), the reference for booleans, offsets and ink.
#pragma once

#include <algorithm>
#include <geos_c.h>
#include <memory>
#include <vector>

#include "core/geometry/region.h"

namespace dotlane::test {

class Geos {
  public:
    Geos() { initGEOS(nullptr, nullptr); }
    ~Geos() { finishGEOS(); }

    struct Delete {
        void operator()(GEOSGeometry* g) const { GEOSGeom_destroy(g); }
    };
    using Geometry = std::unique_ptr<GEOSGeometry, Delete>;

    static GEOSCoordSequence* sequence(const std::vector<Point>& points, bool closed) {
        const auto n = static_cast<unsigned>(points.size());
        GEOSCoordSequence* s = GEOSCoordSeq_create(n + (closed ? 1 : 0), 2);
        for (unsigned i = 0; i < n; ++i)
            GEOSCoordSeq_setXY(s, i, points[i].x, points[i].y);
        if (closed) GEOSCoordSeq_setXY(s, n, points[0].x, points[0].y);
        return s;
    }
    static Geometry polygon(const Ring& ring) {
        return Geometry(GEOSGeom_createPolygon(GEOSGeom_createLinearRing(sequence(ring, true)), nullptr, 0));
    }
    /// Outer rings minus holes.
    /// A ring that touches itself at points, which GEOS takes for no polygon (and makes valid with some of
    /// its holes filled, once in a few thousand), as rings that do not.
    static std::vector<Ring> loops(const Ring& ring) {
        std::vector<Ring> out;
        Ring open;
        for (const Point p : ring) {
            const auto seen = std::find(open.begin(), open.end(), p);
            if (seen != open.end()) {
                if (open.end() - seen > 2) out.emplace_back(seen, open.end());
                open.erase(seen, open.end());
            }
            open.push_back(p);
        }
        if (open.size() > 2) out.push_back(std::move(open));
        return out;
    }
    static Geometry area_of(const Region& region) {
        // The largest first: a hole is smaller than what it lies in, and an island smaller than its hole.
        std::vector<std::pair<double, Ring>> rings;
        for (const Ring& ring : region.rings)
            for (Ring& loop : loops(ring)) {
                const double area = signed_area_mm2(loop);
                rings.emplace_back(area, std::move(loop));
            }
        std::sort(rings.begin(), rings.end(),
                  [](const auto& a, const auto& b) { return std::abs(a.first) > std::abs(b.first); });
        Geometry whole(GEOSGeom_createEmptyPolygon());
        for (const auto& [area, ring] : rings) {
            const Geometry one(GEOSMakeValid(polygon(ring).get()));
            whole.reset(area < 0 ? GEOSDifference(whole.get(), one.get())
                                 : GEOSUnion(whole.get(), one.get()));
        }
        return whole;
    }
    static Geometry lines(const Polylines& list) {
        std::vector<GEOSGeometry*> all;
        for (const Polyline& l : list)
            if (l.points.size() > 1) all.push_back(GEOSGeom_createLineString(sequence(l.points, l.closed)));
        return Geometry(
            GEOSGeom_createCollection(GEOS_MULTILINESTRING, all.data(), static_cast<unsigned>(all.size())));
    }
    static Geometry buffer(const GEOSGeometry* g, double by) { return Geometry(GEOSBuffer(g, by, 64)); }
    /// What the buffer comes to. Inwards GEOS drops a whole piece now and then; what it has not of `ours`
    /// counts when a place in it lies, by its own measure, farther inside than the buffer goes.
    static double buffer_area(const GEOSGeometry* g, double by, const Region& ours) {
        const Geometry theirs = buffer(g, by);
        double sum = area(theirs.get());
        if (by >= 0) return sum;
        const Geometry mine = area_of(ours), more(GEOSDifference(mine.get(), theirs.get())),
                       edge(GEOSBoundary(g));
        for (int i = 0; more && i < GEOSGetNumGeometries(more.get()); ++i) {
            const GEOSGeometry* piece = GEOSGetGeometryN(more.get(), i);
            const Geometry within(GEOSPointOnSurface(piece));
            double far = 0;
            if (within && GEOSContains(g, within.get()) == 1 &&
                GEOSDistance(within.get(), edge.get(), &far) == 1 && far > -by + 1e-3)
                sum += area(piece);
        }
        return sum;
    }
    static Geometry mitre(const GEOSGeometry* g, double by) {
        return Geometry(GEOSBufferWithStyle(g, by, 64, GEOSBUF_CAP_FLAT, GEOSBUF_JOIN_MITRE, 1000));
    }
    static double area(const GEOSGeometry* g) {
        double a = 0;
        GEOSArea(g, &a);
        return a;
    }
    static double length(const GEOSGeometry* g) {
        double l = 0;
        GEOSLength(g, &l);
        return l;
    }
};

} // namespace dotlane::test
