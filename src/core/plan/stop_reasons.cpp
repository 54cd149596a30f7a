#include "core/plan/stop_reasons.h"

#include <algorithm>

#include "core/base/text.h"

namespace dotlane {
namespace {

using Kind = HandStep::Kind;

bool has(const StopMove& stop, Kind kind) {
    return std::any_of(stop.steps.begin(), stop.steps.end(),
                       [&](const HandStep& s) { return s.kind == kind; });
}

bool among(const std::vector<Phrase>& all, const Phrase& one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

/// What the slots hold after it and did not before.
std::vector<Phrase> put_in(const Program& program, std::size_t move) {
    const auto& stop = std::get<StopMove>(program.moves[move]);
    std::vector<Phrase> before;
    for (std::size_t m = move; m-- > 0 && before.empty();)
        if (const auto* earlier = std::get_if<StopMove>(&program.moves[m])) before = earlier->holds;
    std::vector<Phrase> out;
    for (const Phrase& held : stop.holds)
        if (!held.empty() && !among(before, held)) out.push_back(held);
    return out;
}

/// The passes that rest on what is done there.
std::vector<std::size_t> served_by(const Program& program, std::size_t move) {
    const auto& stop = std::get<StopMove>(program.moves[move]);
    std::vector<Phrase> held = put_in(program, move);
    bool lies = has(stop, Kind::load);
    bool next = held.empty() && !lies; // up to the next stop
    std::vector<std::size_t> out;
    for (std::size_t m = move + 1; m < program.moves.size(); ++m) {
        if (const auto* later = std::get_if<StopMove>(&program.moves[m])) {
            std::erase_if(held, [&](const Phrase& tool) { return !among(later->holds, tool); });
            lies &= later->sheet == stop.sheet && !has(*later, Kind::load);
            next = false;
            if (held.empty() && !lies) break;
        } else if (const auto& pass = std::get<PassMove>(program.moves[m]);
                   next || lies || among(held, pass.tool)) {
            out.push_back(m);
        }
    }
    return out;
}

Phrase name_of(const Program& program, SheetId sheet) {
    const auto it = std::find_if(program.sheets.begin(), program.sheets.end(),
                                 [&](const ProgramSheet& s) { return s.sheet == sheet; });
    return it == program.sheets.end() ? Phrase() : say("\"%1\"", it->name);
}

} // namespace

Phrase cause_of_stop(const Program& program, std::size_t move) {
    const auto& stop = std::get<StopMove>(program.moves[move]);
    std::vector<Phrase> causes;
    if (has(stop, Kind::print)) causes.push_back(say("what is printed comes before all else"));
    if (has(stop, Kind::load) && stop.sheet)
        causes.push_back(say("%1 comes into the machine", name_of(program, stop.sheet)));
    if (has(stop, Kind::lift_off)) causes.push_back(say("foil is lifted off once its tip is cold"));
    if (const auto tools = put_in(program, move); !tools.empty())
        causes.push_back(tools.size() == 1 ? say("the %1 must be in the machine", tools.front())
                                           : say("these must be in the machine: %1", joined(tools, ", ")));
    if (has(stop, Kind::lay_on)) causes.push_back(say("foil is laid on while its tip is cold"));
    if (has(stop, Kind::depth)) causes.push_back(say("the stock needs another depth of the blade"));
    if (!stop.sheet) causes.push_back(say("the last sheet comes out"));
    return causes.empty() ? Phrase() : say("hands are needed because %1", joined(causes, "; "));
}

Phrase loss_without_stop(const Program& program, const Timeline& timeline, std::size_t move) {
    std::vector<std::pair<Phrase, std::size_t>> strokes;
    double seconds = 0;
    for (const std::size_t m : served_by(program, move)) {
        const auto& pass = std::get<PassMove>(program.moves[m]);
        const auto known = std::find_if(strokes.begin(), strokes.end(),
                                        [&](const auto& one) { return one.first == pass.tool; });
        if (known == strokes.end())
            strokes.emplace_back(pass.tool, pass.strokes.size());
        else
            known->second += pass.strokes.size();
        seconds += in_seconds(timeline.spans()[m].time);
    }
    if (strokes.empty()) return {};
    std::vector<Phrase> lost;
    for (const auto& [tool, count] : strokes)
        lost.push_back(say_n(count, "%n [stroke|strokes] of the %1", tool));
    return say("Without it %1 could not be run: it takes %2 of your time for %3 of the machine's.",
               joined(lost, ", "), spoken_seconds(in_seconds(std::get<StopMove>(program.moves[move]).time)),
               spoken_seconds(seconds));
}

void explain_each_stop(Plan& plan) {
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        const auto* stop = std::get_if<StopMove>(&plan.program.moves[m]);
        if (!stop) continue;
        const Phrase cause = cause_of_stop(plan.program, m);
        if (cause.empty()) continue;
        const Phrase loss = loss_without_stop(plan.program, plan.timeline, m);
        const Phrase sentence = loss.empty() ? say("At stop %1 %2.", stop->number, cause)
                                             : say("At stop %1 %2. %3", stop->number, cause, loss);
        plan.reasons.push_back({stop_reason, sentence});
    }
}

} // namespace dotlane
