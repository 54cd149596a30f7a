#include "app/commands/recent.h"

#include <nlohmann/json.hpp>

namespace dotlane::app {

Recent::Recent(FileSystem& files, std::string folder)
    : files_(files)
    , folder_(std::move(folder)) {}

QStringList Recent::read() const {
    QStringList out;
    const auto bytes = files_.read(folder_ + "/recent.json", 1 << 20);
    const auto list = nlohmann::json::parse(bytes.value_or(""), nullptr, false);
    if (list.is_array())
        for (const auto& path : list)
            if (path.is_string()) out << QString::fromStdString(path.get<std::string>());
    return out;
}

QStringList Recent::list() const {
    QStringList out;
    for (const QString& path : read())
        if (files_.exists(path.toStdString())) out << path;
    return out;
}

void Recent::add(const QString& path) {
    QStringList paths = read();
    paths.removeAll(path);
    paths.prepend(path);
    nlohmann::json list = nlohmann::json::array();
    for (const QString& p : paths.mid(0, most))
        list.push_back(p.toStdString());
    // A list of recent files is a convenience: where it cannot be written, nothing else suffers.
    if (files_.make_folder(folder_)) (void)files_.write_atomically(folder_ + "/recent.json", list.dump(1));
}

} // namespace dotlane::app
