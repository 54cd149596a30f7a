// The ways from one region to another: what a press here shows there.
#include <QStackedWidget>

#include "app/bench/part_view.h"
#include "app/bench/rehearsal_view.h"
#include "app/bench/sheets_view.h"
#include "app/board/board.h"
#include "app/jobs/jobs_panel.h"
#include "app/lanes/lane_panel.h"
#include "app/lettering/glyph_panel.h"
#include "app/opening/opening_panel.h"
#include "app/recipe/recipe_panel.h"
#include "app/run/order_panel.h"
#include "app/run/wishes_panel.h"
#include "app/sheets/sheet_panel.h"
#include "app/tray/tray.h"
#include "app/widgets/notice.h"
#include "app/window/findings_panel.h"
#include "app/window/header.h"
#include "app/window/help_panel.h"
#include "app/window/work_page.h"
#include "core/base/text.h"
#include "present/words.h"

namespace dotlane::app {

void WorkPage::connect_regions() {
    connect(header_->stations(), &StationBar::chosen, this,
            [this](int i) { show_view(static_cast<View>(i)); });
    connect(header_, &Header::findings_wanted, this, [this] {
        if (side_->currentWidget() == findings_panel_.made())
            back();
        else
            show_findings();
    });
    for (Canvas* view : {static_cast<Canvas*>(part_view_), static_cast<Canvas*>(sheets_view_)}) {
        connect(&session_, &Session::projectChanged, view, &Canvas::ring_nothing); // it may be mended
        connect(&session_, &Session::choiceChanged, view, &Canvas::ring_nothing);  // another part or sheet
    }
    connect(header_, &Header::export_wanted, this, &WorkPage::export_wanted);
    connect(tray_, &Tray::new_part_wanted, this, &WorkPage::show_jobs);
    connect(recipe_, &RecipePanel::lane_opened, this, &WorkPage::show_lanes);
    connect(recipe_, &RecipePanel::step_hovered, part_view_, &PartView::light);
    connect(recipe_, &RecipePanel::pieces_wanted, this, [this](StepId fill) {
        show_view(View::part);
        part_view_->choose_pieces_of(fill);
    });
    connect(recipe_, &RecipePanel::glyphs_wanted, this, &WorkPage::show_glyphs);
    connect(recipe_, &RecipePanel::layers_wanted, this, &WorkPage::layers_wanted);
    connect(recipe_, &RecipePanel::fill_wanted, this, &WorkPage::fill_wanted);
    connect(recipe_, &RecipePanel::step_wanted, this, &WorkPage::step_wanted);
    connect(recipe_, &RecipePanel::place_wanted, this, [this](const PlaceBox& b) {
        show_view(View::part);
        part_view_->show_area({b.x0, b.y0, b.x1, b.y1});
    });
    connect(part_view_, &PartView::lane_letter, this, &WorkPage::lane_letter);
    connect(part_view_, &PartView::menu_wanted, this, &WorkPage::menu_wanted);
    connect(board_->map(), &BoardMap::sought, this, [this](Duration t) {
        show_view(View::rehearsal);
        rehearsal_view_->seek(t);
    });
    connect(board_->map(), &BoardMap::lane_pressed, this, &WorkPage::show_lanes);
    connect(board_->map(), &BoardMap::told, this,
            [this](const QString& text) { notice_->tell(Notice::Kind::news, text); });
    connect(board_->map(), &BoardMap::order_changed, this, &WorkPage::tell_order_change);
    connect(board_, &Board::why_wanted, this, &WorkPage::show_why);
    connect(board_, &Board::wishes_wanted, this, &WorkPage::show_wishes);
    connect(rehearsal_view_, &RehearsalView::stroke_pressed, this, &WorkPage::show_stroke);
    connect(rehearsal_view_, &RehearsalView::moved, this, [this] {
        const bool shown = view_ == View::rehearsal;
        board_->map()->set_now(shown ? std::optional(rehearsal_view_->time()) : std::nullopt);
        if (shown) order_panel_->set_now(rehearsal_view_->time());
    });
}

/// They are made when they are first shown.
void WorkPage::prepare_panels() {
    const auto aside = [this](auto* panel) {
        side_->addWidget(panel);
        return panel;
    };
    sheet_panel_.by([this, aside] {
        auto* panel = aside(new SheetPanel(session_, side_));
        connect(panel, &SheetPanel::place_wanted, this, [this](const PlaceBox& b) {
            sheets_view_->show_area({b.x0, b.y0, b.x1, b.y1});
        });
        return panel;
    });
    order_panel_.by([this, aside] {
        auto* panel = aside(new OrderPanel(session_, side_));
        connect(panel, &OrderPanel::sought, this, [this](Duration t) {
            show_view(View::rehearsal);
            rehearsal_view_->seek(t);
        });
        return panel;
    });
    wishes_panel_.by([this, aside] {
        auto* panel = aside(new WishesPanel(session_, side_));
        connect(panel, &WishesPanel::done, this, &WorkPage::back);
        return panel;
    });
    lane_panel_.by([this, aside] {
        auto* panel = aside(new LanePanel(session_, side_));
        connect(panel, &LanePanel::done, this, &WorkPage::back);
        return panel;
    });
    findings_panel_.by([this, aside] {
        auto* panel = aside(new FindingsPanel(session_, side_));
        connect(panel, &FindingsPanel::done, this, &WorkPage::back);
        connect(panel, &FindingsPanel::overridden, this, &WorkPage::override_accepted);
        connect(panel, &FindingsPanel::finding_chosen, this, &WorkPage::show_finding);
        return panel;
    });
    help_panel_.by([this, aside] {
        auto* panel = aside(new HelpPanel(side_));
        connect(panel, &HelpPanel::done, this, &WorkPage::back);
        return panel;
    });
    jobs_panel_.by([this, aside] {
        auto* panel = aside(new JobsPanel(session_.workshop(), side_));
        connect(panel, &JobsPanel::done, this, &WorkPage::back);
        connect(panel, &JobsPanel::made, this, &WorkPage::make_wanted);
        connect(panel, &JobsPanel::drawing_wanted, this, [this] {
            back();
            Q_EMIT drawing_wanted();
        });
        return panel;
    });
    glyph_panel_.by([this, aside] {
        auto* panel = aside(new GlyphPanel(session_, side_));
        connect(panel, &GlyphPanel::done, this, &WorkPage::back);
        return panel;
    });
}

void WorkPage::prepare_opening() {
    opening_panel_.by([this] {
        auto* panel = new OpeningPanel(session_, side_);
        side_->addWidget(panel);
        connect(panel, &OpeningPanel::scaled, this, [this](const Opened& opened, double factor) {
            opening_view_->show_drawing(opened, factor, session_.project().unit);
        });
        connect(panel, &OpeningPanel::picture_scaled, this,
                [this](const OpenedPicture& opened, Length width) {
                    opening_view_->show_picture(opened, width, session_.project().unit);
                });
        connect(panel, &OpeningPanel::picture_taken, this, &WorkPage::picture_taken);
        connect(panel, &OpeningPanel::as_picture_wanted, this, &WorkPage::as_picture_wanted);
        connect(panel, &OpeningPanel::taken, this, [this] { show_view(View::part); });
        connect(panel, &OpeningPanel::given_up, this, [this] {
            if (session_.project().parts.empty() && session_.path().isEmpty() && !session_.modified())
                Q_EMIT emptied();
            else
                show_view(View::part);
        });
        return panel;
    });
}

void WorkPage::show_lanes(LaneId lane) {
    if (file_waiting()) return;
    lane_panel_->show_lane(lane);
    show_side(lane_panel_);
}

void WorkPage::show_findings(bool ask_override) {
    findings_panel_->ask_override(ask_override);
    show_side(findings_panel_);
}

void WorkPage::show_why() {
    show_side(order_panel_);
    order_panel_->show_reasons();
}

void WorkPage::show_wishes() {
    if (file_waiting()) return back();
    show_side(wishes_panel_);
}

void WorkPage::show_help(const Actions& actions) {
    help_panel_->show_keys(actions);
    show_side(help_panel_);
}

void WorkPage::show_jobs() {
    if (file_waiting()) return back(); // which says why not
    show_side(jobs_panel_);
    jobs_panel_->open();
}

void WorkPage::show_steps() {
    if (file_waiting()) return back();
    show_view(View::part);
    recipe_->show_picker();
}

void WorkPage::show_glyphs() {
    if (file_waiting()) return back();
    show_view(View::part);
    show_side(glyph_panel_);
}

void WorkPage::show_finding(const Finding& finding) {
    const PlaceBox& b = finding.place.box;
    Choice choice = session_.choice();
    if (finding.place.sheet) {
        choice.sheet = finding.place.sheet;
        session_.choose(choice);
        show_view(View::sheets);
        if (b.valid()) sheets_view_->show_area({b.x0, b.y0, b.x1, b.y1});
    } else if (finding.place.part) {
        session_.choose_part(finding.place.part);
        choose_step(finding.place.step); // what it put where is seen with it
        show_view(View::part);
        if (b.valid()) part_view_->show_area({b.x0, b.y0, b.x1, b.y1});
    }
    show_side(findings_panel_); // its remedies stay at hand, and the next finding
}

void WorkPage::choose_step(StepId step) {
    if (!step) return;
    Choice choice = session_.choice();
    choice.step = step;
    choice.lines.clear();
    session_.choose(choice);
}

void WorkPage::show_stroke(const StrokeOf& of) {
    if (!dotlane::find(session_.project(), of.part)) return;
    session_.choose_part(of.part);
    if (of.line)
        session_.choose_lines({of.line});
    else
        choose_step(of.step);
    show_view(View::part);
}

void WorkPage::tell_done(const Done& done) {
    QString text = present::words(done.said);
    for (const Phrase& lost : done.lost)
        text += " " + present::words(lost);
    notice_->tell(Notice::Kind::news, text);
}

/// A block was dragged: once the new plan is there, says what the new order costs and breaks.
void WorkPage::tell_order_change(const QString& plate) {
    const auto before = session_.derived();
    if (!before || !before->plan) return;
    const PlanTotals old = before->plan->totals;
    connect(
        &session_, &Session::derivedChanged, this,
        [this, plate, old] {
            const auto now = session_.derived();
            if (!now || !now->plan) return;
            const PlanTotals& t = now->plan->totals;
            QStringList words;
            for (const Finding& f : now->plan->findings)
                words << present::words(f);
            const double hands = in_seconds(t.hands) - in_seconds(old.hands);
            if (t.stops != old.stops) words << tr("Stops: %1 instead of %2.").arg(t.stops).arg(old.stops);
            if (std::abs(hands) >= 1)
                words << tr("Hands on: %1 %2.")
                             .arg(QString::fromStdString(spoken_seconds(std::abs(hands))),
                                  hands > 0 ? tr("more") : tr("less"));
            if (words.isEmpty()) words << tr("It breaks no rule and costs nothing.");
            notice_->tell(Notice::Kind::news, tr("%1 was moved. %2").arg(plate, words.join(' ')),
                          {{tr("Undo"), [this] { session_.history().undo(); }}});
        },
        Qt::SingleShotConnection);
}

} // namespace dotlane::app
