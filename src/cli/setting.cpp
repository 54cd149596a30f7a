#include <charconv>

#include "cli/verb.h"
#include "core/base/data_folder.h"
#include "core/base/text.h"
#include "core/catalog/user_catalog.h"
#include "core/commands/command.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

class SettingVerb final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("--tool", tool_, "The tool (catalog id)");
        app.add_option("--stock", stock_, "The stock (catalog id), or a kind of stock; missing: any");
        app.add_option("--machine", machine_, "The machine (catalog id); missing: any");
        app.add_option("--pressure", pressure_, "As the machine counts it");
        app.add_option("--speed", speed_, "mm/s");
        app.add_option("--depth", depth_, "That the blade looks out, mm");
        app.add_option("--dry", dry_, "Until its ink can be touched, seconds");
        app.add_option("--passes", passes_, "Times the same lines are run")->check(CLI::Range(1, 8));
        app.add_option("--from", from_, "Whence it is known: your own, or from a swatch that you tried")
            ->check(CLI::IsMember({"maker", "swatch"}));
        app.add_option("--note", note_, "In your words");
        app.add_flag("--forget", forget_, "Take away what was kept for these");
        app.add_option(
            "--offset", offset_,
            "Where the tip touches, seen from where a plain tool's would: mm to the right and down, "
            "'1.2,-0.5'; '0,0' for a plain one");
    }

    int run(Context& c) override {
        const Catalog& catalog = c.workshop.catalog();
        if (tool_.empty()) return show(c);
        const Tool* tool = catalog.tool(tool_);
        if (!tool) return c.error(not_in_catalog(say("tool"), tool_, ids_of(catalog.tools)));
        if (!machine_.empty() && !catalog.machine(machine_))
            return c.error(not_in_catalog(say("machine"), machine_, ids_of(catalog.machines)));
        const bool kind = std::any_of(catalog.stocks.begin(), catalog.stocks.end(),
                                      [&](const Stock& s) { return s.kind == stock_; });
        if (!stock_.empty() && !kind && !catalog.stock(stock_))
            return c.error(not_in_catalog(say("stock"), stock_, ids_of(catalog.stocks)));
        const std::string folder = user_catalog_folder();
        if (!offset_.empty()) {
            const auto comma = offset_.find(',');
            double x = 0, y = 0;
            const char *begin = offset_.data(), *end = begin + offset_.size();
            const bool fine = comma != offset_.npos &&
                              std::from_chars(begin, begin + comma, x).ptr == begin + comma &&
                              std::from_chars(begin + comma + 1, end, y).ptr == end;
            if (!fine)
                return c.error({"cli.offset", say("\"%1\" is no offset: write '1.2,-0.5'.", offset_), {}});
            if (const auto ok = keep_offset(c.files, folder, tool_, {x, y}); !ok) return c.error(ok.error());
            return told(c, say("The tip of the %1 touches %2 mm to the right and %3 mm down.", word(*tool),
                               number(x, 3), number(y, 3)));
        }
        if (forget_) {
            if (const auto ok = forget_setting(c.files, folder, tool_, stock_, machine_); !ok)
                return c.error(ok.error());
            return told(c, say("Forgotten for the %1.", word(*tool)));
        }
        if (!pressure_ && !speed_ && !depth_ && !dry_ && !passes_ && from_.empty()) return show(c);
        Setting setting; // numbers that are not given stay as they are for these
        for (const Setting& s : catalog.settings)
            if (s.tool == tool_ && s.stock == stock_ && s.machine == machine_) setting = s;
        setting.tool = tool_, setting.stock = stock_, setting.machine = machine_;
        if (pressure_) setting.pressure = pressure_;
        if (speed_) setting.speed = mm_per_second(*speed_);
        if (depth_) setting.depth = mm(*depth_);
        if (dry_) setting.dry = seconds(*dry_);
        setting.passes = passes_.value_or(setting.passes);
        setting.from = from_ == "swatch" ? Setting::From::swatch : Setting::From::maker;
        setting.note = note_;
        if (const auto ok = keep_setting(c.files, folder, setting); !ok) return c.error(ok.error());
        return told(c, say("Kept for the %1.", word(*tool)));
    }

    static int told(Context& c, const Phrase& said) {
        if (c.json)
            c.print({{"done", said}});
        else
            c.out << said << "\n";
        return fine;
    }

    /// All that is known, or what is known of one tool.
    int show(Context& c) const {
        const Catalog& catalog = c.workshop.catalog();
        json settings = json::array(), offsets = json::array();
        for (const Setting& s : catalog.settings) {
            if (!tool_.empty() && s.tool != tool_) continue;
            json j = {{"tool", s.tool}, {"stock", s.stock}, {"machine", s.machine}, {"passes", s.passes}};
            if (s.pressure) j["pressure"] = *s.pressure;
            if (s.speed) j["speed_mm_s"] = in_mm_per_second(*s.speed);
            if (s.depth) j["depth_mm"] = in_mm(*s.depth);
            if (s.dry) j["dry_s"] = in_seconds(*s.dry);
            j["from"] = key_of(s.from), j["note"] = s.note;
            settings.push_back(std::move(j));
        }
        for (const Tool& tool : catalog.tools)
            if (tool.offset != Point{} && (tool_.empty() || tool.id == tool_))
                offsets.push_back({{"tool", tool.id}, {"offset_mm", {tool.offset.x, tool.offset.y}}});
        if (c.json) {
            c.print({{"settings", settings}, {"offsets", offsets}});
            return fine;
        }
        for (const json& s : settings) {
            c.out << s["tool"].get<std::string>() << " on "
                  << (s["stock"].get<std::string>().empty() ? "any stock" : s["stock"].get<std::string>());
            for (const auto& [key, words] :
                 {std::pair{"pressure", "pressure"}, std::pair{"speed_mm_s", "mm/s"},
                  std::pair{"depth_mm", "mm out"}, std::pair{"dry_s", "dry after s"}})
                if (s.contains(key)) c.out << ", " << words << " " << number(s[key].get<double>(), 2);
            if (s["passes"].get<int>() > 1) c.out << ", " << s["passes"].get<int>() << " passes";
            c.out << " (" << s["from"].get<std::string>() << ")\n";
        }
        for (const json& o : offsets)
            c.out << o["tool"].get<std::string>() << " touches at "
                  << number(o["offset_mm"][0].get<double>(), 3) << ", "
                  << number(o["offset_mm"][1].get<double>(), 3) << " mm\n";
        if (settings.empty() && offsets.empty()) c.out << "nothing is known\n";
        return fine;
    }

    std::string tool_, stock_, machine_, from_, offset_, note_;
    std::optional<double> pressure_, speed_, depth_, dry_;
    std::optional<int> passes_;
    bool forget_ = false;
};

} // namespace

std::unique_ptr<Verb> make_setting() {
    return std::make_unique<SettingVerb>();
}

} // namespace dotlane::cli
