// The bench's drawing surface: zoom, pan, rulers, and content that is painted off the GUI thread when it
// takes long, so that no drawing is too large to be moved about.
#pragma once

#include <QFutureWatcher>
#include <QImage>
#include <QWidget>
#include <functional>
#include <optional>

#include "core/base/measure.h"
#include "present/lane_style.h"

namespace dotlane::app {

class Canvas : public QWidget {
    Q_OBJECT

  public:
    explicit Canvas(QWidget* parent = nullptr);
    ~Canvas() override;

    void fit();
    void zoom_by(double factor, QPointF about);
    void zoom_in() { zoom_by(1.25, rect().center()); }
    void zoom_out() { zoom_by(0.8, rect().center()); }
    /// Brings an area (mm) into the middle, at most so large that its surroundings still show, and rings it
    /// until the bench is pressed, shows all again or is told to.
    void show_area(const Box& area);
    void ring_nothing();
    const present::View& view() const { return view_; }
    /// 100 % is life size on a screen of 96 px per inch.
    double percent() const { return view_.scale * mm_per_inch / 96 * 100; }
    void set_unit(LengthUnit unit);
    /// Waits until the newest content is painted; for screenshots and tests.
    void finish_painting();
    /// Whether the picture on screen is the newest content.
    bool painted() const { return !stale_ && !watcher_.isRunning(); }

  Q_SIGNALS:
    void zoomed();

  protected:
    using Painting = std::function<void(QPainter&, const present::View&, const QRectF&)>;

    /// What `fit` shows, mm.
    virtual Box world() const = 0;
    /// Paints everything that may be slow. Runs on another thread: it must own all it uses.
    virtual Painting content() const = 0;
    /// About how many points that is: content of unknown size is not painted on the GUI thread.
    virtual std::size_t weight() const = 0;
    /// Selection, handles, rubber bands: quick, on the GUI thread.
    virtual void paint_overlay(QPainter&) {}
    virtual bool has_rulers() const { return true; }
    /// Room kept free around the fitted world, px.
    virtual QMarginsF rim() const { return {64, 64, 56, 56}; }
    /// The content changed.
    void refresh();
    /// Set by pressing the middle button or holding space.
    bool panning() const { return panning_; }

    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void keyReleaseEvent(QKeyEvent* event) override;
    void changeEvent(QEvent* event) override;

  private:
    struct Picture {
        QImage image;
        present::View view;
        qint64 cost_ms = 0;
        std::size_t weight = 0;
    };
    static Picture paint(const Painting& painting, const present::View& view, QSize size, double ratio,
                         std::size_t weight);
    void ensure_picture();
    void take(Picture picture);
    void paint_rulers(QPainter& painter) const;
    void paint_sought(QPainter& painter) const;
    void set_view(const present::View& view);

    present::View view_;
    Picture picture_;
    QFutureWatcher<Picture> watcher_;
    bool stale_ = true, fitted_ = true, panning_ = false, space_ = false;
    QPointF pan_from_;
    std::optional<Box> sought_; ///< what was to be shown, mm
    LengthUnit unit_ = LengthUnit::mm;
};

} // namespace dotlane::app
