// A form for the members of a source or a step, built from their one declaration (core/project/fields.h).
// Members that have no effect at the moment are not shown. Controls bear the member's key as their object
// name.
#pragma once

#include <QWidget>
#include <functional>
#include <map>
#include <memory>

#include "core/base/measure.h"
#include "core/base/units.h"
#include "core/project/fields.h"

class QGridLayout;
class QPushButton;

namespace dotlane::app {

/// Whatever has members: calls `fields` on a value.
using Visit = std::function<void(Fields&)>;

class FieldForm : public QWidget {
    Q_OBJECT

  public:
    explicit FieldForm(QWidget* parent = nullptr);
    ~FieldForm() override;
    /// Shows the members as they are; a field that is being typed in keeps its text. Members that are seldom
    /// changed are shown where they differ from those of `fresh`, or when they are asked for.
    void show_fields(const Visit& visit, LengthUnit unit, const Visit& fresh = {});
    /// Families offered by a field of TextKind::font.
    void set_fonts(std::function<QStringList()> fonts) { fonts_ = std::move(fonts); }
    /// Parts offered by a field that names another part, by their names.
    void set_parts(std::function<std::vector<std::pair<PartId, QString>>()> parts) {
        parts_ = std::move(parts);
    }
    /// What a member shows while it is empty ("half tip" is 0.25 mm), by key.
    void set_empty_value(const QString& key, Length value);

    struct Row;

  Q_SIGNALS:
    /// `change`, shown to a value's members, sets the one that was edited. `key` names it.
    void opened(); ///< all members are wanted, or no longer
    void edited(const QString& key, const QString& label, const std::shared_ptr<dotlane::Fields>& change);

  private:
    void rebuild(const std::vector<Row>& rows);
    QWidget* control(const Row& row);

    std::vector<Row> rows_;
    std::vector<QWidget*> controls_;
    std::map<QString, Length> empty_values_;
    std::function<QStringList()> fonts_;
    std::function<std::vector<std::pair<PartId, QString>>()> parts_;
    QGridLayout* grid_;
    QPushButton* more_;
    bool open_ = false;
    LengthUnit unit_ = LengthUnit::mm;
};

} // namespace dotlane::app
