// A picture whose outlines are traced. The file's own bytes are kept, so that the tracing stays live.
#pragma once

#include <memory>

#include "core/project/sources/kind.h"

namespace dotlane {

struct Picture {
    enum class By { grey, colour };
    std::string file_name;                    ///< without folder; for showing only
    std::shared_ptr<const std::string> bytes; ///< of the PNG or JPEG file; shared, never changed
    Length width = mm(120);                   ///< of the whole picture, 1..5000 mm
    int threshold = 0;                        ///< 1..255: darker is cut; 0: found from the picture
    bool invert = false;                      ///< lighter is cut
    By by = By::grey;
    int levels = 1;    ///< of grey, or so many colours beside the paper's; each a line set of its own, 1..6
    int only = 0;      ///< 0: all levels; otherwise this one alone, 1..6
    int speckle = 8;   ///< areas of up to so many pixels are left out, 0..100,000
    int reconnect = 0; ///< gaps of up to twice so many pixels are closed, 0..20
    double corner = 1; ///< 0: all corners sharp; 1.34: none
    double tolerance = 0.4; ///< pixels by which curves may leave the edge, 0..5
    bool patient = false;   ///< traced however large and rough it is, which may take minutes
    bool operator==(const Picture& o) const {
        const auto numbers = [](const Picture& p) {
            return std::tie(p.file_name, p.width, p.threshold, p.invert, p.by, p.levels, p.only, p.speckle,
                            p.reconnect, p.corner, p.tolerance, p.patient);
        };
        if (numbers(*this) != numbers(o)) return false;
        return bytes == o.bytes || (bytes && o.bytes && *bytes == *o.bytes);
    }

    std::vector<std::string> roles() const {
        if (levels == 1) return {role::traced};
        std::vector<std::string> out;
        for (int i = 1; i <= levels; ++i)
            if (only == 0 || only == i) out.push_back(std::string(role::traced) + " " + std::to_string(i));
        return out;
    }

    static constexpr SourceRow row{.key = "picture",
                                   .name = "Picture",
                                   .about = "Outlines of a PNG or JPEG picture, traced.",
                                   .wanted = SourceRow::Wanted::files,
                                   .offered = false};
    friend void fields(Picture& s, Fields& f) {
        f.data({"picture", "picture"}, s.bytes);
        if (f.all()) f.text({"file-name", "file"}, s.file_name, TextKind::plain);
        f.length({"width", "width", "Of the whole picture"}, s.width, mm(1), mm(5000));
        const bool grey = s.by == Picture::By::grey;
        f.one_of({"by", "told apart by", "", {4, R"("grey")"}}, s.by, {"grey", "colour"});
        if (f.when(grey))
            f.whole({"threshold", "threshold", "Darker is cut; 0: found from the picture"}, s.threshold, 0,
                    255);
        f.whole({"levels", grey ? "levels" : "colours", "Each a line set of its own"}, s.levels, 1, 6);
        if (f.when(s.levels > 1)) f.whole({"only", "only number", "0: all of them", {4, "0"}}, s.only, 0, 6);
        f.whole({"speckle", "speckles under", "Areas of up to so many pixels are left out"}, s.speckle, 0,
                100000);
        f.whole({"reconnect", "reconnect", "Gaps of up to twice so many pixels are closed"}, s.reconnect, 0,
                20);
        f.number({"corner", "corners", "0: all sharp; 1.34: none"}, s.corner, 0, 1.34);
        f.number({"tolerance", "smoothness", "Pixels by which curves may leave the edge"}, s.tolerance, 0, 5);
        if (f.when(grey)) f.flag({"invert", "cut what is light"}, s.invert);
        f.flag({"patient",
                "trace it however long it takes",
                "Also when it is so large or rough that it takes minutes",
                {6, "true"}},
               s.patient);
    }
    friend Result<SourceLines> make(const Picture& spec, const MakeInput& in);
};

} // namespace dotlane
