#include "core/opening/opening.h"

#include <algorithm>
#include <map>
#include <tuple>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/commands/making.h"
#include "core/geometry/tangle.h"
#include "core/project/edits.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

namespace {

/// How far, how it was moved.
using OffPage = FindingKind<Mm<1, 3>, Name, Mm<1, 3>, Mm<1, 3>>;
constexpr OffPage off_page{"open.off-page",
                           Grade::hint,
                           to_say("The art ran %1 mm off its page and was brought into view."),
                           {"over_mm", nullptr, "dx_mm", "dy_mm"}};
constexpr OffPage off_page_and_moved{
    "open.off-page",
    Grade::hint,
    to_say("The art ran %1 mm off its page and was brought into view: moved by %2."),
    {"over_mm", nullptr, "dx_mm", "dy_mm"}};

/// A file as it was read, whatever its format.
struct Read {
    Drawing drawing;
    bool physical_size = false;
    Findings findings;
};

enum class Format { svg, dxf, hpgl };

/// By what the file begins with; its name decides only where that says nothing.
Format format_of(const std::string& bytes, const std::string& name) {
    const std::string ending = lower_case(name.substr(std::min(name.find_last_of('.'), name.size())));
    const std::string head = bytes.substr(0, 4096);
    const auto first = head.find_first_not_of(" \t\r\n");
    if (first != std::string::npos && head[first] == '<') return Format::svg;
    if (ending == ".dxf" ||
        (head.find("SECTION") != std::string::npos && first != std::string::npos && head[first] == '0'))
        return Format::dxf;
    if (ending == ".hpgl" || ending == ".plt" || ending == ".hpg") return Format::hpgl;
    if (first != std::string::npos && (head.substr(first, 3) == "IN;" || head.substr(first, 3) == "DF;"))
        return Format::hpgl;
    return Format::svg;
}

/// The name of a format that is not read here, by what the file begins with, and what to do; empty for none.
Phrase other_format(std::string_view b) {
    static constexpr struct {
        std::size_t at;
        std::string_view begins;
        const char *name, *instead;
    } known[] = {{0, "GIF8", to_say("a GIF picture"), to_say("PNG or JPEG")},
                 {8, "WEBP", to_say("a WebP picture"), to_say("PNG or JPEG")},
                 {0, "BM", to_say("a BMP picture"), to_say("PNG or JPEG")},
                 {0, std::string_view("II*\0", 4), to_say("a TIFF picture"), to_say("PNG or JPEG")},
                 {0, std::string_view("MM\0*", 4), to_say("a TIFF picture"), to_say("PNG or JPEG")},
                 {4, "ftypheic", to_say("a HEIC picture"), to_say("PNG or JPEG")},
                 {4, "ftypavif", to_say("an AVIF picture"), to_say("PNG or JPEG")},
                 {0, "%PDF", to_say("a PDF document"), to_say("SVG or DXF")},
                 {0, "%!PS", to_say("a PostScript document"), to_say("SVG or DXF")},
                 {0, "AC10", to_say("a DWG drawing"), to_say("SVG or DXF")},
                 {0, "PK\3\4", to_say("a ZIP archive"), ""},
                 {0, "Rar!", to_say("a RAR archive"), ""},
                 {0, "7z\xbc\xaf", to_say("a 7z archive"), ""}};
    for (const auto& k : known)
        if (b.size() >= k.at + k.begins.size() && b.substr(k.at, k.begins.size()) == k.begins)
            return *k.instead
                       ? say("This is %1, which is not read here. Save it as %2 and open that. Nothing has "
                             "changed.",
                             as_word(core_words, k.name), as_word(core_words, k.instead))
                       : say("This is %1, which is not read here. Unpack it and open that. Nothing has "
                             "changed.",
                             as_word(core_words, k.name));
    return {};
}

Result<Read> read_any(std::string bytes, const std::string& name, FontShelf& fonts, const ReadLimits& limits,
                      Progress& progress) {
    switch (format_of(bytes, name)) {
    case Format::dxf:
        return read_dxf(bytes, {name, limits}, progress).map([](DxfResult r) {
            return Read{std::move(r.drawing), r.physical_size, std::move(r.findings)};
        });
    case Format::hpgl:
        return read_hpgl(bytes, {name, limits}, progress).map([](HpglResult r) {
            return Read{std::move(r.drawing), true, std::move(r.findings)};
        });
    case Format::svg:
        break;
    }
    return read_svg(std::move(bytes), SvgOptions{name, &fonts, limits}, progress).map([](SvgResult r) {
        return Read{std::move(r.drawing), r.physical_size, std::move(r.findings)};
    });
}

/// Nothing passes from a reader into a project that the project's file could not hold.
Result<void> gate(const Drawing& drawing, const std::string& file_name) {
    const auto ok = check_numbers(drawing);
    if (ok) return {};
    return fail(
        "open.number",
        say("%1 The file is damaged or not meant for a cutter. Nothing has changed.", ok.error().message),
        {file_name, 0});
}

/// What the lines cost to work with, beyond their number.
Result<void> check_effort(const Drawing& drawing, const ReadLimits& limits, const std::string& file_name) {
    const auto large = [&](const Phrase& what) {
        return fail("open.large", say("%1 %2 Nothing has changed.", what, what_to_do_when_large()),
                    {file_name, 0});
    };
    if (points_of(drawing) > limits.points)
        return large(say("The curves of the file have more than %1 million points when they are followed.",
                         limits.points / 1'000'000));
    std::size_t crossed = 0;
    for (const DrawnLine& line : drawing.lines) {
        if (!fillable(line)) continue;
        crossed += crossings(flattened(line.shape), line.drawn.fill.has_value(), limits.crossings - crossed);
        if (crossed > limits.crossings)
            return large(say("The filled lines of the file cross themselves more than %1,000 times.",
                             limits.crossings / 1000));
    }
    return {};
}

void forget_strays(Opened& opened) {
    for (Findings* list : {&opened.findings, &opened.source.notes})
        std::erase_if(*list, [](const Finding& f) { return f.code == "open.stray"; });
}

/// What makes the picture lies in what lines cannot hold: it may be traced instead.
void offer_picture(Findings& findings) {
    for (Finding& f : findings)
        for (const char* code : {"svg.gradients", "svg.patterns", "svg.filters", "svg.masks", "svg.pictures"})
            if (f.code == code) {
                f.remedy = {"open.as-picture", say("Trace what it shows")};
                return; // one button is enough
            }
}

/// Told anew whenever millimetres change.
Drawing as_wished(const Opened& opened) {
    return transformed(*opened.source.drawing, Affine::scaling(opened.scale, opened.scale));
}

void tell_strays(Opened& opened) {
    forget_strays(opened);
    if (const auto told = stray_finding(as_wished(opened))) {
        opened.findings.push_back(*told);
        // A note keeps what its project's file keeps; the rest is found again.
        opened.source.notes.push_back({told->code, told->grade, told->message, told->args});
    }
}

} // namespace

bool may_be_large(const Error& error) {
    return error.code.ends_with(".large");
}

Result<Opened> open_drawing(std::string bytes, const std::string& file_name, FontShelf& fonts,
                            Progress& progress, const ReadLimits& limits) {
    if (bytes.size() > limits.bytes)
        return fail("open.large",
                    say("The file has more than %1 MB. %2 Nothing has changed.", limits.bytes / 1'000'000,
                        what_to_do_when_large()),
                    {file_name, 0});
    if (const Phrase other = other_format(bytes); !other.empty())
        return fail("open.format", other, {file_name, 0});
    Opened out;
    out.source.file_name = valid_utf8(dotlane::file_name(file_name));
    out.source.file_hash = content_hash(bytes);
    out.name = valid_utf8(file_stem(file_name));
    if (!out.name.empty() && out.name[0] >= 'a' && out.name[0] <= 'z')
        out.name[0] = static_cast<char>(out.name[0] - 32);
    std::replace_if(
        out.name.begin(), out.name.end(), [](char c) { return c == '_' || c == '-'; }, ' ');
    out.per_inch = format_of(bytes, file_name) == Format::svg;
    auto read = read_any(std::move(bytes), file_name, fonts, limits, progress);
    if (!read) return tl::make_unexpected(read.error());
    out.findings = std::move(read->findings);
    offer_picture(out.findings);
    out.asks_scale = !read->physical_size;
    if (read->drawing.lines.empty()) {
        std::vector<Phrase> all = {say("\"%1\" holds no lines to work with.", out.source.file_name)};
        for (const Finding& f : out.findings)
            all.push_back(f.message);
        all.push_back(say("Nothing has changed."));
        return fail("open.empty", joined(all, " "), {file_name, 0});
    }
    // Art that lies off its page is moved onto it; what merely hangs over an edge a little is brought in as
    // well.
    const Box box = bounds(read->drawing);
    const Box page{0, 0, in_mm(read->drawing.page_width), in_mm(read->drawing.page_height)};
    const double over =
        std::max({page.x0 - box.x0, page.y0 - box.y0, box.x1 - page.x1, box.y1 - page.y1, 0.0});
    if (over > 0.05) { // less would be told as "0 mm"
        const auto shift = [](double lo, double hi, double page_size) {
            if (hi - lo >= page_size) return -lo;
            return lo < 0 ? -lo : hi > page_size ? page_size - hi : 0.0;
        };
        const Point by{shift(box.x0, box.x1, page.x1), shift(box.y0, box.y1, page.y1)};
        read->drawing = transformed(read->drawing, Affine::translation(by));
        out.outside_by_mm = over;
        const std::string x = number(by.x, 1), y = number(by.y, 1);
        const Phrase across = say("%1 mm across", x), down = say("%1 mm down", y);
        const Phrase moved = y == "0" ? across : x == "0" ? down : say("%1 and %2", across, down);
        const auto& kind = x == "0" && y == "0" ? off_page : off_page_and_moved;
        out.findings.push_back(kind({}, {over}, moved, {by.x}, {by.y}));
    }
    if (const auto ok = gate(read->drawing, file_name); !ok) return tl::make_unexpected(ok.error());
    if (const auto ok = check_effort(read->drawing, limits, file_name); !ok)
        return tl::make_unexpected(ok.error());
    out.box = bounds(read->drawing);
    out.source.drawing = std::make_shared<Drawing>(std::move(read->drawing));
    out.source.notes = out.findings;
    for (Finding& note : out.source.notes)
        note.remedy = {}; // of opening alone
    tell_strays(out);
    return out;
}

namespace {

Box scaled(const Box& box, double factor) {
    return {box.x0 * factor, box.y0 * factor, box.x1 * factor, box.y1 * factor};
}

ScaleChoice choice(const Opened& opened, Phrase label, double factor) {
    const Box& box = opened.box;
    return {std::move(label), factor, mm(box.width() * factor), mm(box.height() * factor)};
}

} // namespace

std::vector<ScaleChoice> scale_choices(const Opened& opened) {
    if (!opened.per_inch)
        return {choice(opened, say("millimetres"), 1), choice(opened, say("centimetres"), 10),
                choice(opened, say("inches"), 25.4)};
    return {choice(opened, say("96 per inch"), 1), choice(opened, say("90 per inch"), 96.0 / 90),
            choice(opened, say("72 per inch"), 96.0 / 72),
            choice(opened, say("millimetres"), factor_for_unit(opened, 1))};
}

double factor_for_unit(const Opened& opened, double unit_mm) {
    return opened.per_inch ? unit_mm / (mm_per_inch / 96) : unit_mm;
}

Result<ScaleChoice> scale_to_width(const Opened& opened, Length width) {
    const double now = opened.box.width();
    if (!(in_mm(width) >= 0.1 && in_mm(width) <= 1e5))
        return fail("open.width", say("The finished width must lie between 0.1 mm and 100 m."));
    if (now < 1e-9) return fail("open.width", say("The art is one upright line: it has no width to scale."));
    return choice(opened, say("width %1", to_text(width, LengthUnit::mm)), in_mm(width) / now);
}

void settle_scale(Opened& opened, double factor) {
    if (!opened.asks_scale)
        opened.scale *= factor;
    else if (factor != 1)
        opened.source.drawing =
            std::make_shared<Drawing>(transformed(*opened.source.drawing, Affine::scaling(factor, factor)));
    opened.box = scaled(opened.box, factor);
    opened.asks_scale = false;
    const auto told = [](const Finding& f) { return f.code == "open.stray"; };
    if (std::any_of(opened.findings.begin(), opened.findings.end(), told)) tell_strays(opened);
}

void treat_strays(Opened& opened, StrayChoice choice) {
    opened.source.drawing = std::make_shared<Drawing>(without_strays(*opened.source.drawing, choice));
    opened.box = scaled(bounds(*opened.source.drawing), opened.scale);
    forget_strays(opened);
}

Result<Done> apply(const TakeIn& command, Project& project, const Catalog& catalog) {
    const auto& [opened, gatherings, steps] = command;
    if (const auto ok = gate(as_wished(opened), opened.source.file_name); !ok)
        return tl::make_unexpected(ok.error());
    Project next = project;
    const PartId id = add_part(next, opened.name, opened.source);
    if (opened.scale != 1)
        if (const auto ok = scale_part(next, id, opened.scale); !ok) return tl::make_unexpected(ok.error());
    const auto& lines = find(next, id)->source.drawing->lines;
    std::vector<std::vector<LineId>> ids;
    for (const Gathering& g : gatherings) {
        ids.emplace_back();
        for (const std::size_t i : g.lines)
            ids.back().push_back(lines[i].id);
    }
    for (std::size_t i = 0; i < gatherings.size(); ++i) {
        const Gathering& g = gatherings[i];
        const LaneId lane = lane_for(next, catalog, g.action, g.tool, g.colour);
        const auto ok = assign(next, id, ids[i], lane, g.name);
        DOTLANE_CHECK(ok);
    }
    for (const StepWhat& what : steps) {
        const EvaluatedPart now =
            evaluate(*find(next, id), {{find(next, id)->source.drawing, {}, {}}, {}, {}, false});
        if (const auto ok = append_step(next, catalog, now, what, {}); !ok)
            return tl::make_unexpected(ok.error());
    }
    project = std::move(next);
    Done done{say_n(find(project, id)->source.drawing->lines.size(), "Opened \"%1\": %n [line|lines].",
                    find(project, id)->name),
              id};
    done.parts = {id};
    return done;
}

} // namespace dotlane
