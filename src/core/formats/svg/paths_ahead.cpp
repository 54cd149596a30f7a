#include "core/formats/svg/paths_ahead.h"

#include <algorithm>
#include <atomic>
#include <functional>

#include "core/base/parallel.h"

namespace dotlane::svg {
namespace {

constexpr std::size_t worth_it = 64 << 10;    ///< bytes of path data
constexpr std::size_t portion = 32 << 10;     ///< bytes for one go
constexpr std::size_t most_ahead = 4'000'000; ///< segments; the walk counts its own limits as it goes

} // namespace

void PathsAhead::parse(const Progress& progress) {
    std::vector<std::size_t> begins{0}; // of portions
    std::size_t bytes = 0, all = 0;
    for (std::size_t i = 0; i < data_.size(); ++i) {
        const std::size_t length = std::string_view(data_[i]).size();
        bytes += length, all += length;
        if (bytes >= portion) {
            begins.push_back(i + 1);
            bytes = 0;
        }
    }
    if (all < worth_it) return;
    if (begins.back() != data_.size()) begins.push_back(data_.size());
    parsed_.resize(data_.size());
    done_.resize(data_.size());
    std::atomic<std::size_t> segments{0};
    in_parallel(begins.size() - 1, all, [&](std::size_t c) {
        for (std::size_t i = begins[c]; i < begins[c + 1]; ++i) {
            if (segments > most_ahead || progress.cancelled()) return;
            parsed_[i] = parse_path(data_[i]);
            done_[i] = 1;
            for (const Contour& contour : parsed_[i].contours)
                segments += contour.segments.size();
        }
    });
}

PathData PathsAhead::take(const char* data) {
    if (parsed_.empty()) return parse_path(data);
    if (next_ >= data_.size() || data_[next_] != data)
        next_ = static_cast<std::size_t>(
            std::lower_bound(data_.begin(), data_.end(), data, std::less<const char*>()) - data_.begin());
    const std::size_t at = next_++;
    if (at >= data_.size() || data_[at] != data || !done_[at]) return parse_path(data);
    done_[at] = 0;
    return std::move(parsed_[at]);
}

} // namespace dotlane::svg
