// The open project in the window: its value, its undo history, its file, and what is derived from it in the
// background. Every change of a project goes through `change`, so everything can be undone.
#pragma once

#include <QObject>
#include <QUndoStack>
#include <chrono>
#include <functional>
#include <memory>
#include <set>

#include "app/commands/deriver.h"
#include "app/commands/disk_file.h"
#include "core/base/files.h"
#include "core/commands/command.h"
#include "core/derive/workshop.h"
#include "core/project/changes.h"

namespace dotlane::app {

/// What the maker has chosen. Not part of the document, not undone.
struct Choice {
    PartId part;
    SheetId sheet;
    PlacementId placement;
    StepId step;
    std::set<LineId> lines;
    std::set<PlacementId> with; ///< what lies on the sheet and was chosen besides `placement`
    bool operator==(const Choice&) const = default;
};

class Session : public QObject {
    Q_OBJECT

  public:
    using Edit = std::function<Result<void>(Project&)>;

    Session(Workshop& workshop, FileSystem& files, QObject* parent = nullptr);

    Workshop& workshop() { return workshop_; }
    const Catalog& catalog() const { return workshop_.catalog(); }
    FontShelf& fonts() { return workshop_.fonts(); }
    FileSystem& files() { return files_; }

    bool is_open() const { return open_; }
    const Project& project() const { return *project_; }
    std::shared_ptr<const Project> snapshot() const { return project_; }
    /// May belong to an earlier version of the project while `deriving()`; null before the first result.
    std::shared_ptr<const Derived> derived() const { return derived_; }
    /// Parts and sheets, without a plan or its findings: there sooner than `derived()`, else the same.
    std::shared_ptr<const Derived> drawn() const { return drawn_; }
    /// Whether `drawn()` still belongs to an earlier version.
    bool drawing() const { return !drawn_ || drawn_->project != project_; }
    /// What the run that is planned leaves out; no part of the project, and forgotten with it.
    const NotThisRun& left_out() const { return left_out_; }
    void leave_out(NotThisRun out);
    void leave_out(const std::function<void(NotThisRun&)>& how) {
        NotThisRun out = left_out_;
        how(out);
        leave_out(std::move(out));
    }
    void set_painted() { deriver_.set_painted(); }
    bool deriving() const { return deriver_.busy(); }
    /// The plan is there, and shorter routes are looked for.
    bool improving() const { return deriver_.improving(); }
    /// The plan stays as it is shown.
    void stop_improving() { deriver_.stop_improving(); }
    QUndoStack& history() { return history_; }
    /// Edits under one key that follow each other within this time are one step; 1.5 s unless set.
    void set_merge_window(std::chrono::milliseconds window) { merge_window_ = window; }

    /// Applies an edit to a copy; on success it becomes the project and can be undone under `text`. Edits
    /// with the same non-empty `merge` key that follow each other closely become one step. On failure
    /// `failed` says why and nothing changes.
    bool change(const QString& text, const Edit& edit, const QString& merge = {});

    /// A command of core/commands as one step of the history, on lines as they are drawn: what it answered,
    /// or none when it failed, which `failed` has told.
    template<class Command>
    std::optional<Done> run(const QString& text, const Command& command, const QString& merge = {}) {
        std::optional<Done> done;
        change(
            text,
            [&](Project& p) -> Result<void> {
                Result<Done> answer = [&]() -> Result<Done> {
                    if constexpr (requires { apply(command, p, catalog(), fonts(), *evaluated()); }) {
                        const EvaluatedPart* part = drawn_ ? drawn_->part(command.part) : nullptr;
                        if (!part) return tl::make_unexpected(still_made());
                        return apply(command, p, catalog(), fonts(), *part);
                    } else if constexpr (requires { apply(command, p, catalog(), *evaluated()); }) {
                        const EvaluatedPart* part = drawn_ ? drawn_->part(command.part) : nullptr;
                        if (!part) return tl::make_unexpected(still_made());
                        return apply(command, p, catalog(), *part);
                    } else if constexpr (requires { apply(command, p, catalog(), *drawn_); }) {
                        if (!drawn_) return tl::make_unexpected(still_made());
                        return apply(command, p, catalog(), *drawn_);
                    } else if constexpr (requires { apply(command, p, catalog(), fonts()); })
                        return apply(command, p, catalog(), fonts());
                    else if constexpr (requires { apply(command, p, catalog()); })
                        return apply(command, p, catalog());
                    else
                        return apply(command, p);
                }();
                if (!answer) return tl::make_unexpected(answer.error());
                done = std::move(*answer);
                return {};
            },
            merge);
        return done;
    }

    /// Keeps something of a tool in the user's own catalog (core/catalog/user_catalog.h); all is derived anew
    /// with it. It belongs to no project, and is not undone. False when it failed, which `failed` has told.
    bool keep(const std::function<Result<void>(FileSystem& files, const std::string& folder)>& what);

    enum class Saved { yes, no, changed_on_disk };
    /// `known_hash`: of the file's content that the project goes back to, when it may have changed since.
    void start(Project project, const QString& path, std::optional<std::uint64_t> known_hash = {});
    void close();
    /// `changed_on_disk`: somebody else has written to the file since it was read, and nothing was saved.
    Saved save(const QString& path, bool over_changes = false);
    /// What lies on disk becomes the project; can be undone.
    bool take_from_disk();
    /// What somebody else wrote is known now, and may be replaced.
    void keep_mine();
    QString path() const { return path_; } ///< absolute; empty while it has no file
    DiskFile& file() { return file_; }
    bool modified() const { return open_ && !history_.isClean(); }
    /// For a project that came back from a recovery copy: it differs from its file until it is saved.
    void mark_modified();

    const Choice& choice() const { return choice_; }
    void choose(const Choice& choice);
    void choose_part(PartId part);
    void choose_lines(std::set<LineId> lines);
    const Part* part() const { return dotlane::find(*project_, choice_.part); }
    const EvaluatedPart* evaluated() const { return drawn_ ? drawn_->part(choice_.part) : nullptr; }
    /// All that is chosen on the sheet, with what is grouped with it.
    std::vector<PlacementId> chosen_placements() const;
    const Sheet* sheet() const { return dotlane::find(*project_, choice_.sheet); }

  Q_SIGNALS:
    void projectChanged(const dotlane::Changes& what);
    void drawnChanged();
    void derivedChanged();
    void improvingChanged();
    void catalogChanged();
    void choiceChanged();
    void fileChanged(); ///< path, saved state
    void failed(const dotlane::Error& error);

  private:
    friend class ChangeCommand;
    static Error still_made() { return {"edit.missing", say("The part is still being made."), {}}; }
    void show_drawn(const std::shared_ptr<const Derived>& derived);
    void show_improved(const std::shared_ptr<const Derived>& derived);
    void set_project(std::shared_ptr<const Project> project);
    void settle_choice();

    Workshop& workshop_;
    FileSystem& files_;
    Deriver deriver_;
    DiskFile file_;
    QUndoStack history_;
    std::shared_ptr<const Project> project_;
    std::shared_ptr<const Derived> drawn_, derived_;
    QString path_;
    NotThisRun left_out_;
    Choice choice_;
    bool open_ = false;
    std::chrono::milliseconds merge_window_{1500}; ///< typing and dragging come in bursts
};

} // namespace dotlane::app
