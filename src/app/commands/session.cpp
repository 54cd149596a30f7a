#include "app/commands/session.h"

#include <QElapsedTimer>
#include <QGuiApplication>
#include <QTimer>
#include <QUndoCommand>

#include "core/base/caught.h"
#include "core/base/data_folder.h"
#include "core/base/text.h"
#include "core/commands/placing.h"
#include "core/project/format.h"

namespace dotlane::app {

/// One version of the document for another: documents are values, so undo keeps both.
class ChangeCommand : public QUndoCommand {
  public:
    ChangeCommand(Session& session, const QString& text, QString merge, std::shared_ptr<const Project> before,
                  std::shared_ptr<const Project> after)
        : QUndoCommand(text)
        , session_(session)
        , merge_(std::move(merge))
        , before_(std::move(before))
        , after_(std::move(after)) {
        age_.start();
    }
    int id() const override { return 1; }
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = static_cast<const ChangeCommand*>(other);
        if (merge_.isEmpty() || next->merge_ != merge_ || age_.elapsed() > session_.merge_window_.count())
            return false;
        after_ = next->after_;
        age_.restart();
        return true;
    }
    void undo() override { session_.set_project(before_); }
    void redo() override { session_.set_project(after_); }

  private:
    Session& session_;
    QString merge_;
    std::shared_ptr<const Project> before_, after_;
    QElapsedTimer age_;
};

Session::Session(Workshop& workshop, FileSystem& files, QObject* parent)
    : QObject(parent)
    , workshop_(workshop)
    , files_(files)
    , deriver_(workshop)
    , file_(files)
    , project_(std::make_shared<Project>()) {
    history_.setUndoLimit(500);
    connect(&deriver_, &Deriver::drawn, this, &Session::show_drawn);
    connect(&deriver_, &Deriver::done, this, [this](const std::shared_ptr<const Derived>& derived) {
        // What was handed out early of the same project has the same parts.
        if (!drawn_ || drawn_->project != derived->project) show_drawn(derived);
        derived_ = derived;
        Q_EMIT derivedChanged();
    });
    connect(&deriver_, &Deriver::improved, this, &Session::show_improved);
    connect(&deriver_, &Deriver::failed, this, &Session::failed);
    connect(&deriver_, &Deriver::improvingChanged, this, &Session::improvingChanged);
    connect(&history_, &QUndoStack::cleanChanged, this, &Session::fileChanged);
}

bool Session::change(const QString& text, const Edit& edit, const QString& merge) {
    auto next = std::make_shared<Project>(*project_);
    if (const auto ok = edit(*next); !ok) {
        Q_EMIT failed(ok.error());
        return false;
    }
    if (*next == *project_) return true;
    history_.push(new ChangeCommand(*this, text, merge, project_, std::move(next)));
    return true;
}

void Session::show_drawn(const std::shared_ptr<const Derived>& derived) {
    drawn_ = derived;
    Q_EMIT drawnChanged();
}

/// Not under a hand that drags a pass about.
void Session::show_improved(const std::shared_ptr<const Derived>& derived) {
    if (derived->project != project_) return;
    if (QGuiApplication::mouseButtons() != Qt::NoButton) {
        QTimer::singleShot(200, this, [this, derived] { show_improved(derived); });
        return;
    }
    derived_ = derived;
    Q_EMIT derivedChanged();
}

void Session::set_project(std::shared_ptr<const Project> project) {
    const Changes what = changes_between(*project_, *project);
    project_ = std::move(project);
    settle_choice();
    deriver_.request(project_, drawn_ ? PartId{} : choice_.part);
    Q_EMIT projectChanged(what);
}

bool Session::keep(const std::function<Result<void>(FileSystem&, const std::string&)>& what) {
    const std::string folder = user_catalog_folder();
    Result<void> ok = what(files_, folder);
    if (ok) {
        auto catalog = load_catalog(files_, data_folder() + "/catalog", folder);
        if (catalog) {
            deriver_.stop();
            workshop_.take_catalog(std::move(*catalog));
            deriver_.request(project_);
            Q_EMIT catalogChanged();
            return true;
        }
        ok = tl::make_unexpected(catalog.error());
    }
    Q_EMIT failed(ok.error());
    return false;
}

void Session::leave_out(NotThisRun out) {
    if (out == left_out_) return;
    left_out_ = std::move(out);
    deriver_.leave_out(left_out_);
    deriver_.request(project_);
}

void Session::start(Project project, const QString& path, std::optional<std::uint64_t> known_hash) {
    open_ = true;
    path_ = QString::fromStdString(absolute_path(path.toStdString()));
    file_.follow(path_, known_hash);
    history_.clear();
    drawn_ = derived_ = nullptr;
    choice_ = {};
    left_out_ = {};
    deriver_.leave_out({});
    project_ = std::make_shared<Project>(std::move(project));
    settle_choice();
    deriver_.request(project_, choice_.part);
    Q_EMIT projectChanged(Changes::all(*project_));
    Q_EMIT fileChanged();
}

void Session::close() {
    deriver_.stop();
    open_ = false;
    path_.clear();
    file_.follow({});
    history_.clear();
    drawn_ = derived_ = nullptr;
    choice_ = {};
    project_ = std::make_shared<Project>();
    Q_EMIT projectChanged(Changes::all(*project_));
    Q_EMIT fileChanged();
}

Session::Saved Session::save(const QString& path, bool over_changes) {
    const std::string to = absolute_path(path.toStdString());
    const auto failed_with = [this](const Error& error) {
        Q_EMIT failed(error);
        return Saved::no;
    };
    const auto lock = files_.lock(to, 3000);
    if (!lock) return failed_with(lock.error());
    if (!over_changes && to == path_.toStdString() && file_.differs()) return Saved::changed_on_disk;
    const auto ok = caught([&] { return save_project(files_, to, *project_); });
    if (!ok) return failed_with(ok.error());
    path_ = QString::fromStdString(to);
    file_.follow(path_);
    history_.setClean();
    Q_EMIT fileChanged();
    return Saved::yes;
}

bool Session::take_from_disk() {
    std::uint64_t hash = 0;
    auto loaded = caught([&] {
        return files_.read(path_.toStdString(), project_max_bytes).and_then([&](const std::string& bytes) {
            hash = content_hash(bytes);
            return read_project(bytes, path_.toStdString());
        });
    });
    if (!loaded) {
        Q_EMIT failed(loaded.error());
        return false;
    }
    settle_placements(*loaded, workshop_);
    const auto take = [&](Project& project) {
        project = std::move(*loaded);
        return Result<void>{};
    };
    if (!change(tr("Take in what is on disk"), take)) return false;
    file_.follow(path_, hash);
    history_.setClean();
    Q_EMIT fileChanged();
    return true;
}

void Session::keep_mine() {
    file_.follow(path_);
    mark_modified();
}

void Session::mark_modified() {
    history_.resetClean();
    Q_EMIT fileChanged();
}

void Session::choose(const Choice& choice) {
    if (choice == choice_) return;
    choice_ = choice;
    settle_choice();
    Q_EMIT choiceChanged();
}

void Session::choose_part(PartId part) {
    if (part == choice_.part) return;
    Choice next = choice_;
    next.part = part;
    next.lines.clear();
    next.step = {};
    choose(next);
}

void Session::choose_lines(std::set<LineId> lines) {
    Choice next = choice_;
    next.lines = std::move(lines);
    choose(next);
}

/// What is chosen must exist; where nothing is chosen the first of each kind is.
void Session::settle_choice() {
    const Part* part = dotlane::find(*project_, choice_.part);
    if (!part) {
        choice_.part = project_->parts.empty() ? PartId{} : project_->parts.front().id;
        choice_.lines.clear();
        choice_.step = {};
    } else {
        // The lines of a computed part are those that were last computed.
        const EvaluatedPart* e = derived_ ? derived_->part(part->id) : nullptr;
        const Drawing& drawing = e && is_made(*part) ? *e->drawing : *part->source.drawing;
        std::erase_if(choice_.lines, [&](LineId id) {
            if (!id.step) return !dotlane::find(drawing, id);
            return !e || std::none_of(e->lines.begin(), e->lines.end(),
                                      [id](const FlatLine& l) { return l.id == id; });
        });
        const auto has_step = [&](const Step& s) { return s.id == choice_.step; };
        if (std::none_of(part->steps.begin(), part->steps.end(), has_step)) choice_.step = {};
    }
    if (!dotlane::find(*project_, choice_.sheet))
        choice_.sheet = project_->sheets.empty() ? SheetId{} : project_->sheets.front().id;
    const Sheet* sheet = dotlane::find(*project_, choice_.sheet);
    const auto gone = [&](PlacementId id) {
        return !sheet || std::none_of(sheet->placements.begin(), sheet->placements.end(),
                                      [id](const Placement& p) { return p.id == id; });
    };
    std::erase_if(choice_.with, gone);
    if (!gone(choice_.placement)) return;
    choice_.placement = choice_.with.empty() ? PlacementId{} : *choice_.with.begin();
    choice_.with.erase(choice_.placement);
}

std::vector<PlacementId> Session::chosen_placements() const {
    const Sheet* sheet = this->sheet();
    if (!sheet || !choice_.placement) return {};
    std::vector<PlacementId> named(choice_.with.begin(), choice_.with.end());
    named.push_back(choice_.placement);
    return with_groups(*sheet, named);
}

} // namespace dotlane::app
