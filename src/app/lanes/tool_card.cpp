#include "app/lanes/tool_card.h"

#include <QCheckBox>
#include <QHBoxLayout>

#include "app/widgets/number_field.h"
#include "app/widgets/side_panel.h"
#include "core/catalog/user_catalog.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

QString whence(const Setting* setting) {
    if (!setting) return ToolCard::tr("nothing is known: try a swatch");
    switch (setting->from) {
    case Setting::From::swatch:
        return ToolCard::tr("from a swatch");
    case Setting::From::maker:
        return ToolCard::tr("set by you, not tried");
    case Setting::From::catalog:
        break;
    }
    return ToolCard::tr("from the catalog: try a swatch");
}

bool cuts(const Tool& tool) {
    return std::any_of(tool.actions.begin(), tool.actions.end(),
                       [](Action action) { return row(action).parts; });
}

/// Whether it leaves ink that must dry.
bool inks(const Tool& tool) {
    return std::any_of(tool.actions.begin(), tool.actions.end(), [](Action action) {
        return row(action).tool_colour && !row(action).under_sheet && row(action).run;
    });
}

} // namespace

ToolCard::ToolCard(Session& session, QWidget* parent)
    : Card(parent)
    , session_(session) {
    rows()->addWidget(label(tr("Its tool"), TextRole::heading, this));
    connect(&session_, &Session::catalogChanged, this, [this] { show_lane(lane_); });
}

void ToolCard::show_lane(LaneId id) {
    lane_ = id;
    if (column_) { // one of its fields may be what asks for this
        column_->hide();
        column_->deleteLater();
    }
    column_ = nullptr;
    const Project& project = session_.project();
    const Catalog& catalog = session_.catalog();
    const Lane* lane = dotlane::find(project, id);
    const Tool* tool = lane ? catalog.tool(lane->tool) : nullptr;
    const Machine* machine = catalog.machine(project.machine);
    setVisible(tool && machine && row(lane->action).run);
    if (isHidden()) return;
    column_ = new QWidget(this);
    auto* column = new QVBoxLayout(column_);
    column->setContentsMargins(0, 0, 0, 0);
    rows()->addWidget(column_);
    std::vector<const Stock*> stocks;
    for (const Sheet& sheet : project.sheets)
        if (const Stock* stock = catalog.stock(sheet.stock);
            stock && std::find(stocks.begin(), stocks.end(), stock) == stocks.end())
            stocks.push_back(stock);
    for (const Stock* stock : stocks)
        column->addWidget(setting_of(*tool, *stock, *machine));
    column->addWidget(offset_of(*tool));
}

QWidget* ToolCard::setting_of(const Tool& tool, const Stock& stock, const Machine& machine) {
    auto* box = new QWidget(column_);
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 2, 0, 6);
    column->setSpacing(3);
    const Setting* known = session_.catalog().setting(tool, stock, machine);
    Setting now = known ? *known : Setting{};
    // For any machine, unless what holds for this one alone would go before it.
    if (now.stock != stock.id) now.machine.clear();
    now.tool = tool.id, now.stock = stock.id, now.note.clear();
    column->addWidget(label(tr("on %1").arg(present::words(word(stock))), TextRole::body, box));
    auto* from = label(whence(known), TextRole::quiet, box);
    from->setWordWrap(true);
    column->addWidget(from);
    const auto keep = [this, now](const std::function<void(Setting&)>& how) {
        Setting next = now;
        if (next.from == Setting::From::catalog) next.from = Setting::From::maker;
        how(next);
        session_.keep(
            [&](FileSystem& files, const std::string& folder) { return keep_setting(files, folder, next); });
    };
    auto* row = new QHBoxLayout;
    const auto field = [&](const QString& caption, const char* name, std::optional<double> value, double high,
                           auto set) {
        auto* number = new NumberField(NumberField::Kind::number, 0, high, box);
        number->setObjectName(name);
        number->setMinimumWidth(52);
        number->set(value.value_or(0));
        if (!value) number->set_word(tr("not set"), true);
        row->addWidget(captioned(caption, number, box));
        connect(number, &NumberField::committed, this, [keep, set](double v) {
            keep([&](Setting& s) { set(s, v > 0 ? std::optional(v) : std::nullopt); });
        });
    };
    field(tr("pressure"), "setting-pressure", now.pressure, 10000,
          [](Setting& s, std::optional<double> v) { s.pressure = v; });
    field(tr("mm/s"), "setting-speed", now.speed ? std::optional(in_mm_per_second(*now.speed)) : std::nullopt,
          2000, [](Setting& s, std::optional<double> v) {
              s.speed = v ? std::optional(mm_per_second(*v)) : std::nullopt;
          });
    if (cuts(tool)) // a pen has no blade to set, and a blade leaves nothing wet
        field(tr("tip out, mm"), "setting-depth", now.depth ? std::optional(in_mm(*now.depth)) : std::nullopt,
              20, [](Setting& s, std::optional<double> v) {
                  s.depth = v ? std::optional(mm(*v)) : std::nullopt;
              });
    if (inks(tool))
        field(tr("dry in, s"), "setting-dry", now.dry ? std::optional(in_seconds(*now.dry)) : std::nullopt,
              86400, [](Setting& s, std::optional<double> v) {
                  s.dry = v ? std::optional(seconds(*v)) : std::nullopt;
              });
    field(tr("passes"), "setting-passes", now.passes, 8,
          [](Setting& s, std::optional<double> v) { s.passes = v ? static_cast<int>(*v) : 1; });
    row->addStretch(1);
    column->addLayout(row);
    auto* tried = new QCheckBox(tr("tried on a swatch"), box);
    tried->setObjectName("setting-tried");
    tried->setChecked(known && known->from == Setting::From::swatch);
    column->addWidget(tried);
    connect(tried, &QCheckBox::clicked, this, [keep](bool on) {
        keep([&](Setting& s) { s.from = on ? Setting::From::swatch : Setting::From::maker; });
    });
    return box;
}

QWidget* ToolCard::offset_of(const Tool& tool) {
    auto* box = new QWidget(column_);
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(3);
    auto* about = label(tr("Where its tip touches, seen from a plain tool's"), TextRole::quiet, box);
    about->setWordWrap(true);
    about->setToolTip(
        tr("Chisels and brushes touch beside their axis. A sheet of crosses measures by how much."));
    column->addWidget(about);
    auto* row = new QHBoxLayout;
    const auto field = [&](const QString& caption, const char* name, double value, auto moved) {
        auto* number = new NumberField(NumberField::Kind::length, -20, 20, box);
        number->setObjectName(name);
        number->set(value, session_.project().unit);
        row->addWidget(captioned(caption, number, box));
        connect(number, &NumberField::committed, this,
                [this, id = tool.id, offset = tool.offset, moved](double v) {
                    Point next = offset;
                    moved(next, v);
                    session_.keep([&](FileSystem& files, const std::string& folder) {
                        return keep_offset(files, folder, id, next);
                    });
                });
    };
    field(tr("to the right"), "offset-right", tool.offset.x, [](Point& p, double v) { p.x = v; });
    field(tr("down"), "offset-down", tool.offset.y, [](Point& p, double v) { p.y = v; });
    row->addStretch(1);
    column->addLayout(row);
    return box;
}

} // namespace dotlane::app
