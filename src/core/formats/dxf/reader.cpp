#include "core/formats/dxf/reader.h"

#include <numbers>

#include "core/base/finding_kind.h"
#include "core/formats/chain.h"
#include "core/formats/dxf/entities.h"
#include "core/formats/dxf/groups.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Name> left_out{
    "dxf.left-out", Grade::caution, to_say("Left out: %1 %2."), {"count", "what"}};
constexpr FindingKind<Count> hidden_layers{
    "dxf.hidden",
    Grade::hint,
    to_say("%n [line lies on a layer that is off.|lines lie on layers that are off.]"),
    {"count"}};
constexpr FindingKind<Name, Count> pieces_joined{
    "dxf.joined",
    Grade::hint,
    to_say("%1 pieces were joined at their ends to %n [line|lines]."),
    {"before", "after"}};

using dxf::Group;
using dxf::Record;
using dxf::Stop;

constexpr int of_layer = 256, of_block = 0;

struct Ink {
    int index = of_layer;
    std::optional<Colour> exact; ///< a true colour, group 420
};
struct Entity {
    std::string layer;
    Ink ink;
    Contour contour;
};
struct Insert {
    std::string block, layer;
    Ink ink;
    Affine place; ///< of the block's points, but for where the copy lies
    Affine grid;  ///< of steps from copy to copy: turned, not scaled
    int columns = 1, rows = 1;
    Point pitch;
};
struct Block {
    Point base;
    std::vector<Entity> entities;
    std::vector<Insert> inserts;
};
struct Layer {
    Ink ink{7, {}};
    bool off = false;
};

struct Content {
    std::map<std::string, Block> blocks; ///< "" holds what is drawn
    std::map<std::string, Layer> layers;
    std::map<std::string, int> left_out;
    int units = 0, hidden = 0;
};

Ink ink_of(const Record& r, int otherwise) {
    Ink ink{r.whole(62, otherwise), {}};
    if (ink.index < 0 || ink.index > of_layer) ink.index = otherwise;
    if (r.has(420)) {
        const int rgb = r.whole(420);
        const auto byte = [rgb](int shift) { return static_cast<std::uint8_t>(rgb >> shift & 255); };
        ink.exact = Colour{byte(16), byte(8), byte(0)};
    }
    return ink;
}

/// Reads the records one after another into Content.
class Parser {
  public:
    Parser(std::string_view text, const ReadLimits& limits, Progress& progress)
        : groups_(text)
        , limits_(limits)
        , progress_(progress) {}

    Content run() {
        Group group;
        bool any = false;
        Record record;
        while (groups_.next(group)) {
            if (group.code == 0) {
                if (any) finish(record);
                record = {group.value, group.line, {}};
                any = true;
            } else if (any)
                record.groups.push_back(group);
        }
        if (any) finish(record);
        if (!seen_) throw Stop{"dxf.not-dxf", say("This is not a DXF file in text form.")};
        if (!section_.empty())
            throw Stop{"dxf.cut", say("The file is cut short: it ends within its section %1.", section_),
                       record.line};
        return std::move(content_);
    }

  private:
    void finish(const Record& r) {
        if (++records_ % 1024 == 0 && progress_.cancelled()) throw Stop{"cancelled", say("Cancelled.")};
        if (r.kind == "SECTION") {
            seen_ = true;
            section_ = r.has(2) ? r.text(2) : "without a name";
            if (section_ == "HEADER") header(r);
        } else if (r.kind == "ENDSEC") {
            end_polyline();
            section_.clear();
        } else if (section_ == "TABLES") {
            if (r.kind == "LAYER") layer(r);
        } else if (section_ == "ENTITIES" ||
                   (section_ == "BLOCKS" && (!block_.empty() || r.kind == "BLOCK"))) {
            entity(r);
        }
    }

    void header(const Record& r) {
        bool here = false;
        for (const Group& g : r.groups) {
            if (g.code == 9) here = g.value == "$INSUNITS";
            if (here && g.code == 70) content_.units = dxf::whole_of(g);
        }
    }

    void layer(const Record& r) {
        const int index = r.whole(62, 7);
        Layer& layer = content_.layers[r.text(2)];
        layer.ink = ink_of(r, 7);
        if (index < 0 && index >= -255) layer.ink.index = -index;
        layer.off = index < 0 || (r.whole(70) & 1) != 0;
    }

    void entity(const Record& r) {
        if (r.kind == "BLOCK") {
            block_ = r.text(2);
            content_.blocks[block_].base = r.point(10);
            return;
        }
        if (r.kind == "ENDBLK") {
            end_polyline();
            return block_.clear();
        }
        if (r.kind == "VERTEX") return vertex(r);
        end_polyline();
        if (r.kind == "SEQEND") return;
        if (r.whole(67) == 1 && block_.empty())
            return void(++content_.left_out[to_say("objects on paper layouts")]);
        if (r.whole(60) == 1) return void(++content_.hidden);
        if (r.kind == "POLYLINE") {
            if ((r.whole(70) & (16 | 64)) != 0) return void(++content_.left_out[to_say("meshes")]);
            polyline_ = r;
            return;
        }
        if (r.kind == "INSERT") return insert(r);
        if (auto contour = dxf::contour_of(r, content_.left_out))
            add(r, std::move(*contour));
        else if (const std::string words = dxf::left_out(r.kind); !words.empty())
            ++content_.left_out[words];
    }

    void vertex(const Record& r) {
        // What only frames a smoothed polyline lies off it.
        if (polyline_ && (r.whole(70) & 16) == 0) vertices_.push_back({r.point(10), r.number(42)});
    }

    void end_polyline() {
        if (!polyline_) return;
        const Record r = std::move(*polyline_);
        polyline_.reset();
        const auto vertices = std::exchange(vertices_, {});
        if (vertices.empty()) return void(++content_.left_out[to_say("polylines without points")]);
        Contour c = dxf::polyline(vertices, (r.whole(70) & 1) != 0);
        const bool in_space = (r.whole(70) & 8) != 0;
        add(r, in_space ? std::move(c) : transformed(c, dxf::plane_of(r)));
    }

    void insert(const Record& r) {
        const Affine plane = dxf::plane_of(r), turn = Affine::rotation(r.number(50) * std::numbers::pi / 180);
        const Affine at = plane * Affine::translation(r.point(10)) * turn;
        content_.blocks[block_].inserts.push_back(
            {r.text(2), r.text(8), ink_of(r, of_layer), Affine::scaling(r.number(41, 1), r.number(42, 1)), at,
             std::max(1, r.whole(70, 1)), std::max(1, r.whole(71, 1)), Point{r.number(44), r.number(45)}});
    }

    void add(const Record& r, Contour contour) {
        segments_ += contour.segments.size();
        if (segments_ > limits_.segments)
            throw Stop{"dxf.large", say("The file holds %1. %2", words(limits_), what_to_do_when_large())};
        content_.blocks[block_].entities.push_back({r.text(8), ink_of(r, of_layer), std::move(contour)});
    }

    dxf::Groups groups_;
    const ReadLimits& limits_;
    Progress& progress_;
    Content content_;
    std::string section_, block_;
    std::optional<Record> polyline_;
    std::vector<dxf::Vertex> vertices_;
    bool seen_ = false; ///< a section
    std::size_t records_ = 0, segments_ = 0;
};

/// Lays out what is drawn, with every insert's block in its places.
class Expander {
  public:
    Expander(Content& in, const ReadLimits& limits, Progress& progress)
        : in_(in)
        , limits_(limits)
        , progress_(progress) {}

    std::vector<DrawnLine> run(const Affine& to_mm) {
        expand("", to_mm, "0", {7, {}}, 0);
        return std::move(lines_);
    }

  private:
    void count(std::size_t segments) {
        segments_ += segments;
        if (++visits_ % 1024 == 0 && progress_.cancelled()) throw Stop{"cancelled", say("Cancelled.")};
        if (visits_ > limits_.visits || segments_ > limits_.segments || lines_.size() >= limits_.lines)
            throw Stop{"dxf.large", say("With its blocks repeated the file holds %1. %2", words(limits_),
                                        what_to_do_when_large())};
    }

    const Layer& layer(const std::string& name) const {
        static const Layer plain;
        const auto it = in_.layers.find(name);
        return it == in_.layers.end() ? plain : it->second;
    }

    void expand(const std::string& name, const Affine& to, const std::string& outer, const Ink& ink,
                int depth) {
        if (depth > 32) throw Stop{"dxf.deep", say("Blocks lie within blocks more than 32 levels deep.")};
        const auto it = in_.blocks.find(name);
        if (it == in_.blocks.end()) return;
        for (const Entity& e : it->second.entities) {
            count(e.contour.segments.size());
            // Layer 0 inside a block stands for the layer of the insert.
            const std::string& own = e.layer == "0" && depth > 0 ? outer : e.layer;
            if (layer(own).off) {
                ++in_.hidden;
                continue;
            }
            DrawnLine line;
            line.group = own;
            line.shape = Shape{{transformed(e.contour, to)}};
            const Ink settled = ink_for(e.ink, own, ink);
            line.drawn.stroke = settled.exact ? *settled.exact : dxf::colour_of_index(settled.index);
            lines_.push_back(std::move(line));
        }
        for (const Insert& i : it->second.inserts) {
            const std::string& own = i.layer == "0" && depth > 0 ? outer : i.layer;
            const auto inner = in_.blocks.find(i.block);
            if (inner == in_.blocks.end()) continue;
            const Affine place = i.place * Affine::translation(inner->second.base * -1);
            for (int row = 0; row < i.rows; ++row)
                for (int column = 0; column < i.columns; ++column) {
                    count(0);
                    const Affine copy =
                        i.grid * Affine::translation({column * i.pitch.x, row * i.pitch.y}) * place;
                    expand(i.block, to * copy, own, ink_for(i.ink, own, ink), depth + 1);
                }
        }
    }

    Ink ink_for(const Ink& own, const std::string& on, const Ink& block) const {
        if (own.exact) return own;
        if (own.index == of_block) return block;
        return own.index == of_layer ? layer(on).ink : own;
    }

    Content& in_;
    const ReadLimits& limits_;
    Progress& progress_;
    std::vector<DrawnLine> lines_;
    std::size_t visits_ = 0, segments_ = 0;
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

void tell(const Content& content, Findings& out) {
    for (const auto& [what, count] : content.left_out)
        out.push_back(left_out({}, Count{count}, as_word(core_words, what)));
    if (content.hidden > 0) out.push_back(hidden_layers({}, Count{content.hidden}));
}

} // namespace

Result<DxfResult> read_dxf(const std::string& bytes, const DxfOptions& options, Progress& progress) {
    try {
        if (bytes.substr(0, 64).find("Binary DXF") != std::string::npos)
            throw Stop{"dxf.binary", say("This DXF file is in binary form. Save it as text.")};
        Content content = Parser(bytes, options.limits, progress).run();
        const double unit = unit_mm(content.units), scale = unit > 0 ? unit : 1;
        // A DXF drawing has y up.
        std::vector<DrawnLine> lines =
            Expander(content, options.limits, progress).run(Affine::scaling(scale, -scale));
        DxfResult out;
        out.physical_size = unit > 0;
        const std::size_t before = lines.size();
        out.drawing.lines = chained(std::move(lines), mm(0.01));
        if (out.drawing.lines.size() < before)
            out.findings.push_back(
                pieces_joined({}, std::to_string(before), Count{out.drawing.lines.size()}));
        tell(content, out.findings);
        settle_page(out.drawing);
        return out;
    } catch (const Stop& e) {
        return fail(e.code, say("%1 Nothing has changed.", e.message), {options.file_name, e.line});
    }
}

} // namespace dotlane
