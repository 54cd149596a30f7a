#include "cli/verb.h"
#include "core/base/text.h"
#include "core/checks/project_checks.h"
#include "core/commands/arranging.h"
#include "core/commands/parts.h"
#include "core/commands/placing.h"
#include "core/commands/sheets.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

class Place final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        app.add_option("--sheet", sheet_, "Sheet by name or number");
        app.add_option("--new-sheet", new_sheet_, "Add a sheet under this name and place there");
        app.add_option("--stock", stock_, "Stock of the sheet (catalog id)");
        app.add_option("--mat", mat_, "Mat of the sheet (catalog id)");
        app.add_option("--change", change_, "Change this placed part (number) instead of placing another");
        app.add_flag("--remove", remove_, "Take the placed part off its sheet");
        app.add_option("--piece", piece_, "One piece of a part whose pieces may lie apart")
            ->check(CLI::Range(1, 100000));
        app.add_flag("--pieces", pieces_, "All pieces that lie on no sheet yet, one by one");
        app.add_option("--left", left_, "From the mat's left edge to the part's box");
        app.add_option("--top", top_, "From the mat's top edge to the part's box");
        app.add_option("--turn", turn_, "Clockwise, in degrees");
        app.add_flag("--mirror,!--no-mirror", mirror_, "Mirror left to right");
        app.add_option("--columns", grid_.columns, "Copies across, of --change too");
        app.add_option("--rows", grid_.rows, "Copies down, of --change too");
        app.add_option("--gap", gap_, "Between copies");
        app.add_option("--scale", scale_, "Scale of the part against its source");
        app.add_option("--wanted", wanted_, "How many of the part are wanted")->check(CLI::Range(1, 9999));
        app.add_option("--part-width", width_, "Finished width of the part");
        mirror_option_ = app.get_option("--mirror");
    }

    int act(Context& c, Project& project) override {
        const Catalog& catalog = c.workshop.catalog();
        if (!stock_.empty() && !catalog.stock(stock_))
            return c.error({"cli.unknown", say("There is no stock \"%1\" in the catalog.", stock_), {}});
        if (!mat_.empty() && !catalog.mat(mat_))
            return c.error({"cli.unknown", say("There is no mat \"%1\" in the catalog.", mat_), {}});
        if (change_ > 0) return change(c, project);
        const auto part = part_named(project, part_);
        if (!part) return c.error(part.error());
        if (wanted_ > 0)
            if (const auto ok = apply(WantPart{*part, wanted_}, project); !ok) return c.error(ok.error());
        if (const auto ok = resize(c, project, *part); !ok) return c.error(ok.error());
        if ((!scale_.empty() || !width_.empty() || wanted_ > 0) && sheet_.empty() && new_sheet_.empty() &&
            left_.empty())
            return resized(c, project, *part);
        SheetId sheet;
        if (!new_sheet_.empty() || project.sheets.empty()) {
            const auto added = apply(AddSheet{new_sheet_, stock_, mat_}, project, catalog);
            if (!added) return c.error(added.error());
            sheet = added->sheet;
        } else {
            // Where no place is said, all sheets are looked through from the first on.
            const bool anywhere = sheet_.empty() && left_.empty() && top_.empty();
            const auto named = anywhere ? project.sheets.front().id : sheet_named(project, sheet_);
            if (!named) return c.error(named.error());
            sheet = *named;
            ChangeSheet changes{sheet};
            if (!stock_.empty()) changes.stock = stock_;
            if (!mat_.empty()) changes.mat = mat_;
            if (changes.stock || changes.mat)
                if (const auto ok = apply(changes, project, catalog); !ok) return c.error(ok.error());
        }
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        if (pieces_) return report(c, project, apply(PlacePieces{sheet, *part}, project, catalog, *derived));
        const auto wish = read_wish(project, *part);
        if (!wish) return c.error(wish.error());
        const auto at = corner(project);
        if (!at) return c.error(at.error());
        return report(c, project,
                      apply(PlacePart{sheet, *wish, at->left, at->top}, project, catalog, *derived));
    }

    Result<PlaceWish> read_wish(const Project& project, PartId part) const {
        PlaceWish wish{part, piece_, {}, mirror_, mm(5), grid_};
        if (!turn_.empty()) {
            const auto turn = parse_angle(turn_);
            if (!turn) return tl::make_unexpected(turn.error());
            wish.turn = *turn;
        }
        if (!gap_.empty()) {
            const auto gap = length_option(project, gap_);
            if (!gap) return tl::make_unexpected(gap.error());
            wish.copies.gap = *gap;
        }
        return wish;
    }

    /// --left and --top.
    struct Corner {
        std::optional<Length> left, top;
    };
    Result<Corner> corner(const Project& project) const {
        Corner out;
        for (const auto& [text, into] : {std::pair(&left_, &out.left), std::pair(&top_, &out.top)}) {
            if (text->empty()) continue;
            const auto v = length_option(project, *text);
            if (!v) return tl::make_unexpected(v.error());
            *into = *v;
        }
        return out;
    }

    int change(Context& c, Project& project) {
        const Catalog& catalog = c.workshop.catalog();
        const PlacementId id{change_};
        if (!find_placement(project, id))
            return c.error(
                {"cli.unknown", say("There is no placed part %1. See `dot-lane-cli show`.", change_), {}});
        if (remove_) {
            const auto done = apply(TakeOff{{{id}}}, project);
            if (!done) return c.error(done.error());
            if (c.json)
                c.print({{"done", done->said},
                         {"removed", change_},
                         {"part", done->part.value},
                         {"sheet", done->sheet.value}});
            else
                c.out << done->said << "\n";
            return fine;
        }
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const auto at = corner(project);
        if (!at) return c.error(at.error());
        ChangePlaced command{id, at->left, at->top};
        if (!turn_.empty()) {
            const auto turn = parse_angle(turn_);
            if (!turn) return c.error(turn.error());
            command.turn = *turn;
        }
        if (mirror_option_->count() > 0) command.mirrored = mirror_;
        const bool in_a_grid = grid_.columns != 1 || grid_.rows != 1;
        auto done = apply(command, project, catalog, *derived);
        if (!done || !in_a_grid) return report(c, project, done);
        const auto gap = copies_gap(project);
        if (!gap) return c.error(gap.error());
        return report(c, project,
                      apply(CopyInGrid{id, {grid_.columns, grid_.rows, *gap}}, project, catalog, *derived));
    }

    /// --gap; what is offered when it is not given.
    Result<Length> copies_gap(const Project& project) const {
        return gap_.empty() ? Result<Length>(GridOptions{}.gap) : length_option(project, gap_);
    }

    static int resized(Context& c, const Project& project, PartId id) {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const Part& part = *find(project, id);
        const Box box = derived->part(id)->box;
        if (c.json)
            c.print({{"part", id.value},
                     {"name", part.name},
                     {"width_mm", box.width()},
                     {"height_mm", box.height()},
                     {"scale", part.scale},
                     {"quantity", part.quantity}});
        else
            c.out << "\"" << part.name << "\": " << to_text(mm(box.width()), project.unit) << " x "
                  << to_text(mm(box.height()), project.unit) << ", " << part.quantity << " wanted\n";
        return fine;
    }

    Result<void> resize(Context& c, Project& project, PartId id) const {
        SizePart command{id};
        if (!scale_.empty()) {
            // "50%" and "0.5" are the same scale.
            const auto v = scale_.ends_with('%') ? parse_percent(scale_).map([](double p) { return p / 100; })
                                                 : parse_number(scale_);
            if (!v) return tl::make_unexpected(v.error());
            command.scale = *v;
        } else if (!width_.empty()) {
            const auto v = length_option(project, width_);
            if (!v) return tl::make_unexpected(v.error());
            command.width = *v;
        } else
            return {};
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        return apply(command, project, c.workshop.catalog(), *derived->part(id)).map([](const Done&) {});
    }

    static int report(Context& c, const Project& project, const Result<Done>& done) {
        if (!done) return c.error(done.error());
        const std::vector<PlacementId>& ids = done->placements;
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        Findings sheet;
        for (const Finding& f : derived->findings)
            if (f.code.starts_with("sheet.")) sheet.push_back(f);
        json placements = json::array();
        if (!c.json) c.out << done->said << "\n";
        for (const LaidSheet& laid : derived->sheets)
            for (const PlacedPart& p : laid.parts) {
                if (std::find(ids.begin(), ids.end(), p.placement.id) == ids.end()) continue;
                placements.push_back({{"id", p.placement.id.value},
                                      {"part", p.placement.part.value},
                                      {"sheet", laid.sheet.value},
                                      {"piece", p.placement.piece},
                                      {"left_mm", p.box.x0},
                                      {"top_mm", p.box.y0},
                                      {"turn_degrees", in_degrees(p.placement.turn)},
                                      {"mirrored", p.placement.mirrored}});
                if (!c.json)
                    c.out << "  \"" << placed_name(project, p.placement) << "\" (" << p.placement.id.value
                          << ") on " << find(project, laid.sheet)->name << " at "
                          << to_text(mm(p.box.x0), project.unit) << ", "
                          << to_text(mm(p.box.y0), project.unit) << "\n";
            }
        if (c.json)
            c.print({{"done", done->said},
                     {"placed", ids.size()},
                     {"placements", placements},
                     {"findings", to_json(sheet)}});
        else
            print_findings(c.out, sheet);
        return count(sheet, Grade::error) > 0 ? findings : fine;
    }

    std::string part_, sheet_, new_sheet_, stock_, mat_, left_, top_, turn_, gap_, scale_, width_;
    std::uint32_t change_ = 0;
    int wanted_ = 0, piece_ = 0;
    bool pieces_ = false, remove_ = false, mirror_ = false;
    GridOptions grid_;
    CLI::Option* mirror_option_ = nullptr;
};

} // namespace

std::unique_ptr<Verb> make_place() {
    return std::make_unique<Place>();
}

} // namespace dotlane::cli
