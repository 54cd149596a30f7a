// DXF against ezdxf, an independent reader, on the files of Debian's openscad-testing-data.
#include <filesystem>
#include <sstream>

#include "core/formats/dxf/reader.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
namespace fs = std::filesystem;

namespace {

std::string output_of(const std::string& command) {
    std::string out;
    FILE* pipe = ::popen(command.c_str(), "r");
    REQUIRE(pipe);
    char buffer[4096];
    while (const auto n = std::fread(buffer, 1, sizeof buffer, pipe))
        out.append(buffer, n);
    ::pclose(pipe);
    return out;
}

/// What ezdxf says of files: in the file's own units.
struct Told {
    std::string name;
    double length = 0, width = 0, height = 0;
};
std::vector<Told> told_of(const std::string& names) {
    std::istringstream rows(output_of("/usr/bin/python3 '" DOTLANE_SOURCE "/tests/reference/dxf_lengths.py'" +
                                      names + " 2>/dev/null"));
    std::vector<Told> out;
    for (std::string row; std::getline(rows, row);) {
        std::istringstream fields(row);
        Told told;
        std::getline(fields, told.name, '\t');
        fields >> told.length >> told.width >> told.height;
        out.push_back(std::move(told));
    }
    return out;
}

} // namespace

TEST_CASE("random DXF files written by ezdxf are as long and as large as it says") {
    Random random("random DXF");
    INFO("seed " << random.seed());
    TemporaryFolder folder;
    constexpr int count = 60;
    output_of("/usr/bin/python3 '" DOTLANE_SOURCE "/tests/reference/dxf_random.py' " + folder.path + " " +
              std::to_string(random.seed()) + " " + std::to_string(count));
    std::string names;
    for (int i = 0; i < count; ++i)
        names += " " + (folder / (std::to_string(i) + ".dxf"));
    const auto all = told_of(names);
    CHECK(all.size() == count);
    for (const Told& told : all) {
        INFO(told.name << ": " << file(told.name).size() << " bytes");
        const auto read = must(read_dxf(file(told.name), {told.name}));
        Length sum;
        for (const DrawnLine& line : read.drawing.lines)
            for (const Contour& c : line.shape.contours)
                sum += length(flattened(c, mm(5e-4)));
        const Box box = bounds(read.drawing);
        // Both flatten within 0.0005 mm; ends within 0.01 mm are joined here.
        CHECK(in_mm(sum) == Approx(told.length).epsilon(2e-4).margin(0.02));
        CHECK(box.width() == Approx(told.width).epsilon(1e-4).margin(0.01));
        CHECK(box.height() == Approx(told.height).epsilon(1e-4).margin(0.01));
    }
}

TEST_CASE("DXF files are as long and as large as ezdxf says") {
    std::string names;
    for (const auto& entry : fs::recursive_directory_iterator("/usr/share/openscad/testdata"))
        if (entry.path().extension() == ".dxf") names += " '" + entry.path().string() + "'";
    int files = 0, alike = 0;
    for (const auto& [name, want, w, height] : told_of(names)) {
        ++files;
        const auto read = read_dxf(file(name), {name});
        INFO(name);
        if (!read) {
            std::cout << name << ": " << read.error().message.english() << "\n";
            continue;
        }
        // In drawing units: the sizes of the reference carry no unit.
        Length sum;
        for (const DrawnLine& line : read->drawing.lines)
            for (const Contour& c : line.shape.contours) // a dot has no length
                sum += length(flattened(c, mm(5e-4)));
        const Box box = bounds(read->drawing);
        const double scale = w > 0 && box.width() > 0 ? box.width() / w : 1;
        const double unit = std::abs(scale - std::round(scale)) < 0.01 ? std::round(scale)
                            : scale > 20                               ? 25.4
                                                                       : 1;
        const bool same = std::abs(in_mm(sum) - want * unit) <= 1e-3 * want * unit + 0.01 &&
                          std::abs(box.width() - w * unit) <= 1e-3 * w * unit + 0.01 &&
                          std::abs(box.height() - height * unit) <= 1e-3 * height * unit + 0.01;
        alike += same;
        if (!same)
            std::cout << name << ": length " << in_mm(sum) << " for " << want * unit << ", box "
                      << box.width() << " x " << box.height() << " for " << w * unit << " x " << height
                      << "\n";
    }
    std::cout << alike << " of " << files << " DXF files as ezdxf reads them\n";
    CHECK(files >= 25);
    CHECK(alike >= files * 9 / 10);
    // Computed elsewhere for the project (references.md): the lengths of three of them.
    const auto length_in = [](const char* name) {
        for (const auto& entry : fs::recursive_directory_iterator("/usr/share/openscad/testdata"))
            if (entry.path().filename() == name) {
                const auto read = must(read_dxf(file(entry.path()), {name}));
                Length sum;
                for (const DrawnLine& line : read.drawing.lines)
                    sum += length(flattened(line.shape, mm(5e-4)));
                return in_mm(sum);
            }
        FAIL("no " << name);
        return 0.0;
    };
    CHECK(length_in("polygon-concave.dxf") == Approx(1887.608).margin(0.01));
    CHECK(length_in("polygon-self-intersect.dxf") == Approx(482.843).margin(0.01));
    CHECK(length_in("transform-insert.dxf") == Approx(280).margin(0.01));
}
