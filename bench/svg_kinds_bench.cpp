// Reading drawings of many kinds beside the XML parser alone: how much of a reader's work is the XML depends
// on what is drawn. An arc is twenty numbers that have to be found from seven, an element without a path is
// all style.
#include <benchmark/benchmark.h>
#include <pugixml.hpp>

#include <cstdio>
#include <functional>
#include <random>

#include "bench/process.h"
#include "bench/work.h"
#include "core/formats/svg/reader.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

class Text {
  public:
    explicit Text(unsigned seed)
        : dice_(seed) {}
    Text& operator<<(const char* words) { return out_ += words, *this; }
    /// A number with so many decimals.
    Text& number(double low, double high, int decimals) {
        char text[40];
        (void)std::snprintf(text, sizeof text, "%.*f ", decimals,
                            std::uniform_real_distribution<double>(low, high)(dice_));
        return out_ += text, *this;
    }
    std::string svg() {
        return "<svg xmlns='http://www.w3.org/2000/svg' width='300mm' height='300mm' viewBox='0 0 300 300'>" +
               out_ + "</svg>";
    }

  private:
    std::string out_;
    std::mt19937 dice_;
};

constexpr int segments = 200'000;

std::string path_of(unsigned seed, const std::function<void(Text&)>& segment) {
    Text text(seed);
    text << "<path fill='none' stroke='#000' d='M150 150";
    for (int i = 0; i < segments; ++i)
        segment(text);
    text << "'/>";
    return text.svg();
}

std::string elements_of(unsigned seed, int count, const std::function<void(Text&)>& element) {
    Text text(seed);
    for (int i = 0; i < count; ++i)
        element(text);
    return text.svg();
}

struct Kind {
    const char* name;
    std::function<std::string(unsigned seed)> made;
};

const Kind kinds[] = {
    {"one path of lines",
     [](unsigned seed) {
         return path_of(seed, [](Text& t) { (t << "L").number(0, 300, 3).number(0, 300, 3); });
     }},
    {"one path of short steps",
     [](unsigned seed) {
         return path_of(seed, [](Text& t) { (t << "l").number(-2, 2, 2).number(-2, 2, 2); });
     }},
    {"one path of curves",
     [](unsigned seed) {
         return path_of(seed, [](Text& t) {
             t << "C";
             for (int i = 0; i < 6; ++i)
                 t.number(0, 300, 3);
         });
     }},
    {"one path of arcs",
     [](unsigned seed) {
         return path_of(seed, [](Text& t) {
             ((t << "a").number(1, 9, 2).number(1, 9, 2) << "0 0 1 ").number(-3, 3, 2).number(-3, 3, 2);
         });
     }},
    {"paths of four lines, styled",
     [](unsigned seed) {
         return elements_of(seed, segments / 4, [](Text& t) {
             ((t << "<path style='fill:none;stroke:#d03020;stroke-width:0.25' d='M")
                  .number(0, 300, 3)
                  .number(0, 300, 3)
              << "l2 0 0 2 -2 0z'/>");
         });
     }},
    {"polygons of twenty",
     [](unsigned seed) {
         return elements_of(seed, segments / 20, [](Text& t) {
             t << "<polygon fill='#369' points='";
             for (int i = 0; i < 40; ++i)
                 t.number(0, 300, 3);
             t << "'/>";
         });
     }},
    {"circles",
     [](unsigned seed) {
         return elements_of(seed, segments / 4, [](Text& t) {
             ((t << "<circle cx='").number(0, 300, 3) << "' cy='").number(0, 300, 3)
                 << "' r='2' fill='#369'/>";
         });
     }},
};

void open_kinds(benchmark::State& state) {
    const Kind& kind = kinds[static_cast<std::size_t>(state.range(0))];
    const std::string text = kind.made(static_cast<unsigned>(state.range(0)) + 5);
    state.SetLabel(kind.name);
    std::vector<double> ours, theirs;
    for (auto _ : state)
        for (int round = 0; round < 9; ++round) {
            const Watch mine;
            const auto read = read_svg(text, {});
            ours.push_back(mine.seconds());
            if (!read) return state.SkipWithError(read.error().message.english().c_str());
            const Watch plain;
            pugi::xml_document document;
            benchmark::DoNotOptimize(document.load_buffer(text.data(), text.size()));
            theirs.push_back(plain.seconds());
        }
    state.counters["over_xml"] = median(ours) / median(theirs);
    state.counters["ns_a_segment"] = 1e9 * median(ours) / segments;
}

} // namespace

BENCHMARK(open_kinds)
    ->Name("open_kinds")
    ->DenseRange(0, std::size(kinds) - 1)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
