// Lettering: shaped lines of text, sized, set on an arc, joined.
#include <cmath>
#include <numbers>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/geometry/centre_lines.h"
#include "core/lettering/marks.h"
#include "core/lettering/snug.h"
#include "core/sources/lettering_layout.h"

namespace dotlane::sources {
namespace {

constexpr FindingKind<Count, Name> glyphs_missing{
    "lettering.missing",
    Grade::caution,
    to_say("The font \"%2\" lacks %n [character|characters] of this text."),
    {"count", "font"}};
constexpr FindingKind<Name, Name> other_font{
    "lettering.other-font",
    Grade::caution,
    to_say("The font \"%1\" is not installed; \"%2\" stands in for it."),
    {"font", "used"}};
constexpr FindingKind<Name, Name> other_stroke_font{
    "lettering.other-font",
    Grade::caution,
    to_say("There is no stroke font \"%1\"; \"%2\" stands in for it."),
    {"font", "used"}};
constexpr FindingKind<Name, Count> letters_apart{
    "lettering.apart",
    Grade::caution,
    to_say("These letters cannot be brought together without filling a counter: %1."),
    {"pairs", "count"}};
constexpr FindingKind<Count> counters_filled{
    "join.counters",
    Grade::caution,
    to_say("%n [counter is|counters are] filled by joining: letters cover one another there."),
    {"count"}};

std::vector<std::string> lines_of(const std::string& text) {
    std::vector<std::string> out{""};
    for (const char c : text)
        if (c == '\n')
            out.emplace_back();
        else if (c != '\r')
            out.back().push_back(c);
    return out;
}

/// Moves on over the marks that stand before the byte `upto` of a stretch.
void kern(double& x, std::size_t& next, const TextStretch& stretch, std::size_t upto) {
    for (; next < stretch.kerns.size() && stretch.kerns[next].at <= upto; ++next)
        x += stretch.kerns[next].percent / 100 * nominal_em;
}

/// Letter width.
void widen(Line& line, const Lettering& spec) {
    const double wider = spec.glyph_width / 100;
    for (Glyph& g : line.glyphs) {
        g.shape = transformed(g.shape, Affine::scaling(wider, 1));
        g.x *= wider, g.advance *= wider;
    }
}

/// Tracking: `more` between all letters of a line.
void space_out(Layout& layout, double more) {
    for (Line& line : layout.lines) {
        for (std::size_t i = 0; i < line.glyphs.size(); ++i)
            move(line.glyphs[i], more * static_cast<double>(i));
        line.width = line.glyphs.empty() ? 0 : line.glyphs.back().x + line.glyphs.back().advance;
    }
}

Result<Layout> outlined(const Lettering& spec, FontShelf& fonts) {
    Layout out;
    const FontRequest request{spec.font, spec.italic, spec.weight, spec.features};
    out.capitals = fonts.capital_height(request) * nominal_em;
    int lacking = 0;
    std::string used;
    for (const std::string& text : lines_of(spec.text)) {
        Line line;
        double x = 0;
        for (const TextStretch& stretch : stretches_of(text)) {
            if (stretch.glyph) {
                const auto index = fonts.glyph_named(request, stretch.text);
                auto glyph = index ? fonts.glyph(request, mm(nominal_em), *index)
                                   : Result<GlyphOutline>(fail("font.glyph", Phrase()));
                lacking += !glyph;
                if (!glyph) continue;
                line.glyphs.push_back({transformed(glyph->shape, Affine::translation({x, 0})),
                                       glyph_mark(stretch.text), x, glyph->advance_mm});
                x += glyph->advance_mm;
                continue;
            }
            auto run = fonts.outline(request, mm(nominal_em), stretch.text);
            if (!run) return tl::make_unexpected(run.error());
            double unkerned = 0; // where the run itself has put the glyph
            std::size_t next = 0;
            for (std::size_t i = 0; i < run->glyphs.size(); ++i) {
                GlyphOutline& g = run->glyphs[i];
                const std::size_t end =
                    i + 1 < run->glyphs.size() ? run->glyphs[i + 1].cluster : stretch.text.size();
                kern(x, next, stretch, g.cluster);
                line.glyphs.push_back({transformed(g.shape, Affine::translation({x - unkerned, 0})),
                                       end > g.cluster ? stretch.text.substr(g.cluster, end - g.cluster) : "",
                                       x, g.advance_mm});
                x += g.advance_mm, unkerned += g.advance_mm;
            }
            kern(x, next, stretch, stretch.text.size());
            lacking += run->missing_glyphs;
            used = run->family;
        }
        widen(line, spec);
        out.lines.push_back(std::move(line));
    }
    if (!used.empty() && lower_case(used) != lower_case(spec.font))
        out.findings.push_back(other_font({}, spec.font, used));
    if (lacking > 0) out.findings.push_back(glyphs_missing({}, Count{lacking}, used));
    return out;
}

/// Decodes one character; bad bytes count as U+FFFD.
char32_t next_character(const std::string& text, std::size_t& at) {
    const auto byte = static_cast<unsigned char>(text[at++]);
    const int more = byte < 0x80 ? 0 : byte >= 0xf0 ? 3 : byte >= 0xe0 ? 2 : byte >= 0xc0 ? 1 : -1;
    if (more < 0) return 0xfffd;
    char32_t c = more == 0 ? byte : byte & (0x3f >> more);
    for (int i = 0; i < more; ++i) {
        if (at >= text.size() || (static_cast<unsigned char>(text[at]) & 0xc0) != 0x80) return 0xfffd;
        c = (c << 6) | (static_cast<unsigned char>(text[at++]) & 0x3f);
    }
    return c;
}

Result<Layout> stroked_text(const Lettering& spec, const FontShelf& fonts) {
    if (fonts.stroke_fonts().empty())
        return fail("font.none", say("No stroke font is there to letter with."));
    const StrokeFont* font = fonts.stroke_font(spec.font);
    Layout out;
    out.strokes = true;
    if (!font) {
        font = &fonts.stroke_fonts().front();
        out.findings.push_back(other_stroke_font({}, spec.font, font->name));
    }
    // The em of a stroke font: its capitals are 0.7 of it, as is usual for outline fonts.
    const double scale = 0.7 * nominal_em / font->capital_height();
    out.capitals = 0.7 * nominal_em;
    int lacking = 0;
    for (const std::string& text : lines_of(spec.text)) {
        Line line;
        double x = 0;
        for (const TextStretch& stretch : stretches_of(text)) {
            lacking += stretch.glyph; // a stroke font's glyphs have no names
            std::size_t next = 0;
            for (std::size_t at = 0; !stretch.glyph && at < stretch.text.size();) {
                const std::size_t from = at;
                kern(x, next, stretch, from);
                const StrokeGlyph* g = font->glyph(next_character(stretch.text, at));
                lacking += !g;
                if (!g) continue;
                Glyph glyph{{}, stretch.text.substr(from, at - from), x, g->advance() * scale};
                for (const Polyline& stroke : g->strokes) {
                    Contour c{Point{x, 0} + stroke.points.front() * scale, {}, false};
                    for (std::size_t i = 1; i < stroke.points.size(); ++i)
                        c.line_to(Point{x, 0} + stroke.points[i] * scale);
                    glyph.shape.contours.push_back(std::move(c));
                }
                x += glyph.advance;
                line.glyphs.push_back(std::move(glyph));
            }
            kern(x, next, stretch, stretch.text.size());
        }
        widen(line, spec);
        out.lines.push_back(std::move(line));
    }
    if (lacking > 0) out.findings.push_back(glyphs_missing({}, Count{lacking}, font->name));
    return out;
}

Box ink(const Layout& layout) {
    Box box;
    for (const Line& line : layout.lines)
        for (const Glyph& g : line.glyphs)
            box.add(bounds(g.shape));
    return box;
}

/// Lines one below the other and aligned.
void stack(Layout& layout, const Lettering& spec) {
    double widest = 0;
    for (const Line& line : layout.lines)
        widest = std::max(widest, line.width);
    const double share = spec.align == Lettering::Align::left     ? 0
                         : spec.align == Lettering::Align::centre ? 0.5
                                                                  : 1;
    for (std::size_t i = 0; i < layout.lines.size(); ++i)
        for (Glyph& g : layout.lines[i].glyphs)
            move(g, (widest - layout.lines[i].width) * share,
                 static_cast<double>(i) * spec.line_gap / 100 * nominal_em);
}

void scale(Layout& layout, double by) {
    layout.capitals *= by;
    for (Line& line : layout.lines) {
        line.width *= by;
        for (Glyph& g : line.glyphs) {
            g.shape = transformed(g.shape, Affine::scaling(by, by));
            g.x *= by, g.advance *= by;
        }
    }
}

/// What is sized, and by how much it must grow.
double size_now(const Layout& layout, const Lettering& spec) {
    if (spec.sized_by == Lettering::SizedBy::capitals) return layout.capitals;
    const Box box = ink(layout);
    return spec.sized_by == Lettering::SizedBy::width ? box.width() : box.height();
}

/// Spaced out and stacked, and the factor to the wanted size; 0 when the text has no extent that way. A
/// spacing in millimetres keeps its length: where the width is wanted, the letters take what it leaves.
double set_out(Layout& layout, const Lettering& spec) {
    const auto laid = [&](double more) {
        Layout out = layout;
        space_out(out, more);
        stack(out, spec);
        return out;
    };
    const double wanted = in_mm(spec.size);
    double more = spec.tracking.percent / 100 * nominal_em, factor = 0;
    Layout out = laid(spec.tracking.exact ? 0 : more);
    for (int round = 0; round < 60; ++round) {
        const double now = size_now(out, spec);
        if (now < 1e-6) return 0;
        const double next = wanted / now;
        const bool settled = std::abs(next - factor) <= 1e-10 * next;
        factor = next;
        if (!spec.tracking.exact || settled) break;
        more = in_mm(*spec.tracking.exact) / factor;
        out = laid(more);
    }
    layout = std::move(out);
    return factor;
}

/// Letters of a word moved together, from left to right. Names the pairs that cannot be.
void snug_up(Layout& layout, Length overlap) {
    std::string apart;
    int count = 0;
    for (Line& line : layout.lines) {
        double moved = 0;
        const Glyph* before = nullptr;
        Region left;
        for (Glyph& g : line.glyphs) {
            move(g, -moved);
            Region here = region_of(g.shape, mm(0.02));
            if (!here.empty() && before && !left.empty()) {
                const SnugFit fit = snug_fit(left, here, overlap);
                if (fit.possible) {
                    move(g, -in_mm(fit.shift));
                    moved += in_mm(fit.shift);
                    here = transformed(here, Affine::translation({-in_mm(fit.shift), 0}));
                } else {
                    ++count;
                    apart += (apart.empty() ? "" : ", ") + before->name + g.name;
                }
            }
            before = &g;
            left = std::move(here); // empty after a space: a new word begins
        }
        line.width -= moved;
    }
    if (count > 0) layout.findings.push_back(letters_apart({}, apart, Count{count}));
}

void add_joined(Lines& lines, const Layout& layout) {
    std::vector<Region> letters;
    int counters = 0;
    for (const Line& line : layout.lines)
        for (const Glyph& g : line.glyphs) {
            letters.push_back(region_of(g.shape, mm(0.005)));
            counters += hole_count(letters.back());
        }
    const Region whole = united(letters);
    const auto parts = pieces(whole);
    for (const Region& piece : parts)
        lines.add(role::letters, shape_of(piece));
    lines.figure("pieces", "", static_cast<double>(parts.size()));
    lines.figure("counters_before", "", counters);
    lines.figure("counters_after", "", hole_count(whole));
    if (const int lost = counters - hole_count(whole); lost > 0) lines.tell(counters_filled({}, Count{lost}));
}

void add_centre_lines(Lines& lines, const Layout& layout) {
    std::size_t strokes = 0;
    double widest = 0, least = 1e300;
    for (const Line& line : layout.lines)
        for (const Glyph& g : line.glyphs) {
            const Region letter = region_of(g.shape, mm(0.005));
            if (letter.empty()) continue;
            const CentreLines centre = centre_lines(letter);
            widest = std::max(widest, in_mm(centre.widest)), least = std::min(least, in_mm(centre.least));
            strokes += centre.lines.size();
            Shape shape;
            for (const Polyline& stroke : centre.lines) {
                shape.contours.push_back(polygon(stroke.points));
                shape.contours.back().closed = stroke.closed;
            }
            lines.add(role::strokes, std::move(shape), g.name);
        }
    lines.figure("strokes", "", static_cast<double>(strokes));
    lines.figure("stroke_width_from", "mm", std::min(least, widest));
    lines.figure("stroke_width_to", "mm", widest);
}

} // namespace

} // namespace dotlane::sources

namespace dotlane {

Result<SourceLines> make(const Lettering& spec, const MakeInput& in) {
    using namespace sources;
    FontShelf& fonts = in.fonts;
    const Borrowed* along = in.borrowed;
    if (trimmed(spec.text).empty()) return fail("source.text", say("Lettering needs some text."));
    const bool strokes = spec.kind == Lettering::Kind::strokes;
    auto layout = strokes ? stroked_text(spec, fonts) : outlined(spec, fonts);
    if (!layout) return tl::make_unexpected(layout.error());
    const bool joins = spec.join && spec.kind == Lettering::Kind::outlines;
    if (ink(*layout).empty()) return fail("source.text", say("This text has no visible letters."));
    const double factor = set_out(*layout, spec);
    if (factor == 0)
        return fail("source.text", say("This text has no extent that way, so it cannot be sized by it."));
    scale(*layout, factor);
    if (joins && in_mm(spec.snug) > 0) {
        snug_up(*layout, spec.snug);
        // What was asked for is the size of what comes out.
        if (spec.sized_by == Lettering::SizedBy::width)
            scale(*layout, in_mm(spec.size) / ink(*layout).width());
    }
    if (spec.path == Lettering::Path::arc) set_on_arc(*layout, spec);
    if (spec.path == Lettering::Path::outline)
        if (const auto ok = set_along(*layout, spec, along); !ok) return tl::make_unexpected(ok.error());
    const Box made = ink(*layout);
    // Along an outline the letters stay where it lies.
    if (spec.path != Lettering::Path::outline)
        for (Line& line : layout->lines)
            for (Glyph& g : line.glyphs)
                move(g, -made.x0, -made.y0);
    Lines lines;
    for (Finding& f : layout->findings)
        lines.tell(std::move(f));
    if (joins)
        add_joined(lines, *layout);
    else if (spec.kind == Lettering::Kind::centre_lines)
        add_centre_lines(lines, *layout);
    else
        for (Line& line : layout->lines)
            for (Glyph& g : line.glyphs)
                if (!g.shape.contours.empty())
                    lines.add(strokes ? role::strokes : role::letters, std::move(g.shape), g.name);
    lines.figure("width", "mm", made.width());
    lines.figure("height", "mm", made.height());
    lines.figure("capitals", "mm", layout->capitals);
    return lines.take();
}

} // namespace dotlane
