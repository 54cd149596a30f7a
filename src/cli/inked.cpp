#include "cli/inked.h"

#include "core/base/text.h"

namespace dotlane::cli {

using nlohmann::json;

namespace {

const char* why_left_out(LeftOut::Why why) {
    switch (why) {
    case LeftOut::Why::thin:
        return "too thin";
    case LeftOut::Why::edge:
        return "no line meets it";
    case LeftOut::Why::unchosen:
        return "not chosen";
    case LeftOut::Why::open:
        return "not closed";
    }
    return "";
}

} // namespace

Duration Inked::time() const {
    const RunSet* run = ink_run(evaluated, step.id);
    return run ? ink_time(project, catalog, {evaluated.part, run->lane}, run->lines) : Duration();
}

int Inked::passes() const {
    return passes_of(project, catalog, {evaluated.part, step.lane}, report);
}

std::optional<Inked> inked(const Context& c, const Project& project, const EvaluatedPart& evaluated,
                           const Part& part, const Step& step) {
    const InkReport* report = ink_of(evaluated, step.id);
    if (!report) return std::nullopt;
    return Inked{project, c.workshop.catalog(), part, evaluated, step, *report};
}

void print_fill(std::ostream& out, const Inked& fill) {
    const InkReport& r = fill.report;
    out << "fill " << fill.step.id.value << ": " << r.style << ", " << counted(r.rows, "row", "rows") << ", "
        << counted(r.runs, "stroke", "strokes") << ", " << counted(r.lifts, "lift", "lifts") << ", "
        << number(in_mm(r.length) / 1000, 2) << " m, " << spoken_seconds(in_seconds(fill.time()))
        << (fill.passes() > 1 ? ", " + std::to_string(fill.passes()) + " passes deep" : "") << ", inked "
        << number(r.coverage.covered_percent, 1) << " %, over the edge "
        << number(r.coverage.overspill_percent, 1) << " %";
    if (in_mm(r.widest_gap) > 0) out << ", widest gap " << number(in_mm(r.widest_gap), 2) << " mm";
    const Landing landing = landing_of(fill.project, fill.catalog, r);
    if (landing.gaps >= 0.5)
        out << ", about " << counted(static_cast<std::size_t>(std::lround(landing.gaps)), "gap", "gaps")
            << " to be seen (none at " << number(in_mm(landing.closer), 2) << " mm)";
    if (r.cells > 0) out << ", " << counted(r.cells, "whole cell", "whole cells");
    if (r.centre_lines > 0) out << ", " << counted(r.centre_lines, "centre line", "centre lines");
    if (!r.left_out.empty()) out << ", left out " << counted(r.left_out.size(), "piece", "pieces");
    out << "\n";
}

json fill_json(const Inked& fill) {
    const InkReport& r = fill.report;
    json left = json::array();
    for (const LeftOut& l : r.left_out) {
        const LineSet* set = find(fill.part, l.set);
        left.push_back({{"why", why_left_out(l.why)},
                        {"line_set", set ? set->name : ""},
                        {"left_mm", l.box.x0},
                        {"top_mm", l.box.y0},
                        {"width_mm", l.box.width()},
                        {"height_mm", l.box.height()}});
    }
    const Landing landing = landing_of(fill.project, fill.catalog, r);
    return {{"step", fill.step.id.value},
            {"style", r.style},
            {"rows", r.rows},
            {"strokes", r.runs},
            {"runs", r.runs},
            {"lifts", r.lifts},
            {"length_mm", in_mm(r.length)},
            {"time_s", in_seconds(fill.time())},
            {"passes", fill.passes()},
            {"angle_degrees", in_degrees(r.angle)},
            {"spacing_mm", in_mm(r.spacing)},
            {"inset_mm", in_mm(r.inset)},
            {"tip_mm", in_mm(r.tip)},
            {"to_fill_mm2", in_square_mm(r.coverage.to_fill)},
            {"coverage", r.coverage.covered_percent / 100},
            {"overspill", r.coverage.overspill_percent / 100},
            {"coverage_percent", r.coverage.covered_percent},
            {"overspill_percent", r.coverage.overspill_percent},
            {"widest_gap_mm", in_mm(r.widest_gap)},
            {"seams", r.seams},
            {"landing_mm", in_mm(landing.scatter)},
            {"visible_gaps", landing.gaps},
            {"spacing_without_gaps_mm", in_mm(landing.closer)},
            {"cells", r.cells},
            {"edge_cells", r.edge_cells},
            {"centre_lines", r.centre_lines},
            {"pieces_left_out", r.left_out.size()},
            {"left_out", left},
            {"open_lines", r.open_lines},
            {"too_thin", r.too_thin}};
}

} // namespace dotlane::cli
