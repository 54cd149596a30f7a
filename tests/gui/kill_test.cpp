// Window and command line are killed at random moments of opening, importing, editing, saving, exporting,
// restoring and second starts; what they had confirmed must still be there. DOTLANE_KILLS: how often (60,
// half of them the window); ./dotlane.sh kill 300.
#include <sys/wait.h>
#include <unistd.h>

#include <chrono>
#include <csignal>
#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>
#include <thread>

#include "app/window/exporter.h"
#include "core/base/text.h"
#include "core/commands/making.h"
#include "core/exports/manifest.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

using Clock = std::chrono::steady_clock; // one for all processes of a machine
using Milliseconds = std::chrono::milliseconds;

constexpr Milliseconds copy_delay{400};
/// Between an edit and its copy lie the delay and the writing, on a machine that does other things as well;
/// where it stands still, or its disk does, for twice as long as it takes to write something small beside
/// that.
Milliseconds promise(Milliseconds slowest_write) {
    return copy_delay + Milliseconds(1500) + 2 * slowest_write;
}

int kills() {
    const char* given = std::getenv("DOTLANE_KILLS");
    return given ? std::atoi(given) : 60;
}

std::int64_t now_ms() {
    return std::chrono::duration_cast<Milliseconds>(Clock::now().time_since_epoch()).count();
}

/// What the killed process had confirmed, a line each: when, what, how far the work was.
struct Line {
    std::int64_t at;
    std::string what;
    int n;
    std::size_t parts;
};

std::vector<Line> lines_of(const std::string& log) {
    std::vector<Line> out;
    std::istringstream in(log);
    std::string text;
    while (std::getline(in, text)) {
        std::istringstream words(text);
        Line line;
        if (in.eof() && !log.ends_with('\n')) break; // cut short by the kill: not confirmed
        if (words >> line.at >> line.what >> line.n >> line.parts) out.push_back(line);
    }
    return out;
}

/// How far a project is: the quantity of its first part counts the edits.
int work_in(const Project& project) {
    return project.parts.front().quantity;
}

Project first_project() {
    Workshop workshop(catalog());
    Project project = workshop.new_project("walk");
    const PartId part = must(make_part(project, catalog(), fonts(), Label{}));
    must(place(project, add_sheet(project, "one", "cream-card-12x12", "mat-12x12-standard"),
               {{}, part, mm(20), mm(20)}));
    return project;
}

/// What an export made is of one time: each file is what the manifest says.
std::string mixed_up(const std::string& folder) {
    if (!disk().exists(folder + "/" + manifest_name)) return {}; // none was finished yet
    const auto manifest = nlohmann::json::parse(file(folder + "/" + manifest_name), nullptr, false);
    if (manifest.is_discarded()) return "the manifest is damaged";
    for (const auto& one : manifest["files"]) {
        const std::string name = one["name"], bytes = file(folder + "/" + name);
        std::ostringstream hash;
        hash << std::hex << std::setw(16) << std::setfill('0') << content_hash(bytes);
        if (one["fnv1a64"] != hash.str()) return name + " is of another export";
    }
    return {};
}

pid_t start(const std::vector<std::string>& words, const std::string& output) {
    const pid_t child = ::fork();
    if (child != 0) return child;
    std::vector<char*> arguments;
    for (const std::string& word : words)
        arguments.push_back(const_cast<char*>(word.c_str()));
    arguments.push_back(nullptr);
    (void)!::freopen(output.c_str(), "w", stdout);
    (void)!::freopen("/dev/null", "w", stderr);
    ::execv(arguments[0], arguments.data());
    ::_exit(127);
}

/// How long the machine and its disk let this process wait while the other one works.
class Beside {
  public:
    explicit Beside(std::string path)
        : path_(std::move(path)) {}

    void write() {
        const auto before = std::exchange(last_, Clock::now());
        slowest = std::max(slowest, std::chrono::duration_cast<Milliseconds>(last_ - before));
        if (last_ - written_ < Milliseconds(150)) return;
        written_ = last_;
        must(disk().write_atomically(path_, "something small"));
    }
    Milliseconds slowest{};

  private:
    std::string path_;
    Clock::time_point last_ = Clock::now(), written_ = last_;
};

/// Exit code, or -1 when it had to be killed: after so long, or once `enough`, asked again and again, says
/// so.
int end_after(pid_t child, Milliseconds wait, const std::function<bool()>& enough = {}) {
    const auto until = Clock::now() + wait;
    int status = 0;
    while (Clock::now() < until) {
        if (::waitpid(child, &status, WNOHANG) == child) return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
        if (enough && enough()) break;
        std::this_thread::sleep_for(Milliseconds(1));
    }
    ::kill(child, SIGKILL);
    ::waitpid(child, &status, 0);
    return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

} // namespace

// Not a test of its own: what the next one starts in another process and kills.
TEST_CASE("works until it is killed", "[.]") {
    const std::string folder = std::getenv("DOTLANE_KILL_FOLDER"), path = folder + "/walk.dotlane";
    std::mt19937 random(static_cast<unsigned>(std::atoi(std::getenv("DOTLANE_KILL_SEED"))));
    Answers answers;
    answers.changed_answer = app::Dialogs::ChangedOnDisk::keep_mine;
    answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    app::set_dialogs(&answers);
    Workshop workshop(catalog());
    app::MainWindow window(workshop, disk(), folder + "/state", copy_delay);
    window.show();
    auto say = [&, log = std::ofstream(folder + "/log", std::ios::app)](const char* what) mutable {
        const Project& project = window.session().project();
        log << now_ms() << ' ' << what << ' ' << work_in(project) << ' ' << project.parts.size() << std::endl;
    };
    // A maker takes what is furthest: the file or a copy.
    const auto left = app::Recovery::left_behind(disk(), folder + "/state/recovery");
    int furthest = work_in(must(load_project(disk(), path)));
    std::size_t copy = left.size();
    for (std::size_t i = 0; i < left.size(); ++i)
        if (const auto p = app::Recovery::read(disk(), left[i]); p && work_in(*p) > furthest)
            furthest = work_in(*p), copy = i;
    const auto restore = window.findChildren<QPushButton*>("restore");
    if (copy < left.size() && static_cast<int>(copy) < restore.size())
        restore[static_cast<int>(copy)]->click();
    else
        window.files().open_path(QString::fromStdString(path));
    window.settle();
    say("opened");
    for (;;) {
        window.session().change("edit", [&](Project& p) {
            return set_quantity(p, p.parts.front().id, p.parts.front().quantity + 1);
        });
        say("edited");
        QTest::qWait(static_cast<int>(random() % 60));
        switch (random() % 8) {
        case 0:
        case 1:
            window.findChild<QAction*>("save")->trigger();
            if (!window.isWindowModified()) say("saved");
            break;
        case 2:
            if (window.session().project().parts.size() > 30) break;
            window.files().open_path(QString::fromStdString(folder + "/art.svg"));
            window.settle();
            if (auto* take = window.findChild<QPushButton*>("take-in"); take && take->isEnabled())
                take->click();
            break;
        case 3:
            window.settle();
            window.exporter().export_to(QString::fromStdString(folder + "/out"), true);
            window.settle();
            break;
        default:
            break;
        }
    }
}

TEST_CASE("the window is killed at random moments: no edit older than the promise and no save is lost") {
    Random random("kills of the window");
    INFO("seed " << random.seed());
    TemporaryFolder folder;
    must(save_project(disk(), folder / "walk.dotlane", first_project()));
    must(disk().write_atomically(folder / "art.svg", svg("<circle cx='30' cy='30' r='20'/>")));
    ::setenv("DOTLANE_KILL_FOLDER", folder.path.c_str(), 1);
    ::setenv("QT_QPA_PLATFORM", "offscreen", 1);
    ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
    int must_have = 1, saved = 1, opened = 0, edits = 0;
    Milliseconds opening{}; // the longest so far; the first is killed when it has opened
    for (int kill = 0; kill < kills() / 2; ++kill) {
        ::setenv("DOTLANE_KILL_SEED", std::to_string(random.whole(0, 1 << 30)).c_str(), 1);
        must(disk().write_atomically(folder / "log", ""));
        const pid_t child = start({"/proc/self/exe", "works until it is killed"}, "/dev/null");
        // Most kills come while it works, some while it starts: that takes as long as the machine needs.
        Beside beside(folder / "beside");
        const std::int64_t started = now_ms();
        const bool early = kill > 0 && random.coin(0.2);
        const int rc = end_after(child,
                                 kill == 0 ? Milliseconds(20'000)
                                 : early   ? Milliseconds(random.whole(20, 400))
                                           : opening + Milliseconds(random.whole(300, 2000)),
                                 [&] {
                                     beside.write();
                                     return kill == 0 && !lines_of(file(folder / "log")).empty();
                                 });
        const std::int64_t killed = now_ms();
        INFO("kill " << kill << ", slowest write " << beside.slowest.count() << " ms");
        REQUIRE(rc == -1);
        for (const Line& line : lines_of(file(folder / "log"))) {
            if (line.what == "opened") {
                ++opened;
                opening = std::max(opening, Milliseconds(line.at - started));
                CHECK(line.n >= must_have);
            }
            if (line.what == "saved") saved = std::max(saved, line.n);
            if (line.what == "edited") ++edits;
            if (line.what == "saved" || line.at <= killed - promise(beside.slowest).count())
                must_have = std::max(must_have, line.n);
        }
        // The file is whole and holds what was last saved, at least.
        const auto project = load_project(disk(), folder / "walk.dotlane");
        REQUIRE(project);
        CHECK(work_in(*project) >= saved);
        CHECK(mixed_up(folder / "out") == "");
    }
    // The last of it is still there too.
    int furthest = work_in(must(load_project(disk(), folder / "walk.dotlane")));
    for (const auto& copy : app::Recovery::left_behind(disk(), folder / "state/recovery"))
        if (const auto p = app::Recovery::read(disk(), copy)) furthest = std::max(furthest, work_in(*p));
    CHECK(furthest >= must_have);
    std::cout << "window: " << kills() / 2 << " kills, " << opened << " starts got as far as opening, "
              << edits << " edits confirmed\n";
    CHECK(opened > kills() / 8);
}

TEST_CASE(
    "the command line is killed at random moments: no part that was confirmed is lost, no export is mixed") {
    Random random("kills of the command line");
    INFO("seed " << random.seed());
    TemporaryFolder folder;
    const std::string path = folder / "walk.dotlane", program = DOTLANE_BUILD "/src/cli/dot-lane-cli";
    must(save_project(disk(), path, first_project()));
    must(disk().write_atomically(folder / "art.svg", svg("<circle cx='30' cy='30' r='20'/>")));
    ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
    std::size_t confirmed = 1, tried = 1;
    int fine = 0;
    for (int kill = 0; kill < (kills() + 1) / 2; ++kill) {
        INFO("kill " << kill);
        std::vector<std::string> words{program};
        const int what = random.whole(0, 3);
        if (what == 0) words.insert(words.end(), {"make", path, "label", "--set", "width=40mm"});
        if (what == 1) words.insert(words.end(), {"import", folder / "art.svg", path});
        if (what == 2) words.insert(words.end(), {"place", path, "--part", "#1"});
        if (what == 3) words.insert(words.end(), {"export", path, "--to", folder / "out"});
        const bool adds = what < 2;
        const int rc = end_after(start(words, folder / "output"), Milliseconds(random.whole(0, 60)));
        tried += adds;
        confirmed += adds && rc == 0;
        fine += rc == 0;
        const auto project = load_project(disk(), path);
        REQUIRE(project);
        CHECK(project->parts.size() >= confirmed);
        CHECK(project->parts.size() <= tried);
        confirmed = project->parts.size(), tried = confirmed; // what is there, is there
        CHECK(mixed_up(folder / "out") == "");
    }
    // What the killed left behind, the next writer takes away.
    REQUIRE(end_after(start({program, "make", path, "label"}, folder / "output"), Milliseconds(20'000)) == 0);
    for (const std::string& name : disk().list(folder.path))
        CHECK(name.find(".part-") == std::string::npos);
    std::cout << "command line: " << (kills() + 1) / 2 << " runs, " << fine
              << " ended before they were killed\n";
}
