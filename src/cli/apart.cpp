// A part of its own for each level of a picture, or for each piece.
#include "cli/verb.h"
#include "core/workflow/making.h"

namespace dotlane::cli {
namespace {

class ApartVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--by", by_, "level (of a picture) or piece")
            ->check(CLI::IsMember({"level", "piece"}))
            ->required();
    }

    int act(Context& c, Project& project) override {
        const auto id = part_named(project, part_);
        if (!id) return c.error(id.error());
        const auto& catalog = c.workshop.catalog();
        auto& fonts = c.workshop.fonts();
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const auto parts = by_ == "level" ? part_per_level(project, catalog, fonts, *id)
                                          : part_per_piece(project, catalog, fonts, *derived->part(*id));
        if (!parts) return c.error(parts.error());
        nlohmann::json out = nlohmann::json::array();
        for (const PartId part : *parts) {
            if (!c.json) c.out << "\"" << find(project, part)->name << "\" (" << part.value << ")\n";
            out.push_back({{"part", part.value}, {"name", find(project, part)->name}});
        }
        if (c.json) c.print({{"parts", out}});
        return fine;
    }

    std::string part_, by_;
};

} // namespace

std::unique_ptr<Verb> make_apart() {
    return std::make_unique<ApartVerb>();
}

} // namespace dotlane::cli
