// Things to be looked through and chosen: in groups, each with a picture, its name and one line about it.
// Typed letters narrow them, arrows and Enter choose, Escape gives up.
#pragma once

#include <QFrame>

class QLineEdit;
class QListWidget;
class QListWidgetItem;

namespace dotlane::app {

class Picker : public QFrame {
    Q_OBJECT

  public:
    struct Entry {
        QString key, name, about;
    };
    /// `what`: "Steps", for those who do not see the list.
    explicit Picker(const QString& what, QWidget* parent = nullptr);

    void clear();
    void add_group(const QString& title, const std::vector<Entry>& entries);
    void set_picture(const QString& key, const QPixmap& picture);
    /// In widget pixels.
    static QSize picture_size();
    /// With nothing typed, the keyboard in it.
    void open();

  Q_SIGNALS:
    void chosen(const QString& key);
    void given_up();
    /// The row with this place in the picker is to be seen.
    void row_wanted(const QRect& row);

  protected:
    bool eventFilter(QObject* object, QEvent* event) override;

  private:
    void narrow();
    void go(int by);
    void choose(QListWidgetItem* item);

    QLineEdit* typed_;
    QListWidget* list_;
};

} // namespace dotlane::app
