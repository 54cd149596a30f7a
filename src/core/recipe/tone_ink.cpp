#include "core/recipe/tone_ink.h"

namespace dotlane {
namespace {

/// Of the ways to the grid: no slope is farther from all simple ones (its tangent is the golden section's).
constexpr double slant = 0.5535743589;

Raster raster_for(const Region& region, const Affine& askew, Length tip, double fine) {
    const Box box = bounds(transformed(region, askew)).grown(in_mm(tip));
    // A tenth of a millimetre, as strokes of broad tips are windows' edges too; ten million squares at the
    // most.
    constexpr double coarsest = 0.1;
    return {box,
            std::max(std::min(in_mm(tip) / fine, coarsest), std::sqrt(box.width() * box.height() / 1e7))};
}

} // namespace

ToneInk::ToneInk(Length tip, const Region& region, const Tone& tone, const Progress& progress, double fine,
                 double along)
    : askew_(Affine::rotation(slant - along))
    , to_part_(Affine::rotation(along - slant))
    , raster_(raster_for(region, askew_, tip, fine))
    , radius_(in_mm(tip) / 2)
    , inside_(raster_.size(), 0)
    , tone_(raster_.size(), 0)
    , ink_(raster_.size(), 0) {
    raster_.fill(transformed(region, askew_), [&](std::size_t from, std::size_t end) {
        for (; from < end && !progress.cancelled(); ++from)
            inside_[from] = 1, tone_[from] = static_cast<float>(std::clamp(tone.at(place(from)), 0.0, 1.0));
    });
}

std::vector<double> ToneInk::wished_by(const std::vector<InkWay>& ways, Progress& progress) const {
    constexpr std::uint32_t nobody = ~0U;
    std::vector<std::uint32_t> whose(raster_.size(), nobody);
    std::vector<std::size_t> front, next;
    for (std::uint32_t i = 0; i < ways.size(); ++i) {
        if (i % 4096 == 0 && progress.cancelled()) break;
        const Point a = askew_(ways[i].a), b = askew_(ways[i].b);
        const int steps = std::max(1, static_cast<int>(distance(a, b) / raster_.cell()));
        for (int k = 0; k < steps; ++k) {
            const std::size_t at = raster_.at(mix(a, b, (k + 0.5) / steps));
            if (inside_[at] && whose[at] == nobody) whose[at] = i, front.push_back(at);
        }
    }
    // Squares are handed out in rings around them.
    while (!front.empty() && !progress.cancelled()) {
        next.clear();
        for (std::size_t k = 0; k < front.size() && (k % 65536 != 0 || !progress.cancelled()); ++k)
            raster_.beside(front[k], [&](std::size_t to) {
                if (inside_[to] && whose[to] == nobody) whose[to] = whose[front[k]], next.push_back(to);
            });
        std::swap(front, next);
    }
    std::vector<double> out(ways.size(), 0);
    for (std::size_t at = 0; at < whose.size() && !progress.cancelled(); ++at)
        if (whose[at] != nobody) out[whose[at]] += square() * static_cast<double>(tone_[at]);
    return out;
}

} // namespace dotlane
