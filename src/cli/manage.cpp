// Parts, sheets and the project as wholes: named, copied, removed, given stock.
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/parts.h"
#include "core/commands/project.h"
#include "core/commands/sheets.h"
#include "core/derive/correction.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

/// Commands one after another, all or none of them: what they answered.
class Answers {
  public:
    explicit Answers(Context& context)
        : c_(context) {}
    bool add(const Result<Done>& done) {
        if (done)
            all_.push_back(*done);
        else if (failed_ = true; true)
            code_ = c_.error(done.error());
        return !failed_;
    }
    int tell() const {
        if (failed_) return code_;
        json said = json::array(), lost = json::array();
        json out = json::object();
        for (const Done& done : all_) {
            said.push_back(done.said);
            for (const Phrase& l : done.lost)
                lost.push_back(l);
            if (done.part) out["part"] = done.part.value;
            if (done.sheet) out["sheet"] = done.sheet.value;
        }
        out["done"] = said, out["lost"] = lost;
        if (c_.json) {
            c_.print(out);
            return fine;
        }
        for (const Done& done : all_) {
            c_.out << done.said << "\n";
            for (const Phrase& l : done.lost)
                c_.out << "  " << l << "\n";
        }
        return fine;
    }

  private:
    Context& c_;
    std::vector<Done> all_;
    bool failed_ = false;
    int code_ = fine;
};

Error nothing(const char* options) {
    return {"cli.nothing", say("Say what to do: %1.", as_is(options)), {}};
}

class PartVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--part", part_, "Part by name or number");
        auto* copy =
            app.add_flag("--copy", copy_, "Make another part like it; the other options are of the copy");
        app.add_flag("--remove", remove_, "Remove it, from its sheets too")->excludes(copy);
        rename_ = app.add_option("--rename,--name", name_, "Its new name");
        app.add_option("--quantity", quantity_, "How many are wanted");
        stock_option_ = app.add_option("--stock", stock_, "Stock it is meant for (catalog id); '' for none");
    }

    int act(Context& c, Project& project) override {
        auto part = part_named(project, part_);
        if (!part) return c.error(part.error());
        Answers answers(c);
        const bool changes = rename_->count() > 0 || quantity_ || stock_option_->count() > 0;
        if (!copy_ && !remove_ && !changes)
            return c.error(nothing("--rename, --copy, --remove, --quantity or --stock"));
        if (remove_) {
            if (changes)
                return c.error({"cli.both", say("A part that is removed cannot be changed as well."), {}});
            answers.add(apply(RemovePart{*part}, project));
            return answers.tell();
        }
        if (copy_) {
            const auto done = apply(CopyPart{*part, name_}, project);
            if (!answers.add(done)) return answers.tell();
            part = done->part;
        } else if (rename_->count() > 0 && !answers.add(apply(RenamePart{*part, name_}, project))) {
            return answers.tell();
        }
        if (quantity_ && !answers.add(apply(WantPart{*part, *quantity_}, project))) return answers.tell();
        if (stock_option_->count() > 0)
            answers.add(apply(StockPart{*part, stock_}, project, c.workshop.catalog()));
        return answers.tell();
    }

    std::string part_, name_, stock_;
    std::optional<int> quantity_;
    bool copy_ = false, remove_ = false;
    CLI::Option *rename_ = nullptr, *stock_option_ = nullptr;
};

class SheetVerb final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--sheet", sheet_, "Sheet by name or number");
        auto* add = app.add_flag("--add", add_, "Add a sheet, like the last one where nothing else is said");
        app.add_flag("--remove", remove_, "Remove it; what lies on it lies nowhere then")->excludes(add);
        app.add_flag("--clear", clear_, "Take all off it that lies there");
        app.add_option("--rename,--name", name_, "Its new name");
        app.add_option("--stock", stock_, "Its stock (catalog id)");
        app.add_option("--mat", mat_, "Its mat (catalog id)");
        app.add_option("--found", found_,
                       "Where the machine found the first three marks of its print: x,y x,y x,y on the mat; "
                       "'none' to forget them");
    }

    int act(Context& c, Project& project) override {
        const Catalog& catalog = c.workshop.catalog();
        Answers answers(c);
        if (add_) {
            if (!sheet_.empty())
                return c.error({"cli.both", say("--add takes no --sheet; name the new one by --name."), {}});
            answers.add(apply(AddSheet{name_.value_or(""), stock_.value_or(""), mat_.value_or("")}, project,
                              catalog));
            return answers.tell();
        }
        const auto sheet = sheet_named(project, sheet_);
        if (!sheet) return c.error(sheet.error());
        const bool changes = name_ || stock_ || mat_ || found_;
        if (remove_ && changes)
            return c.error({"cli.both", say("A sheet that is removed cannot be changed as well."), {}});
        if (!remove_ && !changes && !clear_)
            return c.error(nothing("--add, --clear, --rename, --stock, --mat, --found or --remove"));
        if (clear_ && !answers.add(apply(ClearSheet{*sheet}, project))) return answers.tell();
        if (remove_) answers.add(apply(RemoveSheet{*sheet}, project));
        ChangeSheet change{*sheet, name_, stock_, mat_};
        if (found_) {
            auto found = places(*found_, project.unit);
            if (!found) return c.error(found.error());
            const auto printed = found->empty() ? std::vector<Point>() : printed_marks(c, project, *sheet);
            if (!found->empty() && (printed.size() < 3 || found->size() != 3))
                return c.error({"sheet.marks",
                                say("Three marks are measured: %1 were printed, %2 were found.",
                                    printed.size(), found->size()),
                                {}});
            if (!found->empty()) found->insert(found->begin(), printed.begin(), printed.begin() + 3);
            change.found = std::move(*found);
        }
        if (changes) answers.add(apply(change, project, catalog));
        return answers.tell();
    }

    static std::vector<Point> printed_marks(const Context& c, const Project& project, SheetId sheet) {
        const auto derived = c.workshop.derive(std::make_shared<Project>(project));
        if (derived->plan)
            for (const PrintSheet& print : derived->plan->program.prints)
                if (print.sheet.sheet == sheet) return mark_places(print);
        return {};
    }

    static Result<std::vector<Point>> places(const std::string& text, LengthUnit unit) {
        std::vector<Point> out;
        if (text == "none") return out;
        for (const std::string_view place : split(text, " ;")) {
            if (place.empty()) continue;
            const auto xy = split(place, ",");
            if (xy.size() != 2)
                return fail("cli.places", say("\"%1\" is no place: write it as 20.1,30.2.", place));
            const auto x = parse_length(xy[0], unit), y = parse_length(xy[1], unit);
            if (!x || !y) return tl::make_unexpected(x ? y.error() : x.error());
            out.push_back({in_mm(*x), in_mm(*y)});
        }
        return out;
    }

    std::string sheet_;
    std::optional<std::string> name_, stock_, mat_, found_;
    bool add_ = false, remove_ = false, clear_ = false;
};

class ProjectSettings final : public ProjectVerb {
    void options(CLI::App& app) override {
        app.add_option("--rename,--name", name_, "Its name");
        app.add_option("--unit", unit_, "Unit that lengths are shown and typed in")
            ->check(CLI::IsMember({"mm", "in"}));
        app.add_option("--machine", machine_, "Machine it is made on (catalog id)");
        app.add_option("--pass-order", order_,
                       "Order in which lanes run, by plate: D,F,S,C; 'usual' for the planner's own");
        app.add_flag("--drop-empty-lanes", drop_, "Remove lanes that nothing is sent to");
    }

    int act(Context& c, Project& project) override {
        const Catalog& catalog = c.workshop.catalog();
        ChangeProject change{name_, {}, machine_, {}};
        if (unit_) change.unit = *unit_ == "in" ? LengthUnit::inch : LengthUnit::mm;
        if (order_) {
            const auto order = lanes_named(project, *order_);
            if (!order) return c.error(order.error());
            change.pass_order = *order;
        }
        const bool changes = name_ || unit_ || machine_ || order_;
        if (!changes && !drop_) return show(c, project);
        Answers answers(c);
        if (changes && !answers.add(apply(change, project, catalog))) return answers.tell();
        if (drop_) answers.add(apply(RemoveEmptyLanes{}, project));
        return answers.tell();
    }

    static int show(Context& c, const Project& project) {
        std::string order;
        for (const LaneId lane : project.pass_order)
            order += (order.empty() ? "" : ",") + plate(project, lane);
        const char* unit = project.unit == LengthUnit::inch ? "in" : "mm";
        if (order.empty()) order = "usual";
        if (c.json)
            c.print({{"name", project.name},
                     {"unit", unit},
                     {"machine", project.machine},
                     {"pass_order", order},
                     {"parts", project.parts.size()},
                     {"lanes", project.lanes.size()},
                     {"sheets", project.sheets.size()}});
        else
            c.out << project.name << "\nunit " << unit << ", machine " << project.machine << ", pass order "
                  << order << "\n"
                  << counted(project.parts.size(), "part", "parts") << ", "
                  << counted(project.lanes.size(), "lane", "lanes") << ", "
                  << counted(project.sheets.size(), "sheet", "sheets") << "\n";
        return fine;
    }

    std::optional<std::string> name_, unit_, machine_, order_;
    bool drop_ = false;
};

} // namespace

std::unique_ptr<Verb> make_part() {
    return std::make_unique<PartVerb>();
}
std::unique_ptr<Verb> make_sheet() {
    return std::make_unique<SheetVerb>();
}
std::unique_ptr<Verb> make_project() {
    return std::make_unique<ProjectSettings>();
}

} // namespace dotlane::cli
