// Readers against bytes that nobody meant: mutated files must give a result or a clear error, never a crash.
// The sanitized build runs this too; DOTLANE_FUZZ_ROUNDS makes it longer.
#include <cstdlib>

#include "core/base/measure.h"
#include "core/formats/svg/reader.h"
#include "core/project/format.h"
#include "core/workflow/filling.h"
#include "core/workflow/opening.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

int rounds(int usual) {
    const char* given = std::getenv("DOTLANE_FUZZ_ROUNDS");
    return given ? std::atoi(given) : usual;
}

std::string mutated(std::string text, Random& random, const std::vector<std::string>& words) {
    for (int n = random.whole(1, 6); n > 0 && !text.empty(); --n) {
        const auto at = static_cast<std::size_t>(random.whole(0, static_cast<int>(text.size()) - 1));
        switch (random.whole(0, 5)) {
        case 0:
            text[at] = static_cast<char>(random.whole(0, 255));
            break;
        case 1:
            text.erase(at, static_cast<std::size_t>(random.whole(1, 30)));
            break;
        case 2:
            text.insert(at,
                        words[static_cast<std::size_t>(random.whole(0, static_cast<int>(words.size()) - 1))]);
            break;
        case 3:
            text.resize(at);
            break;
        case 4: { // a stretch again somewhere else
            const auto from = static_cast<std::size_t>(random.whole(0, static_cast<int>(text.size()) - 1));
            text.insert(at, text.substr(from, static_cast<std::size_t>(random.whole(1, 200))));
            break;
        }
        default:
            text[at] = "0123456789-.eE<>/\"'#%"[random.whole(0, 20)];
        }
    }
    return text;
}

const char* everything =
    "<?xml version='1.0'?><!DOCTYPE svg [<!ENTITY ink '#a8462d'>]><svg xmlns='http://www.w3.org/2000/svg' "
    "xmlns:xlink='http://www.w3.org/1999/xlink' width='100mm' height='50%' viewBox='0 0 100 50'>"
    "<style>.a > rect[x='1'] { fill: &ink; stroke-dasharray: 1 2 } g#b { clip-path: url(#c) }</style>"
    "<defs><symbol id='s' viewBox='0 0 9 9'><circle cx='4' cy='4' r='3'/></symbol><clipPath id='c' "
    "clipPathUnits='objectBoundingBox'><rect width='.5' height='1'/></clipPath>"
    "<linearGradient id='g'><stop offset='0' stop-color='red'/></linearGradient><path id='p' d='M0,0C1,2 3,4 "
    "5,6'/></defs>"
    "<g id='b' class='a' transform='rotate(30) scale(2 -1)'><rect x='1' y='2' width='10%' height='3em' "
    "rx='1'/><use xlink:href='#s' x='3' width='20' height='20'/></g>"
    "<path d='M10,10h5v-3.5.5a5 5 0 1110 0q1 2 3 4t5 5s1 1 2 2z' fill='url(#g) #fff' fill-rule='evenodd' "
    "stroke='hsl(20,50%,50%)'/>"
    "<svg x='5' y='5' width='20' height='20' viewBox='0 0 40 40' preserveAspectRatio='xMaxYMin "
    "slice'><polygon points='0,0 40,0 40,40'/></svg>"
    "<text x='5 6 7' y='9' rotate='10 20' text-anchor='middle' font-family='Cabin' font-size='3'>A<tspan "
    "dx='1'>b</tspan><textPath href='#p' startOffset='10%'>c</textPath></text>"
    "<switch><rect systemLanguage='en' width='4' height='4'/></switch></svg>";

} // namespace

TEST_CASE("mutated drawings are opened or refused, and what is opened can be planned") {
    Random random("drawings");
    FontShelf fonts;
    Workshop workshop(catalog());
    const std::vector<std::string> words = {"<g>",
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
                                            std::string(1, '\0')};
    int opened = 0, refused = 0;
    for (int round = 0; round < rounds(1500); ++round) {
        const std::string text = mutated(everything, random, words);
        INFO("seed " << random.seed() << " round " << round);
        auto o = open_svg(text, "fuzz.svg", fonts);
        if (!o) {
            ++refused;
            CHECK_FALSE(o.error().message.empty());
            CHECK(o.error().place.file == "fuzz.svg");
            continue;
        }
        ++opened;
        if (opened % 8 != 0) continue; // the rest of the pipeline on some of them
        Project p = workshop.new_project("fuzz");
        settle_scale(*o, 1);
        const PartId part = take_in(p, catalog(), *o, gather_lanes(*o->source.drawing, catalog()));
        must(check_rules(p));
        must(place(p, add_sheet(p, "s", "cream-card-12x12", "mat-12x12-standard"),
                   {{}, part, mm(5), mm(5), degrees(20), true}));
        std::vector<LineId> lines;
        for (const DrawnLine& l : find(p, part)->source.drawing->lines)
            lines.push_back(l.id);
        if (bounds(*o->source.drawing).width() < 500) (void)fill_lines(p, catalog(), part, lines);
        CHECK(workshop.derive(std::make_shared<Project>(p)));
        CHECK(must(read_project(write_project(p))) == p);
    }
    CHECK(opened > 0);
    CHECK(refused > 0);
}

TEST_CASE("mutated projects are read or refused") {
    Random random("projects");
    Bench b = bench("<rect x='5' y='5' width='30' height='20' fill='#a8832d'/><path d='M0,40h30' "
                    "stroke='#a8462d' fill='none'/>");
    must(fill_lines(b.project, catalog(), b.part, {b.lines()[0]}));
    const std::string text = write_project(b.project);
    const std::vector<std::string> words = {"{",       "}",          "[",          "null",
                                            "1e999",   "-1",         "\"id\": 0,", "4294967296",
                                            "\\u0000", "\"M0 0L1\"", "true",       ","};
    int read = 0;
    for (int round = 0; round < rounds(3000); ++round) {
        const auto p = read_project(mutated(text, random, words), "fuzz.dotlane");
        INFO("seed " << random.seed() << " round " << round);
        if (!p) {
            CHECK_FALSE(p.error().message.empty());
            continue;
        }
        ++read;
        CHECK(check_rules(*p));
        if (read % 16 == 0) CHECK(b.workshop->derive(std::make_shared<Project>(*p)));
    }
}

TEST_CASE("anything may be typed into a number field") {
    Random random("numbers");
    const std::string letters = "0123456789 .,+-*/()\"'incmftpx%";
    for (int round = 0; round < rounds(20000); ++round) {
        std::string text;
        for (int n = random.whole(0, 14); n > 0; --n)
            text += letters[static_cast<std::size_t>(random.whole(0, static_cast<int>(letters.size()) - 1))];
        INFO("seed " << random.seed() << " \"" << text << "\"");
        if (const auto v = parse_length(text, LengthUnit::mm)) {
            CHECK(std::isfinite(in_mm(*v)));
            CHECK(std::abs(in_mm(*v)) <= 1e6);
        }
    }
}
