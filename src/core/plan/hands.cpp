#include "core/plan/hands.h"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "core/base/text.h"
#include "core/plan/order.h"

namespace dotlane {
namespace {

using Kind = HandStep::Kind;

constexpr double foil_rim = 10;  ///< mm around the lines, to be taped; common practice
constexpr double into_mat = 0.1; ///< mm that a blade goes deeper than its stock is thick; common practice

std::string side(double mm_value) {
    return number(std::round(mm_value), 0);
}

/// "150 x 40 mm, 12 mm from the left and 30 mm from the top of the stock"
Phrase where(const Box& piece, const ProgramSheet& sheet) {
    return say("%1 x %2 mm, %3 mm from the left and %4 mm from the top", side(piece.width()),
               side(piece.height()), side(piece.x0 - sheet.stock_area.x0),
               side(piece.y0 - sheet.stock_area.y0));
}

Phrase foil_name(const LaneWork& work) {
    return say("%1 foil", word(work.lane.colour));
}

Phrase laid(const Phrase& stock, Face face, const Phrase& place) {
    switch (face) {
    case Face::down:
        return say("Lay %1, face down because all on it is mirrored, on the %2", stock, place);
    case Face::both:
        return say("Lay %1, whose parts are not all mirrored: mind which side is up, on the %2", stock,
                   place);
    case Face::up:
        break;
    }
    return say("Lay %1 on the %2", stock, place);
}

Duration longest_cooling(const std::vector<const LaneWork*>& passes) {
    Duration out;
    for (const LaneWork* work : passes)
        if (work->tool) out = std::max(out, work->tool->cool_down);
    return out;
}

/// Ink that is wet longest after the last of the passes, and for how long yet; null: none is wet.
struct Wet {
    const LaneWork* work = nullptr;
    Duration left;
};
Wet wettest(const std::vector<const LaneWork*>& passes) {
    Wet out;
    Duration since; // the pass at hand ended
    for (auto it = passes.rbegin(); it != passes.rend(); ++it) {
        const LaneWork& work = **it;
        if (work.dry - since > out.left) out = {&work, work.dry - since};
        since += work.time;
    }
    return out;
}

/// Each once.
std::vector<const Tool*> heated_by(const std::vector<const LaneWork*>& passes) {
    std::vector<const Tool*> out;
    for (const LaneWork* work : passes)
        if (work->tool && in_seconds(work->tool->warm_up) > 0 &&
            std::find(out.begin(), out.end(), work->tool) == out.end())
            out.push_back(work->tool);
    return out;
}

struct Foiled {
    const LaneWork* last = nullptr; ///< of the passes; null: none
    std::vector<const Polylines*> covered;
};
Foiled foiled(const std::vector<const LaneWork*>& passes) {
    Foiled out;
    for (const LaneWork* work : passes)
        if (under_foil(*work)) out.covered.push_back(&work->lines->lines), out.last = work;
    return out;
}

Duration laying_on(const LaneWork& foil, std::size_t pieces) {
    return foil.tool->lay_on * static_cast<double>(std::max<std::size_t>(pieces, 1));
}

class Stop {
  public:
    Stop(int number, const StopNeeds& needs)
        : needs_(needs)
        , changes_(!needs.to || needs.to != needs.from) {
        move_.number = number;
        if (needs.to) move_.sheet = needs.to->sheet.sheet;
    }

    StopMove make() {
        for (const SheetWork* sheet : needs_.print)
            print(*sheet);
        leave();
        change_tools();
        arrive();
        meanwhile();
        for (const HolderChange& holder : needs_.holders)
            move_.holds.push_back(holder.after ? holder.after_label : Phrase());
        return std::move(move_);
    }

  private:
    void add(Kind kind, Phrase text, Duration time = {}) {
        move_.steps.push_back({kind, std::move(text)});
        move_.time += time;
    }

    void print(const SheetWork& sheet) {
        Duration time;
        std::vector<std::string> lanes;
        for (const LaneWork& work : sheet.lanes)
            if (!row(work.lane.action).run) {
                if (work.tool) time = std::max(time, work.tool->per_sheet);
                lanes.push_back(work.lane.name);
            }
        const PrintSheet& page = *sheet.print;
        add(Kind::print,
            page.square
                ? say("Print \"%1\" on %2 at 100 %, and measure the check square: %3 mm.", sheet.sheet.name,
                      sheet.stock_name, number(page.square->width(), 0))
                : say("Print \"%1\" on %2 at 100 %, and measure it: nowhere was free for a check square.",
                      sheet.sheet.name, sheet.stock_name),
            time);
    }

    /// Away from the passes that ran.
    void leave() {
        const Duration cool = longest_cooling(needs_.ran);
        const LaneWork* const foil = foiled(needs_.ran).last;
        Phrase tips;
        for (const LaneWork* work : needs_.ran)
            if (work->tool && in_seconds(work->tool->cool_down) > 0 && tips.empty()) tips = word(*work->tool);
        if (in_seconds(cool) > 0)
            add(Kind::cool,
                say("Wait %1 until the %2 is cool: touch neither it nor the foil before.",
                    spoken_seconds(in_seconds(cool)), tips),
                cool);
        if (const Wet wet = wettest(needs_.ran); wet.left > cool)
            add(Kind::dry,
                say("Let the ink of the %1 dry for %2: it would smear.", tool_label(*wet.work),
                    spoken_seconds(std::ceil(in_seconds(wet.left - cool)))),
                wet.left - cool);
        if (foil)
            add(Kind::lift_off,
                say("Take the tape and the %1 off; the stock stays on the mat.", foil_name(*foil)),
                foil->tool->lift_off);
        if (!changes_ || !needs_.from) return;
        if (needs_.meanwhile.lifts_off)
            add(Kind::unload, say("Unload the mat."), needs_.machine->feed);
        else
            add(Kind::unload,
                needs_.from_returns ? say("Unload the mat; the sheet stays on it, for it comes again.")
                                    : say("Unload the mat and lift the sheet off it."),
                needs_.machine->unload_sheet);
    }

    void change_tools() {
        for (const HolderChange& holder : needs_.holders) {
            const bool same = holder.before && holder.after && holder.before_label == holder.after_label;
            if (holder.before && !same)
                add(Kind::take_out,
                    say("Take the %1 out of the %2 and cap it.", holder.before_label, holder.slot));
            if (!holder.after) continue;
            const bool set = in_mm(holder.depth_after) > 0;
            const Phrase depth = say("%1 mm, for %2", number(in_mm(holder.depth_after), 2), holder.cuts);
            if (!same)
                add(Kind::put_in,
                    set ? say("Put the %1 into the %2, its tip out by %3.", holder.after_label, holder.slot,
                              depth)
                        : say("Put the %1 into the %2.", holder.after_label, holder.slot),
                    needs_.machine->swap);
            else if (set)
                add(Kind::depth, say("Set the tip of the %1 in the %2 out by %3.", holder.after_label,
                                     holder.slot, depth));
            if (!same && !holder.after->caution.empty() && in_seconds(holder.after->warm_up) <= 0)
                add(Kind::care, as_word("Catalog", holder.after->caution));
        }
    }

    /// On to the passes that come.
    void arrive() {
        if (!needs_.to) return;
        const SheetWork& to = *needs_.to;
        try_out();
        const auto [foil, covered] = foiled(needs_.next);
        const Phrase place = say("%1 (%2)", to.sheet.mat, to.sheet.name);
        const Phrase stock =
            needs_.to_returned          ? say("Take %1 again, as it lies on the %2", to.stock_name, place)
            : needs_.meanwhile.prepared ? say("Take %1, laid ready on the %2", to.stock_name, place)
                                        : laid(to.stock_name, to.face, place);
        const Duration loading =
            needs_.meanwhile.left_over +
            (needs_.meanwhile.prepared ? needs_.machine->feed : needs_.machine->load_sheet);
        if (foil) {
            if (changes_) add(Kind::load, say("%1.", stock));
            lay_on(*foil, covered, to.sheet);
            if (changes_) add(Kind::load, say("Load the mat, arrow first."), loading);
        } else if (changes_) {
            add(Kind::load, say("%1 and load it, arrow first.", stock), loading);
        }
        for (const Tool* tool : heated_by(needs_.next)) {
            add(Kind::warm_up,
                say("Now heat the %1: %2.", word(*tool), spoken_seconds(in_seconds(tool->warm_up))),
                tool->warm_up);
            if (!tool->caution.empty()) add(Kind::care, as_word("Catalog", tool->caution));
        }
    }

    /// What need not wait for the machine to stop.
    void meanwhile() {
        const Meanwhile& m = needs_.meanwhile;
        if (m.lifts_off)
            add(Kind::meanwhile, say("While it runs, lift \"%1\" off its mat.", needs_.from->sheet.name));
        if (m.prepares)
            add(Kind::meanwhile,
                say("While it runs, make the next sheet ready. %1.",
                    laid(m.prepares->stock_name, m.prepares->face,
                         say("spare %1 (%2)", m.prepares->sheet.mat, m.prepares->sheet.name))));
        move_.meanwhile = m.time;
    }

    /// A swatch before a tool's first use on a stock.
    void try_out() {
        if (needs_.untried.empty()) return;
        std::vector<Phrase> tools;
        for (const LaneWork* work : needs_.untried)
            tools.push_back(tool_label(*work));
        add(Kind::test,
            say("Try on a scrap of %1 first, as nobody has yet: %2.", needs_.to->stock_name,
                joined(tools, ", ")),
            needs_.machine->test * static_cast<double>(tools.size()));
    }

    void lay_on(const LaneWork& foil, const std::vector<const Polylines*>& covered,
                const ProgramSheet& sheet) {
        const auto pieces = foil_pieces(covered, sheet);
        std::vector<Phrase> places;
        for (const Box& piece : pieces)
            places.push_back(where(piece, sheet));
        Phrase all = joined(places, "; ");
        if (pieces.size() > 1) all = say_n(pieces.size(), "%n [piece|pieces], %1", all);
        const Phrase text =
            say("Lay %1 flat over the lines, its shining side up, and tape all its edges: %2.",
                foil_name(foil), all);
        add(Kind::lay_on, changes_ ? text : say("%1 The mat stays loaded.", text),
            laying_on(foil, pieces.size()));
    }

    const StopNeeds& needs_;
    const bool changes_;
    StopMove move_;
};

double area_of(const std::vector<Box>& boxes) {
    double sum = 0;
    for (const Box& b : boxes)
        sum += b.width() * b.height();
    return sum;
}

} // namespace

StopMove stop_move(int number, const StopNeeds& needs) {
    return Stop(number, needs).make();
}

Duration hands_around(const std::vector<const LaneWork*>& passes, const ProgramSheet& sheet) {
    Duration out = std::max(longest_cooling(passes), drying(passes));
    for (const Tool* tool : heated_by(passes))
        out += tool->warm_up;
    if (const auto [foil, covered] = foiled(passes); foil)
        out += laying_on(*foil, foil_pieces(covered, sheet).size()) + foil->tool->lift_off;
    return out;
}

Duration drying(const std::vector<const LaneWork*>& passes) {
    return wettest(passes).left;
}

bool under_foil(const LaneWork& work) {
    return row(work.lane.action).under_sheet;
}

bool foil_changes(const LaneWork& before, const LaneWork& after) {
    return under_foil(before) != under_foil(after) ||
           (under_foil(before) && before.lane.colour != after.lane.colour);
}

std::vector<Box> foil_pieces(const std::vector<const Polylines*>& lines, const ProgramSheet& sheet,
                             std::size_t most) {
    const Box mat{0, 0, in_mm(sheet.mat_width), in_mm(sheet.mat_height)};
    const auto rimmed = [&](const Box& box) {
        // Whole millimetres outwards: that is how foil is cut with scissors.
        const Box b = box.grown(foil_rim);
        return Box{std::max(std::floor(b.x0), mat.x0), std::max(std::floor(b.y0), mat.y0),
                   std::min(std::ceil(b.x1), mat.x1), std::min(std::ceil(b.y1), mat.y1)};
    };
    constexpr std::size_t most_followed = 64; // beyond, it is one piece
    std::vector<Box> pieces;
    Box whole;
    for (const Polylines* each : lines)
        for (const Polyline& line : *each) {
            Box box = bounds(line);
            whole.add(box);
            box = box.grown(foil_rim); // what would overlap is one piece
            if (pieces.size() > most_followed) continue;
            for (bool grew = true; grew;) {
                grew = false;
                for (std::size_t i = 0; i < pieces.size(); ++i)
                    if (pieces[i].meets(box)) {
                        box.add(pieces[i]);
                        pieces.erase(pieces.begin() + static_cast<std::ptrdiff_t>(i));
                        grew = true;
                        break;
                    }
            }
            pieces.push_back(box);
        }
    if (whole.empty()) return {};
    const std::vector<Box> one = {rimmed(whole)};
    for (Box& piece : pieces)
        piece = rimmed(piece.grown(-foil_rim));
    std::sort(pieces.begin(), pieces.end(),
              [](const Box& a, const Box& b) { return std::tie(a.y0, a.x0) < std::tie(b.y0, b.x0); });
    return pieces.size() <= most && area_of(pieces) < 0.7 * area_of(one) ? pieces : one;
}

Length blade_depth(Length thickness) {
    return in_mm(thickness) > 0 ? thickness + mm(into_mat) : Length{};
}

} // namespace dotlane
