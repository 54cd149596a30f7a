// The right-hand region: a heading with room for a button, and a scrolling column.
#pragma once

#include <QFrame>
#include <optional>

class QHBoxLayout;
class QLabel;
class QScrollArea;
class QVBoxLayout;

namespace dotlane::app {

/// A column whose cards are stations on a line, top to bottom.
class StationColumn : public QWidget {
    Q_OBJECT

  public:
    explicit StationColumn(QWidget* parent = nullptr);
    /// `station`: the card gets a dot on the line.
    void add(QWidget* card, bool station = true);
    void clear();
    void set_chosen(QWidget* card);
    /// A bar where a dragged card would go, y of this widget; none when empty.
    void mark_drop(std::optional<int> y);

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QVBoxLayout* rows_;
    QList<QWidget*> stations_;
    QWidget* chosen_ = nullptr;
    std::optional<int> drop_;
};

class SidePanel : public QFrame {
    Q_OBJECT

  public:
    explicit SidePanel(const QString& heading, QWidget* parent = nullptr);
    QLabel* heading() { return heading_; }
    QHBoxLayout* head() { return head_; }
    QVBoxLayout* body() { return body_; }
    /// Gives what was put in or grew its place at once: until then the other cards would be squashed.
    void settle();
    /// How far the column is scrolled; to be gone back to when it has been built anew.
    int scrolled() const;
    void scroll_back(int to);
    /// Brings a widget of the column into view.
    void scroll_to(QWidget* widget, int margin = 12);
    /// Brings what lies in this place of a widget into view.
    void scroll_to(QWidget* widget, const QRect& place);
    /// While something is dragged near the upper or lower end of the column.
    void scroll_towards(const QPoint& global);

  private:
    QLabel* heading_;
    QHBoxLayout* head_;
    QVBoxLayout* body_;
    QScrollArea* scroll_;
};

/// Has what was put into the area or grew there its place at once, so that it can be scrolled to.
void settle_layouts(QScrollArea* area);

/// A small label above a field.
QWidget* captioned(const QString& caption, QWidget* field, QWidget* parent = nullptr);

} // namespace dotlane::app
