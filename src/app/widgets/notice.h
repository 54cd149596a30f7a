// A line of news above the bench: what happened, what was kept, what to do. Never in the way of work.
#pragma once

#include <QFrame>

class QLabel;
class QPushButton;
class QProgressBar;

namespace dotlane::app {

class Notice : public QFrame {
    Q_OBJECT

  public:
    enum class Kind { news, error };
    explicit Notice(QWidget* parent = nullptr);
    /// `action` may be empty; pressing it emits `acted`.
    void tell(Kind kind, const QString& text, const QString& action = {});
    /// Shows progress 0..1 with a Cancel button that emits `acted`.
    void work(const QString& text, double fraction);
    void clear();
    bool working() const { return working_; }
    QString text() const;

  Q_SIGNALS:
    void acted();

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QLabel* text_;
    QPushButton *act_, *close_;
    QProgressBar* bar_;
    Kind kind_ = Kind::news;
    bool working_ = false;
};

} // namespace dotlane::app
