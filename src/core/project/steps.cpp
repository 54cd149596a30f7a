#include "core/project/steps.h"

#include <charconv>
#include <tuple>

#include "core/base/text.h"

namespace dotlane {
namespace {

void of(FillStep& s, Fields& f) {
    f.length({"spacing", "spacing", "Between neighbouring lines"}, s.spacing, mm(0.05), mm(50));
    f.angle({"angle", "angle", "Of the lines"}, s.angle);
    f.maybe_length({"inset", "inset", "From the edge"}, s.inset, mm(0), mm(100), "half tip");
    f.flag({"joined", "join ends", "Ends of neighbouring lines are joined along the edge"}, s.joined);
    f.flag({"alternate", "to and fro", "Every other line runs backwards"}, s.alternate);
}

void of(ResizeStep& s, Fields& f) {
    f.one_of({"by", "to a"}, s.by, {"width", "height", "percent"});
    if (f.when(s.by != ResizeStep::By::percent)) f.length({"size", "size"}, s.size, mm(0.1), mm(10000));
    if (f.when(s.by == ResizeStep::By::percent)) f.percent({"percent", "percent"}, s.percent, 0.1, 10000);
}

void of(MirrorStep& s, Fields& f) {
    f.one_of({"way", "mirrored"}, s.way, {"left-right", "top-bottom"});
}

void of(TurnStep& s, Fields& f) {
    f.angle({"angle", "clockwise"}, s.by);
}

void of(AlignStep& s, Fields& f) {
    f.one_of({"across", "across"}, s.across, {"leave", "left", "middle", "right"});
    f.one_of({"down", "down"}, s.down, {"leave", "top", "middle", "bottom"});
    f.length({"right-by", "then right by"}, s.right_by, mm(-2000), mm(2000));
    f.length({"down-by", "then down by"}, s.down_by, mm(-2000), mm(2000));
}

void of(WordsStep& s, Fields& f) {
    fields(s.lettering, f);
    f.angle({"turn", "turned by", "Clockwise"}, s.turn);
    of(s.place, f);
}

void of(DistributeStep& s, Fields& f) {
    f.one_of({"way", "spread"}, s.way, {"across", "down"});
    f.one_of({"even", "even"}, s.even, {"gaps", "middles"});
    f.one_of({"within", "within"}, s.within, {"own-width", "the-rest"});
    if (f.when(s.within == DistributeStep::Within::rest))
        f.length({"inset", "from the edges"}, s.inset, mm(-500), mm(500));
}

void of(PartStep& s, Fields& f) {
    f.part({"of", "part"}, s.of);
    f.one_of({"take", "take its"}, s.take, {"outline", "lines"});
    f.percent({"percent", "size %"}, s.percent, 1, 10000);
    f.angle({"turn", "turned by", "Clockwise"}, s.turn);
    of(s.place, f);
}

void of(CopiesStep& s, Fields& f) {
    const bool ring = s.layout == CopiesStep::Layout::ring;
    f.one_of({"layout", "in a"}, s.layout, {"grid", "ring"});
    if (f.when(!ring)) {
        f.whole({"columns", "columns"}, s.columns, 1, 200);
        f.whole({"rows", "rows"}, s.rows, 1, 200);
        f.length({"gap-across", "gap across"}, s.gap_across, mm(-500), mm(500));
        f.length({"gap-down", "gap down"}, s.gap_down, mm(-500), mm(500));
    }
    if (f.when(ring)) {
        f.whole({"count", "copies"}, s.count, 1, 500);
        f.length({"radius", "radius", "Of the ring, through the middles of the copies"}, s.radius, mm(0),
                 mm(5000));
        f.flag({"turned", "look outwards"}, s.turned);
    }
}

void of(JoinStep& s, Fields& f) {
    f.flag({"fill-overlaps", "keep overlaps filled", "Otherwise what two lines both cover becomes a hole"},
           s.fill_overlaps);
}

void of(OutlineStep& s, Fields& f) {
    f.length({"distance", "distance", "Outwards; inwards when negative"}, s.distance, mm(-500), mm(500));
    f.whole({"rings", "rings"}, s.rings, 1, 50);
    if (f.when(s.rings > 1)) f.length({"gap", "between rings"}, s.gap, mm(0.05), mm(500));
    f.one_of({"corners", "corners"}, s.corners, {"round", "mitred", "bevelled"});
    if (f.when(s.corners == OutlineStep::Corners::mitred))
        f.number({"mitre-limit", "mitre limit", "Points reach at most this many times the distance"},
                 s.mitre_limit, 1, 50);
    f.flag({"outer-only", "outer edge only", "Holes are filled"}, s.outer_only);
    if (f.when(!s.outer_only))
        f.length({"fill-holes-under", "fill holes under", "Square root of the hole's area"},
                 s.fill_holes_under, mm(0), mm(1000));
}

void of(CutOutStep& s, Fields& f) {
    f.one_of({"keep", "keep the"}, s.keep, {"rest", "overlap"});
    f.length({"margin", "margin", "What is cut out is grown by this first"}, s.margin, mm(-100), mm(100));
}

void of(FillHolesStep& s, Fields& f) {
    f.maybe_length({"under", "only under", "Square root of the hole's area"}, s.under, mm(0), mm(1000),
                   "all");
}

void of(PiecesStep& s, Fields& f) {
    f.text({"drop", "drop pieces", "Numbers from left to right, such as 2, 5-7"}, s.drop, TextKind::plain);
}

void of(ApartStep& s, Fields& f) {
    f.text({"together", "keep together", "Pieces that keep their arrangement, such as 1-3; 5, 6"}, s.together,
           TextKind::plain);
    f.flag({"whole", "letters whole", "What was drawn as one line stays one piece: an i and its dot"},
           s.whole);
}

void of(CleanStep& s, Fields& f) {
    f.length({"least-size", "drop pieces under", "Square root of the piece's area"}, s.least_size, mm(0),
             mm(100));
    f.length({"least-width", "open necks under", "Slivers and necks narrower than this are taken away"},
             s.least_width, mm(0), mm(20));
    f.length({"simplify", "simplify by", "Points that move the line by less are dropped"}, s.simplify, mm(0),
             mm(5));
    f.length({"close", "join ends within", "Open ends that nearly meet"}, s.close, mm(0), mm(50));
    f.flag({"doubled", "keep doubled lines once"}, s.doubled);
}

void of(CornersStep& s, Fields& f) {
    f.one_of({"kind", "corners"}, s.kind, {"round", "chamfer"});
    f.length({"radius", "radius"}, s.radius, mm(0.05), mm(500));
    f.angle({"sharper-than", "where it turns by", "Gentler corners are left alone"}, s.sharper_than);
}

void of(DashStep& s, Fields& f) {
    f.length({"dash", "dash"}, s.dash, mm(0.2), mm(200));
    f.length({"gap", "gap", "Stretched a little so that open lines begin and end on a dash"}, s.gap, mm(0.2),
             mm(200));
    f.length({"setback", "setback", "Open lines stop this far before their ends"}, s.setback, mm(0), mm(50));
}

} // namespace

void fields(StepWhat& what, Fields& f) {
    std::visit([&](auto& step) { of(step, f); }, what);
}

Result<std::vector<int>> piece_numbers(const std::string& text) {
    std::vector<int> out;
    for (const auto word : split(text, ", ")) {
        int from = 0, to = 0;
        const char* end = word.data() + word.size();
        auto read = std::from_chars(word.data(), end, from);
        to = from;
        if (read.ec == std::errc() && read.ptr != end && *read.ptr == '-')
            read = std::from_chars(read.ptr + 1, end, to);
        if (read.ec != std::errc() || read.ptr != end || from < 1 || to < from || to > 100000)
            return fail("step.pieces",
                        "\"" + std::string(word) + "\" is no number of a piece. Write 2 or 5-7.");
        for (int n = from; n <= to; ++n)
            out.push_back(n);
    }
    return out;
}

std::string piece_text(const std::set<int>& numbers) {
    std::string out;
    for (auto it = numbers.begin(); it != numbers.end();) {
        const int first = *it;
        int last = first;
        while (++it != numbers.end() && *it == last + 1)
            last = *it;
        out += (out.empty() ? "" : ", ") + std::to_string(first);
        if (last > first) out += (last == first + 1 ? ", " : "-") + std::to_string(last);
    }
    return out;
}

Result<std::vector<std::set<int>>> piece_groups(const std::string& text) {
    std::vector<std::set<int>> out;
    for (const auto group : split(text, ";")) {
        const auto numbers = piece_numbers(std::string(group));
        if (!numbers) return tl::make_unexpected(numbers.error());
        if (!numbers->empty()) out.emplace_back(numbers->begin(), numbers->end());
    }
    return out;
}

std::string group_text(const std::vector<std::set<int>>& groups) {
    std::string out;
    for (const auto& group : groups)
        if (!group.empty()) out += (out.empty() ? "" : "; ") + piece_text(group);
    return out;
}

PartId borrows_from(const StepWhat& what) {
    if (const auto* part = std::get_if<PartStep>(&what)) return part->of;
    if (const auto* words = std::get_if<WordsStep>(&what)) return borrows_from(words->lettering);
    return {};
}

bool brings(const StepWhat& what) {
    return std::holds_alternative<WordsStep>(what) || std::holds_alternative<PartStep>(what);
}

const std::vector<StepKind>& step_kinds() {
    static const std::vector<StepKind> all = {
        {"fill", "Fill", "Parallel lines in closed lines.", FillStep{}, true},
        {"outline", "Outline", "Lines around or inside closed lines.", OutlineStep{}, true},
        {"words", "Words", "Lettering on the part: a greeting, a name.", WordsStep{}, true},
        {"part", "Another part", "Its outline or lines, put on this one.", PartStep{}, true},
        {"join", "Join", "Closed lines that overlap become one.", JoinStep{}},
        {"cut-out", "Cut out", "Takes other lines' area away, or keeps only what overlaps.", CutOutStep{},
         false, StepKind::Second::wanted},
        {"fill-holes", "Fill holes", "Holes of closed lines vanish.", FillHolesStep{}},
        {"pieces", "Pieces", "Drops pieces by their number.", PiecesStep{}},
        {"lay-apart", "Lay apart", "Pieces may lie one by one on the sheet; chosen ones keep together.",
         ApartStep{}},
        {"clean", "Clean", "Drops crumbs, slivers and doubled lines.", CleanStep{}},
        {"corners", "Corners", "Rounds or chamfers sharp corners.", CornersStep{}},
        {"dash", "Dash", "Turns lines into dashes.", DashStep{}},
        {"resize", "Resize", "To a width, a height or a share.", ResizeStep{}},
        {"mirror", "Mirror", "Left to right or top to bottom.", MirrorStep{}},
        {"turn", "Turn", "By an angle, about the middle.", TurnStep{}},
        {"align", "Align", "To an edge or the middle of the rest.", AlignStep{}, false,
         StepKind::Second::possible},
        {"distribute", "Distribute", "Evenly, by gaps or by middles.", DistributeStep{}},
        {"copies", "Copies", "In rows and columns or around a ring.", CopiesStep{}}};
    return all;
}

const StepKind& kind_of(const StepWhat& what) {
    for (const StepKind& kind : step_kinds())
        if (kind.fresh.index() == what.index()) return kind;
    invariant_broken("every step has a kind", __FILE__, __LINE__);
}

const StepKind* step_kind(std::string_view key) {
    for (const StepKind& kind : step_kinds())
        if (kind.key == key) return &kind;
    return nullptr;
}

} // namespace dotlane
