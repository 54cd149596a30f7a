// The window: its first paint with the demo beside an empty main window's, and panning and zooming a drawing
// of 200,000 segments beside painting its lines anew for each frame.
#include <QApplication>
#include <QMainWindow>
#include <QPainter>
#include <QTemporaryDir>
#include <QWheelEvent>
#include <benchmark/benchmark.h>
#include <numeric>
#include <unistd.h>

#include "app/bench/part_view.h"
#include "app/lettering/glyph_grid.h"
#include "app/window/ahead.h"
#include "app/window/main_window.h"
#include "app/window/project_files.h"
#include "app/window/style.h"
#include "bench/goals.h"
#include "bench/process.h"
#include "bench/window_bench.h"
#include "bench/work.h"
#include "core/commands/making.h"
#include "core/derive/workshop.h"
#include "core/opening/opening.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

/// Sees the first paint.
class Painted : public QObject {
  public:
    bool eventFilter(QObject*, QEvent* event) override {
        if (event->type() == QEvent::Paint) seen = true;
        return false;
    }
    bool seen = false;
};

void wait_for(const std::function<bool()>& done) {
    while (!done())
        QApplication::processEvents(QEventLoop::WaitForMoreEvents);
}

void first_paints(benchmark::State& state) {
    std::vector<double> empty, demo;
    for (auto _ : state)
        for (int round = 0; round < 15; ++round) {
            empty.push_back(seconds_of({"/proc/self/exe", "--first-paint", "empty"}));
            demo.push_back(seconds_of({"/proc/self/exe", "--first-paint", "demo"}));
        }
    state.counters["empty_ms"] = 1000 * median(empty);
    state.counters["demo_ms"] = 1000 * median(demo);
    if (median(empty) > 0 && median(demo) > 0)
        goal("window: first paint of the demo over an empty window's", median(demo) / median(empty), 2.5);
}

struct Large {
    Workshop workshop{*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog")};
    QTemporaryDir folder;
    app::MainWindow window{workshop, disk(), folder.path().toStdString()};

    Large() {
        FontShelf fonts;
        const auto opened = open_drawing(large_drawing(), "large.svg", fonts);
        Project project = workshop.new_project("large");
        (void)apply(TakeIn{*opened, gather_lanes(*opened->source.drawing, workshop.catalog())}, project,
                    workshop.catalog());
        window.resize(1280, 800);
        window.show();
        window.files().start_project(std::move(project), {});
        window.settle();
    }
};

/// One step of a hand that drags with the middle button (half a second to and fro), or of one that turns the
/// wheel.
void move_hand(app::PartView& view, int i) {
    static QPointF at;
    const QPointF middle = QRectF(view.rect()).center();
    if (i % 120 < 60) {
        QWheelEvent wheel(middle, view.mapToGlobal(middle), {}, {0, i % 60 < 30 ? 40 : -40}, Qt::NoButton,
                          Qt::NoModifier, Qt::NoScrollPhase, false);
        QApplication::sendEvent(&view, &wheel);
        return;
    }
    const auto mouse = [&](QEvent::Type type) {
        QMouseEvent event(type, at, view.mapToGlobal(at), Qt::MiddleButton, Qt::MiddleButton, Qt::NoModifier);
        QApplication::sendEvent(&view, &event);
    };
    if (i % 120 == 60) at = middle, mouse(QEvent::MouseButtonPress);
    at += QPointF(i % 60 < 30 ? 6 : -6, 2);
    mouse(QEvent::MouseMove);
    if (i % 120 == 119) mouse(QEvent::MouseButtonRelease);
}

void pan_and_zoom(benchmark::State& state) {
    Large large;
    app::PartView& view = large.window.work().part_view();
    std::vector<double> frames;
    for (auto _ : state)
        for (int i = 0; i < 240; ++i) {
            const Watch watch;
            move_hand(view, i);
            view.repaint();
            QApplication::processEvents();
            frames.push_back(watch.seconds());
        }
    const double total = std::accumulate(frames.begin(), frames.end(), 0.0);
    const Watch watch;
    view.finish_painting();
    state.counters["sharp_again_ms"] = 1000 * watch.seconds();
    state.counters["frames_per_second"] = static_cast<double>(frames.size()) / total;
    state.counters["longest_ms"] = 1000 * *std::max_element(frames.begin(), frames.end());
    goal("window: s for 30 frames of panning 200,000 segments",
         30 * total / static_cast<double>(frames.size()), 1);
}

/// Of a font of more than 6,000 glyphs, from the command until they are seen.
void glyph_table(benchmark::State& state) {
    Workshop workshop{*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog")};
    std::vector<double> times;
    std::size_t glyphs = 0;
    for (auto _ : state) {
        QTemporaryDir folder;
        app::MainWindow window{workshop, disk(), folder.path().toStdString()};
        Project project = workshop.new_project("glyphs");
        Lettering spec;
        spec.font = "DejaVu Sans";
        (void)apply(MakePart{spec}, project, workshop.catalog(), workshop.fonts());
        glyphs = workshop.fonts().glyphs({spec.font}).size();
        window.resize(1280, 800);
        window.show();
        window.files().start_project(std::move(project), {});
        window.settle();
        const Watch watch;
        window.work().show_glyphs();
        window.findChild<app::GlyphGrid*>("glyph-grid")->viewport()->repaint();
        QApplication::processEvents();
        times.push_back(watch.seconds());
    }
    state.counters["glyphs"] = static_cast<double>(glyphs);
    goal("window: opening the glyph table, s", median(times), 0.2);
}

void paint_anew(benchmark::State& state) {
    QPainterPath path;
    std::mt19937 random(3);
    std::uniform_real_distribution<double> step(-2, 2);
    for (const Point p : scattered(2000)) {
        QPointF at(p.x * 2.5, p.y * 2.5);
        path.moveTo(at);
        for (int k = 0; k < 100; ++k)
            path.lineTo(at += QPointF(2.5 * step(random), 2.5 * step(random)));
    }
    QImage image(900, 700, QImage::Format_ARGB32_Premultiplied);
    for (auto _ : state) {
        image.fill(Qt::white);
        QPainter painter(&image);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.drawPath(path);
    }
}

} // namespace

namespace dotlane::bench {

int first_paint(int argc, char** argv) {
    const bool empty = std::string(argv[2]) == "empty";
    Painted watch;
    if (empty) {
        QApplication application(argc, argv);
        QMainWindow window;
        window.installEventFilter(&watch);
        window.resize(1280, 800);
        window.show();
        wait_for([&] { return watch.seen; });
        ::_exit(0);
    }
    // As the program's main does it.
    auto catalog = load_catalog(disk(), DOTLANE_SOURCE "/data/catalog");
    if (!catalog) return 1;
    Workshop workshop(std::move(*catalog));
    char demo[] = "--demo";
    char* arguments[] = {argv[0], demo};
    const auto ahead = app::Ahead::of_arguments(workshop, 2, arguments);
    QApplication application(argc, argv);
    QTemporaryDir folder;
    app::apply_theme(false);
    app::MainWindow window(workshop, disk(), folder.path().toStdString());
    app::apply_sheet();
    window.files().set_ahead(&*ahead);
    window.resize(1280, 800);
    window.files().open_demo();
    if (!window.session().is_open()) return 1; // a demo that cannot be read would be waited for for ever
    window.show();
    app::PartView& view = window.work().part_view();
    view.installEventFilter(&watch);
    wait_for([&] { return watch.seen && window.session().drawn() && view.painted(); });
    folder.remove();
    ::_exit(0);
}

} // namespace dotlane::bench

BENCHMARK(first_paints)->Name("first paint")->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK(pan_and_zoom)->Name("240 frames of 200,000 segments")->Iterations(2)->Unit(benchmark::kMillisecond);
BENCHMARK(glyph_table)->Name("glyph table")->Iterations(9)->Unit(benchmark::kMillisecond);
BENCHMARK(paint_anew)->Name("one frame of 200,000 segments painted anew")->Unit(benchmark::kMillisecond);
