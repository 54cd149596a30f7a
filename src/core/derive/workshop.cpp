#include "core/derive/workshop.h"

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
    if (!catalog_.machines.empty()) p.machine = catalog_.machines.front().id;
    return p;
}

Workshop::Workshop(Catalog catalog)
    : catalog_(std::move(catalog)) {}

FontShelf& Workshop::fonts() {
    // Without them lettering uses what is installed, and says so.
    std::call_once(fonts_ready_, [this] { (void)fonts_.add_folder(disk(), data_folder() + "/fonts"); });
    return fonts_;
}

std::shared_ptr<const Derived> Workshop::derive(std::shared_ptr<const Project> project, Progress& progress,
                                                const Early& early, PartId first, Effort effort) {
    const std::lock_guard lock(turn_);
    const Fixed fixed{catalog_, [this]() -> FontShelf& { return fonts(); }};
    return Derivation(std::move(project), fixed, stages_, progress, effort).run(early, first);
}

} // namespace dotlane
