#include "app/commands/recent.h"

#include <QJsonArray>
#include <QJsonDocument>

namespace dotlane::app {

Recent::Recent(FileSystem& files, std::string folder)
    : files_(files)
    , folder_(std::move(folder)) {}

QStringList Recent::read() const {
    QStringList out;
    const auto bytes = files_.read(folder_ + "/recent.json", 1 << 20);
    const auto list = QJsonDocument::fromJson(QByteArray::fromStdString(bytes.value_or(""))).array();
    for (const auto& path : list)
        if (path.isString()) out << path.toString();
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
    const QByteArray list = QJsonDocument(QJsonArray::fromStringList(paths.mid(0, most))).toJson();
    // A list of recent files is a convenience: where it cannot be written, nothing else suffers.
    if (files_.make_folder(folder_))
        (void)files_.write_atomically(folder_ + "/recent.json", list.toStdString());
}

} // namespace dotlane::app
