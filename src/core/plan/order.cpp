#include "core/plan/order.h"
#include "core/base/finding_kind.h"

#include <algorithm>
#include <cmath>

namespace dotlane {
namespace {

constexpr RemedyKind usual_order{"order.usual", to_say("Usual order")};
/// The plates of the later and the earlier lane, what they do.
constexpr FindingKind<Name, Name, Name, Name> after_cut{
    "order.after-cut",
    Grade::caution,
    to_say("%1 (%3) runs after %2 (%4): pieces that are cut free may shift before it reaches them."),
    {"late", "early", nullptr, nullptr},
    {{usual_order}}};
constexpr FindingKind<Name, Name> dark_first{
    "order.dark-first",
    Grade::caution,
    to_say("The paler %1 draws after the darker %2: where it crosses, its tip picks up dark ink."),
    {"late", "early"},
    {{usual_order}}};
constexpr FindingKind<Name, Name> own_broken{"order.own",
                                             Grade::caution,
                                             to_say("%1 runs after %2, against a rule of your own."),
                                             {"late", "early"},
                                             {{usual_order}}};

int usual_rank(const LaneWork& work) {
    return row(work.lane.action).rank;
}

/// Whole steps of lightness, so that "lighter" is a proper order; steps that small are one ink to the eye.
long light_step(const LaneWork& work) {
    return std::lround(lightness(work.lane.colour));
}

bool usually_before(const LaneWork& a, const LaneWork& b) {
    if (usual_rank(a) != usual_rank(b)) return usual_rank(a) < usual_rank(b);
    return row(a.lane.action).light_first && light_step(a) > light_step(b);
}

bool parts(const LaneWork& work) {
    return parts_material(work.lane.action);
}

bool is_off(const OrderRule& rule, const PlanWishes& wishes) {
    return std::find(wishes.off.begin(), wishes.off.end(), rule.key) != wishes.off.end();
}

std::vector<LaneWork>::const_iterator lane_of(const std::vector<LaneWork>& lanes, LaneId lane) {
    return std::find_if(lanes.begin(), lanes.end(), [lane](const LaneWork& w) { return w.lane.id == lane; });
}

} // namespace

bool holds(const OrderRule& rule, const LaneWork& a, const LaneWork& b) {
    const std::string_view key = rule.key;
    if (key == "marks-first") return parts(b) && !parts(a);
    if (key == "perforate-first") return parts(a) && parts(b) && usual_rank(a) < usual_rank(b);
    return a.lane.action == b.lane.action && row(a.lane.action).light_first && light_step(a) > light_step(b);
}

Phrase tool_label(const LaneWork& work) {
    return row(work.lane.action).tool_colour ? say("%1 %2", word(work.lane.colour), word(*work.tool))
                                             : word(*work.tool);
}

void sort_lanes(std::vector<LaneWork>& lanes, const std::vector<LaneId>& wished) {
    std::stable_sort(lanes.begin(), lanes.end(), usually_before);
    if (wished.empty()) return;
    const auto wish = [&](const LaneWork& w) {
        return std::find(wished.begin(), wished.end(), w.lane.id) - wished.begin();
    };
    const auto none = static_cast<std::ptrdiff_t>(wished.size());
    std::vector<LaneWork> named, others;
    for (LaneWork& work : lanes)
        (wish(work) == none ? others : named).push_back(std::move(work));
    std::stable_sort(named.begin(), named.end(),
                     [&](const auto& a, const auto& b) { return wish(a) < wish(b); });
    for (LaneWork& work : others) {
        auto after = named.end();
        while (after != named.begin() && usually_before(work, *(after - 1)))
            --after;
        named.insert(after, std::move(work));
    }
    lanes = std::move(named);
}

Precedence::Precedence(std::vector<LaneWork> lanes, const PlanOptions& options) {
    sort_lanes(lanes, options.order);
    const std::size_t n = lanes.size();
    // comes[a][b]: a before b, through others too.
    std::vector<std::vector<bool>> comes(n, std::vector<bool>(n));
    const auto require = [&](std::size_t a, std::size_t b) {
        if (a == b || comes[b][a]) return;
        before_.insert({lanes[a].lane.id, lanes[b].lane.id});
        if (comes[a][b]) return;
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t k = 0; k < n; ++k)
                if ((i == a || comes[i][a]) && (k == b || comes[b][k])) comes[i][k] = true;
    };
    if (!options.order.empty())
        for (std::size_t a = 0; a < n; ++a)
            for (std::size_t b = a + 1; b < n; ++b)
                require(a, b);
    for (const LaneRule& rule : options.wishes.rules)
        for (std::size_t a = 0; a < n; ++a)
            for (std::size_t b = 0; b < n; ++b)
                if (lanes[a].lane.id == rule.before && lanes[b].lane.id == rule.after) require(a, b);
    for (const OrderRule& rule : order_rules) {
        if (is_off(rule, options.wishes)) continue;
        for (std::size_t a = 0; a < n; ++a)
            for (std::size_t b = 0; b < n; ++b)
                if (holds(rule, lanes[a], lanes[b])) require(a, b);
    }
    std::vector<bool> done(n);
    for (std::size_t count = 0; count < n; ++count) {
        std::size_t next = 0;
        const auto waits = [&](std::size_t lane) {
            for (std::size_t other = 0; other < n; ++other)
                if (!done[other] && comes[other][lane]) return true;
            return false;
        };
        while (done[next] || waits(next))
            ++next;
        done[next] = true;
        rank_[lanes[next].lane.id] = static_cast<int>(count);
    }
}

std::vector<Reason> order_reasons(const std::vector<LaneWork>& lanes, const PlanWishes& wishes) {
    std::vector<Reason> out;
    const auto first_cut = std::find_if(lanes.begin(), lanes.end(), parts);
    if (!is_off(*order_rule("marks-first"), wishes) && first_cut != lanes.begin() &&
        first_cut != lanes.end() && std::all_of(first_cut, lanes.end(), parts))
        out.push_back({"order.cut-last", say(order_rule("marks-first")->why)});
    const LaneWork* before = nullptr;
    for (const LaneWork& work : lanes) {
        if (!row(work.lane.action).light_first || is_off(*order_rule("light-first"), wishes)) continue;
        if (before && light_step(*before) > light_step(work))
            out.push_back({"order.light-first",
                           say("The %1 draws before the %2: a pale pen that runs over dark ink picks it up.",
                               tool_label(*before), tool_label(work))});
        before = &work;
    }
    for (const LaneRule& rule : wishes.rules) {
        const auto a = lane_of(lanes, rule.before), b = lane_of(lanes, rule.after);
        if (a == lanes.end() || b == lanes.end() || b < a) continue;
        const Phrase kept = say("The %1 runs before the %2, as you wish.", tool_label(*a), tool_label(*b)),
                     told = rule.why.empty() ? kept
                                             : say("The %1 runs before the %2, as you wish: %3",
                                                   tool_label(*a), tool_label(*b), rule.why);
        out.push_back({"order.own", told});
    }
    return out;
}

std::vector<BrokenRule> broken_rules(const std::vector<LaneWork>& lanes, const PlanWishes& wishes) {
    std::vector<BrokenRule> out;
    for (std::size_t i = 0; i < lanes.size(); ++i)
        for (std::size_t k = 0; k < i; ++k) {
            const LaneWork &late = lanes[i], &early = lanes[k];
            const auto breaks = [&](const char* key) {
                const OrderRule& rule = *order_rule(key);
                return holds(rule, late, early) && !is_off(rule, wishes);
            };
            if (breaks("marks-first") || breaks("perforate-first"))
                out.push_back({late.lane.id, after_cut({}, late.plate, early.plate, word(late.lane.action),
                                                       word(early.lane.action))});
            else if (breaks("light-first"))
                out.push_back({late.lane.id, dark_first({}, late.plate, early.plate)});
            for (const LaneRule& rule : wishes.rules)
                if (rule.before == late.lane.id && rule.after == early.lane.id)
                    out.push_back({late.lane.id, own_broken({}, late.plate, early.plate)});
        }
    return out;
}

Findings order_risks(const std::vector<LaneWork>& lanes, const PlanWishes& wishes) {
    Findings out;
    for (BrokenRule& broken : broken_rules(lanes, wishes))
        out.push_back(std::move(broken.finding));
    return out;
}

} // namespace dotlane
