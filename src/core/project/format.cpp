#include "core/project/format.h"

#include "core/base/text.h"
#include "core/project/edits.h"

namespace dotlane {

Result<std::string> checked_text(const Project& project, std::uint64_t max_bytes) {
    if (const auto ok = check_numbers(project); !ok) return tl::make_unexpected(ok.error());
    std::string text = write_project(project);
    if (text.size() > max_bytes)
        return fail("project.large",
                    say("The project would be %1 MB, and more than %2 MB could not be opened again. Nothing "
                        "was saved: take a large part out, or open its drawing simplified.",
                        text.size() >> 20, max_bytes >> 20));
    // What cannot be read back is not saved: the old file may be all that is left.
    // Bytes that are no text were replaced as they were written: then what it gives the second time counts.
    const auto back = read_project(text);
    if (!back || !(*back == project || write_project(*back) == text))
        return fail("project.unsafe",
                    say("The project was not saved, as it could not be opened again%1 The file on disk is "
                        "unchanged; undo what was done last, and report this.",
                        (back ? say(".") : say(": %1", back.error().message))));
    return text;
}

Result<Project> load_project(FileSystem& files, const std::string& path) {
    return files.read(path, project_max_bytes).and_then([&](const std::string& bytes) {
        return read_project(bytes, path);
    });
}

Result<void> save_project(FileSystem& files, const std::string& path, const Project& project, Access access) {
    return checked_text(project).and_then(
        [&](const std::string& text) { return files.write_atomically(path, text, access); });
}

} // namespace dotlane
