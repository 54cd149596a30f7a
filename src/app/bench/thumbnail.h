// A small picture that is painted on another thread; until it is ready the last one stands.
#pragma once

#include <QFutureWatcher>
#include <QImage>
#include <QObject>
#include <functional>
#include <memory>

class QPainter;

namespace dotlane::app {

class Thumbnail : public QObject {
    Q_OBJECT

  public:
    using Painting = std::function<void(QPainter&)>;
    explicit Thumbnail(QObject* parent = nullptr);
    ~Thumbnail() override;
    /// Paints anew unless `of` is what was pictured last, at this size and in this theme. `painting` runs on
    /// another thread and must own all it uses.
    void request(std::shared_ptr<const void> of, QSize size, double ratio, Painting painting);
    const QImage& image() const { return image_; }

  Q_SIGNALS:
    void ready();

  private:
    std::shared_ptr<const void> of_;
    QSize size_;
    bool dark_ = false;
    QImage image_;
    QFutureWatcher<QImage> watcher_;
    std::function<void()> next_; ///< asked for while another one was being painted
};

} // namespace dotlane::app
