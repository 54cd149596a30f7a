#include "core/formats/hpgl/reader.h"

#include <charconv>
#include <cmath>
#include <map>
#include <numbers>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/formats/chain.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Name> left_out{
    "hpgl.left-out", Grade::caution, to_say("Left out: %1 %2."), {"count", "what"}};

constexpr double unit_mm = 0.025;
constexpr Colour pens[] = {{0, 0, 0},      {168, 70, 45},  {47, 93, 98},  {90, 105, 150},
                           {168, 131, 45}, {120, 60, 120}, {70, 130, 70}, {110, 110, 110}};

struct Wrong {
    const char* code;
    Phrase message;
};

class Plotter {
  public:
    Plotter(const std::string& bytes, const ReadLimits& limits, Progress& progress)
        : bytes_(bytes)
        , limits_(limits)
        , progress_(progress) {}

    void run() {
        while (at_ < bytes_.size()) {
            const char c = bytes_[at_];
            if (c == 0x1b) { // device control: ESC . letter ... up to a colon; ESC % is a language switch
                skip_escape();
                continue;
            }
            if (!std::isalpha(static_cast<unsigned char>(c))) {
                ++at_;
                continue;
            }
            if (at_ + 1 >= bytes_.size()) break;
            const std::string name = {
                static_cast<char>(std::toupper(static_cast<unsigned char>(c))),
                static_cast<char>(std::toupper(static_cast<unsigned char>(bytes_[at_ + 1])))};
            at_ += 2;
            if (name == "LB") {
                skip_label();
                continue;
            }
            if (progress_.cancelled()) throw Wrong{"cancelled", say("Cancelled.")};
            command(name, numbers());
        }
        lift();
    }

    std::size_t offset() const { return at_; }
    Drawing drawing;
    std::map<std::string, int> left_out;
    int known = 0;

  private:
    void skip_escape() {
        ++at_;
        const bool dot = at_ < bytes_.size() && bytes_[at_] == '.';
        while (at_ < bytes_.size() && bytes_[at_] != (dot ? ':' : 'A') && bytes_[at_] != 'B' &&
               bytes_[at_] != '\n')
            ++at_;
        if (at_ < bytes_.size()) ++at_;
    }
    void skip_label() {
        const auto end = bytes_.find('\x03', at_);
        at_ = end == std::string::npos ? bytes_.size() : end + 1;
        ++left_out[to_say("labels")];
    }

    std::vector<double> numbers() {
        std::vector<double> out;
        while (at_ < bytes_.size()) {
            const char c = bytes_[at_];
            if (c == ',' || c == ' ' || c == '\n' || c == '\r' || c == '\t' || c == '+') {
                ++at_;
                continue;
            }
            if (c != '-' && c != '.' && (c < '0' || c > '9')) break;
            double v = 0;
            const auto [end, bad] = std::from_chars(bytes_.data() + at_, bytes_.data() + bytes_.size(), v);
            if (bad != std::errc() || !std::isfinite(v) || std::abs(v) > 1e9)
                throw Wrong{"hpgl.number", say("A number of the file cannot be read.")};
            out.push_back(v);
            at_ = static_cast<std::size_t>(end - bytes_.data());
        }
        return out;
    }

    void command(const std::string& name, const std::vector<double>& n) {
        ++known;
        if (name == "PU" || name == "PD") {
            if ((name == "PD") != down_) lift();
            down_ = name == "PD";
            moves(n);
        } else if (name == "PA" || name == "PR") {
            relative_ = name == "PR";
            moves(n);
        } else if (name == "SP") {
            lift();
            pen_ = n.empty() ? 0 : static_cast<int>(std::clamp(n[0], 0.0, 255.0));
        } else if (name == "IN" || name == "DF") {
            scale_.clear();
            lift();
            relative_ = down_ = false;
            if (name == "IN") p1_ = {0, 0}, p2_ = usual_p2, points_given_ = false;
            rescale(Affine{});
        } else if ((name == "AA" || name == "AR") && n.size() >= 3) {
            arc(name == "AR" ? here_ + Point{n[0], n[1]} : Point{n[0], n[1]}, n[2] * std::numbers::pi / 180);
        } else if (name == "CI" && !n.empty()) {
            lift();
            add(ellipse(here_, std::abs(n[0]), std::abs(n[0])));
        } else if ((name == "EA" || name == "ER") && n.size() >= 2) {
            lift();
            const Point to = name == "ER" ? here_ + Point{n[0], n[1]} : Point{n[0], n[1]};
            Box box;
            box.add(here_), box.add(to);
            add(rectangle(box));
        } else if (name == "IP") {
            lift();
            set_points(n);
        } else if (name == "SC") {
            lift();
            scale_ = n;
            rescale(scale_of(n));
        } else if (name == "RO" || name == "IR") {
            if (!n.empty() && !(name == "RO" && n[0] == 0))
                ++left_out[to_say("changes of the page (what is drawn may lie turned or have another size)")];
        } else if (name == "RA" || name == "RR" || name == "WG" || name == "EW" || name == "FT" ||
                   name == "UC") {
            ++left_out[to_say("fills and wedges")];
        } else if (!harmless(name)) {
            --known;
        }
    }
    static bool harmless(const std::string& name) {
        for (const char* one :
             {"VS", "FS", "AS", "PT", "LT", "PW", "WU", "CT", "SI", "SR", "DI", "DR", "CS", "CA", "SS",
              "SA", "PG", "NR", "OA", "OI", "OE", "OP", "BP", "PS", "NP", "TR", "QL", "IW", "ES", "SL"})
            if (name == one) return true;
        return false;
    }

    /// P1 and P2, to which SC's two corners are put; with P1 alone, P2 moves along.
    void set_points(const std::vector<double>& n) {
        const Point apart = p2_ - p1_;
        points_given_ = n.size() >= 2;
        if (n.empty()) p1_ = {0, 0}, p2_ = usual_p2;
        if (n.size() >= 2) p1_ = {n[0], n[1]}, p2_ = p1_ + apart;
        if (n.size() >= 4) p2_ = {n[2], n[3]};
        rescale(scale_of(scale_));
    }

    /// User units to plotter units.
    Affine scale_of(const std::vector<double>& n) {
        if (n.size() < 4) return {}; // scaling off
        const int type = n.size() > 4 ? static_cast<int>(std::clamp(n[4], 0.0, 9.0)) : 0;
        if (type != 2 && !points_given_) ++left_out[to_say("scales without points (sizes may be wrong)")];
        const Point low{n[0], n[2]};
        double sx = n[1], sy = n[3];
        Point origin = p1_;
        if (type != 2) {
            const Point span{n[1] - n[0], n[3] - n[2]}, room = p2_ - p1_;
            sx = room.x / span.x, sy = room.y / span.y;
            if (type == 1) { // the same in both, in the middle of what is left unless it says where
                const double k = std::min(std::abs(sx), std::abs(sy));
                const double left = n.size() > 5 ? n[5] / 100 : 0.5, foot = n.size() > 6 ? n[6] / 100 : 0.5;
                sx = std::copysign(k, sx), sy = std::copysign(k, sy);
                origin = origin + Point{(room.x - span.x * sx) * left, (room.y - span.y * sy) * foot};
            }
        }
        const auto usable = [](double k) {
            return std::isfinite(k) && std::abs(k) > 1e-9 && std::abs(k) < 1e9;
        };
        if (!usable(sx) || !usable(sy))
            throw Wrong{"hpgl.number", say("The file has a scale that nothing can be drawn at.")};
        return Affine::translation(origin) * Affine::scaling(sx, sy) * Affine::translation(low * -1);
    }

    /// The pen stays where it is; its place has other numbers now.
    void rescale(const Affine& to) {
        here_ = to.inverse()(to_units_(here_));
        to_units_ = to;
    }

    void moves(const std::vector<double>& n) {
        for (std::size_t i = 0; i + 1 < n.size(); i += 2) {
            const Point to = relative_ ? here_ + Point{n[i], n[i + 1]} : Point{n[i], n[i + 1]};
            if (down_) {
                begin();
                if (!(to == here_)) line_.line_to(to);
            }
            here_ = to;
        }
        if (down_ && n.empty()) begin();
    }
    void begin() {
        if (!drawing_) line_ = {here_, {}, false}, drawing_ = true;
    }
    void arc(Point centre, double sweep) {
        const double radius = distance(here_, centre),
                     from = std::atan2(here_.y - centre.y, here_.x - centre.x);
        if (std::abs(sweep) > 125 * 2 * std::numbers::pi)
            throw Wrong{"hpgl.number", say("An arc turns more often than any arc can.")};
        Contour c{here_, {}, false};
        c.arc_about(centre, {radius, 0}, {0, radius}, from, sweep);
        if (down_) {
            begin();
            line_.segments.insert(line_.segments.end(), c.segments.begin(), c.segments.end());
        }
        here_ = c.end();
    }
    void lift() {
        if (drawing_) add(std::move(line_));
        drawing_ = false;
        line_ = {};
    }
    void add(Contour c) {
        segments_ += c.segments.size();
        if (drawing.lines.size() >= limits_.lines || segments_ > limits_.segments)
            throw Wrong{"hpgl.large", say("The file holds %1. %2", words(limits_), what_to_do_when_large())};
        c = transformed(c, to_units_);
        if (!c.closed && c.segments.size() > 1 && distance(c.start, c.end()) < 0.5) {
            c.segments.back().to = c.start;
            c.closed = true;
        }
        DrawnLine line;
        line.group = "pen " + std::to_string(pen_);
        line.drawn.stroke = pens[static_cast<std::size_t>(std::max(pen_ - 1, 0)) % std::size(pens)];
        line.shape = Shape{{transformed(c, Affine::scaling(unit_mm, -unit_mm))}};
        drawing.lines.push_back(std::move(line));
    }

    static constexpr Point usual_p2{10000, 7200}; ///< about A4; every plotter has another

    const std::string& bytes_;
    const ReadLimits& limits_;
    Progress& progress_;
    std::size_t at_ = 0, segments_ = 0;
    Point p1_, p2_ = usual_p2;
    bool points_given_ = false;
    std::vector<double> scale_; ///< of the last SC
    Affine to_units_;
    Point here_; ///< in user units
    bool down_ = false, relative_ = false, drawing_ = false;
    int pen_ = 1;
    Contour line_;
};

} // namespace

Result<HpglResult> read_hpgl(const std::string& bytes, const HpglOptions& options, Progress& progress) {
    const std::string& file_name = options.file_name;
    Plotter plotter(bytes, options.limits, progress);
    try {
        plotter.run();
    } catch (const Wrong& e) {
        return fail(e.code, say("%1 Nothing has changed.", e.message),
                    {file_name, line_of_offset(bytes, plotter.offset())});
    }
    if (plotter.known < 2)
        return fail("hpgl.not-hpgl", say("This is not an HP-GL plotter file. Nothing has changed."),
                    {file_name, 1});
    HpglResult out;
    out.drawing = std::move(plotter.drawing);
    for (const auto& [what, count] : plotter.left_out)
        out.findings.push_back(left_out({}, Count{count}, as_word(core_words, what)));
    settle_page(out.drawing);
    return out;
}

} // namespace dotlane
