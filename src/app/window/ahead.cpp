#include "app/window/ahead.h"

#include "core/project/format.h"
#include "core/workflow/data_folder.h"

namespace dotlane::app {

Ahead::Ahead(Workshop& workshop, std::string path)
    : work_(std::async(std::launch::async, [&workshop, path = std::move(path)] {
        auto project = load_project(disk(), path);
        if (!project) return;
        Progress progress;
        workshop.derive(std::make_shared<Project>(std::move(*project)), progress,
                        [&](const auto&) { progress.cancel(); }); // its plan waits for the window
    })) {}

std::optional<Ahead> Ahead::of_arguments(Workshop& workshop, int argc, char** argv) {
    const std::vector<std::string_view> words(argv + 1, argv + argc);
    if (std::find(words.begin(), words.end(), "--shot") != words.end()) return std::nullopt;
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
