#include "cli/verb.h"
#include "core/base/text.h"
#include "core/formats/trace/picture.h"
#include "core/project/edits.h"
#include "core/project/format.h"
#include "core/workflow/making.h"
#include "core/workflow/opening.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

class Import final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("file", file_, "The drawing or picture: .svg, .svgz, .dxf, .hpgl, .plt, .png or .jpg")
            ->required();
        app.add_option("project", path_, "The project file; made when it does not exist")->required();
        auto* size = app.add_option_group("size", "Size of a file without physical units");
        size->add_option("--per-inch", per_inch_, "Its units per inch: 96, 90, 72 or another")
            ->check(CLI::Range(1.0, 10000.0));
        size->add_option("--unit", unit_, "The unit of a DXF file that names none")
            ->check(CLI::IsMember({"mm", "cm", "in"}));
        size->add_option("--width", width_, "Its finished width, such as 120mm or 4.5in");
        size->require_option(0, 1);
        app.add_option("--name", name_, "Name of the part");
        app.add_flag("--no-lanes", no_lanes_, "Leave all lines without a lane");
    }

    int run(Context& c) override {
        auto bytes = c.files.read(file_, default_max_bytes);
        if (!bytes) return c.error(bytes.error());
        if (looks_like_picture(*bytes))
            return change_project(c, path_, true, [&](Project& project) {
                return take_picture(c, std::move(*bytes), project);
            });
        auto opened = open_drawing(std::move(*bytes), file_, c.workshop.fonts());
        if (!opened) return c.error(opened.error());
        if (!name_.empty()) opened->name = name_;
        return change_project(c, path_, true,
                              [&](Project& project) { return take_drawing(c, *opened, project); });
    }

    int take_drawing(Context& c, Opened& opened, Project& project) const {
        if (const auto settled = settle(project, opened); !settled) return c.error(settled.error());
        const auto gatherings = gather_lanes(*opened.source.drawing, c.workshop.catalog());
        const auto part =
            take_in(project, c.workshop.catalog(), opened, no_lanes_ ? std::vector<Gathering>{} : gatherings);
        if (!part) return c.error(part.error());
        report(c, project, *part, opened, gatherings);
        return fine;
    }

    int take_picture(Context& c, std::string bytes, Project& project) const {
        Picture picture;
        picture.file_name = file_name(file_);
        picture.bytes = std::make_shared<const std::string>(std::move(bytes));
        if (!width_.empty()) {
            const auto width = length_option(project, width_);
            if (!width) return c.error(width.error());
            picture.width = *width;
        }
        const auto part = make_part(project, c.workshop.catalog(), c.workshop.fonts(), picture,
                                    name_.empty() ? file_stem(file_) : name_);
        return part ? report_part(c, project, *part) : c.error(part.error());
    }

    Result<void> settle(const Project& project, Opened& opened) const {
        if (!width_.empty()) {
            const auto width = length_option(project, width_);
            if (!width) return tl::make_unexpected(width.error());
            const auto choice = scale_to_width(opened, *width);
            if (!choice) return tl::make_unexpected(choice.error());
            return settle_scale(opened, choice->factor), Result<void>{};
        }
        if (!unit_.empty())
            return settle_scale(opened, unit_ == "in" ? mm_per_inch : unit_ == "cm" ? 10 : 1), Result<void>{};
        if (per_inch_ > 0) return settle_scale(opened, 96 / per_inch_), Result<void>{};
        if (!opened.asks_scale) return {};
        std::string question = "The file does not say how large it is. Finished size would be";
        for (const ScaleChoice& choice : scale_choices(opened))
            question += " " + to_text(choice.width, project.unit) + " x " +
                        to_text(choice.height, project.unit) + " at " + choice.label + ";";
        return fail("open.scale",
                    question + " or give the finished width. Use " +
                        (opened.per_inch ? "--per-inch 96, --per-inch 90, --per-inch 72"
                                         : "--unit mm, --unit cm, --unit in") +
                        " or --width.",
                    {file_, 0});
    }

    void report(Context& c, const Project& project, PartId part, const Opened& opened,
                const std::vector<Gathering>& gatherings) const {
        const Box box = opened.box;
        if (c.json) {
            json lanes = json::array();
            for (const Gathering& g : gatherings)
                lanes.push_back({{"action", action_name(g.action)},
                                 {"tool", g.tool},
                                 {"name", g.name},
                                 {"reason", g.reason},
                                 {"lines", g.lines.size()},
                                 {"closed", g.closed},
                                 {"open", g.open},
                                 {"stroke", g.stroke ? to_hex(*g.stroke) : ""},
                                 {"fill", g.fill ? to_hex(*g.fill) : ""}});
            return c.print({{"part", part.value},
                            {"name", opened.name},
                            {"lines", opened.source.drawing->lines.size()},
                            {"width_mm", box.width()},
                            {"height_mm", box.height()},
                            {"lanes", lanes},
                            {"findings", to_json(opened.findings)}});
        }
        c.out << "\"" << opened.name << "\": " << opened.source.drawing->lines.size() << " lines, "
              << to_text(mm(box.width()), project.unit) << " x " << to_text(mm(box.height()), project.unit)
              << "\n";
        for (const Gathering& g : gatherings)
            c.out << "  " << action_name(g.action) << " (" << g.name << "): " << g.lines.size()
                  << (g.lines.size() == 1 ? " line, " : " lines, ") << g.reason << "\n";
        print_findings(c.out, opened.findings);
    }

    std::string file_, path_, width_, name_;
    std::string unit_;
    double per_inch_ = 0;
    bool no_lanes_ = false;
};

} // namespace

std::unique_ptr<Verb> make_import() {
    return std::make_unique<Import>();
}

} // namespace dotlane::cli
