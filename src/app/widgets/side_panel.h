// The right-hand region: a heading with room for a button, and a scrolling column.
#pragma once

#include <QFrame>

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

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    QVBoxLayout* rows_;
    QList<QWidget*> stations_;
    QWidget* chosen_ = nullptr;
};

class SidePanel : public QFrame {
    Q_OBJECT

  public:
    explicit SidePanel(const QString& heading, QWidget* parent = nullptr);
    QLabel* heading() { return heading_; }
    QHBoxLayout* head() { return head_; }
    QVBoxLayout* body() { return body_; }
    /// Brings a widget of the column into view.
    void scroll_to(QWidget* widget, int margin = 12);

  private:
    QLabel* heading_;
    QHBoxLayout* head_;
    QVBoxLayout* body_;
    QScrollArea* scroll_;
};

/// A small label above a field.
QWidget* captioned(const QString& caption, QWidget* field, QWidget* parent = nullptr);

} // namespace dotlane::app
