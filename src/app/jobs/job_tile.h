// A job as a picture: pressed, it begins.
#pragma once

#include <functional>

#include "app/widgets/card.h"
#include "core/derive/workshop.h"
#include "core/project/sources.h"
#include "core/project/steps.h"

class QPainter;

namespace dotlane::app {

class JobTile : public Card {
    Q_OBJECT

  public:
    using Painting = std::function<void(QPainter&, const QRectF&)>;
    /// `about` may be empty: then the tile is only as high as its title needs.
    JobTile(const QString& name, const QString& title, const QString& about, Painting painting, QSize size,
            QWidget* parent);

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

  private:
    Painting painting_;
    int picture_height_;
};

/// Paints an example of what this kind of source makes.
JobTile::Painting example_of(const SourceKind& kind, Workshop& workshop);
/// The same of a kind of step that a part can begin with.
JobTile::Painting example_of(const StepKind& kind, Workshop& workshop);
/// Lines of three lanes: a drawing from a file.
void paint_drawing_job(QPainter& painter, const QRectF& area);

} // namespace dotlane::app
