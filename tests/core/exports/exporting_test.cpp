// The export: its files, their names, what stays of an older one; what is printed; where every line went.
#include "core/exports/exporting.h"

#include <filesystem>
#include <fstream>

#include "core/base/text.h"
#include "core/commands/filling.h"
#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/exports/accounts.h"
#include "core/exports/export_names.h"
#include "core/exports/manifest.h"
#include "core/formats/svg/reader.h"
#include "core/project/format.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* label_art = "<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/><rect x='20' "
                        "y='20' width='30' height='10' fill='#a8832d'/>"
                        "<path d='M10,10 h20' fill='none' stroke='#a8462d'/>";

Result<ExportResult> run_export(const Bench& b, FileSystem& files, bool override_errors = false,
                                const std::string& folder = "/out") {
    const auto d = b.derive();
    const PdfPainter pdf{
        [](const RunSheet& sheet, const auto&...) -> Result<std::string> { return "%PDF " + sheet.title; },
        [](const PrintSheet&, const auto&, const std::string& title) -> Result<std::string> {
            return "%PDF " + title;
        }};
    return export_folder(*d, catalog(), files, folder, {override_errors, pdf});
}

/// Drawings and made parts with a few steps, lying on a few sheets, some piece by piece.
Project any_project(Random& random, Workshop& workshop) {
    static const char* colours[] = {"#22282c", "#a8832d", "#a8462d", "#5a6996"};
    std::string shapes;
    for (int i = random.whole(1, 9); i > 0; --i) {
        const std::string at = std::to_string(random.whole(2, 60)),
                          size = std::to_string(random.whole(3, 25));
        const char* colour = colours[random.whole(0, 3)];
        const std::string paint = random.coin(0.3) ? std::string(" fill='") + colour + "'"
                                                   : std::string(" fill='none' stroke='") + colour + "'";
        if (random.coin(0.3))
            shapes += "<path d='M" + at + ",5 h" + size + "'" + paint + "/>";
        else if (random.coin())
            shapes += "<circle cx='" + at + "' cy='40' r='" + size + "'" + paint + "/>";
        else
            shapes += "<path d='M" + at + ",20h" + size + "v9h-" + size + "z m1,1h1v1h-1z'" + paint + "/>";
    }
    Bench b = bench(shapes, 100, 100, false);
    Project project = b.project;
    if (random.coin()) (void)make_part(project, workshop.catalog(), workshop.fonts(), Label{});
    if (random.coin(0.3)) (void)make_part(project, workshop.catalog(), workshop.fonts(), Badge{});
    for (const Part& part : project.parts) {
        const PartId id = part.id;
        if (random.coin(0.4))
            (void)append_step(project, workshop.catalog(), id, OutlineStep{}, {part.sets[0].id});
        if (random.coin(0.4))
            (void)append_step(project, workshop.catalog(), id, FillStep{}, {part.sets.back().id});
        if (random.coin(0.4)) (void)append_step(project, workshop.catalog(), id, ApartStep{}, {});
    }
    for (int i = random.whole(1, 3); i > 0; --i) {
        const SheetId sheet = add_sheet(project, "s", random.coin() ? "cream-card-12x12" : "white-card-a4",
                                        "mat-12x12-standard");
        for (int n = random.whole(0, 4); n > 0; --n) {
            const Part& part = project.parts[static_cast<std::size_t>(
                random.whole(0, static_cast<int>(project.parts.size()) - 1))];
            (void)place(project, sheet,
                        {{},
                         part.id,
                         mm(random.real(0, 200)),
                         mm(random.real(0, 200)),
                         degrees(random.whole(0, 3) * 90),
                         random.coin(0.3)});
        }
    }
    return project;
}

std::size_t occurrences(const std::string& text, const std::string& what) {
    std::size_t n = 0;
    for (auto at = text.find(what); at != std::string::npos; at = text.find(what, at + what.size()))
        ++n;
    return n;
}

} // namespace

TEST_CASE("an export is a folder: a file for each pass, one of everything, the run sheet") {
    Bench b = bench(label_art);
    MemoryFiles files;
    const auto done = must(run_export(b, files));
    CHECK(done.files == std::vector<std::string>{"00-everything.svg", "01-foil-gold-foil-tip-0.5.svg",
                                                 "02-draw-rust-pen-0.4.svg", "03-cut-fine-blade.svg",
                                                 "run-sheet.pdf", "run-sheet.txt"});
    const std::string& sheet = files.files["/out/run-sheet.txt"];
    for (const char* words :
         {"Stop 1", "rust pen 0.4", "Why this order", "Take care", "Blades are sharp", "manuals"}) {
        INFO(words);
        CHECK(sheet.find(words) != std::string::npos);
    }
    for (const std::string& name : done.files)
        CHECK((name.ends_with("pdf") || name.ends_with("txt") ||
               must(read_svg(files.files["/out/" + name], {})).physical_size));
}

TEST_CASE("what can hurt stands at the stop where the hands meet it") {
    Workshop workshop(catalog());
    const auto d = workshop.derive(
        std::make_shared<Project>(must(load_project(disk(), DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane"))));
    const RunSheet sheet = make_run_sheet(*d, catalog());
    const std::string text = to_text(sheet, *d);
    std::size_t cautions = 0;
    for (const Move& move : d->plan->program.moves) {
        const auto* stop = std::get_if<StopMove>(&move);
        if (!stop) continue;
        const auto row = std::find_if(sheet.rows.begin(), sheet.rows.end(), [&](const RunSheetRow& r) {
            return r.stop && r.number == stop->number;
        });
        REQUIRE(row != sheet.rows.end());
        REQUIRE(row->lines.size() == stop->steps.size());
        const auto from = text.find("Stop " + std::to_string(stop->number) + ",");
        for (std::size_t i = 0; i < stop->steps.size(); ++i) { // in the order in which they are met
            if (stop->steps[i].kind != HandStep::Kind::care) continue;
            ++cautions;
            CHECK(row->lines[i].care);
            CHECK(row->lines[i].text == stop->steps[i].text);
            const auto at = text.find("! " + stop->steps[i].text.english(), from);
            CHECK(at < text.find("Stop " + std::to_string(stop->number + 1) + ",", from));
        }
    }
    CHECK(cautions >= 3);
}

TEST_CASE("several sheets: their names stand in the files' names") {
    Bench b = bench(label_art);
    const SheetId second = add_sheet(b.project, "Back / copy", "cream-card-12x12", "mat-12x12-standard");
    must(place(b.project, second, {{}, b.part, mm(10), mm(10), {}, false}));
    MemoryFiles files;
    const auto done = must(run_export(b, files));
    CHECK(files.exists("/out/00-everything-sheet-1.svg"));
    CHECK(files.exists("/out/00-everything-Back-copy.svg"));
    CHECK(files.exists("/out/04-Back-copy-draw-rust-pen-0.4.svg"));
    CHECK(done.files.size() == 2 + 6 + 2);
}

TEST_CASE("nothing is exported while an error stands, an override is stated") {
    Bench b = bench(label_art);
    must(assign(b.project, b.part, {b.lines()[2]}, {}));
    MemoryFiles files;
    const auto refused = run_export(b, files);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().code == "export.findings");
    CHECK(refused.error().message.english().find("no lane") != std::string::npos);
    CHECK(files.files.empty());
    must(run_export(b, files, true));
    CHECK(files.files["/out/run-sheet.txt"].find("in spite of 1 error finding") != std::string::npos);
    CHECK(files.files["/out/run-sheet.txt"].find("has no lane, so it is not run") != std::string::npos);
    CHECK(files.files["/out/01-foil-gold-foil-tip-0.5.svg"].find("in spite of") != std::string::npos);
}

TEST_CASE("an export that cannot be written says so, no plan, no export") {
    Bench b = bench(label_art);
    MemoryFiles files;
    files.writes_left = 2;
    CHECK(run_export(b, files).error().code == "file.unwritable");
    b = bench(label_art, 100, 100, false);
    CHECK(run_export(b, files).error().code == "export.no-plan");
    const auto d = bench(label_art).derive();
    MemoryFiles untouched;
    const auto failed = export_folder(
        *d, catalog(), untouched, "/out",
        {false, {[](const auto&...) -> Result<std::string> { return fail("pdf.failed", say("no")); }, {}}});
    CHECK(failed.error().code == "pdf.failed");
    CHECK(untouched.files.empty()); // nothing is written before all content is ready
}

TEST_CASE("names are kept as far as a file system bears them, and cut between letters") {
    CHECK(file_word("Möwe Nr. 4") == "Möwe-Nr.-4");
    CHECK(file_word("日本") == "日本");
    CHECK(file_word("../../etc") == "etc"); // an exported name never leaves its folder
    CHECK(file_word("a/b\\c:d*e?\"<>|\n\x01") == "a-b-c-d-e");
    CHECK(file_word(" . ") == "unnamed");
    CHECK(file_word("") == "unnamed");
    std::string long_name;
    for (int i = 0; i < 100; ++i)
        long_name += "日";
    CHECK(file_word(long_name).size() == 120);
    CHECK(file_word(long_name, 100).size() == 99); // three bytes each
}

TEST_CASE("sheets of any names have files of their own, of at most 120 bytes") {
    std::string endless;
    for (int i = 0; i < 150; ++i)
        endless += "ä";
    Bench b = bench(label_art);
    find(b.project, b.sheet)->name = "日本";
    for (const std::string& name :
         {std::string("中国"), std::string("one"), std::string("one"), std::string("ONE"), endless, endless,
          std::string("one-2"), std::string("\xff\xfe"), std::string("/")}) {
        const SheetId id = add_sheet(b.project, name, "cream-card-12x12", "mat-12x12-standard");
        must(place(b.project, id, {{}, b.part, mm(10), mm(10), {}, false}));
    }
    for (Lane& lane : b.project.lanes)
        lane.name = endless;
    MemoryFiles files;
    const auto done = must(run_export(b, files));
    CHECK(done.files.size() == 10 + 30 + 2);
    std::set<std::string> lower;
    for (const std::string& name : done.files) {
        INFO(name);
        CHECK(name.size() <= longest_file_name);
        CHECK(valid_utf8(name) == name);
        CHECK(lower.insert(lower_case(name)).second);
        CHECK(files.exists("/out/" + name));
    }
    CHECK(files.exists("/out/00-everything-日本.svg"));
    CHECK(files.exists("/out/00-everything-中国.svg"));
    CHECK(files.files.size() == done.files.size() + 1); // and the manifest
    // A real disk bears them too.
    TemporaryFolder folder;
    must(run_export(b, disk(), false, folder / "out"));
    CHECK(disk().list(folder / "out").size() == done.files.size() + 1);
}

TEST_CASE("an export with a pass fewer takes away what is no longer right, and nothing else") {
    Bench b = bench(label_art);
    TemporaryFolder top;
    const std::string out = top / "out";
    const auto names = [&] { return disk().list(out); };
    must(run_export(b, disk(), false, out));
    CHECK(names().size() == 7);
    must(disk().write_atomically(out + "/mine.svg", "mine"));
    must(disk().write_atomically(out + "/99-cut.svg", "looks like one of ours"));
    must(set_aside(b.project, b.part, find(b.project, b.part)->sets[1].id, true)); // the foil
    const auto again = must(run_export(b, disk(), false, out));
    CHECK(again.removed == std::vector<std::string>{"01-foil-gold-foil-tip-0.5.svg", "02-draw-rust-pen-0.4.svg",
                                                    "03-cut-fine-blade.svg"});
    CHECK(names() == std::vector<std::string>{"00-everything.svg", "01-draw-rust-pen-0.4.svg",
                                              "02-cut-fine-blade.svg", "99-cut.svg", "dot-lane-export.json",
                                              "mine.svg", "run-sheet.pdf", "run-sheet.txt"});
    CHECK(file(out + "/mine.svg") == "mine");
    // Somebody has worked on a file that would go: it stays and is named.
    must(disk().write_atomically(out + "/01-draw-rust-pen-0.4.svg", "better"));
    must(set_aside(b.project, b.part, find(b.project, b.part)->sets[2].id, true)); // the pen
    const auto third = must(run_export(b, disk(), false, out));
    CHECK(third.changed == std::vector<std::string>{"01-draw-rust-pen-0.4.svg"});
    CHECK(file(out + "/01-draw-rust-pen-0.4.svg") == "better");
    // And where a new file would take the place of somebody else's, nothing is exported.
    const auto before = file(out + "/01-cut-fine-blade.svg");
    must(disk().write_atomically(out + "/01-cut-fine-blade.svg", "mine now"));
    const auto refused = run_export(b, disk(), false, out);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().code == "export.foreign");
    CHECK(refused.error().message.english().find("01-cut-fine-blade.svg") != std::string::npos);
    CHECK(file(out + "/01-cut-fine-blade.svg") == "mine now");
    must(disk().write_atomically(out + "/01-cut-fine-blade.svg", before));
    must(run_export(b, disk(), false, out));
}

TEST_CASE("an export into a folder from before there were manifests, and one that was stopped half way") {
    Bench b = bench(label_art);
    TemporaryFolder top;
    const std::string out = top / "out";
    must(run_export(b, disk(), false, out));
    std::filesystem::remove(out + "/" + manifest_name);
    std::filesystem::remove(out + "/run-sheet.pdf"); // its stand-in here bears no creator
    must(run_export(b, disk(), false, out));
    // Stopped after the manifest and one file: the others are still those of the export before.
    MemoryFiles next;
    find(b.project, b.sheet)->placements[0].left = mm(40);
    std::vector<NamedBytes> coming;
    for (const std::string& name : must(run_export(b, next)).files)
        coming.emplace_back(name, next.files["/out/" + name]);
    must(disk().write_atomically(out + "/" + manifest_name,
                                 make_manifest("x", coming, look_at_folder(disk(), out, coming))));
    must(disk().write_atomically(out + "/" + coming[0].first, coming[0].second));
    CHECK(must(run_export(b, disk(), false, out)).changed.empty());
    CHECK(file(out + "/03-cut-fine-blade.svg") == next.files["/out/03-cut-fine-blade.svg"]);
    // A manifest that names files elsewhere, or nothing that can be read, leads nowhere.
    must(disk().write_atomically(top / "precious", "precious"));
    must(disk().write_atomically(out + "/" + manifest_name,
                                 R"({"format": "dot-lane-export", "files": [{"name": "../precious",
                                     "fnv1a64": "0"}, 7, {"name": 3}], "replaced": {}})"));
    (void)run_export(b, disk(), false, out);
    CHECK(file(top / "precious") == "precious");
    must(disk().write_atomically(out + "/" + manifest_name, "my notes"));
    CHECK(run_export(b, disk(), false, out).error().code == "export.foreign");
}

TEST_CASE("print lanes: a page of the stock's size in the colours of the drawing, a step, and no line lost") {
    Bench b = bench(
        "<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/><path d='M20,20h30v10h-30z "
        "M25,22h5v5h-5z' fill='#a8832d' fill-rule='evenodd'/><path d='M10,40h30' fill='none' "
        "stroke='#a8462d' stroke-width='1.5' stroke-linecap='round'/>");
    for (Lane& lane : b.project.lanes)
        if (lane.action != Action::cut) lane.action = Action::print, lane.tool = "desk-printer";
    const auto d = b.derive();
    REQUIRE(d->plan);
    const Program& program = d->plan->program;
    REQUIRE(program.prints.size() == 1);
    CHECK(get(d->findings, "print.page").message.english().find("304.8 x 304.8 mm") != std::string::npos);
    MemoryFiles files;
    const auto done = must(run_export(b, files));
    CHECK(done.files.front() == "00-print.svg");
    CHECK(done.files[1] == "00-print.pdf");
    const std::string& page = files.files["/out/00-print.svg"];
    CHECK(page.find("width=\"304.8mm\" height=\"304.8mm\"") != std::string::npos);
    const auto read = must(read_svg(page, {})).drawing;
    int filled = 0, stroked = 0;
    for (const DrawnLine& line : read.lines) {
        if (line.drawn.fill == colour_from_hex("#a8832d")) {
            ++filled;
            CHECK(area_of(line) == Approx(30 * 10 - 25)); // its hole is open
        }
        if (line.drawn.stroke == colour_from_hex("#a8462d")) {
            ++stroked;
            CHECK(in_mm(line.drawn.stroke_width) == Approx(1.5));
        }
    }
    CHECK(filled == 1);
    CHECK(stroked == 1);
    // Where the cut will be: 20 - 2 mm from its edge.
    const auto cut = must(read_svg(files.files["/out/01-cut-fine-blade.svg"], {})).drawing;
    const auto box_of = [](const Drawing& of, auto wanted) {
        Box box;
        for (const DrawnLine& line : of.lines)
            if (wanted(line)) box.add(bounds(line.shape));
        return box;
    };
    const Box edge =
                  box_of(cut, [](const DrawnLine&l) { return l.group.find("pass-1") != std::string::npos; }),
              art = box_of(read, [](const DrawnLine&l) { return l.drawn.fill.has_value(); });
    CHECK(art.x0 - edge.x0 == Approx(18));
    CHECK(art.y0 - edge.y0 == Approx(18));
    CHECK(page.find("Check square: measures 20 mm") != std::string::npos);
    const std::string& sheet = files.files["/out/run-sheet.txt"];
    CHECK(sheet.find("Print \"sheet 1\" on cream card at 100 %, and measure the check square: 20 mm. File: "
                     "00-print.pdf") != std::string::npos);
    CHECK(sheet.find("Lines: 1 run, 3 printed") != std::string::npos);
    // The square lies on no part.
    CHECK_FALSE(program.prints[0].square->meets(d->sheets[0].parts[0].box));
}

TEST_CASE("a sheet that is only printed needs no machine, but a step and a file") {
    Bench b = bench("<path d='M10,40h30' fill='none' stroke='#a8462d'/>");
    b.project.lanes[0].action = Action::print, b.project.lanes[0].tool = "desk-printer";
    const auto d = b.derive();
    REQUIRE(d->plan);
    CHECK(d->plan->totals.passes == 0);
    CHECK(d->plan->totals.stops == 1);
    CHECK(in_seconds(d->plan->timeline.total()) == Approx(60)); // the catalog's time for a printed sheet
    MemoryFiles files;
    CHECK(must(run_export(b, files)).files ==
          std::vector<std::string>{"00-print.svg", "00-print.pdf", "run-sheet.pdf", "run-sheet.txt"});
    CHECK(files.files["/out/run-sheet.txt"].find("Print \"sheet 1\"") != std::string::npos);
}

TEST_CASE("no line is ever lost: the files and what is kept back add up to the project, whatever it is") {
    Random random("line accounts");
    Workshop workshop(catalog());
    for (int round = 0; round < 60; ++round) {
        Project project = any_project(random, workshop);
        for (Lane& lane : project.lanes)
            if (random.coin(0.3)) lane.action = Action::print, lane.tool = "desk-printer";
        for (Part& part : project.parts)
            for (LineSet& set : part.sets) {
                if (random.coin(0.15)) set.set_aside = true;
                if (random.coin(0.1)) set.lane = {};
            }
        const auto d = workshop.derive(std::make_shared<Project>(project));
        REQUIRE(d);
        if (!d->plan) {
            CHECK((d->no_plan.code == "plan.nothing" || d->no_plan.code == "plan.no-slot"));
            continue;
        }
        // What the project has, counted where it lies: all contours and strokes of every copy.
        std::size_t whole = 0, kept_back = 0;
        for (const Part& part : project.parts) {
            const EvaluatedPart& e = *d->part(part.id);
            std::size_t copies = 0, all = 0, back = 0;
            for (const Sheet& sheet : project.sheets)
                for (const Placement& p : sheet.placements)
                    copies += p.part == part.id ? 1 : 0;
            const auto run = [&](LineSetId id) {
                return std::any_of(e.runs.begin(), e.runs.end(),
                                   [&](const RunSet& r) { return r.set == id; });
            };
            for (const FlatLine& line : e.lines) {
                all += line.contours.size();
                if (!run(line.set)) back += line.contours.size();
            }
            for (const RunSet& r : e.runs)
                if (r.ink) all += r.lines.size();
            whole += copies * all, kept_back += copies * back;
        }
        MemoryFiles files;
        const auto done = export_folder(*d, catalog(), files, "/out", {true, {}});
        if (!done) FAIL(done.error().message);
        std::size_t exported = 0;
        for (const std::string& name : done->files) {
            if (name.starts_with("00-everything") || !name.ends_with(".svg")) continue;
            const std::string& text = files.files["/out/" + name];
            if (name.starts_with("00-print")) {
                const auto group = text.substr(text.find("id=\"print\""),
                                               text.find("id=\"origin-marks\"") - text.find("id=\"print\""));
                exported += occurrences(group, "M"); // a contour begins with it, and no colour has one
            } else {
                exported += occurrences(text.substr(text.find("id=\"pass-")), "<path ");
            }
        }
        INFO("round " << round << ", " << words(account(*d)));
        CHECK(exported + kept_back == whole);
        const LineAccount a = account(*d);
        CHECK(a.run + a.printed == exported);
        CHECK(a.aside + a.no_lane == kept_back);
        CHECK(files.files["/out/run-sheet.txt"].find("Lines: " + words(a).english()) != std::string::npos);
    }
}

TEST_CASE("the run sheet shows what lies where, what is mirrored, the blade's depth, and keeps the computer "
          "awake") {
    Bench b = bench(label_art);
    must(place(b.project, b.sheet, {{}, b.part, mm(110), mm(10), {}, true}));
    auto d = b.derive();
    RunSheet sheet = make_run_sheet(*d, catalog());
    REQUIRE(sheet.pictures.size() == 1);
    CHECK(sheet.pictures[0].parts[1].name.english().find("mirrored") != std::string::npos);
    CHECK(sheet.pictures[0].notes[0].english().find("worked from behind: 2") != std::string::npos);
    std::string text = to_text(sheet, *d);
    CHECK(text.find("its tip out by 0.38 mm, for cream card") !=
          std::string::npos); // 0.28 mm of card and 0.1 mm
    CHECK(text.find("Then sheet 1 is in the machine; left holder: rust pen 0.4; right holder: fine blade.") !=
          std::string::npos);
    const double minutes = in_seconds(d->plan->timeline.total()) / 60;
    CHECK(minutes > 10); // the foil
    CHECK(text.find("Keep the computer awake") != std::string::npos);
    must(set_aside(b.project, b.part, find(b.project, b.part)->sets[1].id, true));
    for (Placement& p : find(b.project, b.sheet)->placements)
        p.mirrored = true;
    d = b.derive();
    REQUIRE(in_seconds(d->plan->timeline.total()) < 600);
    sheet = make_run_sheet(*d, catalog());
    text = to_text(sheet, *d);
    CHECK(text.find("Keep the computer awake") == std::string::npos);
    CHECK(text.find("Lay cream card, face down because all on it is mirrored, on the") != std::string::npos);
    CHECK(text.find("Everything is mirrored") != std::string::npos);
    // The picture: a frame for each part with its number in it, as far apart as they lie.
    const auto picture = text.find("sheet 1: cream card");
    REQUIRE(picture != std::string::npos);
    const std::string row = text.substr(text.rfind('\n', text.find(" 2 ", picture)) + 1);
    CHECK(row.substr(0, row.find('\n')).find(" 1 ") != std::string::npos); // side by side
}

TEST_CASE("the run sheet names the smallest mat that holds a stencil's film, or that none does") {
    for (const auto& [wide, words] : {std::pair{150, "which the mat \"standard mat 12 x 12 in\" holds"},
                                      std::pair{400, "which the mat \"standard mat 12 x 24 in\" holds"},
                                      std::pair{700, "which no mat of this machine holds in one piece"}}) {
        INFO(wide);
        Bench b = bench("<rect x='10' y='10' width='" + std::to_string(wide) + "' height='60' fill='#111'/>",
                        900, 100);
        StencilStep stencil;
        stencil.margin = mm(20);
        must(append_step(b.project, catalog(), b.part, stencil, {find(b.project, b.part)->sets.front().id}));
        const auto d = b.derive();
        REQUIRE(d->plan);
        const std::string text = to_text(make_run_sheet(*d, catalog()), *d);
        CHECK(text.find(words) != std::string::npos);
    }
}
