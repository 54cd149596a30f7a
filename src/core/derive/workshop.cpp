#include "core/derive/workshop.h"

#include <tuple>

#include "core/base/data_folder.h"
#include "core/derive/derivation.h"
#include "core/project/format.h"

namespace dotlane {

const EvaluatedPart* Derived::part(PartId id) const {
    const auto it = parts.find(id);
    return it == parts.end() ? nullptr : it->second.get();
}

const LaidSheet* Derived::sheet(SheetId id) const {
    for (const LaidSheet& s : sheets)
        if (s.sheet == id) return &s;
    return nullptr;
}

Project Workshop::new_project(std::string name) const {
    Project p;
    p.name = std::move(name);
    if (!catalog().machines.empty()) p.machine = catalog().machines.front().id;
    return p;
}

Workshop::Workshop(Catalog catalog) {
    take_catalog(std::move(catalog));
}

void Workshop::take_catalog(Catalog catalog) {
    const std::lock_guard lock(turn_);
    const auto all = [](const Catalog& c) {
        return std::tie(c.machines, c.tools, c.stocks, c.mats, c.envelopes, c.settings);
    };
    if (!catalogs_.empty() && all(catalogs_.back()) == all(catalog)) return;
    catalogs_.push_back(std::move(catalog));
    catalog_ = &catalogs_.back();
    stages_ = {}; // they read it beside their keys
}

FontShelf& Workshop::fonts() {
    // Without them lettering uses what is installed, and says so.
    std::call_once(fonts_ready_, [this] { (void)fonts_.add_folder(disk(), data_folder() + "/fonts"); });
    return fonts_;
}

std::shared_ptr<const Derived> Workshop::derive(std::shared_ptr<const Project> project, Progress& progress,
                                                const Early& early, const Wanted& wanted) {
    const std::lock_guard lock(turn_);
    const Fixed fixed{catalog(), [this]() -> FontShelf& { return fonts(); }};
    return Derivation(std::move(project), fixed, stages_, progress, wanted).run(early);
}

} // namespace dotlane
