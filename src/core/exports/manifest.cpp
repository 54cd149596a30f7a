#include "core/exports/manifest.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <optional>

#include "core/base/text.h"

namespace dotlane {
namespace {

using nlohmann::json;

constexpr std::uint64_t most_read = 1ULL << 20;

std::string hash_of(const std::string& bytes) {
    static const char* digits = "0123456789abcdef";
    std::string out;
    for (std::uint64_t hash = content_hash(bytes), i = 0; i < 16; ++i, hash <<= 4)
        out += digits[hash >> 60];
    return out;
}

/// Empty when there is no manifest, or one that cannot be trusted. None: something else bears its name.
std::optional<std::map<std::string, std::set<std::string>>> read_manifest(FileSystem& files,
                                                                          const std::string& folder) {
    std::map<std::string, std::set<std::string>> out;
    const std::string path = folder + "/" + manifest_name;
    if (!files.exists(path)) return out;
    const auto bytes = files.read(path, most_read);
    const json document = bytes ? json::parse(*bytes, nullptr, false) : json();
    if (!document.is_object() || document.value("format", json()) != "dot-lane-export") return std::nullopt;
    for (const char* list : {"files", "replaced"}) {
        const json entries = document.value(list, json());
        if (!entries.is_array()) continue;
        for (const json& entry : entries) {
            if (!entry.is_object() || !entry.value("name", json()).is_string() ||
                !entry.value("fnv1a64", json()).is_string())
                continue;
            const auto name = entry["name"].get<std::string>();
            // Only files of the folder itself are ever taken away.
            if (name.empty() || name.find('/') != std::string::npos || name == "." || name == "..") continue;
            out[name].insert(entry["fnv1a64"].get<std::string>());
        }
    }
    return out;
}

/// Made by an export from before there were manifests.
bool looks_exported(const std::string& name, const std::string& bytes) {
    if (name.ends_with(".svg"))
        return bytes.find("<title>Origin marks: the same in every file of this export") != std::string::npos;
    if (name == "run-sheet.txt") return bytes.find("\nRun sheet for the ") != std::string::npos;
    // "Dot Lane" in UTF-16, as the creator stands in a PDF
    const std::string creator("\0D\0o\0t\0 \0L\0a\0n\0e", 16);
    return name == "run-sheet.pdf" && bytes.find(creator) != std::string::npos;
}

} // namespace

std::string make_manifest(const std::string& project, const std::vector<NamedBytes>& files,
                          const FolderState& before) {
    json out = {{"format", "dot-lane-export"}, {"version", 1}, {"project", printable(project)}};
    out["files"] = json::array();
    for (const auto& [name, bytes] : files)
        out["files"].push_back({{"name", name}, {"bytes", bytes.size()}, {"fnv1a64", hash_of(bytes)}});
    out["replaced"] = json::array();
    for (const auto& [name, hashes] : before.known)
        for (const std::string& hash : hashes)
            out["replaced"].push_back({{"name", name}, {"fnv1a64", hash}});
    return out.dump(1) + "\n";
}

FolderState look_at_folder(FileSystem& files, const std::string& folder,
                           const std::vector<NamedBytes>& coming) {
    FolderState out;
    const auto known = read_manifest(files, folder);
    if (!known) {
        out.foreign = manifest_name;
        return out;
    }
    const auto hash_there = [&](const std::string& name) {
        const auto bytes = files.read(folder + "/" + name, default_max_bytes);
        return bytes ? hash_of(*bytes) : std::string();
    };
    for (const auto& [name, hashes] : *known) {
        if (!files.exists(folder + "/" + name)) continue;
        const std::string there = hash_there(name);
        if (hashes.contains(there)) out.known[name] = {there};
        if (std::none_of(coming.begin(), coming.end(),
                         [&, &n = name](const NamedBytes& file) { return file.first == n; }))
            (hashes.contains(there) ? out.gone : out.changed).push_back(name);
    }
    for (const auto& [name, bytes] : coming) {
        if (out.known.contains(name) || !files.exists(folder + "/" + name)) continue;
        const auto there = files.read(folder + "/" + name, default_max_bytes);
        const bool ours = there && (*there == bytes || (known->empty() && looks_exported(name, *there)));
        if (!ours && out.foreign.empty()) out.foreign = name;
    }
    return out;
}

} // namespace dotlane
