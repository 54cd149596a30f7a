// A project that lives: after any change what is kept from before and what is worked out anew agree with a
// workshop that knows nothing, every state survives saving, and every change can be taken back.
#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/project/format.h"
#include "tests/support/shuffle.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// What a maker can see of a part: where its lines run, and what is said about it.
struct Seen {
    std::vector<std::pair<LaneId, Polylines>> runs;
    std::vector<std::string> findings;
    Box box;
    std::size_t apart = 0;
    bool operator==(const Seen& o) const {
        return findings == o.findings && apart == o.apart && box == o.box &&
               std::equal(runs.begin(), runs.end(), o.runs.begin(), o.runs.end(),
                          [](const auto& a, const auto& b) {
                              return a.first == b.first &&
                                     std::equal(a.second.begin(), a.second.end(), b.second.begin(),
                                                b.second.end(), [](const Polyline& x, const Polyline& y) {
                                                    return x.closed == y.closed && x.points == y.points;
                                                });
                          });
    }
};

/// Where two differ, for the message of a failure.
std::string difference(const Seen& a, const Seen& b) {
    if (a.findings != b.findings) {
        std::string out = "findings: ";
        for (const auto& f : a.findings)
            out += f + " | ";
        out += " AGAINST ";
        for (const auto& f : b.findings)
            out += f + " | ";
        return out;
    }
    if (a.runs.size() != b.runs.size())
        return std::to_string(a.runs.size()) + " runs against " + std::to_string(b.runs.size());
    for (std::size_t i = 0; i < a.runs.size(); ++i)
        if (a.runs[i].second.size() != b.runs[i].second.size())
            return "run " + std::to_string(i) + ": " + std::to_string(a.runs[i].second.size()) +
                   " lines against " + std::to_string(b.runs[i].second.size());
    return a.box == b.box ? a.apart == b.apart ? "points" : "arrangements" : "box";
}

Seen seen(const EvaluatedPart& part) {
    Seen out;
    for (const RunSet& run : part.runs)
        out.runs.emplace_back(run.lane, run.lines);
    for (const Finding& f : part.findings)
        out.findings.push_back(f.code + ": " + f.message.english());
    out.box = part.box;
    out.apart = part.apart.size();
    return out;
}

class Life {
  public:
    Life(Random& random, Project start)
        : r_(random)
        , project(std::move(start)) {}

    /// One random change; what it was, for the message of a failure.
    std::string change(Workshop& workshop) {
        Part& part =
            project.parts[static_cast<std::size_t>(r_.whole(0, static_cast<int>(project.parts.size()) - 1))];
        const PartId id = part.id;
        Shuffle shuffle(r_, mm(60));
        shuffle.most = 12;
        const int what = r_.whole(0, part.steps.size() < 2 ? 2 : 7);
        if (what <= 1 && part.steps.size() < 8) {
            const auto& kinds = step_kinds();
            const StepKind& kind =
                kinds[static_cast<std::size_t>(r_.whole(0, static_cast<int>(kinds.size()) - 1))];
            StepWhat fresh = kind.fresh;
            if (auto* bring = std::get_if<PartStep>(&fresh)) bring->of = project.parts.front().id;
            std::vector<LineSetId> of, by;
            if (const LineSetId set = any_set(part)) of = {set};
            if (kind.second != StepKind::Second::none)
                if (const LineSetId set = any_set(part); set && (of.empty() || of.front() != set)) by = {set};
            if (kind_of(fresh).brings) of.clear();
            const auto made = append_step(project, workshop.catalog(), id, fresh, of, by);
            return std::string("add ") + kind.key + (made ? "" : ", refused");
        }
        if (part.steps.empty() || what == 2) {
            SourceSpec spec = part.source.spec;
            fields(spec, shuffle);
            const auto ok = change_source(project, workshop.catalog(), workshop.fonts(), id, spec);
            return std::string("source") + (ok ? "" : ", refused");
        }
        Step step =
            part.steps[static_cast<std::size_t>(r_.whole(0, static_cast<int>(part.steps.size()) - 1))];
        const std::string name = kind_of(step.what).key;
        if (what == 3) return (void)remove_step(project, id, step.id), "remove " + name;
        if (what == 4)
            return (void)move_step(project, id, step.id,
                                   r_.whole(0, static_cast<int>(part.steps.size()) - 1)),
                   "move " + name;
        if (what == 5) {
            step.on = !step.on;
        } else {
            fields(step.what, shuffle);
        }
        (void)change_step(project, id, step);
        return (what == 5 ? "switch " : "change ") + name;
    }

  private:
    LineSetId any_set(const Part& part) {
        std::vector<LineSetId> all;
        for (const LineSet& set : part.sets)
            all.push_back(set.id);
        for (const Step& step : part.steps)
            if (step.result) all.push_back(step.result);
        return all.empty() ? LineSetId{}
                           : all[static_cast<std::size_t>(r_.whole(0, static_cast<int>(all.size()) - 1))];
    }
    Random& r_;

  public:
    Project project;
};

/// The workshop that has seen all that came before, and one that knows nothing.
void agree(Workshop& lasting, const Project& project) {
    const auto kept = lasting.derive(std::make_shared<Project>(project));
    Workshop anew(catalog());
    const auto fresh = anew.derive(std::make_shared<Project>(project));
    // A source that cannot be made leaves the last one that could in view, which only one of the two has
    // seen; and so for those that take its lines.
    const auto failed = [](const auto& p) { return has(p.second->findings, "source.failed"); };
    if (std::any_of(fresh->parts.begin(), fresh->parts.end(), failed)) return;
    for (const Part& part : project.parts) {
        const Seen ours = seen(*kept->part(part.id)), theirs = seen(*fresh->part(part.id));
        INFO(part.name << ", " << difference(ours, theirs));
        REQUIRE(ours == theirs);
        for (const auto& [lane, lines] : ours.runs)
            for (const Polyline& line : lines)
                REQUIRE(std::all_of(line.points.begin(), line.points.end(),
                                    [](Point p) { return std::isfinite(p.x) && std::isfinite(p.y); }));
    }
}

} // namespace

TEST_CASE(
    "random changes: what was kept agrees with what is worked out anew, and all of it survives saving") {
    Random random("a project's life");
    INFO("seed " << random.seed());
    for (int life = 0; life < 3; ++life) {
        Workshop lasting(catalog());
        Project start = lasting.new_project("life");
        Label tag;
        tag.width = mm(40), tag.height = mm(25), tag.border = mm(3);
        must(make_part(start, catalog(), lasting.fonts(), tag));
        Lettering words;
        words.text = "tide", words.size = mm(12);
        must(make_part(start, catalog(), lasting.fonts(), words));
        Life it(random, std::move(start));
        std::string story;
        for (int n = 0; n < 25; ++n) {
            const Project before = it.project;
            story += it.change(lasting) + "; ";
            INFO(story);
            REQUIRE(check_rules(it.project));
            REQUIRE(read_project(write_project(it.project)) == it.project);
            agree(lasting, it.project);
            if (random.coin(0.2)) agree(lasting, before); // taken back: everything is as it was
        }
    }
}

TEST_CASE("the demo says the same in a workshop that has seen other projects before") {
    Workshop used(catalog());
    Project other = used.new_project("other");
    must(make_part(other, catalog(), used.fonts(), Label{}));
    (void)used.derive(std::make_shared<Project>(other));
    const auto demo =
        std::make_shared<Project>(must(load_project(disk(), DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane")));
    const auto a = used.derive(demo);
    Workshop anew(catalog());
    const auto b = anew.derive(demo);
    REQUIRE(demo->parts.size() == 23);
    for (const Part& part : demo->parts)
        CHECK(seen(*a->part(part.id)) == seen(*b->part(part.id)));
    CHECK(a->findings.size() == b->findings.size());
    // What the demo is to show: nothing is wrong with it. The cautions are that more sleeves are wanted, and
    // of the big heron that it is larger than any sheet and its layers lie on one another.
    CHECK(count(a->findings, Grade::error) == 0);
    CHECK(count(a->findings, Grade::caution) == 4);
    for (const char* code : {"part.count", "part.unplaced", "part.too-large", "piece.piled"})
        CHECK(has(a->findings, code));
    REQUIRE(a->plan);
}
