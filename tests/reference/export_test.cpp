// Exported files measured by other programs: rsvg-convert rasters the SVG, poppler reads the PDF.
#include <QImage>

#include "core/commands/filling.h"
#include "core/exports/exporting.h"
#include "present/run_sheet_pdf.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Exported {
    TemporaryFolder folder;
    Bench b = bench("<rect x='0' y='0' width='100' height='60' fill='none' stroke='#22282c'/><rect x='20' "
                    "y='20' width='30' height='10' fill='#a8832d'/>");
    Exported() {
        ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
        must(fill_lines(b.project, catalog(), b.part, {b.lines()[1]}));
        const auto d = b.derive();
        must(export_folder(*d, catalog(), disk(), folder.path, {false, present::run_sheet_pdf}));
    }
    /// The ink of a file rastered at 10 px a millimetre, in mm, within a part of the page.
    Box ink(const std::string& name, Box part) const {
        const std::string png = folder / "x.png";
        // 254 dpi: the file's own millimetres decide the size, nothing else.
        shell("rsvg-convert -d 254 -p 254 -b white '" + folder / name + "' -o '" + png + "'");
        const QImage image(QString::fromStdString(png));
        Box out;
        for (int y = static_cast<int>(part.y0 * 10);
             y < std::min<int>(image.height(), static_cast<int>(part.y1 * 10)); ++y)
            for (int x = static_cast<int>(part.x0 * 10);
                 x < std::min<int>(image.width(), static_cast<int>(part.x1 * 10)); ++x)
                if (qGray(image.pixel(x, y)) < 245) out.add(Point{(x + 0.5) / 10, (y + 0.5) / 10});
        return out;
    }
};

} // namespace

TEST_CASE_METHOD(
    Exported, "a 100 x 60 mm rectangle measures 100 x 60 mm in another program, and the check square 10 mm") {
    const Box cut = ink("02-cut-fine-blade.svg", {8, 8, 300, 300});
    CHECK(cut.width() == Approx(100).margin(0.25)); // half the 0.1 mm line on each side and a pixel
    CHECK(cut.height() == Approx(60).margin(0.25));
    CHECK(cut.x0 == Approx(10).margin(0.2)); // where it was placed
    for (const char* name : {"00-everything.svg", "01-foil-gold-foil-tip-0.5.svg", "02-cut-fine-blade.svg"}) {
        const Box square = ink(name, {0, 306, 300, 324});
        INFO(name);
        CHECK(square.width() == Approx(10).margin(0.25));
        CHECK(square.height() == Approx(10).margin(0.25));
        CHECK(square.x0 == Approx(5).margin(0.2));
    }
}

TEST_CASE_METHOD(Exported, "the run sheet is an A4 page whose words can be read") {
    const std::string info = shell("pdfinfo '" + folder / "run-sheet.pdf" + "'");
    CHECK(info.find("A4") != std::string::npos);
    const std::string text = shell("pdftotext -layout '" + folder / "run-sheet.pdf" + "' -");
    for (const char* words : {"Run sheet for the Two-holder desktop cutter", "Stop 1", "gold foil tip 0.5",
                              "Why this order", "Take care", "00-everything.svg"}) {
        INFO(words);
        CHECK(text.find(words) != std::string::npos);
    }
    // What can hurt is said at the stop where the hands meet it, on paper and in the text file alike.
    const auto first_stop = [](const std::string& sheet) {
        const auto begin =
            sheet.find("Stop 1,") == std::string::npos ? sheet.find("Stop 1") : sheet.find("Stop 1,");
        return sheet.substr(begin, sheet.find("Stop 2", begin) - begin);
    };
    for (const std::string& sheet : {text, file(folder / "run-sheet.txt")})
        CHECK(first_stop(sheet).find("! ") != std::string::npos);
    // The text sheet has the same content.
    const std::string plain = file(folder / "run-sheet.txt");
    for (const char* words : {"Stop 1", "gold foil tip 0.5", "Blades are sharp"})
        CHECK(plain.find(words) != std::string::npos);
}
