// What an export made in its folder, written down there: the next export takes away of it what is no longer
// right, and touches nothing else.
#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "core/base/files.h"

namespace dotlane {

inline constexpr const char* manifest_name = "dot-lane-export.json";

/// How a folder stands to an export of these files.
struct FolderState {
    /// Content hashes, by name, of what exports made there: several when one was stopped half way.
    std::map<std::string, std::set<std::string>> known;
    std::vector<std::string> gone; ///< made by the export before, unchanged since, and no longer right
    std::vector<std::string>
        changed;         ///< made by the export before, changed since, no longer right: they stay
    std::string foreign; ///< a file of the name of one of the new ones that no export made; empty: none
};
FolderState look_at_folder(FileSystem& files, const std::string& folder,
                           const std::vector<NamedBytes>& coming);

/// The manifest of these files: names, sizes and content hashes; with those of what they replace, so that a
/// folder in which an export was stopped half way is still known to be one of ours.
std::string make_manifest(const std::string& project, const std::vector<NamedBytes>& files,
                          const FolderState& before);

} // namespace dotlane
