// A part of its own for each level of a picture, each piece, or each colour, group or name of a drawing.
#include "core/commands/apart.h"
#include "cli/verb.h"

namespace dotlane::cli {
namespace {

class ApartVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--by", by_, "level (of a picture), piece, or, of a drawing, colour, group or name")
            ->check(CLI::IsMember({"level", "piece", "colour", "group", "name"}))
            ->required();
    }

    int act(Context& c, Project& project) override {
        const auto id = part_named(project, part_);
        if (!id) return c.error(id.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        TakeApart command{*id};
        for (const ApartBy by : all_aparts)
            if (by_ == apart_name(by)) command.by = by;
        const auto done =
            apply(command, project, c.workshop.catalog(), c.workshop.fonts(), *derived->part(*id));
        if (!done) return c.error(done.error());
        if (!c.json) c.out << done->said << "\n";
        nlohmann::json out = nlohmann::json::array();
        for (const PartId part : done->parts) {
            if (!c.json) c.out << "\"" << find(project, part)->name << "\" (" << part.value << ")\n";
            out.push_back({{"part", part.value}, {"name", find(project, part)->name}});
        }
        if (c.json) c.print({{"done", done->said}, {"parts", out}});
        return fine;
    }

    std::string part_, by_;
};

} // namespace

std::unique_ptr<Verb> make_apart() {
    return std::make_unique<ApartVerb>();
}

} // namespace dotlane::cli
