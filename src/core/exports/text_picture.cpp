#include "core/exports/text_picture.h"

#include <algorithm>
#include <cmath>

#include "core/base/text.h"

namespace dotlane {
namespace {

class Grid {
  public:
    Grid(int columns, int rows)
        : rows_(static_cast<std::size_t>(rows), std::string(static_cast<std::size_t>(columns), ' '))
        , columns_(columns) {}

    void put(int x, int y, char c) {
        if (x >= 0 && x < columns_ && y >= 0 && y < static_cast<int>(rows_.size()))
            rows_[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] = c;
    }
    void frame(int x0, int y0, int x1, int y1) {
        for (int x = x0; x <= x1; ++x)
            put(x, y0, '-'), put(x, y1, '-');
        for (int y = y0; y <= y1; ++y)
            put(x0, y, '|'), put(x1, y, '|');
        for (const int x : {x0, x1})
            put(x, y0, '+'), put(x, y1, '+');
    }
    void text(int x, int y, const std::string& words) {
        for (std::size_t i = 0; i < words.size(); ++i)
            put(x + static_cast<int>(i), y, words[i]);
    }
    std::vector<std::string> take() {
        for (std::string& row : rows_)
            row.erase(row.find_last_not_of(' ') + 1);
        return std::move(rows_);
    }

  private:
    std::vector<std::string> rows_;
    int columns_;
};

/// At most so many characters of UTF-8, filled up with blanks.
std::string fitted(std::string_view text, std::size_t characters) {
    std::string out;
    std::size_t n = 0;
    for (const char c : text) {
        const bool begins = (static_cast<unsigned char>(c) & 0xc0) != 0x80;
        if (begins && n == characters) break;
        n += begins ? 1 : 0;
        out += c;
    }
    return out + std::string(characters - n, ' ');
}

} // namespace

std::vector<std::string> sheet_picture(const RunSheetPicture& sheet, int columns) {
    const double w = in_mm(sheet.mat_width), h = in_mm(sheet.mat_height);
    if (w <= 0 || h <= 0) return {};
    // A character is about twice as high as it is wide. Long mats stay below a page.
    const double across = std::min((columns - 3) / w, 2 * 40 / h);
    const auto x_of = [&](double x) { return 1 + static_cast<int>(std::lround(x * across)); };
    const auto y_of = [&](double y) { return 1 + static_cast<int>(std::lround(y * across / 2)); };
    Grid grid(x_of(w) + 2, y_of(h) + 2);
    grid.frame(0, 0, x_of(w) + 1, y_of(h) + 1);
    grid.put(x_of(w / 2), 0, '^');
    for (const RunSheetPart& part : sheet.parts) {
        const int x0 = x_of(part.box.x0), x1 = std::max(x0 + 1, x_of(part.box.x1) - 1),
                  y0 = y_of(part.box.y0), y1 = std::max(y0, y_of(part.box.y1) - 1);
        if (x1 - x0 > 1 && y1 > y0) grid.frame(x0, y0, x1, y1);
    }
    for (const RunSheetPart& part : sheet.parts) { // above all frames
        const std::string number = std::to_string(part.number);
        const Point middle = part.box.centre();
        grid.text(x_of(middle.x) - static_cast<int>(number.size()) / 2, y_of(middle.y), number);
    }
    return grid.take();
}

std::vector<std::string> board_picture(const Derived& derived, const Speaker& speak, int columns) {
    if (!derived.plan) return {};
    const Plan& plan = *derived.plan;
    const double total = std::max(1.0, in_seconds(plan.timeline.total()));
    const auto column = [&](Duration t) {
        return std::clamp(static_cast<int>(in_seconds(t) / total * columns), 0, columns - 1);
    };
    struct Track {
        LaneId lane;
        std::string name, marks;
    };
    std::vector<Track> tracks;
    std::string stops(static_cast<std::size_t>(columns), ' ');
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        const MoveSpan span = plan.timeline.spans()[m];
        const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]);
        if (!pass) {
            stops[static_cast<std::size_t>(column(span.start + span.time / 2))] = 'o';
            continue;
        }
        auto track =
            std::find_if(tracks.begin(), tracks.end(), [&](const Track& t) { return t.lane == pass->lane; });
        if (track == tracks.end())
            track = tracks.insert(tracks.end(), {pass->lane, pass->plate + "  " + pass->lane_name,
                                                 std::string(static_cast<std::size_t>(columns), '.')});
        for (int c = column(span.start); c <= column(span.start + span.time); ++c)
            track->marks[static_cast<std::size_t>(c)] = '#';
    }
    std::vector<std::string> out = {fitted(speak(say("stops")), 20) + " " + stops};
    for (const Track& track : tracks)
        out.push_back(fitted(track.name, 20) + " " + track.marks);
    out.push_back(fitted("", 20) + " 0" +
                  std::string(static_cast<std::size_t>(columns) - 1 - spoken_seconds(total).size(), ' ') +
                  spoken_seconds(total));
    for (std::string& line : out)
        line.erase(line.find_last_not_of(' ') + 1);
    return out;
}

} // namespace dotlane
