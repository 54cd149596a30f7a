#include "tests/support/support.h"

#include <clocale>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <numbers>
#include <sstream>
#include <sys/wait.h>
#include <unistd.h>

#include "core/commands/filling.h"
#include "core/formats/svg/reader.h"
#include "core/opening/opening.h"

namespace dotlane::test {

Result<std::string> MemoryFiles::read(const std::string& path, std::uint64_t max_bytes) {
    const auto it = files.find(path);
    if (it == files.end()) return fail("file.missing", say("There is no file \"%1\".", path));
    if (it->second.size() > max_bytes) return fail("file.too-large", say("too large"));
    return it->second;
}

Result<void> MemoryFiles::write_atomically(const std::string& path, const std::string& bytes, Access) {
    if (writes_left-- <= 0) return fail("file.unwritable", say("The disk is full."));
    files[path] = bytes;
    ++writes;
    return {};
}

Result<void> MemoryFiles::write_folder(const std::string& folder, const std::vector<NamedBytes>& list_of,
                                       const std::vector<std::string>& gone) {
    const auto before = files;
    for (const auto& [name, bytes] : list_of)
        if (const auto ok = write_atomically(folder + "/" + name, bytes); !ok) return files = before, ok;
    for (const std::string& name : gone)
        files.erase(folder + "/" + name);
    return {};
}

Result<void> MemoryFiles::make_folder(const std::string&, Access) {
    return {};
}

FileMark MemoryFiles::mark(const std::string& path) {
    const auto it = files.find(path);
    if (it == files.end()) return {};
    return {true, 0, std::hash<std::string>()(it->second), it->second.size(), 0};
}

Result<std::unique_ptr<FileLock>> MemoryFiles::lock(const std::string&, int) {
    return std::make_unique<FileLock>();
}

std::vector<std::string> MemoryFiles::list(const std::string& folder) {
    std::vector<std::string> out;
    for (const auto& [path, bytes] : files)
        if (path.starts_with(folder + "/") && path.find('/', folder.size() + 1) == std::string::npos)
            out.push_back(path.substr(folder.size() + 1));
    return out;
}

Random::Random(const char* what) {
    const char* given = std::getenv("DOTLANE_SEED");
    seed_ = given ? static_cast<unsigned>(std::strtoul(given, nullptr, 10)) : std::random_device{}();
    engine_.seed(seed_);
    std::cout << what << ": seed " << seed_ << " (DOTLANE_SEED repeats it)" << std::endl;
}

Result<PartId> make_part(Project& project, const Catalog& catalog, FontShelf& fonts, SourceSpec spec,
                         std::string name, PartId lender) {
    return apply(MakePart{std::move(spec), std::move(name), lender}, project, catalog, fonts)
        .map([](const Done& done) { return done.part; });
}

Result<void> change_source(Project& project, const Catalog& catalog, FontShelf& fonts, PartId part,
                           SourceSpec spec) {
    return apply(ChangeSource{part, std::move(spec)}, project, catalog, fonts).map([](const Done&) {});
}

const Catalog& catalog() {
    static const Catalog shipped = must(load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
    return shipped;
}

Polyline ring(std::vector<Point> points) {
    return {std::move(points), true};
}
Polyline line(std::vector<Point> points) {
    return {std::move(points), false};
}

Ring regular(int corners, double radius, Point centre, double turn) {
    Ring out;
    for (int i = 0; i < corners; ++i) {
        const double a = turn + 2 * std::numbers::pi * i / corners;
        out.push_back({centre.x + radius * std::cos(a), centre.y + radius * std::sin(a)});
    }
    return out;
}

Region square(double side, Point at) {
    return region_of({ring({at, {at.x + side, at.y}, {at.x + side, at.y + side}, {at.x, at.y + side}})},
                     FillRule::nonzero);
}

Ring random_ring(Random& random, int corners, double least, double most, Point centre) {
    Ring out;
    for (int i = 0; i < corners; ++i) {
        const double a = 2 * std::numbers::pi * (i + random.real(0.1, 0.9)) / corners,
                     r = random.real(least, most);
        out.push_back({centre.x + r * std::cos(a), centre.y + r * std::sin(a)});
    }
    return out;
}

const char* const littered =
    "<svg xmlns='http://www.w3.org/2000/svg' width='400mm' height='120mm' viewBox='0 0 400 120'><defs>"
    "<linearGradient id='g'><stop offset='0' stop-color='#a33'/><stop offset='1' stop-color='#fd8'/>"
    "</linearGradient></defs><g id='leaves'><path d='M10,20h80v60h-80z' fill='#307040'/></g><g id='petals'>"
    "<rect x='100' y='20' width='50' height='60' fill='url(#g)'/></g>"
    "<circle cx='396' cy='100' r='0.6' fill='#000'/></svg>";

std::string svg(const std::string& elements, double w, double h) {
    std::ostringstream out;
    out << "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\""
        << w << "mm\" height=\"" << h << "mm\" viewBox=\"0 0 " << w << " " << h << "\">" << elements
        << "</svg>";
    return out.str();
}

Drawing drawing(const std::string& elements, double w, double h) {
    return must(read_svg(svg(elements, w, h), {})).drawing;
}

std::vector<LineId> Bench::lines() const {
    std::vector<LineId> out;
    for (const DrawnLine& line : find(project, part)->source.drawing->lines)
        out.push_back(line.id);
    return out;
}

LaneId Bench::lane(Action action) const {
    for (const Lane& lane : project.lanes)
        if (lane.action == action) return lane.id;
    return {};
}

Bench bench(const std::string& elements, double w, double h, bool placed) {
    Bench out;
    out.workshop = std::make_shared<Workshop>(catalog());
    out.project = out.workshop->new_project("test");
    const auto opened = must(open_drawing(svg(elements, w, h), "thing.svg", out.workshop->fonts()));
    out.part =
        must(apply(TakeIn{opened, gather_lanes(*opened.source.drawing, catalog())}, out.project, catalog()))
            .part;
    out.sheet = add_sheet(out.project, "sheet 1", "cream-card-12x12", "mat-12x12-standard");
    if (placed) must(place(out.project, out.sheet, {{}, out.part, mm(10), mm(10), {}, false}));
    return out;
}

bool has(const Findings& findings, const std::string& code) {
    return std::any_of(findings.begin(), findings.end(), [&](const Finding& f) { return f.code == code; });
}

Finding get(const Findings& findings, const std::string& code) {
    for (const Finding& f : findings)
        if (f.code == code) return f;
    std::string all;
    for (const Finding& f : findings)
        all += " " + f.code;
    FAIL("no finding " << code << " among:" << all);
    return findings.front();
}

double area_of(const Region& region) {
    return in_square_mm(area(region));
}
double area_of(const DrawnLine& line) {
    return area_of(region_of(line.shape, mm(0.001)));
}

FontShelf& fonts() {
    static FontShelf& shelf = []() -> FontShelf& {
        static FontShelf made;
        must(made.add_folder(disk(), DOTLANE_SOURCE "/data/fonts"));
        return made;
    }();
    return shelf;
}

double figure(const SourceLines& lines, const std::string& key) {
    for (const Figure& f : lines.figures)
        if (f.key == key) return f.value;
    FAIL("no figure " << key);
    return 0;
}

std::string file(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), std::istreambuf_iterator<char>()};
}

std::string shell(const std::string& command, int* status) {
    std::string out;
    FILE* pipe = ::popen(command.c_str(), "r");
    if (!pipe) FAIL("could not run " << command);
    char buffer[4096];
    while (const auto n = std::fread(buffer, 1, sizeof buffer, pipe))
        out.append(buffer, n);
    const int code = ::pclose(pipe);
    if (status) *status = WIFEXITED(code) ? WEXITSTATUS(code) : -1;
    return out;
}

TemporaryFolder::TemporaryFolder() {
    char name[] = "/tmp/dotlane-test-XXXXXX";
    if (!::mkdtemp(name)) FAIL("no temporary folder");
    path = name;
}

TemporaryFolder::~TemporaryFolder() {
    std::error_code ignored;
    std::filesystem::remove_all(path, ignored);
}

OwnHome::OwnHome()
    : before_(std::getenv("XDG_DATA_HOME")) {
    ::setenv("XDG_DATA_HOME", path.c_str(), 1);
}

OwnHome::~OwnHome() {
    ::setenv("XDG_DATA_HOME", before_.c_str(), 1);
}

CommaLocale::CommaLocale()
    : before_(std::setlocale(LC_ALL, nullptr)) {
    REQUIRE(std::setlocale(LC_ALL, "de_DE.UTF-8"));
    REQUIRE(std::string(std::localeconv()->decimal_point) == ",");
}

CommaLocale::~CommaLocale() {
    std::setlocale(LC_ALL, before_.c_str());
}

Result<StepId> fill_lines(Project& project, const Catalog& catalog, PartId part_id,
                          const std::vector<LineId>& lines) {
    const Part* part = find(project, part_id);
    if (!part) return fail("edit.missing", say("There is no such part in this project."));
    std::vector<LineId> closed;
    for (const LineId id : lines)
        if (const DrawnLine* line = find(*part->source.drawing, id); line && fillable(*line))
            closed.push_back(id);
    if (closed.empty()) return fail("step.no-lines", say("None of these lines is closed."));
    const auto set = gather(project, part_id, closed, "filled lines");
    if (!set) return tl::make_unexpected(set.error());
    return fill_sets(project, catalog, part_id, FillStep{}, {*set});
}

} // namespace dotlane::test
