#include "app/commands/recovery.h"

#include <QJsonDocument>
#include <QJsonObject>
#include <QtConcurrent>
#include <unistd.h>

#include "core/base/caught.h"
#include "core/project/format.h"

namespace dotlane::app {
namespace {

/// Start time of a process in clock ticks since boot (field 22 of /proc/PID/stat, proc(5)); with the number
/// it names a process for good. Empty when there is none, or when it has ended and only waits to be reaped.
std::string start_of(const std::string& pid) {
    QFile stat(QString::fromStdString("/proc/" + pid + "/stat"));
    if (!stat.open(QIODevice::ReadOnly)) return {};
    const QByteArray text = stat.readAll();
    // The second field is the program's name in brackets and may hold blanks.
    const auto fields = text.mid(text.lastIndexOf(')') + 2).split(' ');
    if (fields[0] == "Z" || fields[0] == "X") return {};
    return fields.size() > 19 ? fields[19].toStdString() : std::string();
}

} // namespace

Recovery::Recovery(Session& session, FileSystem& files, std::string folder, std::chrono::milliseconds delay,
                   QObject* parent)
    : QObject(parent)
    , session_(session)
    , files_(files)
    , folder_(std::move(folder)) {
    const std::string pid = std::to_string(::getpid());
    key_ = pid + "-" + start_of(pid);
    timer_.setSingleShot(true);
    timer_.setInterval(delay);
    connect(&timer_, &QTimer::timeout, this, &Recovery::write);
    connect(&writer_, &QFutureWatcherBase::finished, this, &Recovery::settled);
    connect(&session_, &Session::projectChanged, this, &Recovery::changed);
    connect(&session_, &Session::fileChanged, this, &Recovery::changed);
}

Recovery::~Recovery() {
    writer_.waitForFinished();
}

void Recovery::changed() {
    if (!session_.is_open() || !session_.modified()) {
        clear();
    } else if (!timer_.isActive() && session_.snapshot() != written_) {
        timer_.start(); // not put off by further changes: the delay is a promise
    }
}

void Recovery::write() {
    if (writer_.isRunning()) return QTimer::singleShot(200, this, &Recovery::write);
    if (!session_.is_open() || !session_.modified()) return;
    written_ = session_.snapshot();
    const QJsonObject note{{"name", QString::fromStdString(written_->name)},
                           {"path", session_.path()},
                           {"file_hash", QString::number(session_.file().known_hash())},
                           {"saved_at", QDateTime::currentDateTime().toString(Qt::ISODateWithMs)}};
    writer_.setFuture(
        QtConcurrent::run([this, project = written_, text = QJsonDocument(note).toJson().toStdString()] {
            return caught([&]() -> Result<void> {
                if (auto ok = files_.make_folder(folder_, Access::private_); !ok) return ok;
                const std::string base = folder_ + "/" + key_;
                if (auto ok = save_project(files_, base + project_extension, *project, Access::private_); !ok)
                    return ok;
                return files_.write_atomically(base + ".json", text, Access::private_);
            });
        }));
}

void Recovery::settled() {
    const auto ok = writer_.result();
    if (ok) {
        for (const LeftBehind& copy : std::exchange(adopted_, {}))
            forget(files_, copy);
    } else if (!std::exchange(told_, true)) {
        Q_EMIT failed({"recovery.unwritable",
                       say("No copy of unsaved work can be kept: %1 Save often.", ok.error().message),
                       {}});
    }
}

void Recovery::adopt(const LeftBehind& copy) {
    adopted_.push_back(copy);
    timer_.stop();
    write();
}

void Recovery::flush() {
    if (timer_.isActive()) {
        timer_.stop();
        writer_.waitForFinished();
        write();
    }
    writer_.waitForFinished();
}

void Recovery::clear() {
    timer_.stop();
    writer_.waitForFinished();
    for (const LeftBehind& copy : std::exchange(adopted_, {}))
        forget(files_, copy);
    if (!std::exchange(written_, nullptr)) return;
    files_.remove(folder_ + "/" + key_ + ".json");
    files_.remove(folder_ + "/" + key_ + project_extension);
}

std::vector<LeftBehind> Recovery::left_behind(FileSystem& files, const std::string& folder) {
    std::vector<LeftBehind> out;
    for (const std::string& name : files.list(folder)) {
        if (!name.ends_with(project_extension)) continue;
        const std::string key = name.substr(0, name.size() - std::string_view(project_extension).size()),
                          pid = key.substr(0, key.find('-'));
        if (const auto start = start_of(pid); !start.empty() && key == pid + "-" + start)
            continue; // still running
        // A kill may have come between the copy and its note: the copy counts.
        const std::string note_path = folder + "/" + key + ".json";
        const auto bytes = files.read(note_path, 1 << 20);
        const auto note = QJsonDocument::fromJson(QByteArray::fromStdString(bytes.value_or(""))).object();
        // A path that does not begin at the root was once kept as typed: nobody knows from where.
        const QString path = note["path"].toString();
        bool known = false;
        const auto hash = note["file_hash"].toString().toULongLong(&known);
        out.push_back({note["name"].toString(tr("A project")), path.startsWith('/') ? path : QString(),
                       note["saved_at"].toString(), known ? std::optional<std::uint64_t>(hash) : std::nullopt,
                       folder + "/" + name, note_path});
    }
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.saved_at > b.saved_at; });
    return out;
}

Result<Project> Recovery::read(FileSystem& files, const LeftBehind& copy) {
    return load_project(files, copy.copy);
}

void Recovery::forget(FileSystem& files, const LeftBehind& copy) {
    files.remove(copy.note);
    files.remove(copy.copy);
}

} // namespace dotlane::app
