// A rounded card; and the small text and buttons that stand on cards.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace dotlane::app {

class Card : public QFrame {
    Q_OBJECT

  public:
    explicit Card(QWidget* parent = nullptr);
    void set_chosen(bool chosen);
    void set_wrong(bool wrong); ///< the ground of an error
    QVBoxLayout* rows() { return rows_; }

  Q_SIGNALS:
    void pressed();
    void hovered(bool inside);

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void enterEvent(QEnterEvent* event) override;
    void leaveEvent(QEvent* event) override;

  private:
    QVBoxLayout* rows_;
    bool chosen_ = false, wrong_ = false;
};

enum class TextRole { title, heading, body, quiet };
QLabel* label(const QString& text, TextRole role, QWidget* parent = nullptr);
/// Rounded outline button; `main` is the one filled action of a screen.
QPushButton* pill(const QString& text, QWidget* parent = nullptr, bool main = false);
/// Text that looks like a link and acts like a button.
QPushButton* link_button(const QString& text, QWidget* parent = nullptr);

} // namespace dotlane::app
