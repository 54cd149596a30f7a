#include "app/window/ahead.h"

#include "core/base/data_folder.h"
#include "core/project/format.h"

namespace dotlane::app {

Ahead::Ahead(Workshop& workshop, std::string path)
    : path_(path) {
    auto reading = std::make_shared<std::promise<std::shared_ptr<const Project>>>();
    read_ = reading->get_future().share();
    work_ = std::async(std::launch::async, [&workshop, reading, path = std::move(path)] {
        auto loaded = load_project(disk(), path);
        const auto project = loaded ? std::make_shared<const Project>(std::move(*loaded)) : nullptr;
        reading->set_value(project);
        if (!project) return;
        if (project->parts.empty()) return;
        Progress progress; // the first part is what the window shows first; all else waits for the window
        workshop.derive(project, progress, [&](const auto&) { progress.cancel(); },
                        {project->parts.front().id});
    });
}

std::shared_ptr<const Project> Ahead::project(const std::string& path) const {
    return path == path_ ? read_.get() : nullptr;
}

std::optional<Ahead> Ahead::of_arguments(Workshop& workshop, int argc, char** argv) {
    const std::vector<std::string_view> words(argv + 1, argv + argc);
    for (const std::string_view word : words) {
        if (word == "--demo") return Ahead(workshop, demo_path());
        if (word.ends_with(".dotlane")) return Ahead(workshop, std::string(word));
    }
    return std::nullopt;
}

std::string demo_path() {
    return data_folder() + "/demo/saltmarsh.dotlane";
}

} // namespace dotlane::app
