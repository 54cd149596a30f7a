#include "core/checks/piece_checks.h"

#include <algorithm>
#include <set>

#include "core/base/text.h"
#include "core/checks/findings.h"
#include "core/geometry/clusters.h"
#include "core/geometry/narrow.h"
#include "core/geometry/nearest_edge.h"
#include "core/geometry/point_grid.h"
#include "core/geometry/region_index.h"
#include "core/geometry/reshape.h"
#include "core/geometry/tangle.h"
#include "core/sources/make.h"

namespace dotlane {
namespace {

constexpr std::size_t most_told = 6;           ///< places; the others are counted
constexpr std::size_t most_crossings = 20'000; ///< beyond, outlines are too tangled to have pieces
constexpr std::size_t most_points = 20'000;    ///< of what lies in one another: it would hold up every edit
constexpr std::size_t most_nested = 1'000'000; ///< pairs of outlines in one another, half a second's work
constexpr double beyond_slack = 0.1;           ///< mm; lines that end on the edge
constexpr double rim = 1;                      ///< mm left free where marks are brought in

const Lane* lane_of(const Project& project, const RunSet& run) {
    return find(project, run.lane);
}
bool parts(const Lane* lane) {
    return lane && parts_material(lane->action);
}
bool marks(const Lane* lane) {
    return lane && !parts(lane) && row(lane->action).run; // what is printed is trimmed on purpose
}

/// Of which line set it is; none of what no set brought.
struct CutLine {
    Polyline line;
    LineSetId set;
};

/// Pieces are free of one another where they are of one stock only. `layers`: sets that lie on others, each
/// looked at by itself; what one step cut of several stocks is looked at when its parts are apart.
struct Piles {
    std::set<LineSetId> layers;
    std::set<StepId> steps;
};

Piles piles_of(const Project& project, const Part& source, const EvaluatedPart& part) {
    Piles out;
    std::set<LineSetId> cut;
    for (const RunSet& run : part.runs)
        if (!run.ink && parts(lane_of(project, run))) cut.insert(run.set);
    for (const Step& step : source.steps) {
        const auto report = part.reports.find(step.id);
        if (report == part.reports.end() || !report->second->piled) continue;
        if (kind_of(step.what).makes)
            out.steps.insert(step.id);
        else
            std::copy_if(step.of.begin(), step.of.end(), std::inserter(out.layers, out.layers.end()),
                         [&](LineSetId set) { return cut.contains(set); });
    }
    if (out.layers.size() < 2) out.layers.clear();
    return out;
}

std::vector<CutLine> closed_cuts(const Project& project, const EvaluatedPart& part, const Piles& piles) {
    const Part& source = *find(project, part.part);
    const bool outlined = std::any_of(source.sets.begin(), source.sets.end(),
                                      [](const LineSet& s) { return s.role == role::outline; });
    std::vector<CutLine> out;
    for (const RunSet& run : part.runs) {
        if (run.ink || !parts(lane_of(project, run)) || piles.steps.contains(run.step)) continue;
        const LineSet* set = find(source, run.set);
        const bool hole =
            set && (set->role == role::motif || set->role == role::hole || set->role == role::window);
        if (hole && !outlined) continue;
        for (const Polyline& line : run.lines)
            if (line.closed && line.points.size() > 2) out.push_back({line, run.set});
    }
    return out;
}

struct CutArea {
    Region material;
    std::size_t left_out = 0; ///< clusters that are too large or too tangled to be looked into
    struct Crossed {
        Point at;
        LineSetId set; ///< the one whose lines cross there; none when they are of two
    };
    std::vector<Crossed> crossed;
};

CutArea cut_area(const std::vector<CutLine>& closed) {
    std::vector<ClusterRing> rings;
    for (const CutLine& cut : closed)
        rings.push_back({&cut.line.points, true});
    CutArea out;
    if (nested_pairs(rings, most_nested) > most_nested) {
        out.left_out = 1;
        return out;
    }
    Polylines kept;
    for (const Cluster& cluster : clusters(rings, 0.1)) {
        std::size_t points = 0;
        Polylines own;
        for (const std::uint32_t i : cluster.rings)
            points += closed[i].line.points.size();
        if (points <= most_points)
            for (const std::uint32_t i : cluster.rings)
                own.push_back(closed[i].line);
        const auto crossed =
            points > most_points ? std::nullopt : crossings_found(own, false, most_crossings);
        if (!crossed) {
            ++out.left_out;
            continue;
        }
        for (const Crossing& c : *crossed) {
            const LineSetId a = closed[cluster.rings[c.a]].set, b = closed[cluster.rings[c.b]].set;
            out.crossed.push_back({c.at, a == b ? a : LineSetId{}});
        }
        std::move(own.begin(), own.end(), std::back_inserter(kept));
    }
    out.material = region_of(kept, FillRule::evenodd);
    return out;
}

/// The line sets whose cut lines pass there.
std::vector<LineSetId> sets_at(const Project& project, const EvaluatedPart& part, const Box& box) {
    std::vector<LineSetId> out;
    for (const RunSet& run : part.runs)
        if (!run.ink && run.set && parts(lane_of(project, run)) &&
            std::any_of(run.lines.begin(), run.lines.end(),
                        [&](const Polyline& line) { return bounds(line).meets(box); }))
            out.push_back(run.set);
    return out;
}

const checks::Narrow& told_as(NarrowPlace::Kind kind) {
    switch (kind) {
    case NarrowPlace::Kind::small_piece:
        return checks::piece_small;
    case NarrowPlace::Kind::neck:
        return checks::piece_neck;
    case NarrowPlace::Kind::sliver:
        return checks::piece_sliver;
    case NarrowPlace::Kind::piece:
        break;
    }
    return checks::piece_thin;
}

class PieceCheck {
  public:
    PieceCheck(const Project& project, const EvaluatedPart& part, const PieceNeeds& needs, Findings& out)
        : project_(project)
        , part_(part)
        , needs_(needs)
        , out_(out) {}

    void look_at(const CutArea& area, Progress& progress) {
        NarrowPlaces found =
            narrow_places(area.material, needs_.least_width, needs_.least_size, most_points, progress);
        if (progress.cancelled()) return;
        unchecked_ += found.unchecked + area.left_out;
        left_out_ += area.left_out;
        crossings(area, found.places);
        for (NarrowPlace& place : found.places)
            if (!is_point(place)) places_.push_back(std::move(place));
    }
    bool all_known() const { return left_out_ == 0; }

    void tell() {
        for (const auto& [set, found] : crossing_)
            out_.push_back(with_remedies_if(static_cast<bool>(set),
                                            checks::piece_cross(at(found.second, set), Count{found.first})));
        std::size_t told = 0;
        for (const NarrowPlace& place : places_)
            if (told++ < most_told) tell(place);
        if (places_.size() > most_told) {
            Box all;
            for (std::size_t i = most_told; i < places_.size(); ++i)
                all.add(places_[i].box);
            out_.push_back(
                checks::piece_more(at(all), Count{places_.size() - most_told}, {in_mm(needs_.least_width)}));
        }
        if (unchecked_ > 0) out_.push_back(checks::piece_unchecked(at(part_.box), Count{unchecked_}));
    }

    void beyond(const Region& material) {
        const Region outer = without_holes(material);
        if (outer.empty()) return;
        for (const RunSet& run : part_.runs)
            if (marks(lane_of(project_, run))) beyond(run, outer);
    }

  private:
    FindingPlace at(const Box& box, LineSetId set = {}, StepId step = {}) const {
        return {part_.part, {}, set, step, place_of(box)};
    }

    static Box around(Point p) {
        Box out;
        out.add(p);
        return out.grown(0.5);
    }

    /// No neck but a point, where outlines touch or cross: there is nothing to thicken.
    static bool is_point(const NarrowPlace& place) {
        constexpr double touch_mm = 0.02;
        return place.kind == NarrowPlace::Kind::neck && in_mm(place.width) < touch_mm;
    }

    void cross(const Box& box, LineSetId set) {
        auto& [count, all] = crossing_[set];
        ++count;
        all.add(box);
    }

    /// Where outlines cross, and where they only touch.
    void crossings(const CutArea& area, const std::vector<NarrowPlace>& places) {
        PointGrid<char> told(0.05); // what crosses twice within it crosses once
        for (const CutArea::Crossed& crossed : area.crossed) {
            bool known = false;
            told.near(crossed.at, [&](char, double) { known = true; });
            if (known) continue;
            told.add(crossed.at, 0);
            cross(around(crossed.at), crossed.set);
        }
        for (const NarrowPlace& place : places) {
            if (!is_point(place)) continue;
            const Box near = Box(place.box).grown(0.5);
            if (std::any_of(area.crossed.begin(), area.crossed.end(),
                            [&](const CutArea::Crossed& c) { return near.contains(c.at); }))
                continue;
            const auto sets = sets_at(project_, part_, place.box);
            cross(place.box, sets.size() == 1 ? sets.front() : LineSetId{});
        }
        for (const auto& [set, found] : crossing_)
            out_.push_back(with_remedies_if(static_cast<bool>(set),
                                            checks::piece_cross(at(found.second, set), Count{found.first})));
    }

    void tell(const NarrowPlace& place) {
        const auto sets = sets_at(project_, part_, place.box);
        const bool one = sets.size() == 1;
        const bool crumb = place.kind == NarrowPlace::Kind::small_piece;
        const double thicker = (in_mm(needs_.least_width) - in_mm(place.width)) / 2 + 0.03;
        Finding told = told_as(place.kind)(
            at(place.box, one ? sets.front() : LineSetId{}), {in_mm(place.width)},
            {in_mm(crumb ? needs_.least_size : needs_.least_width)}, needs_.stock,
            {std::max(place.box.width(), place.box.height())}, {thicker},
            say("%1 x %2 mm", number(place.box.width(), 1), number(place.box.height(), 1)));
        // What lies between lines of several sets is mended by moving one of them: that is the maker's
        // choice.
        out_.push_back(with_remedies_if(one, std::move(told)));
    }

    /// The stretches of the lines that leave the region; of very long ones what lies around the point
    /// farthest from its box, as the farthest is what is told.
    static Polylines leaving(const Polylines& lines, const Region& region) {
        constexpr std::size_t most = 4000;
        const RegionIndex index(region);
        const Box box = bounds(region);
        const auto off = [&](Point p) {
            return std::max({box.x0 - p.x, p.x - box.x1, box.y0 - p.y, p.y - box.y1, 0.0});
        };
        Polylines out;
        Polyline stretch;
        const auto end = [&] {
            if (stretch.points.size() > most) {
                const auto& points = stretch.points;
                const auto far = std::max_element(points.begin(), points.end(),
                                                  [&](Point a, Point b) { return off(a) < off(b); });
                const auto from =
                    points.begin() + std::max<std::ptrdiff_t>(0, far - points.begin() - most / 2);
                const auto to =
                    points.end() - from > static_cast<std::ptrdiff_t>(most) ? from + most : points.end();
                stretch.points = std::vector<Point>(from, to);
            }
            if (!stretch.points.empty()) out.push_back(std::exchange(stretch, {}));
        };
        const auto look = [&](Point a, Point b) {
            if (index.contains(a) && index.contains(b) && !index.crosses(a, b)) return end();
            if (stretch.points.empty()) stretch.points.push_back(a);
            stretch.points.push_back(b);
        };
        for (const Polyline& line : lines) {
            const auto& p = line.points;
            if (p.size() == 1 && !index.contains(p[0])) out.push_back(line);
            for (std::size_t i = 1; i < p.size(); ++i)
                look(p[i - 1], p[i]);
            if (line.closed && p.size() > 2) look(p.back(), p.front());
            end();
        }
        return out;
    }

    void beyond(const RunSet& run, const Region& outer) {
        const Box all = bounds(run.lines);
        const Box frame = Box(all).grown(1);
        Box whole = bounds(outer);
        whole.add(frame);
        const Region allowed = offset(outer, mm(beyond_slack), {Corner::mitre, 2, mm(0.01)});
        const Polylines leave = leaving(run.lines, allowed);
        if (leave.empty()) return;
        const Region outside = subtracted(region_of(Shape{{rectangle(whole.grown(1))}}), allowed);
        const NearestEdge edge(outer);
        double far = 0;
        Box where;
        std::set<std::string> sides;
        for (const Polyline& line : clipped(leave, outside)) {
            if (in_mm(length(line)) < beyond_slack && line.points.size() > 1) continue;
            where.add(bounds(line));
            double here = 0;
            const char* side = "";
            for (const Point p : simplified(line, mm(0.1)).points) {
                const Point nearest = edge.to(p);
                const double d = distance(p, nearest);
                if (d <= here) continue;
                here = d;
                const Point way = p - nearest;
                side = std::abs(way.x) > std::abs(way.y) ? (way.x < 0 ? to_say("left") : to_say("right"))
                                                         : (way.y < 0 ? to_say("top") : to_say("bottom"));
            }
            far = std::max(far, here);
            if (here > 0) sides.insert(side);
        }
        if (far <= beyond_slack) return;
        Phrase sides_said;
        for (const std::string& side : sides) {
            const Phrase next = as_word(core_words, side);
            sides_said = sides_said.empty()        ? next
                         : *sides.rbegin() == side ? say("%1 and %2", sides_said, next)
                                                   : say("%1, %2", sides_said, next);
        }
        const Box room = bounds(outer).grown(-rim);
        const double factor = std::min(room.width() / std::max(all.width(), 1e-9),
                                       room.height() / std::max(all.height(), 1e-9));
        Finding told = checks::marks_beyond(
            at(where, run.set, run.step), run.name, {far}, sides_said, {factor}, {all.width() * factor},
            run.step ? word(kind_of(find(*find(project_, part_.part), run.step)->what)) : as_is(run.name));
        out_.push_back(with_remedies(std::move(told), [&](const std::string& remedy) {
            return remedy == "beyond.smaller" ? factor > 0.05 && factor < 1
                   : remedy == "beyond.turn"  ? all.height() <= room.width() && all.width() <= room.height()
                                              : can_wrap(run, all, room);
        }));
    }

    /// Words with a blank near their middle, in a single straight line.
    bool can_wrap(const RunSet& run, const Box& all, const Box& room) const {
        const Step* step = find(*find(project_, part_.part), run.step);
        const Lettering* lettering = step ? lettering_in(step->what) : nullptr;
        return lettering && lettering->path == Lettering::Path::straight &&
               lettering->text.find('\n') == std::string::npos &&
               trimmed(lettering->text).find(' ') != std::string_view::npos &&
               all.width() * 0.6 <= room.width() && all.height() * 2.4 <= room.height();
    }

    const Project& project_;
    const EvaluatedPart& part_;
    const PieceNeeds& needs_;
    std::map<LineSetId, std::pair<std::size_t, Box>> crossing_;
    std::vector<NarrowPlace> places_;
    std::size_t unchecked_ = 0, left_out_ = 0;
    Findings& out_;
};

} // namespace

PieceNeeds piece_needs(const std::vector<const Stock*>& stocks) {
    PieceNeeds out{mm(0), mm(0), say("card")};
    for (const Stock* stock : stocks) {
        if (stock->least_width > out.least_width)
            out.least_width = stock->least_width, out.stock = word(*stock);
        out.least_size = std::max(out.least_size, stock->least_piece);
    }
    if (stocks.empty()) out.least_width = Stock{}.least_width, out.least_size = Stock{}.least_piece;
    return out;
}

void check_pieces(const Project& project, const EvaluatedPart& part, const PieceNeeds& needs, Findings& out,
                  Progress& progress) {
    const Piles piles = piles_of(project, *find(project, part.part), part);
    std::map<LineSetId, std::vector<CutLine>> layers; // none: all that lies on nothing
    for (CutLine& cut : closed_cuts(project, part, piles))
        layers[piles.layers.contains(cut.set) ? cut.set : LineSetId{}].push_back(std::move(cut));
    PieceCheck check(project, part, needs, out);
    std::vector<Region> materials;
    for (const auto& [set, lines] : layers) {
        const CutArea area = cut_area(lines);
        check.look_at(area, progress);
        if (progress.cancelled()) return;
        materials.push_back(area.material);
    }
    if (!piles.layers.empty())
        out.push_back(
            checks::piece_piled({part.part, {}, {}, {}, place_of(part.box)}, Count{piles.layers.size()}));
    check.tell();
    if (check.all_known()) check.beyond(materials.size() == 1 ? materials.front() : united(materials));
}

} // namespace dotlane
