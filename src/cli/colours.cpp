// The colours of a drawing, and which of them count as one.
#include "core/commands/colours.h"
#include "cli/verb.h"
#include "core/base/text.h"

namespace dotlane::cli {
namespace {

class ColoursVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--within", within_,
                       "Colours that differ by no more (CIEDE2000, 0 to 50) count as one from now on");
    }
    bool changes() const override { return true; } // with --within

    int act(Context& c, Project& project) override {
        const auto id = part_named(project, part_);
        if (!id) return c.error(id.error());
        Phrase said;
        if (within_) {
            const auto done = apply(JoinColours{*id, *within_}, project);
            if (!done) return c.error(done.error());
            said = done->said;
        }
        const Part& part = *find(project, *id);
        if (is_made(part)) return c.error({"colours.none", say("Only a drawing has colours."), {}});
        nlohmann::json out = nlohmann::json::array();
        for (const ColourGroup& group : colour_groups(*part.source.drawing, part.one_colour)) {
            nlohmann::json members = nlohmann::json::array();
            std::string alike;
            for (const Colour member : group.members) {
                members.push_back(to_hex(member));
                alike += (alike.empty() ? "" : " with ") + to_hex(member);
            }
            if (!c.json)
                c.out << alike << ", " << counted(group.lines.size(), "line", "lines")
                      << (group.farthest > 0 ? ", within " + number(group.farthest, 1) : "") << "\n";
            out.push_back({{"colour", to_hex(group.shown)},
                           {"members", members},
                           {"lines", group.lines.size()},
                           {"within", group.farthest}});
        }
        if (c.json)
            c.print({{"within", part.one_colour}, {"colours", out}});
        else if (!said.english().empty())
            c.out << said << "\n";
        return fine;
    }

    std::string part_;
    std::optional<double> within_;
};

} // namespace

std::unique_ptr<Verb> make_colours() {
    return std::make_unique<ColoursVerb>();
}

} // namespace dotlane::cli
