// Readers against bytes that nobody meant: mutated files must give a result or a clear error, never a crash.
// The sanitized build runs this too; DOTLANE_FUZZ_ROUNDS makes it longer.
#include <cstdlib>

#include "core/base/measure.h"
#include "core/formats/dxf/reader.h"
#include "core/formats/hpgl/reader.h"
#include "core/formats/svg/reader.h"
#include "core/lettering/stroke_font.h"
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
        auto o = open_drawing(text, "fuzz.svg", fonts);
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
        const PartId part = must(take_in(p, catalog(), *o, gather_lanes(*o->source.drawing, catalog())));
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

TEST_CASE("mutated DXF, HP-GL and stroke fonts are read or refused") {
    Random random("other formats");
    INFO("seed " << random.seed());
    const std::string dxf =
        "0\nSECTION\n2\nHEADER\n9\n$"
        "INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n1\n0\nLAYER\n"
        "2\ncut\n70\n0\n62\n3\n0\nENDTAB\n0\nENDSEC\n0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nb\n70\n0\n10\n"
        "0\n20\n0\n"
        "0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
        "0\nINSERT\n8\ncut\n2\nb\n10\n1\n20\n1\n41\n2\n42\n2\n50\n30\n70\n3\n71\n2\n44\n7\n45\n8\n"
        "0\nLWPOLYLINE\n8\ncut\n90\n3\n70\n1\n10\n0\n20\n0\n42\n0.5\n10\n9\n20\n0\n10\n9\n20\n9\n"
        "0\nSPLINE\n8\ncut\n70\n8\n71\n3\n72\n8\n73\n4\n74\n0\n40\n0\n40\n0\n40\n0\n40\n0\n40\n1\n40\n1\n40\n"
        "1\n40\n1\n"
        "10\n0\n20\n0\n10\n1\n20\n5\n10\n6\n20\n5\n10\n7\n20\n0\n"
        "0\nELLIPSE\n8\ncut\n10\n3\n20\n3\n11\n5\n21\n0\n40\n0."
        "5\n41\n0\n42\n3\n0\nARC\n8\ncut\n10\n0\n20\n0\n40\n5\n50\n10\n51\n200\n"
        "0\nENDSEC\n0\nEOF\n";
    const std::string hpgl = "\x1b.@;IN;DF;SP1;PU0,0;PD400,0,400,400;PR10,10;AA0,0,90,5;AR5,5,-400;CI30;EA9,"
                             "9;LBtext\x03;SC0,1,0,1;PU;";
    const std::string strokes = file(DOTLANE_SOURCE "/data/fonts/strokes/rowmans.jhf").substr(0, 900);
    const std::vector<std::string> words = {"\n70\n99999999\n",
                                            "0\nINSERT\n8\n0\n2\nb\n",
                                            "1e308",
                                            "-1e308",
                                            "nan",
                                            "inf",
                                            "PD",
                                            "AA0,0,1e9;",
                                            "\x03",
                                            "\n",
                                            "0\nSEQEND\n",
                                            "0\nPOLYLINE\n70\n1\n"};
    int read = 0;
    for (int i = 0; i < rounds(600); ++i) {
        const auto a = read_dxf(mutated(dxf, random, words), {"x.dxf", {20000, 200000, 200000}});
        const auto b = read_hpgl(mutated(hpgl, random, words), {"x.plt"});
        const auto c = read_stroke_font(mutated(strokes, random, words), "x");
        read += a.has_value() + b.has_value() + c.has_value();
        if (!a) CHECK_FALSE(a.error().message.empty());
        if (!b) CHECK_FALSE(b.error().message.empty());
    }
    CHECK(read > 0);
}
