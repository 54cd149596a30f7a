// A book of samples of all styles of fill.
#include "core/commands/samples.h"
#include "cli/names.h"
#include "cli/verb.h"

namespace dotlane::cli {
namespace {

class Samples final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("project", path_, "The project file (.dotlane); made when it does not exist")
            ->required();
        app.add_option("--lane", lane_, "Lane that draws them; the first that draws when left out");
        app.add_flag(
            "--crosses", crosses_,
            "A sheet of crosses instead, one a tool, to measure where tips touch (see setting --offset)");
    }

    bool writes() const override { return true; }

    int run(Context& c) override {
        return change_project(c, path_, true, [&](Project& project) {
            AddSamples command;
            if (!lane_.empty()) {
                const auto lane = lane_named(project, lane_);
                if (!lane) return c.error(lane.error());
                command.lane = *lane;
            }
            const auto done = crosses_ ? apply(AddCrosses{}, project, c.workshop.catalog())
                                       : apply(command, project, c.workshop.catalog(), c.workshop.fonts());
            if (!done) return c.error(done.error());
            if (c.json)
                c.print({{"done", done->said}, {"sheet", done->sheet.value}, {"parts", done->parts.size()}});
            else
                c.out << done->said << "\n";
            return static_cast<int>(fine);
        });
    }

    std::string path_, lane_;
    bool crosses_ = false;
};

} // namespace

std::unique_ptr<Verb> make_samples() {
    return std::make_unique<Samples>();
}

} // namespace dotlane::cli
