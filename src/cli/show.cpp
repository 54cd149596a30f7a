#include "cli/fields.h"
#include "cli/inked.h"
#include "core/base/text.h"
#include "core/catalog/mats.h"
#include "core/derive/saving.h"
#include "core/exports/exporting.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

class Show final : public ProjectVerb {
    bool changes() const override { return false; }
    void options(CLI::App&) override {}

    int act(Context& c, Project& project) override {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        if (c.json)
            c.print(document(c, project, *derived));
        else
            print(c, project, *derived);
        return blocks_export(derived->findings) ? findings : fine;
    }

    static std::size_t count_in(const EvaluatedPart& e, LineSetId set) {
        return static_cast<std::size_t>(
            std::count_if(e.lines.begin(), e.lines.end(), [set](const FlatLine& l) { return l.set == set; }));
    }

    /// Lines that a step made, or strokes of a fill.
    static std::size_t made_by(const EvaluatedPart& e, const Step& step) {
        if (const std::size_t lines = count_in(e, step.result)) return lines;
        for (const RunSet& run : e.runs)
            if (run.set == step.result) return run.lines.size();
        return 0;
    }

    static json figures_of(const Context& c, const Project& project, const Part& part, const EvaluatedPart& e,
                           const Step& step) {
        const auto report = e.reports.find(step.id);
        if (report == e.reports.end()) return json::object();
        json out = figures_json(report->second->figures);
        for (const Point p : report->second->order)
            out["order"].push_back({p.x, p.y});
        for (const Figure& f : report->second->figures)
            if (const std::string key = f.key; key == "saved" || key == "hidden")
                if (const auto worth = stock_saved(project, c.workshop.catalog(), part, square_mm(f.value)))
                    out[key + "_sheets"] = worth->sheets, out[key + "_price"] = worth->price;
        return out;
    }
    static std::string of_step(const Part& part, const LineSet& set) {
        const Step* step = find(part, set.step);
        return step ? std::string(" (of ") + kind_of(step->what).name + ")" : "";
    }

    static json document(Context& c, const Project& project, const Derived& derived) {
        json lanes = json::array(), parts = json::array(), sheets = json::array();
        for (const Lane& l : project.lanes)
            lanes.push_back({{"id", l.id.value},
                             {"plate", plate(project, l.id)},
                             {"action", action_name(l.action)},
                             {"name", l.name},
                             {"tool", l.tool},
                             {"colour", to_hex(l.colour)},
                             {"repeats", l.repeats}});
        for (const Part& p : project.parts) {
            const EvaluatedPart& e = *derived.part(p.id);
            json sets = json::array(), fills = json::array(), steps = json::array();
            for (const LineSet& s : p.sets)
                sets.push_back({{"id", s.id.value},
                                {"name", s.name},
                                {"lane", s.lane.value},
                                {"role", s.role},
                                {"step", s.step.value},
                                {"lines", count_in(e, s.id)},
                                {"set_aside", s.set_aside}});
            for (const Step& s : p.steps)
                steps.push_back({{"id", s.id.value},
                                 {"kind", kind_of(s.what).key},
                                 {"on", s.on},
                                 {"line_set", s.result.value},
                                 {"lane", s.lane.value},
                                 {"lines", s.result ? made_by(e, s) : 0},
                                 {"figures", figures_of(c, project, p, e, s)},
                                 {"set_aside", s.aside}});
            for (const Step& s : p.steps)
                if (const auto fill = inked(c, project, e, p, s)) fills.push_back(fill_json(*fill));
            json needs = json::array();
            for (const auto& [step, report] : e.reports)
                for (const Needed& n : report->needs) {
                    json need = {{"step", step.value},
                                 {"what", n.what.english()},
                                 {"width_mm", in_mm(n.width)},
                                 {"height_mm", in_mm(n.height)}};
                    if (const LineSet* set = find(p, n.of)) need["line_set"] = set->name;
                    if (const Machine* machine =
                            n.on_mat ? c.workshop.catalog().machine(project.machine) : nullptr) {
                        const Mat* mat = mat_that_holds(c.workshop.catalog(), *machine, n.width, n.height);
                        need["mat"] = mat ? json(mat->id) : json();
                    }
                    if (n.cloth)
                        need["cloth"] = {{"width_mm", in_mm(n.cloth->width)},
                                         {"length_mm", in_mm(n.cloth->length)},
                                         {"copies", n.cloth->copies}};
                    needs.push_back(std::move(need));
                }
            parts.push_back({{"id", p.id.value},
                             {"name", p.name},
                             {"quantity", p.quantity},
                             {"width_mm", e.box.width()},
                             {"height_mm", e.box.height()},
                             {"scale", p.scale},
                             {"lines", e.lines.size()},
                             {"line_sets", sets},
                             {"steps", steps},
                             {"source", kind_of(p.source.spec) ? kind_of(p.source.spec)->key : "file"},
                             {"figures", figures_json(e.figures)},
                             {"needs", needs},
                             {"fills", fills}});
        }
        for (const Sheet& s : project.sheets) {
            json placed = json::array();
            for (const PlacedPart& p : derived.sheet(s.id)->parts)
                placed.push_back({{"id", p.placement.id.value},
                                  {"part", p.placement.part.value},
                                  {"left_mm", p.box.x0},
                                  {"top_mm", p.box.y0},
                                  {"width_mm", p.box.width()},
                                  {"height_mm", p.box.height()},
                                  {"turn_degrees", in_degrees(p.placement.turn)},
                                  {"mirrored", p.placement.mirrored},
                                  {"piece", p.placement.piece},
                                  {"group", p.placement.group}});
            sheets.push_back({{"id", s.id.value},
                              {"name", s.name},
                              {"stock", s.stock},
                              {"mat", s.mat},
                              {"placed", placed}});
        }
        const Machine* m = c.workshop.catalog().machine(project.machine);
        return {{"name", project.name}, {"machine", m ? m->name : project.machine},
                {"lanes", lanes},       {"parts", parts},
                {"sheets", sheets},     {"findings", to_json(derived.findings)}};
    }

    static void print(Context& c, const Project& project, const Derived& derived) {
        const Machine* m = c.workshop.catalog().machine(project.machine);
        c.out << project.name << ", on the " << (m ? m->name : project.machine) << "\n\nLanes\n";
        for (const Lane& l : project.lanes)
            c.out << "  " << plate(project, l.id) << "  " << action_name(l.action) << ", " << l.name
                  << (l.repeats > 1 ? ", run " + std::to_string(l.repeats) + " times" : "") << "\n";
        c.out << "\nParts\n";
        for (const Part& p : project.parts) {
            const EvaluatedPart& e = *derived.part(p.id);
            c.out << "  " << p.id.value << "  " << p.name << ", " << to_text(mm(e.box.width()), project.unit)
                  << " x " << to_text(mm(e.box.height()), project.unit) << "\n";
            for (const LineSet& s : p.sets)
                c.out << "      "
                      << (s.set_aside ? "set aside"
                          : s.lane    ? plate(project, s.lane)
                                      : "no lane")
                      << "  " << s.name << of_step(p, s) << ": "
                      << counted(count_in(e, s.id), "line", "lines") << "\n";
            for (const Step& s : p.steps)
                if (s.result && s.on && !ink_of(e, s.id))
                    c.out << "      "
                          << (s.aside  ? "set aside"
                              : s.lane ? plate(project, s.lane)
                                       : "no lane")
                          << "  " << kind_of(s.what).name << " (line set " << s.result.value
                          << "): " << counted(made_by(e, s), "line", "lines") << "\n";
            for (const Step& s : p.steps)
                if (const auto fill = inked(c, project, e, p, s)) print_fill(c.out << "      ", *fill);
        }
        c.out << "\nSheets\n";
        for (const Sheet& s : project.sheets) {
            c.out << "  " << s.id.value << "  " << s.name << "\n";
            for (const PlacedPart& p : derived.sheet(s.id)->parts)
                c.out << "      " << p.placement.id.value << "  " << find(project, p.placement.part)->name
                      << (p.placement.piece > 0 ? ", piece " + std::to_string(p.placement.piece) : "")
                      << " at " << to_text(mm(p.box.x0), project.unit) << ", "
                      << to_text(mm(p.box.y0), project.unit)
                      << (in_radians(p.placement.turn) != 0
                              ? ", turned " + number(in_degrees(p.placement.turn), 2) + " degrees"
                              : "")
                      << (p.placement.mirrored ? ", mirrored" : "")
                      << (p.placement.group > 0 ? ", group " + std::to_string(p.placement.group) : "")
                      << "\n";
        }
        if (!derived.findings.empty()) c.out << "\nFindings\n";
        print_findings(c.out, derived.findings, &project);
    }
};

} // namespace

std::unique_ptr<Verb> make_show() {
    return std::make_unique<Show>();
}

} // namespace dotlane::cli
