#include "cli/verb.h"
#include "core/base/text.h"
#include "core/checks/project_checks.h"
#include "core/commands/placing.h"
#include "core/commands/sheets.h"
#include "core/project/edits.h"

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
        app.add_option("--columns", grid_.columns, "Copies across");
        app.add_option("--rows", grid_.rows, "Copies down");
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
            if (const auto ok = set_quantity(project, *part, wanted_); !ok) return c.error(ok.error());
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
            Sheet& s = *find(project, sheet);
            if (!stock_.empty()) s.stock = stock_;
            if (!mat_.empty()) s.mat = mat_;
        }
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const EvaluatedPart& evaluated = *derived->part(*part);
        if (pieces_) return place_missing(c, project, *derived, sheet, evaluated);
        if (!is_there(evaluated, piece_))
            return c.error({"place.piece",
                            say("\"%1\" has no piece %2 that lies apart. The step \"lay-apart\" makes them.",
                                find(project, *part)->name, piece_),
                            {}});
        const auto wish = read_wish(project, *part);
        if (!wish) return c.error(wish.error());
        // Where it must lie is said: there it lies, and nothing is turned unasked. Otherwise a free place is
        // found.
        const auto placed = left_.empty() && top_.empty()
                                ? place_free(project, catalog, *derived, sheet, *wish)
                                : place_there(project, evaluated, sheet, *wish);
        return placed ? report(c, project, *placed) : c.error(placed.error());
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

    Result<std::vector<PlacementId>> place_there(Project& project, const EvaluatedPart& part, SheetId sheet,
                                                 const PlaceWish& wish) const {
        Placement p{{}, wish.part, {}, {}, wish.turn.value_or(Angle{}), wish.mirrored, wish.piece};
        const Extent extent = extent_of(part, wish.piece);
        const auto moved = moved_to(project, p, extent);
        if (!moved) return tl::make_unexpected(moved.error());
        const auto places = grid(*moved, extent, wish.copies);
        return places ? place_all(project, sheet, *places) : tl::make_unexpected(places.error());
    }

    /// With its box at --left and --top; what is not given stays, or is 0 for what lies nowhere yet.
    Result<Placement> moved_to(const Project& project, const Placement& p, const Extent& extent) const {
        const Box now = p.id ? placed_box(p, extent) : Box{0, 0, 0, 0};
        Length left = mm(now.x0), top = mm(now.y0);
        for (const auto& [text, into] : {std::pair(&left_, &left), std::pair(&top_, &top)}) {
            if (text->empty()) continue;
            const auto v = length_option(project, *text);
            if (!v) return tl::make_unexpected(v.error());
            *into = *v;
        }
        return with_box_at(p, extent, left, top);
    }

    int place_missing(Context& c, Project& project, const Derived& derived, SheetId sheet,
                      const EvaluatedPart& part) {
        if (part.apart.empty())
            return c.error(
                {"place.piece", say("Its pieces lie as one. Add the step \"lay-apart\" first."), {}});
        const auto made = place_pieces(project, c.workshop.catalog(), derived, sheet, part.part,
                                       missing_pieces(project, part));
        return made ? report(c, project, *made) : c.error(made.error());
    }

    int change(Context& c, Project& project) {
        if (remove_) {
            SheetId on;
            const Placement* gone = find_placement(project, PlacementId{change_}, &on);
            const PartId part = gone ? gone->part : PartId{};
            const std::string name = gone ? placed_name(project, *gone).english() : "";
            const auto ok = remove_placement(project, PlacementId{change_});
            if (!ok) return c.error(ok.error());
            if (c.json)
                c.print({{"removed", change_}, {"part", part.value}, {"sheet", on.value}});
            else
                c.out << "\"" << name << "\" (" << change_ << ") is taken off its sheet\n";
            return fine;
        }
        const Placement* found = find_placement(project, PlacementId{change_});
        if (!found)
            return c.error(
                {"cli.unknown", say("There is no placed part %1. See `dot-lane-cli show`.", change_), {}});
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        SheetId on;
        (void)find_placement(project, found->id, &on);
        // What is grouped is moved, turned and mirrored together, about the middle of all.
        auto all = lying(project, *derived, with_groups(*find(project, on), {found->id}));
        if (all.empty())
            return c.error(
                {"place.piece", say("It is no longer there: its recipe makes other pieces now."), {}});
        const auto take = [&](const std::vector<Placement>& places) {
            for (std::size_t i = 0; i < all.size(); ++i)
                all[i].placement = places[i], all[i].box = placed_box(places[i], all[i].extent);
        };
        const auto one = [&]() -> const Lying& {
            return *std::find_if(all.begin(), all.end(),
                                 [&](const Lying& l) { return l.placement.id.value == change_; });
        };
        if (!turn_.empty()) {
            const auto turn = parse_angle(turn_);
            if (!turn) return c.error(turn.error());
            const Angle by = *turn - one().placement.turn;
            if (all.size() == 1)
                take({turned_about_middle(one().placement, one().extent, *turn)});
            else
                take(turned(all, by));
        }
        if (mirror_option_->count() > 0 && one().placement.mirrored != mirror_) take(mirrored(all));
        if (!left_.empty() || !top_.empty()) {
            const auto to = moved_to(project, one().placement, one().extent);
            if (!to) return c.error(to.error());
            const Length right = to->left - one().placement.left, down = to->top - one().placement.top;
            std::vector<Placement> places;
            for (const Lying& l : all) {
                places.push_back(l.placement);
                places.back().left += right, places.back().top += down;
            }
            take(places);
        }
        std::vector<Placement> places;
        for (const Lying& l : all)
            places.push_back(l.placement);
        if (const auto ok = change_placements(project, places); !ok) return c.error(ok.error());
        std::vector<PlacementId> ids;
        for (const Placement& p : places)
            ids.push_back(p.id);
        return report(c, project, ids);
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
        if (!scale_.empty()) {
            // "50%" and "0.5" are the same scale.
            const auto v = scale_.ends_with('%') ? parse_percent(scale_).map([](double p) { return p / 100; })
                                                 : parse_number(scale_);
            return v ? scale_part(project, id, *v) : tl::make_unexpected(v.error());
        }
        if (width_.empty()) return {};
        const auto v = length_option(project, width_);
        if (!v) return tl::make_unexpected(v.error());
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        const double now = derived->part(id)->source_box.width();
        if (now < 1e-9) return fail("part.scale", say("The part has no width to scale."));
        return scale_part(project, id, find(project, id)->scale * in_mm(*v) / now);
    }

    static int report(Context& c, const Project& project, const std::vector<PlacementId>& ids) {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        Findings sheet;
        for (const Finding& f : derived->findings)
            if (f.code.starts_with("sheet.")) sheet.push_back(f);
        json placements = json::array();
        if (!c.json) c.out << counted(ids.size(), "part placed", "parts placed") << "\n";
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
            c.print({{"placed", ids.size()}, {"placements", placements}, {"findings", to_json(sheet)}});
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
