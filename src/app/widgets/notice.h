// A line of news above the bench: what happened, what was kept, what to do. Never in the way of work.
#pragma once

#include <QFrame>
#include <functional>
#include <vector>

class QHBoxLayout;
class QLabel;
class QPushButton;
class QProgressBar;

namespace dotlane::app {

struct NoticeAction {
    QString label;
    std::function<void()> act;
};

class Notice : public QFrame {
    Q_OBJECT

  public:
    enum class Kind { news, error };
    explicit Notice(QWidget* parent = nullptr);
    /// Each action is a button; pressing one closes the notice.
    void tell(Kind kind, const QString& text, std::vector<NoticeAction> actions = {});
    /// Shows progress 0..1 with a Cancel button.
    void work(const QString& text, double fraction, std::function<void()> cancel);
    void set_progress(double fraction);
    void clear();
    bool working() const { return working_; }
    QString text() const;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void set_actions(std::vector<NoticeAction> actions);

    QLabel* text_;
    QHBoxLayout* row_;
    QPushButton* close_;
    QProgressBar* bar_;
    std::vector<QPushButton*> buttons_;
    Kind kind_ = Kind::news;
    bool working_ = false;
};

} // namespace dotlane::app
