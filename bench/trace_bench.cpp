// Tracing a picture of 12 megapixels, and how long it takes to stop.
#include <QBuffer>
#include <QImage>
#include <benchmark/benchmark.h>
#include <random>
#include <thread>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/work.h"
#include "core/sources/make.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

/// Blots and noise: tens of thousands of pieces.
Picture large_picture() {
    QImage image(4000, 3000, QImage::Format_Grayscale8);
    std::mt19937 random(11);
    for (int y = 0; y < image.height(); ++y)
        for (int x = 0; x < image.width(); ++x)
            image.scanLine(y)[x] = static_cast<uchar>(128 + 90 * std::sin(x / 9.0) * std::sin(y / 11.0) +
                                                      static_cast<int>(random() % 40));
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    Picture picture;
    picture.bytes = std::make_shared<const std::string>(bytes.toStdString());
    return picture;
}

void cancel_trace(benchmark::State& state) {
    const Picture picture = large_picture();
    FontShelf fonts;
    std::vector<double> waits;
    double whole = 0;
    for (auto _ : state) {
        const Watch all;
        benchmark::DoNotOptimize(make_lines(picture, fonts));
        whole = all.seconds();
        // While it is decoded, while it is traced; not near its end, which may come before the hand does.
        for (int i = 1; i <= 6; ++i)
            waits.push_back(wait_for_end(whole * i / 9, [&](Progress& progress) {
                if (make_lines(picture, fonts, nullptr, progress))
                    state.SkipWithError("it was not cancelled");
            }));
    }
    state.counters["whole_s"] = whole;
    goal("trace: longest wait for a cancelled 12-megapixel trace, s",
         *std::max_element(waits.begin(), waits.end()), 0.1);
}

} // namespace

BENCHMARK(cancel_trace)
    ->Name("cancelling a trace of 12 megapixels")
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
