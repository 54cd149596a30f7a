// Machines, tools, stocks and mats: data files with a source for each figure, and the user's own file on
// top. Everything here is data; nothing in the code knows a machine by name.
#pragma once

#include <string>
#include <vector>

#include "core/base/files.h"
#include "core/base/result.h"
#include "core/base/units.h"
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
    Angle corner; ///< turns up to this are taken without stopping
    Duration lift, lower, swap, load_sheet, unload_sheet;
    Length max_thickness;
    Length landing; ///< how far off a lifted tool lands: standard deviation, along x and along y
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
    bool operator==(const Tool&) const = default;
};

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

    const Machine* machine(std::string_view id) const;
    const Tool* tool(std::string_view id) const;
    const Stock* stock(std::string_view id) const;
    const Mat* mat(std::string_view id) const;
    /// The first tool listed for an action.
    const Tool* first_tool(Action action) const;
};

/// Reads machines.json, tools.json, stocks.json and envelopes.json from `folder`; entries of `user_folder`
/// (may be empty or missing) with the same id replace them, others are added. Errors: "catalog.missing",
/// "catalog.damaged".
Result<Catalog> load_catalog(FileSystem& files, const std::string& folder,
                             const std::string& user_folder = {});

} // namespace dotlane
