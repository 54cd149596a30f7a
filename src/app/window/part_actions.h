// Parts begun, copied and removed.
#pragma once

#include <QObject>

#include "app/commands/session.h"

namespace dotlane::app {

class PartActions : public QObject {
    Q_OBJECT

  public:
    PartActions(Session& session, QObject* parent);
    /// A part of this kind of source (core/project/sources.h); of a project that is open.
    void make(const QString& kind);
    void make_from(const SourceSpec& spec, const QString& name);
    /// A sheet with all styles of fill.
    void add_samples();
    void add_layers(int count, Length reveal);
    void copy();
    void remove();

  Q_SIGNALS:
    void made(); ///< the part is chosen
    void done(const dotlane::Done& done);

  private:
    void show(const std::optional<Done>& made_parts);

    Session& session_;
};

} // namespace dotlane::app
