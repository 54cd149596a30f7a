#include "tests/fuzz/readers.h"

#include <zlib.h>

#include <cmath>

#include "core/base/data_folder.h"
#include "core/base/measure.h"
#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/derive/workshop.h"
#include "core/formats/trace/picture.h"
#include "core/lettering/marks.h"
#include "core/lettering/stroke_font.h"
#include "core/machine/program_text.h"
#include "core/machine/simulator.h"
#include "core/opening/opening.h"
#include "core/project/format.h"

namespace dotlane::fuzz {
namespace {

std::string catalog_folder() {
    return data_folder() + "/catalog";
}

const Catalog& catalog() {
    static const Catalog shipped = load_catalog(disk(), catalog_folder()).value();
    return shipped;
}

FontShelf& fonts() {
    static FontShelf none;
    return none;
}

/// Small limits: the same code, without the time that large files take.
ReadLimits small() {
    ReadLimits limits;
    limits.bytes = 1 << 20, limits.lines = 2000, limits.segments = 20'000, limits.points = 100'000;
    limits.visits = 50'000, limits.crossings = 20'000, limits.pixels = 250'000;
    return limits;
}

std::string refused(const Error& error) {
    return error.code.empty() || error.message.empty() ? "an error without words" : "";
}

/// All that is done with a project: checked, written, read again, planned.
std::string lives(const Project& project) {
    if (const auto ok = check_rules(project); !ok) return "rules: " + ok.error().message.english();
    const auto text = checked_text(project);
    if (!text) return "cannot be saved: " + text.error().message.english();
    const auto again = read_project(*text);
    if (!again) return "cannot be opened again: " + again.error().message.english();
    if (!(*again == project)) return "another project when opened again";
    Workshop workshop(catalog());
    if (!workshop.derive(std::make_shared<Project>(project))) return "not derived";
    return {};
}

std::string taken(Opened opened) {
    if (opened.asks_scale) settle_scale(opened, 0.5);
    Workshop workshop(catalog());
    Project project = workshop.new_project("fuzz");
    const auto part =
        apply(TakeIn{opened, gather_lanes(*opened.source.drawing, catalog())}, project, catalog());
    if (!part) return refused(part.error());
    const SheetId sheet = add_sheet(project, "s", "cream-card-12x12", "mat-12x12-standard");
    if (const auto ok = place(project, sheet, {{}, part->part, mm(5), mm(5), degrees(20), true}); !ok)
        return "not placed: " + ok.error().message.english();
    return lives(project);
}

std::string drawing(std::string bytes, const char* name) {
    auto opened = open_drawing(std::move(bytes), name, fonts(), no_progress(), small());
    return opened ? taken(std::move(*opened)) : refused(opened.error());
}

std::string svg(std::string bytes) {
    return drawing(std::move(bytes), "fuzz.svg");
}
std::string dxf(std::string bytes) {
    return drawing(std::move(bytes), "fuzz.dxf");
}
std::string hpgl(std::string bytes) {
    return drawing(std::move(bytes), "fuzz.plt");
}

/// The same PNG with its checksums made right, so that what was changed gets past them.
std::string with_checksums(std::string bytes) {
    const auto number_at = [&](std::size_t at) {
        std::uint32_t n = 0;
        for (std::size_t i = 0; i < 4; ++i)
            n = n << 8 | static_cast<unsigned char>(bytes[at + i]);
        return n;
    };
    for (std::size_t at = 8; at + 12 <= bytes.size();) {
        const std::size_t length = number_at(at);
        if (length > bytes.size() - at - 12) break;
        const auto* data = reinterpret_cast<const unsigned char*>(bytes.data() + at + 4);
        const auto sum = crc32(0, data, static_cast<unsigned>(length + 4));
        for (std::size_t i = 0; i < 4; ++i)
            bytes[at + 8 + length + i] = static_cast<char>(sum >> (24 - 8 * i));
        at += 12 + length;
    }
    return bytes;
}

std::string traced(std::string bytes) {
    auto opened = open_picture(std::move(bytes), "fuzz.png", small());
    if (!opened) return refused(opened.error());
    if (opened->asks_scale)
        if (const auto ok = settle_width(*opened, mm(80)); !ok) return refused(ok.error());
    Workshop workshop(catalog());
    Project project = workshop.new_project("fuzz");
    opened->picture.levels = 1 + opened->width % 3;
    const auto part = apply(MakePart{opened->picture, "picture"}, project, catalog(), fonts());
    return part ? lives(project) : refused(part.error());
}

std::string picture(std::string bytes) {
    if (bytes.starts_with("\x89PNG"))
        if (const auto wrong = traced(with_checksums(bytes)); !wrong.empty()) return wrong;
    return traced(std::move(bytes));
}

std::string project(std::string bytes) {
    auto read = read_project(bytes, "fuzz.dotlane");
    if (!read) return refused(read.error());
    Workshop workshop(catalog());
    settle_placements(*read, workshop);
    return lives(*read);
}

/// The catalog's folder with other tools in it. Nothing can be written.
class WithTools final : public FileSystem {
  public:
    explicit WithTools(std::string tools)
        : tools_(std::move(tools)) {}
    Result<std::string> read(const std::string& path, std::uint64_t most) override {
        return path.ends_with("/tools.json") ? tools_ : disk().read(path, most);
    }
    Result<void> write_atomically(const std::string&, const std::string&, Access) override { return no(); }
    Result<void> write_folder(const std::string&, const std::vector<NamedBytes>&,
                              const std::vector<std::string>&) override {
        return no();
    }
    Result<void> make_folder(const std::string&, Access) override { return no(); }
    bool exists(const std::string& path) override { return disk().exists(path); }
    void remove(const std::string&) override {}
    std::vector<std::string> list(const std::string& folder) override { return disk().list(folder); }
    FileMark mark(const std::string& path) override { return disk().mark(path); }
    Result<std::unique_ptr<FileLock>> lock(const std::string&, int) override {
        return tl::make_unexpected(no().error());
    }

  private:
    static Result<void> no() { return fail("file.unwritable", say("Nothing is written here.")); }
    std::string tools_;
};

std::string tools(std::string bytes) {
    WithTools files(bytes);
    const auto read = load_catalog(files, catalog_folder());
    return read ? std::string() : refused(read.error());
}

std::string strokes(std::string bytes) {
    const auto font = read_stroke_font(bytes, "fuzz");
    return font ? std::string() : refused(font.error());
}

std::string program(std::string bytes) {
    const auto read = program_from_text(bytes);
    if (!read) return refused(read.error());
    if (!std::isfinite(in_seconds(Timeline(*read).total()))) return "a time without end";
    const auto again = program_from_text(program_text(*read));
    return again && *again == *read ? std::string() : "it is not what was written";
}

std::string typed(std::string bytes) {
    for (const LengthUnit unit : {LengthUnit::mm, LengthUnit::inch}) {
        const auto length = parse_length(bytes, unit);
        if (!length && !refused(length.error()).empty()) return refused(length.error());
        if (length && !(std::abs(in_mm(*length)) <= 1e7)) return "a length beyond all measure";
    }
    return {};
}

} // namespace

const std::vector<Reader>& readers() {
    static const std::vector<Reader> all = {
        {"svg",
         svg,
         {"<g>",
          "</g>",
          "<use href='#b'/>",
          "1e308",
          "NaN",
          "-0",
          "url(#c)",
          "&ink;",
          "<!--",
          "]]>",
          "<![CDATA[",
          "transform='scale(0)'",
          "transform='matrix(1e9 0 0 1e9 0 0)'",
          "d='M0,0'",
          "A0 0 0 0 0 0 0",
          "width='-5'",
          "viewBox='0 0 0 0'",
          "\xEF\xBB\xBF",
          std::string(1, '\0'),
          "e3081",
          "1e200",
          "skewX(89)",
          "<style>@import 'x';",
          "requiredFeatures='x'"}},
        {"dxf",
         dxf,
         {"\n70\n2147483647\n", "0\nINSERT\n8\n0\n2\nb\n", "1e308", "-1e308", "nan", "inf", "\n62\n-50\n",
          "0\nSEQEND\n", "0\nPOLYLINE\n70\n1\n", "\n42\n1e-200\n", "\n41\n0.5\n", std::string(1100, 'x')}},
        {"hpgl",
         hpgl,
         {"PD", "AA0,0,1e9;", "\x03", "IP0,0,9,9;", "SC0,0,0,0;", "SC-1e9,1e9,0,1;", "PE<=;", "EA", "LB",
          ";"}},
        {"picture",
         picture,
         {"IHDR", "IDAT", "pHYs", "\xFF\xD8\xFF\xE0", "JFIF", "\xFF\xDA", "IEND", "PLTE"}},
        {"project",
         project,
         {"{", "}", "[", "null", "1e999", "-1", "\"id\": 0,", "4294967296", "\\u0000", "\"M0 0L1\"", "true",
          ",", "1e308", "\"version\": 1"}},
        {"tools", tools, {"{", "}", "null", "1e999", "-1", "\"id\": \"\"", "[]", "true", "\"takes\""}},
        {"program",
         program,
         {"{", "}", "[", "null", "1e999", "-1", "\"strokes\":0", "\n", "1e308", "\"end\":1", "true", ","}},
        {"strokes", strokes, {" R", "  ", "\n", "99999", "501 "}},
        {"typed",
         typed,
         {"1/2", "'", "\"", "mm", "in", "ft", "×", "½", "(", ")", "1e309", "%", "--", "deg"}}};
    return all;
}

} // namespace dotlane::fuzz
