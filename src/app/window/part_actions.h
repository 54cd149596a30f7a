// Parts begun, copied and removed.
#pragma once

#include <QObject>

#include "app/commands/session.h"
#include "core/base/files.h"

namespace dotlane::app {

class PartActions : public QObject {
    Q_OBJECT

  public:
    PartActions(Session& session, FileSystem& files, QObject* parent);
    /// A part of this kind of source (core/project/sources.h); of a project that is open.
    void make(const QString& kind);
    void make_from(const SourceSpec& spec, const QString& name);
    /// A sheet with all styles of fill.
    void add_samples();
    /// A sheet of crosses to measure tips by.
    void add_crosses();
    /// The chosen fill, else the last of the part that can be lighter and darker, by a picture that is asked
    /// for.
    void tone(QWidget* window);
    void add_layers(int count, Length reveal);
    void copy();
    void remove();

  Q_SIGNALS:
    void made(); ///< the part is chosen
    void done(const dotlane::Done& done);

  private:
    void show_sheet(const std::optional<Done>& made);
    void show(const std::optional<Done>& made_parts);

    Session& session_;
    FileSystem& files_;
};

} // namespace dotlane::app
