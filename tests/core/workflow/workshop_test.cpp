// Findings and their remedies, the run sheet, the export.
#include "core/workflow/workshop.h"

#include "core/formats/svg/reader.h"
#include "core/workflow/exporting.h"
#include "core/workflow/filling.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* things = "<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/><rect x='20' "
                     "y='20' width='30' height='10' fill='#a8832d'/>"
                     "<path d='M10,10 h20' fill='none' stroke='#a8462d'/>";

Result<std::string> plain_pdf(const RunSheet& sheet) {
    return "%PDF " + sheet.title;
}

Result<ExportResult> run_export(const Bench& b, MemoryFiles& files, bool override_errors = false) {
    const auto d = b.derive();
    return export_folder(*d, catalog(), files, "/out", {override_errors, plain_pdf});
}

} // namespace

TEST_CASE("each remedy is an ordinary edit that removes its finding") {
    const auto mends = [](Bench b, const std::string& code) {
        const auto d = b.derive();
        const Finding f = get(d->findings, code);
        REQUIRE_FALSE(f.remedy.code.empty());
        CHECK_FALSE(f.remedy.label.empty());
        const Project before = b.project;
        must(apply_remedy(b.project, catalog(), *d, f));
        CHECK_FALSE(b.project == before);
        must(check_rules(b.project));
        CHECK_FALSE(has(b.derive()->findings, code));
    };
    Bench b = bench(things);
    must(assign(b.project, b.part, {b.lines()[2]}, {}));
    mends(b, "lane.none");

    b = bench(things);
    const StepId step = must(fill_lines(b.project, catalog(), b.part, {b.lines()[1]}));
    auto& fill = std::get<FillStep>(find(b.project, b.part)->steps[0].what);
    fill.spacing = mm(3);
    mends(b, "fill.wide");
    fill.spacing = mm(0.4);
    fill.inset = mm(0);
    mends(b, "fill.overspill");
    fill.inset = mm(30);
    mends(b, "fill.empty");
    (void)step;

    b = bench(things);
    b.project.sheets[0].placements[0].left = mm(-20);
    mends(b, "sheet.outside");
    b = bench(things, 100, 100, false);
    mends(b, "part.unplaced");
    b = bench(things);
    must(set_quantity(b.project, b.part, 24));
    CHECK(get(b.derive()->findings, "part.count").grade == Grade::caution); // too few
    mends(b, "part.count");
    b = bench(things, 100, 100, false);
    b.project.sheets.clear(); // even without a sheet: one is made
    mends(b, "part.unplaced");
    b = bench(things);
    must(set_pass_order(b.project, {b.lane(Action::cut), b.lane(Action::draw)}));
    mends(b, "order.after-cut");
}

TEST_CASE("a remedy that has nothing left to mend says so") {
    Bench b = bench(things);
    b.project.sheets[0].placements[0].left = mm(-20);
    const auto d = b.derive();
    const Finding f = get(d->findings, "sheet.outside");
    b.project.sheets.clear();
    CHECK_FALSE(apply_remedy(b.project, catalog(), *d, f));
    CHECK(apply_remedy(b.project, catalog(), *d, Finding{}).error().code == "remedy.none");
}

TEST_CASE("an export is a folder: a file for each pass, one of everything, the run sheet") {
    Bench b = bench(things);
    MemoryFiles files;
    const auto done = must(run_export(b, files));
    CHECK(done.files == std::vector<std::string>{"00-everything.svg", "01-draw-rust-pen-0-4.svg",
                                                 "02-foil-gold-foil-tip-0-5.svg", "03-cut-fine-blade.svg",
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

TEST_CASE("several sheets: their names stand in the files' names") {
    Bench b = bench(things);
    const SheetId second = add_sheet(b.project, "Back / copy", "cream-card-12x12", "mat-12x12-standard");
    must(place(b.project, second, {{}, b.part, mm(10), mm(10), {}, false}));
    MemoryFiles files;
    const auto done = must(run_export(b, files));
    CHECK(files.exists("/out/00-everything-sheet-1.svg"));
    CHECK(files.exists("/out/00-everything-back-copy.svg"));
    CHECK(files.exists("/out/04-back-copy-draw-rust-pen-0-4.svg"));
    CHECK(done.files.size() == 2 + 6 + 2);
}

TEST_CASE("nothing is exported while an error stands, an override is stated") {
    Bench b = bench(things);
    must(assign(b.project, b.part, {b.lines()[2]}, {}));
    MemoryFiles files;
    const auto refused = run_export(b, files);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().code == "export.findings");
    CHECK(refused.error().message.find("no lane") != std::string::npos);
    CHECK(files.files.empty());
    must(run_export(b, files, true));
    CHECK(files.files["/out/run-sheet.txt"].find("in spite of 1 error finding") != std::string::npos);
    CHECK(files.files["/out/run-sheet.txt"].find("error: 1 line has no lane") != std::string::npos);
    CHECK(files.files["/out/01-foil-gold-foil-tip-0-5.svg"].find("in spite of") != std::string::npos);
}

TEST_CASE("an export that cannot be written says so, no plan, no export") {
    Bench b = bench(things);
    MemoryFiles files;
    files.writes_left = 2;
    CHECK(run_export(b, files).error().code == "file.unwritable");
    b = bench(things, 100, 100, false);
    CHECK(run_export(b, files).error().code == "export.no-plan");
    const auto d = bench(things).derive();
    MemoryFiles untouched;
    const auto failed = export_folder(
        *d, catalog(), untouched, "/out",
        {false, [](const RunSheet&) -> Result<std::string> { return fail("pdf.failed", "no"); }});
    CHECK(failed.error().code == "pdf.failed");
    CHECK(untouched.files.empty()); // nothing is written before all content is ready
}

TEST_CASE("lanes whose tool cannot do it, or is unknown, are errors") {
    Bench b = bench(things);
    find(b.project, b.lane(Action::cut))->tool = "pen-0.4";
    CHECK(get(b.derive()->findings, "lane.wrong-tool").grade == Grade::error);
    b.project.sheets[0].stock = "none";
    CHECK(get(b.derive()->findings, "sheet.unknown").grade == Grade::error);
}

TEST_CASE("derived once, parts that did not change are not evaluated again") {
    Bench b = bench(things);
    const auto first = b.derive();
    b.project.sheets[0].placements[0].left = mm(33);
    const auto second = b.derive();
    CHECK(second->parts.at(b.part) == first->parts.at(b.part)); // the same object
    must(scale_part(b.project, b.part, 1.5));
    CHECK(b.derive()->parts.at(b.part) != first->parts.at(b.part));
}
