// A part whose steps are tried one by one, for tests of what they do to lines.
#pragma once

#include "core/base/text.h"
#include "core/commands/making.h"
#include "core/commands/steps.h"
#include "tests/support/support.h"

namespace dotlane::test {

struct Recipe {
    Bench b;
    explicit Recipe(const std::string& elements)
        : b(bench(elements, 200, 200)) {}

    LineSetId set(std::size_t i = 0) { return find(b.project, b.part)->sets.at(i).id; }
    /// A set of its own for the n-th line.
    LineSetId line(std::size_t n) { return must(gather(b.project, b.part, {b.lines().at(n)}, "line")); }
    StepId add(StepWhat what, std::vector<LineSetId> of = {}, std::vector<LineSetId> by = {}) {
        return must(append_step(b.project, catalog(), b.part, std::move(what), std::move(of), std::move(by)));
    }
    const EvaluatedPart& part() {
        derived = b.derive();
        return *derived->part(b.part);
    }
    Region area_of(LineSetId id) {
        std::vector<Region> all;
        for (const FlatLine& l : part().lines)
            if (l.set == id) all.push_back(region_of(l.contours, l.rule, l.filled));
        return united(all);
    }
    double square(LineSetId id) { return in_square_mm(area(area_of(id))); }
    std::size_t count(LineSetId id) {
        const auto& lines = part().lines;
        return static_cast<std::size_t>(
            std::count_if(lines.begin(), lines.end(), [id](const FlatLine& l) { return l.set == id; }));
    }
    double figure(StepId step, const std::string& key) {
        for (const Figure& f : part().reports.at(step)->figures)
            if (f.key == key) return f.value;
        FAIL("no figure " << key);
        return 0;
    }
    LineSetId result(StepId step) { return find(*find(b.project, b.part), step)->result; }
    /// By the window's way: no line sets named.
    StepId add_whole(StepWhat what) {
        part();
        const AddStep command{b.part, std::move(what)};
        return must(apply(command, b.project, catalog(), *derived->part(b.part))).step;
    }
    /// Of what a step makes for another lane than its own.
    LineSetId of_role(StepId step, const char* role) {
        const LineSet* of = set_of(*find(b.project, b.part), step, role);
        REQUIRE(of);
        return of->id;
    }
    std::vector<FlatLine> lines_of(LineSetId id) {
        std::vector<FlatLine> out;
        for (const FlatLine& l : part().lines)
            if (l.set == id) out.push_back(l);
        return out;
    }
    Polylines contours_of(LineSetId id) {
        Polylines out;
        for (const FlatLine& l : lines_of(id))
            out.insert(out.end(), l.contours.begin(), l.contours.end());
        return out;
    }
    bool told(const std::string& code) { return has(part().findings, code); }
    std::shared_ptr<const Derived> derived;
};

inline std::string rect(double x, double y, double w, double h) {
    return "<rect x='" + number(x, 6) + "' y='" + number(y, 6) + "' width='" + number(w, 6) + "' height='" +
           number(h, 6) + "' fill='none' stroke='#111'/>";
}

} // namespace dotlane::test
