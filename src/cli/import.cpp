#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/making.h"
#include "core/formats/trace/picture.h"
#include "core/opening/opening.h"
#include "core/project/format.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

class Import final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("file", file_, "The drawing or picture: .svg, .svgz, .dxf, .hpgl, .plt, .png or .jpg")
            ->required();
        app.add_option("project", path_, "The project file; made when it does not exist")->required();
        auto* size = app.add_option_group("size", "Size of a file that does not say how large it is");
        size->add_option("--per-inch", per_inch_,
                         "Its units per inch: 96, 90, 72 or another; of a picture, its pixels per inch")
            ->check(CLI::Range(1.0, 10000.0));
        size->add_option("--unit", unit_, "The unit of a drawing that names none")
            ->check(CLI::IsMember({"mm", "cm", "in"}));
        size->add_option("--width", width_, "The finished width of any file, such as 120mm or 4.5in");
        size->require_option(0, 1);
        app.add_option("--name", name_, "Name of the part");
        app.add_option("--strays", strays_,
                       "Lines far off a drawing's art: drop (leave them out), near (bring them near), keep")
            ->check(CLI::IsMember({"drop", "near", "keep"}));
        app.add_flag("--as-picture", as_picture_,
                     "Trace what a renderer shows of an SVG file: gradients, patterns, filters");
        app.add_option("--step", steps_,
                       "A step that the part begins with, by its kind: knock-out, patch, stencil");
        app.add_flag("--no-lanes", no_lanes_, "Leave all lines of a drawing without a lane");
        app.add_flag("--large", large_, "Take it however large it is, which may take minutes");
    }

    bool writes() const override { return true; }

    int run(Context& c) override {
        auto bytes = c.files.read(file_, default_max_bytes);
        if (!bytes) return c.error(bytes.error());
        const ReadLimits limits = large_ ? ReadLimits::large() : ReadLimits{};
        if (as_picture_) {
            if (looks_like_picture(*bytes))
                return c.error(does_not_apply("--as-picture", "It is a picture already."));
            auto opened = open_as_picture(*bytes, file_, c.workshop.fonts(), limits);
            if (!opened) return refused(c, opened.error());
            return change_project(c, path_, true,
                                  [&](Project& project) { return take_picture(c, *opened, project); });
        }
        if (looks_like_picture(*bytes)) {
            auto opened = open_picture(std::move(*bytes), file_, limits);
            if (!opened) return refused(c, opened.error());
            return change_project(c, path_, true,
                                  [&](Project& project) { return take_picture(c, *opened, project); });
        }
        auto opened = open_drawing(std::move(*bytes), file_, c.workshop.fonts(), no_progress(), limits);
        if (!opened) return refused(c, opened.error());
        if (!name_.empty()) opened->name = name_;
        return change_project(c, path_, true,
                              [&](Project& project) { return take_drawing(c, *opened, project); });
    }

    int refused(const Context& c, Error error) const {
        if (may_be_large(error) && !large_) error.message = say("%1 (--large)", error.message);
        return c.error(error);
    }

    int take_drawing(Context& c, Opened& opened, Project& project) const {
        if (!strays_.empty()) {
            if (strays_of(*opened.source.drawing).empty())
                return c.error(does_not_apply("--strays", "No line lies far off the art."));
            treat_strays(opened, *stray_choice(strays_)); // one of the three
        }
        if (const auto settled = settle(project, opened); !settled) return c.error(settled.error());
        std::vector<StepWhat> begin;
        const StepKind* first = nullptr;
        for (const std::string& key : steps_) {
            const StepKind* kind = step_kind(key);
            if (!kind) return c.error({"cli.unknown", say("There is no step \"%1\".", key), {}});
            begin.push_back(kind->fresh);
            if (!first) first = kind;
        }
        const auto gatherings = gather_lanes(*opened.source.drawing, c.workshop.catalog(), first);
        const auto done = apply(TakeIn{opened, no_lanes_ ? std::vector<Gathering>{} : gatherings, begin},
                                project, c.workshop.catalog());
        if (!done) return c.error(done.error());
        report(c, project, done->part, opened, gatherings);
        return fine;
    }

    int take_picture(Context& c, OpenedPicture& opened, Project& project) const {
        if (!steps_.empty())
            return c.error(does_not_apply("--step", "A picture's outlines are traced first."));
        if (no_lanes_) return c.error(does_not_apply("--no-lanes", "A picture's outlines have one lane."));
        if (!strays_.empty()) return c.error(does_not_apply("--strays", "A picture has no lines yet."));
        if (const auto settled = settle(project, opened); !settled) return c.error(settled.error());
        const auto done = apply(MakePart{opened.picture, name_.empty() ? opened.name : name_}, project,
                                c.workshop.catalog(), c.workshop.fonts());
        if (!done) return c.error(done.error());
        const PartId part = done->part;
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        for (const Finding& f : derived->part(part)->findings) // nothing is made of what cannot be traced
            if (f.code == "source.failed") return c.error({"picture.untraced", f.message, {file_, 0}});
        return report_part(c, project, part,
                           "Opened " + file_ + " as \"" + find(project, part)->name + "\".");
    }

    Error does_not_apply(const std::string& option, const std::string& why) const {
        return {"cli.applies", say("%1 does not apply here. %2", option, why), {file_, 0}};
    }

    Result<void> settle(const Project& project, OpenedPicture& opened) const {
        if (!unit_.empty())
            return tl::make_unexpected(
                does_not_apply("--unit", "A picture has pixels: use --per-inch or --width."));
        if (per_inch_ > 0) return settle_width(opened, inches(opened.width / per_inch_));
        if (!width_.empty())
            return length_option(project, width_).and_then([&](Length w) { return settle_width(opened, w); });
        if (!opened.asks_scale) return {};
        return ask(project, scale_choices(opened), "--per-inch 300, --per-inch 150, --per-inch 96");
    }

    Result<void> settle(const Project& project, Opened& opened) const {
        if (!width_.empty()) {
            const auto width = length_option(project, width_);
            if (!width) return tl::make_unexpected(width.error());
            const auto choice = scale_to_width(opened, *width);
            if (!choice) return tl::make_unexpected(choice.error());
            return settle_scale(opened, choice->factor), Result<void>{};
        }
        const char* option = !unit_.empty() ? "--unit" : per_inch_ > 0 ? "--per-inch" : nullptr;
        if (option && !opened.asks_scale)
            return tl::make_unexpected(
                does_not_apply(option, "The file says how large it is: " + size_of(project, opened.box) +
                                           ". Use --width to make it another size."));
        if (option) {
            const double unit = per_inch_ > 0   ? mm_per_inch / per_inch_
                                : unit_ == "in" ? mm_per_inch
                                : unit_ == "cm" ? 10
                                                : 1;
            return settle_scale(opened, factor_for_unit(opened, unit)), Result<void>{};
        }
        if (!opened.asks_scale) return {};
        return ask(project, scale_choices(opened),
                   opened.per_inch ? "--per-inch 96, --per-inch 90, --per-inch 72, --unit mm"
                                   : "--unit mm, --unit cm, --unit in, --per-inch 72");
    }

    static std::string size_of(const Project& project, const Box& box) {
        return to_text(mm(box.width()), project.unit) + " x " + to_text(mm(box.height()), project.unit);
    }

    Result<void> ask(const Project& project, const std::vector<ScaleChoice>& choices,
                     const std::string& options) const {
        std::string question = "The file does not say how large it is. Finished size would be";
        for (const ScaleChoice& choice : choices)
            question += " " + to_text(choice.width, project.unit) + " x " +
                        to_text(choice.height, project.unit) + " at " + choice.label.english() + ";";
        return fail("open.scale", say("%1 or give the finished width. Use %2 or --width.", question, options),
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
        c.out << "\"" << opened.name
              << "\": " << counted(opened.source.drawing->lines.size(), "line", "lines") << ", "
              << to_text(mm(box.width()), project.unit) << " x " << to_text(mm(box.height()), project.unit)
              << "\n";
        for (const Gathering& g : gatherings)
            c.out << "  " << action_name(g.action) << " (" << g.name << "): " << g.lines.size()
                  << (g.lines.size() == 1 ? " line, " : " lines, ") << g.reason << "\n";
        print_findings(c.out, opened.findings);
    }

    std::vector<std::string> steps_;
    std::string file_, path_, width_, name_;
    std::string unit_, strays_;
    double per_inch_ = 0;
    bool no_lanes_ = false, as_picture_ = false, large_ = false;
};

} // namespace

std::unique_ptr<Verb> make_import() {
    return std::make_unique<Import>();
}

} // namespace dotlane::cli
