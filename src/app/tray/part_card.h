// A part in the tray: thumbnail, name, finished size, quantity and stock, a dot for each lane, a badge for
// findings.
#pragma once

#include "app/bench/thumbnail.h"
#include "app/commands/session.h"
#include "app/widgets/card.h"

namespace dotlane::app {

class PartCard : public Card {
    Q_OBJECT

  public:
    explicit PartCard(QWidget* parent = nullptr);
    PartId part() const { return part_; }
    void show_part(const Session& session, const Part& part);

  protected:
    void paintEvent(QPaintEvent* event) override;
    QSize sizeHint() const override { return {190, 74}; }

  private:
    struct LaneDot {
        QColor colour;
        QString plate;
    };
    PartId part_;
    QString name_, size_, made_of_;
    std::vector<LaneDot> dots_;
    std::optional<Grade> worst_;
    Thumbnail thumbnail_;
};

} // namespace dotlane::app
