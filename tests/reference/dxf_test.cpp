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

} // namespace

TEST_CASE("DXF files are as long and as large as ezdxf says") {
    std::string names;
    for (const auto& entry : fs::recursive_directory_iterator("/usr/share/openscad/testdata"))
        if (entry.path().extension() == ".dxf") names += " '" + entry.path().string() + "'";
    std::istringstream rows(output_of("/usr/bin/python3 '" DOTLANE_SOURCE "/tests/reference/dxf_lengths.py'" +
                                      names + " 2>/dev/null"));
    int files = 0, alike = 0;
    std::string row;
    while (std::getline(rows, row)) {
        std::istringstream fields(row);
        std::string name, length_text, width, height;
        std::getline(fields, name, '\t');
        std::getline(fields, length_text, '\t');
        std::getline(fields, width, '\t');
        std::getline(fields, height, '\t');
        ++files;
        const auto read = read_dxf(file(name), {name});
        INFO(name);
        if (!read) {
            std::cout << name << ": " << read.error().message << "\n";
            continue;
        }
        // In drawing units: the sizes of the reference carry no unit.
        Length sum;
        for (const DrawnLine& line : read->drawing.lines)
            for (const Contour& c : line.shape.contours) // a dot has no length
                sum += length(flattened(c, mm(5e-4)));
        const Box box = bounds(read->drawing);
        const double want = std::stod(length_text), w = std::stod(width);
        const double scale = w > 0 && box.width() > 0 ? box.width() / w : 1;
        const double unit = std::abs(scale - std::round(scale)) < 0.01 ? std::round(scale)
                            : scale > 20                               ? 25.4
                                                                       : 1;
        const bool same =
            std::abs(in_mm(sum) - want * unit) <= 1e-3 * want * unit + 0.01 &&
            std::abs(box.width() - w * unit) <= 1e-3 * w * unit + 0.01 &&
            std::abs(box.height() - std::stod(height) * unit) <= 1e-3 * std::stod(height) * unit + 0.01;
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
