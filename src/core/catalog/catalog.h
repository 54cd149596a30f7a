// Machines, tools, stocks and mats: data files with a source for each figure, and the user's own file on
// top. Everything here is data; nothing in the code knows a machine by name.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/files.h"
#include "core/base/result.h"
#include "core/base/units.h"
#include "core/geometry/point.h"
#include "core/project/project.h"

namespace dotlane {

struct Slot {
    std::string id, name;
    std::vector<std::string> takes; ///< tool kinds
    bool operator==(const Slot&) const = default;
};

struct Machine {
    std::string id, name;
    std::vector<Slot> slots;
    std::vector<std::string> mats;
    Speed travel_speed;
    Acceleration acceleration;
    Length deviation; ///< how far from a corner the tool may be as it passes without stopping
    Duration lift, lower, swap, load_sheet, unload_sheet;
    Length max_thickness;
    Length landing;            ///< how far off a lifted tool lands: standard deviation, along x and along y
    bool follows_trail = true; ///< it makes up by itself for the way in which a drag knife trails
    Duration test = {};        ///< a swatch on a scrap, by hand
    Duration feed = {}; ///< of `load_sheet` and of `unload_sheet` each: the mat into or out of the machine
    bool operator==(const Machine&) const = default;
};

struct Tool {
    std::string id, name, kind;
    std::vector<Action> actions;
    Length tip; ///< width of the mark
    Speed speed;
    Duration warm_up, cool_down; ///< of heated tools, until they work and until they may be touched
    Duration lay_on, lift_off;   ///< of what a tool works through, such as foil, by hand
    Duration per_sheet;          ///< of tools that do a sheet at a time: printers
    std::string caution;
    /// Where its tip touches, seen from where the tip of a plain tool in the same slot would: x to the right,
    /// y down on the mat as loaded. Of chisels and brushes.
    Point offset = {};
    Length trail = {}; ///< of drag knives: how far the tip follows behind the axis
    bool operator==(const Tool&) const = default;
};

/// What a tool is set to for a stock on a machine. What is not given is as it is by itself.
struct Setting {
    enum class From { catalog, maker, swatch };
    std::string tool;               ///< catalog id
    std::string stock;              ///< catalog id, or a kind of stock: all of it; empty: any
    std::string machine;            ///< catalog id; empty: any
    std::optional<double> pressure; ///< as the machine counts it: grams where it can be weighed
    std::optional<Speed> speed;
    std::optional<Length> depth; ///< that a blade looks out
    std::optional<Duration> dry; ///< until its ink can be touched there
    int passes = 1;              ///< 1..8 times the same lines are run
    From from = From::catalog;
    std::string note; ///< whence it is known, in words
    bool operator==(const Setting&) const = default;
};
/// "swatch": in files and on the command line.
const char* key_of(Setting::From from);

struct Stock {
    std::string id, name, kind;
    Length width, height, thickness;
    double grams_per_m2 = 0, price = 0;
    Colour colour;
    Length least_width = mm(0.8); ///< pieces and necks that are thinner tear on the mat
    Length least_piece = mm(2);   ///< across: smaller pieces are lost, or stick to the mat
    bool operator==(const Stock&) const = default;
};

struct Mat {
    std::string id, name, hold;
    Length width, height;
    Box usable; ///< mm, from the mat's top-left corner as loaded
    bool operator==(const Mat&) const = default;
};

struct Envelope {
    std::string id, name;
    Length width, height;
    bool operator==(const Envelope&) const = default;
};

/// A name of the catalog, in the language of who reads it.
template<class Entry>
requires requires(const Entry& e) {
    e.id.size(), e.name.size();
}
Phrase word(const Entry& entry) {
    return as_word("Catalog", entry.name);
}

struct Catalog {
    std::vector<Machine> machines;
    std::vector<Tool> tools;
    std::vector<Stock> stocks;
    std::vector<Mat> mats;
    std::vector<Envelope> envelopes;
    std::vector<Setting> settings;

    const Machine* machine(std::string_view id) const;
    const Tool* tool(std::string_view id) const;
    const Stock* stock(std::string_view id) const;
    const Mat* mat(std::string_view id) const;
    /// What is known about the tool on this stock and machine: what names the stock goes before what names
    /// its kind, that before what holds for any; then what names the machine. Null: nothing.
    const Setting* setting(const Tool& tool, const Stock& stock, const Machine& machine) const;
    /// The first tool listed for an action.
    const Tool* first_tool(Action action) const;
};

/// Reads machines.json, tools.json, stocks.json, envelopes.json and settings.json from `folder`; entries of
/// `user_folder` (may be empty or missing) with the same id replace them, others are added; "offsets" of its
/// files set those of tools that have been read. Errors: "catalog.missing", "catalog.damaged".
Result<Catalog> load_catalog(FileSystem& files, const std::string& folder,
                             const std::string& user_folder = {});

} // namespace dotlane
