// The same work for ours and for the reference.
#pragma once

#include <algorithm>
#include <chrono>
#include <random>
#include <string>
#include <thread>

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane::bench {

/// Seconds since it was made.
class Watch {
  public:
    double seconds() const {
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - start_).count();
    }

  private:
    std::chrono::steady_clock::time_point start_ = std::chrono::steady_clock::now();
};

/// Seconds from when a hand cancels the work, so many seconds after it began, to its end.
template<class Work>
double wait_for_end(double after, Work work) {
    Progress progress;
    Watch since;
    std::thread hand([&] {
        std::this_thread::sleep_for(std::chrono::duration<double>(after));
        since = Watch();
        progress.cancel();
    });
    work(progress);
    const Watch ended;
    hand.join();
    return std::max(0.0, since.seconds() - ended.seconds());
}

/// A gear-like outline with many corners and four holes.
inline Region gear(int corners) {
    const auto ring = [](int n, double r, double wobble, Point c) {
        Polyline out{{}, true};
        for (int i = 0; i < n; ++i) {
            const double a = 2 * 3.14159265358979 * i / n, k = r + (i % 2 ? wobble : -wobble);
            out.points.push_back({c.x + k * std::cos(a), c.y + k * std::sin(a)});
        }
        return out;
    };
    Polylines lines{ring(corners, 60, 2, {0, 0})};
    for (const Point c : {Point{25, 0}, Point{-25, 0}, Point{0, 25}, Point{0, -25}})
        lines.push_back(ring(corners / 4, 9, 0.5, c));
    return region_of(lines, FillRule::evenodd);
}

inline std::vector<Point> scattered(int n) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> at(0, 300);
    std::vector<Point> out;
    for (int i = 0; i < n; ++i)
        out.push_back({at(random), at(random)});
    return out;
}

/// 2,000 paths of 100 segments.
inline const std::string& large_drawing() {
    static const std::string text = [] {
        std::string out =
            "<svg xmlns='http://www.w3.org/2000/svg' width='300mm' height='300mm' viewBox='0 0 300 300'>";
        std::mt19937 random(3);
        std::uniform_real_distribution<double> step(-2, 2);
        for (const Point p : scattered(2000)) {
            out +=
                "<path fill='none' stroke='#a8462d' d='M" + std::to_string(p.x) + "," + std::to_string(p.y);
            for (int k = 0; k < 100; ++k)
                out += "l" + std::to_string(step(random)) + "," + std::to_string(step(random));
            out += "'/>";
        }
        return out + "</svg>";
    }();
    return text;
}

} // namespace dotlane::bench
