// A part of its own for each level of a picture, each piece, or each colour, group or name of a drawing.
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/drawn_parts.h"
#include "core/commands/making.h"

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
        const auto& catalog = c.workshop.catalog();
        auto& fonts = c.workshop.fonts();
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const auto apart = [&]() -> Result<std::vector<PartId>> {
            if (by_ == "level") return part_per_level(project, catalog, fonts, *id);
            for (const ApartBy by : all_aparts)
                if (by_ == apart_name(by) && (by != ApartBy::piece || !is_made(*find(project, *id))))
                    return take_apart(project, *id, by);
            return part_per_piece(project, catalog, fonts, *derived->part(*id));
        };
        const std::string name = find(project, *id)->name;
        const auto parts = apart();
        if (!parts) return c.error(parts.error());
        const std::string done =
            "Took \"" + name + "\" apart by " + by_ + ": " + counted(parts->size(), "part", "parts") + ".";
        if (!c.json) c.out << done << "\n";
        nlohmann::json out = nlohmann::json::array();
        for (const PartId part : *parts) {
            if (!c.json) c.out << "\"" << find(project, part)->name << "\" (" << part.value << ")\n";
            out.push_back({{"part", part.value}, {"name", find(project, part)->name}});
        }
        if (c.json) c.print({{"done", done}, {"parts", out}});
        return fine;
    }

    std::string part_, by_;
};

} // namespace

std::unique_ptr<Verb> make_apart() {
    return std::make_unique<ApartVerb>();
}

} // namespace dotlane::cli
