#include "core/formats/dxf/reader.h"

#include <cmath>
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>
#include <map>
#include <numbers>
#include <sstream>

#include "core/formats/chain.h"

namespace dotlane {
namespace {

using std::numbers::pi;

struct TooMuch {
    const char *code, *message;
};

struct Entity {
    std::string layer;
    int colour = 256; ///< index; 256: of its layer, 0: of its block
    Contour contour;
};
struct Insert {
    std::string block, layer;
    int colour = 256;
    Affine to;
    int columns = 1, rows = 1;
    Point pitch;
};
struct Block {
    Point base;
    std::vector<Entity> entities;
    std::vector<Insert> inserts;
};

double checked(double v) {
    if (!std::isfinite(v) || std::abs(v) > 1e9)
        throw TooMuch{"dxf.number", "The file holds a number that no drawing can have."};
    return v;
}
Point point(double x, double y) {
    return {checked(x), checked(y)};
}

/// The nine named colours of the index; others by their hue wheel (DXF reference, colour index).
Colour colour_of_index(int index) {
    static constexpr Colour named[] = {{0, 0, 0},       {255, 0, 0},    {255, 255, 0}, {0, 255, 0},
                                       {0, 255, 255},   {0, 0, 255},    {255, 0, 255}, {0, 0, 0},
                                       {128, 128, 128}, {192, 192, 192}};
    if (index >= 0 && index <= 9) return named[index];
    if (index >= 250) {
        const auto grey = static_cast<std::uint8_t>(51 + (index - 250) * 40);
        return {grey, grey, grey};
    }
    const double hue = (index / 10 - 1) * 15.0 / 60, value[] = {1, 0.65, 0.5, 0.3, 0.15};
    const double v = value[(index % 10) / 2], low = index % 2 == 1 ? v / 2 : 0, f = hue - std::floor(hue);
    const double up = low + (v - low) * f, down = v - (v - low) * f;
    const double rgb[6][3] = {{v, up, low},   {down, v, low}, {low, v, up},
                              {low, down, v}, {up, low, v},   {v, low, down}};
    const auto& c = rgb[static_cast<int>(hue) % 6];
    const auto byte = [](double x) { return static_cast<std::uint8_t>(std::lround(x * 255)); };
    return {byte(c[0]), byte(c[1]), byte(c[2])};
}

class Collector final : public DL_CreationAdapter {
  public:
    std::map<std::string, Block> blocks; ///< "" holds what is drawn
    std::map<std::string, int> layer_colours;
    std::map<std::string, bool> layers_off;
    std::map<std::string, int> left_out;
    int units = 0;

    void setVariableInt(const std::string& key, int value, int) override {
        if (key == "$INSUNITS") units = value;
    }
    void addLayer(const DL_LayerData& data) override {
        const int colour = getAttributes().getColor();
        layer_colours[data.name] = std::abs(colour);
        layers_off[data.name] = data.off || colour < 0 || (data.flags & 1) != 0;
    }
    void addBlock(const DL_BlockData& data) override {
        // Paper and model space are blocks too, but not ones that are inserted.
        current_ = data.name;
        blocks[current_].base = point(data.bpx, data.bpy);
    }
    void endBlock() override { current_.clear(); }

    void addPoint(const DL_PointData& d) override { add({point(d.x, d.y), {}, false}); }
    void addLine(const DL_LineData& d) override {
        Contour c{point(d.x1, d.y1), {}, false};
        c.line_to(point(d.x2, d.y2));
        add(std::move(c));
    }
    void addArc(const DL_ArcData& d) override {
        add(arc(point(d.cx, d.cy), {checked(d.radius), 0}, 1, d.angle1 * pi / 180, d.angle2 * pi / 180));
    }
    void addCircle(const DL_CircleData& d) override {
        add(arc(point(d.cx, d.cy), {checked(d.radius), 0}, 1, 0, 2 * pi));
    }
    void addEllipse(const DL_EllipseData& d) override {
        add(arc(point(d.cx, d.cy), point(d.mx, d.my), checked(d.ratio), d.angle1, d.angle2));
    }
    void addPolyline(const DL_PolylineData& d) override {
        finish();
        polyline_.emplace();
        polyline_->closed = (d.flags & 1) != 0;
        if ((d.flags & (16 | 64)) != 0) ++left_out["meshes"], polyline_.reset();
    }
    void addVertex(const DL_VertexData& d) override {
        if (polyline_) vertices_.push_back({point(d.x, d.y), checked(d.bulge)});
    }
    void addSpline(const DL_SplineData& d) override {
        finish();
        spline_ = {static_cast<int>(d.degree), (d.flags & 1) != 0, true, {}, {}, {}, {}};
    }
    void addControlPoint(const DL_ControlPointData& d) override {
        spline_.controls.push_back(point(d.x, d.y));
        spline_.weights.push_back(d.w);
    }
    void addFitPoint(const DL_FitPointData& d) override { spline_.fits.push_back(point(d.x, d.y)); }
    void addKnot(const DL_KnotData& d) override { spline_.knots.push_back(checked(d.k)); }
    void endEntity() override { finish(); }
    void endSequence() override { finish(); }
    void addInsert(const DL_InsertData& d) override {
        finish();
        const double turn = checked(d.angle) * pi / 180;
        const Affine flip = mirrored() ? Affine::scaling(-1, 1) : Affine{};
        blocks[current_].inserts.push_back(
            {d.name, getAttributes().getLayer(), getAttributes().getColor(),
             flip * Affine::translation(point(d.ipx, d.ipy)) * Affine::rotation(turn) *
                 Affine::scaling(checked(d.sx), checked(d.sy)),
             std::clamp(d.cols, 1, 10000), std::clamp(d.rows, 1, 10000), point(d.colSp, d.rowSp)});
    }

    void addText(const DL_TextData&) override { ++left_out["texts"]; }
    void addMText(const DL_MTextData&) override { ++left_out["texts"]; }
    void addArcAlignedText(const DL_ArcAlignedTextData&) override { ++left_out["texts"]; }
    void addHatch(const DL_HatchData&) override { ++left_out["hatches"]; }
    void addSolid(const DL_SolidData&) override { ++left_out["solids"]; }
    void addTrace(const DL_TraceData&) override { ++left_out["solids"]; }
    void add3dFace(const DL_3dFaceData&) override { ++left_out["faces"]; }
    void addImage(const DL_ImageData&) override { ++left_out["pictures"]; }
    void addXLine(const DL_XLineData&) override { ++left_out["endless lines"]; }
    void addRay(const DL_RayData&) override { ++left_out["endless lines"]; }
    void addLeader(const DL_LeaderData&) override { ++left_out["dimensions"]; }
    void addDimAlign(const DL_DimensionData&, const DL_DimAlignedData&) override { ++left_out["dimensions"]; }
    void addDimLinear(const DL_DimensionData&, const DL_DimLinearData&) override { ++left_out["dimensions"]; }
    void addDimRadial(const DL_DimensionData&, const DL_DimRadialData&) override { ++left_out["dimensions"]; }
    void addDimDiametric(const DL_DimensionData&, const DL_DimDiametricData&) override {
        ++left_out["dimensions"];
    }
    void addDimAngular(const DL_DimensionData&, const DL_DimAngular2LData&) override {
        ++left_out["dimensions"];
    }
    void addDimAngular3P(const DL_DimensionData&, const DL_DimAngular3PData&) override {
        ++left_out["dimensions"];
    }
    void addDimOrdinate(const DL_DimensionData&, const DL_DimOrdinateData&) override {
        ++left_out["dimensions"];
    }

  private:
    struct Vertex {
        Point at;
        double bulge;
    };
    struct Curve {
        int degree = 0;
        bool closed = false, open = false;
        std::vector<Point> controls, fits;
        std::vector<double> weights, knots;
    };

    bool mirrored() {
        const double* direction = getExtrusion() ? getExtrusion()->getDirection() : nullptr;
        return direction && direction[2] < 0;
    }

    void add(Contour c) {
        if (mirrored()) c = transformed(c, Affine::scaling(-1, 1));
        blocks[current_].entities.push_back(
            {getAttributes().getLayer(), getAttributes().getColor(), std::move(c)});
    }

    /// Counter-clockwise from one parameter to the other; `major` is the half axis, `ratio` the other one's
    /// share.
    static Contour arc(Point centre, Point major, double ratio, double from, double to) {
        checked(from), checked(to);
        const Point minor{-major.y * ratio, major.x * ratio};
        while (to <= from + 1e-12)
            to += 2 * pi;
        const double sweep = std::min(to - from, 2 * pi);
        const int pieces = std::max(1, static_cast<int>(std::ceil(sweep / (pi / 4) - 1e-9)));
        const double step = sweep / pieces, handle = 4.0 / 3 * std::tan(step / 4);
        const auto at = [&](double a) { return centre + major * std::cos(a) + minor * std::sin(a); };
        const auto slope = [&](double a) { return major * -std::sin(a) + minor * std::cos(a); };
        Contour c{at(from), {}, sweep > 2 * pi - 1e-9};
        for (int i = 0; i < pieces; ++i) {
            const double a = from + step * i, b = a + step;
            c.cubic_to(at(a) + slope(a) * handle, at(b) - slope(b) * handle, at(b));
        }
        return c;
    }

    void finish() {
        if (polyline_) {
            Contour c;
            const std::size_t n = vertices_.size();
            for (std::size_t i = 0; n > 0 && i < n + (polyline_->closed ? 1 : 0); ++i) {
                const Vertex& v = vertices_[i % n];
                if (i == 0)
                    c.start = v.at;
                else if (const double bulge = vertices_[i - 1].bulge;
                         bulge != 0 && distance(c.end(), v.at) > 0) {
                    // bulge = tan(angle / 4), positive: counter-clockwise (DXF reference)
                    const double angle = 4 * std::atan(bulge),
                                 r = distance(c.end(), v.at) / (2 * std::abs(std::sin(angle / 2)));
                    c.arc_to(r, r, 0, std::abs(angle) > pi, bulge > 0, v.at);
                } else if (i < n)
                    c.line_to(v.at); // the last edge of a closed one is implied
            }
            c.closed = polyline_->closed;
            if (n > 0) add(std::move(c));
            polyline_.reset();
            vertices_.clear();
        }
        if (spline_.open) {
            spline_.open = false;
            Contour c = spline_contour(spline_.degree, spline_.controls, spline_.weights, spline_.knots,
                                       spline_.closed);
            if (c.segments.empty() && spline_.fits.size() > 1) {
                c.start = spline_.fits.front();
                for (std::size_t i = 1; i < spline_.fits.size(); ++i)
                    c.line_to(spline_.fits[i]);
                ++left_out["curves of splines known only by points on them (taken as straight lines)"];
            }
            if (!c.segments.empty())
                add(std::move(c));
            else
                ++left_out["broken splines"];
        }
    }

    std::string current_;
    std::optional<Contour> polyline_;
    std::vector<Vertex> vertices_;
    Curve spline_;
};

class Expander {
  public:
    Expander(Collector& in, const DxfOptions& options, Progress& progress)
        : in_(in)
        , options_(options)
        , progress_(progress) {}

    std::vector<DrawnLine> run(const Affine& to_mm) {
        expand("", to_mm, "0", 7, 0);
        return std::move(lines_);
    }
    int hidden = 0;

  private:
    void expand(const std::string& name, const Affine& to, const std::string& layer, int colour, int depth) {
        if (depth > 32) throw TooMuch{"dxf.deep", "Blocks lie within blocks more than 32 levels deep."};
        const auto it = in_.blocks.find(name);
        if (it == in_.blocks.end()) return;
        for (const Entity& e : it->second.entities) {
            if (progress_.cancelled()) throw TooMuch{"cancelled", "Cancelled."};
            // Layer 0 inside a block stands for the layer of the insert.
            const std::string& own = e.layer == "0" && depth > 0 ? layer : e.layer;
            if (in_.layers_off[own]) {
                ++hidden;
                continue;
            }
            if (lines_.size() >= options_.max_lines)
                throw TooMuch{"dxf.large", "The file holds more lines than can be worked with."};
            DrawnLine line;
            line.group = own;
            line.shape = Shape{{transformed(e.contour, to)}};
            line.drawn.stroke = colour_of_index(settled(e.colour, own, colour));
            lines_.push_back(std::move(line));
        }
        for (const Insert& i : it->second.inserts) {
            const std::string& own = i.layer == "0" && depth > 0 ? layer : i.layer;
            const auto inner = in_.blocks.find(i.block);
            const Point base = inner == in_.blocks.end() ? Point{} : inner->second.base;
            for (int row = 0; row < i.rows; ++row)
                for (int column = 0; column < i.columns; ++column)
                    expand(i.block,
                           to * i.to *
                               Affine::translation({column * i.pitch.x - base.x, row * i.pitch.y - base.y}),
                           own, settled(i.colour, own, colour), depth + 1);
        }
    }
    int settled(int index, const std::string& layer, int of_block) {
        if (index == 0) return of_block;
        if (index != 256) return index;
        const auto it = in_.layer_colours.find(layer);
        return it == in_.layer_colours.end() ? 7 : it->second;
    }

    Collector& in_;
    const DxfOptions& options_;
    Progress& progress_;
    std::vector<DrawnLine> lines_;
};

/// Millimetres in a drawing unit, 0 for none ($INSUNITS, DXF reference).
double unit_mm(int code) {
    switch (code) {
    case 1:
        return 25.4;
    case 2:
        return 304.8;
    case 4:
        return 1;
    case 5:
        return 10;
    case 6:
        return 1000;
    case 9:
        return 0.0254;
    case 10:
        return 914.4;
    case 14:
        return 100;
    default:
        return 0;
    }
}

} // namespace

Result<DxfResult> read_dxf(const std::string& bytes, const DxfOptions& options, Progress& progress) {
    Collector collector;
    try {
        std::istringstream stream(bytes);
        DL_Dxf dxf;
        if (bytes.find("SECTION") == std::string::npos || !dxf.in(stream, &collector))
            return fail("dxf.not-dxf", "This is not a DXF file in text form. Nothing has changed.",
                        {options.file_name, 1});
        const double unit = unit_mm(collector.units);
        // The largest model is drawn with y up.
        Expander expander(collector, options, progress);
        std::vector<DrawnLine> lines =
            expander.run(Affine::scaling(unit > 0 ? unit : 1, -(unit > 0 ? unit : 1)));
        DxfResult out;
        out.physical_size = unit > 0;
        const std::size_t before = lines.size();
        out.drawing.lines = chained(std::move(lines), mm(0.01));
        if (out.drawing.lines.size() < before)
            out.findings.push_back(
                {"dxf.joined",
                 Grade::hint,
                 std::to_string(before) + " pieces were joined at their ends to " +
                     std::to_string(out.drawing.lines.size()) + " lines.",
                 {{"before", std::to_string(before)}, {"after", std::to_string(out.drawing.lines.size())}}});
        for (const auto& [what, count] : collector.left_out)
            out.findings.push_back({"dxf.left-out",
                                    Grade::caution,
                                    "Left out: " + std::to_string(count) + " " + what + ".",
                                    {{"what", what}, {"count", std::to_string(count)}}});
        if (expander.hidden > 0)
            out.findings.push_back({"dxf.hidden",
                                    Grade::hint,
                                    std::to_string(expander.hidden) + " lines lie on layers that are off.",
                                    {{"count", std::to_string(expander.hidden)}}});
        settle_page(out.drawing);
        return out;
    } catch (const TooMuch& e) {
        return fail(e.code, std::string(e.message) + " Nothing has changed.", {options.file_name, 0});
    }
}

} // namespace dotlane
