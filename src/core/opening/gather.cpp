// Guessing what each colour of a drawing is for: by names, dashes, colour and closedness, with the reason
// said.
#include <algorithm>
#include <map>
#include <tuple>

#include "core/base/text.h"
#include "core/opening/opening.h"

namespace dotlane {
namespace {

/// A name that begins a word of the label: "fold-line" is a fold, "open" is no pen.
bool names(std::string_view text, std::string_view word) {
    for (auto at = text.find(word); at != std::string_view::npos; at = text.find(word, at + 1)) {
        const bool starts = at == 0 || !(text[at - 1] >= 'a' && text[at - 1] <= 'z');
        const auto end = at + word.size();
        // "pen" and "cut" must also end there, short as they are; longer stems may go on ("folded").
        const bool ends = word.size() > 3 || end == text.size() || !(text[end] >= 'a' && text[end] <= 'z');
        if (starts && ends) return true;
    }
    return false;
}

std::optional<Action> action_from_label(const std::string& label, std::string& found) {
    const std::string text = lower_case(label);
    for (const bool everyday : {false, true})
        for (const Action action : all_actions)
            for (const std::string_view word : row(action).words)
                if (row(action).everyday == everyday && !word.empty() && names(text, word))
                    return found = word, action;
    return std::nullopt;
}

/// Between yellow and brown, neither pale nor dark nor dull: what gold, brass and copper are drawn with.
bool metallic(Colour c) {
    const double r = c.r, g = c.g, b = c.b, hi = std::max({r, g, b}), lo = std::min({r, g, b});
    if (hi < 110 || hi - lo < 60 || r != hi || b != lo) return false;
    const double hue = 60 * (g - b) / (hi - lo);
    return hue >= 30 && hue <= 52;
}

bool colourless(Colour c) {
    return std::max({c.r, c.g, c.b}) - std::min({c.r, c.g, c.b}) < 36;
}

void guess(Gathering& g, const Drawing& drawing, const StepKind* begins) {
    std::map<Action, std::size_t> votes;
    std::string word;
    for (const std::size_t i : g.lines) {
        const DrawnLine& line = drawing.lines[i];
        std::string found;
        auto action = action_from_label(line.name, found);
        if (!action) action = action_from_label(line.group, found);
        if (action) {
            ++votes[*action];
            word = found;
        }
    }
    for (const auto& [action, count] : votes)
        if (count * 2 > g.lines.size()) {
            g.action = action;
            g.reason = say("named \"%1\" in the file", word);
            return;
        }
    const bool mostly_closed = g.closed >= g.open;
    const auto decide = [&](Action a, const Phrase& why) { g.action = a, g.reason = why; };
    if (begins && begins->layers && g.fill && mostly_closed)
        return decide(Action::cut, say("its areas are a layer, to be cut of a stock of its own"));
    if (g.dashed) return decide(Action::score, say("dashed lines are usually folds"));
    if (g.fill && !g.stroke) {
        if (metallic(*g.fill)) return decide(Action::foil, say("filled in the colour of metal"));
        return decide(Action::cut, say("a filled shape without outline is usually cut out"));
    }
    if (g.stroke && metallic(*g.stroke)) return decide(Action::foil, say("outlined in the colour of metal"));
    if (g.stroke && !colourless(*g.stroke))
        return decide(Action::draw, say("coloured lines are usually drawn with a pen of that colour"));
    if (g.stroke && lightness(*g.stroke) > 45)
        return decide(mostly_closed ? Action::draw : Action::score,
                      mostly_closed ? say("grey outlines are usually drawn")
                                    : say("grey open lines are usually folds"));
    return mostly_closed ? decide(Action::cut, say("dark closed outlines are usually cut"))
                         : decide(Action::draw, say("dark open lines are usually drawn"));
}

} // namespace

std::vector<Gathering> gather_lanes(const Drawing& drawing, const Catalog& catalog, const StepKind* begins) {
    // Invisible differences are one colour to a maker; a dashed line of the same colour is something else.
    using Key = std::tuple<std::optional<Colour>, std::optional<Colour>, bool>;
    std::map<Key, std::size_t> index;
    std::vector<Gathering> out;
    for (std::size_t i = 0; i < drawing.lines.size(); ++i) {
        const DrawnLine& line = drawing.lines[i];
        const Key key{line.drawn.stroke, line.drawn.fill, line.drawn.stroke && !line.drawn.dashes_mm.empty()};
        const auto [it, fresh] = index.try_emplace(key, out.size());
        if (fresh) {
            out.emplace_back();
            out.back().stroke = line.drawn.stroke, out.back().fill = line.drawn.fill,
            out.back().dashed = std::get<2>(key);
        }
        Gathering& g = out[it->second];
        g.lines.push_back(i);
        const bool closed = std::all_of(line.shape.contours.begin(), line.shape.contours.end(), closes);
        ++(closed ? g.closed : g.open);
    }
    for (Gathering& g : out) {
        guess(g, drawing, begins);
        g.colour = g.stroke ? *g.stroke : g.fill.value_or(Colour{});
        const Tool* tool = catalog.first_tool(g.action);
        g.tool = tool ? tool->id : "";
        g.name = lane_name(catalog, g.action, g.tool, g.colour);
    }
    return out;
}

void choose_action(Gathering& gathering, Action action, const Catalog& catalog) {
    gathering.action = action;
    gathering.reason = say("as you chose");
    const Tool* first = catalog.first_tool(action);
    choose_tool(gathering, first ? first->id : "", catalog);
}

void choose_tool(Gathering& gathering, const std::string& tool, const Catalog& catalog) {
    gathering.tool = tool;
    gathering.name = lane_name(catalog, gathering.action, tool, gathering.colour);
}

} // namespace dotlane
