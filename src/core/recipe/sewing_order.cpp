#include "core/recipe/sewing_order.h"

#include <set>

namespace dotlane {
namespace {

class Search {
  public:
    Search(const SeamGraph& graph, Progress& progress)
        : graph_(graph)
        , progress_(progress)
        , sewn_(graph.pieces)
        , of_(graph.pieces) {
        for (std::size_t i = 0; i < graph.seams.size(); ++i)
            of_[graph.seams[i].a].push_back(i), of_[graph.seams[i].b].push_back(i);
    }

    SewingOrder run() {
        for (std::size_t first = 0; first < graph_.pieces && !stop(); ++first) {
            sewn_.assign(graph_.pieces, false);
            order_.clear();
            if (sew(first)) return {best_, true};
        }
        for (std::size_t i = 0; i < graph_.pieces; ++i)
            if (std::find(best_.begin(), best_.end(), i) == best_.end()) best_.push_back(i);
        return {best_, false};
    }

  private:
    bool stop() const { return progress_.cancelled() || looked_ > 200'000; }

    bool sew(std::size_t piece) {
        ++looked_;
        sewn_[piece] = true, order_.push_back(piece);
        if (order_.size() > best_.size()) best_ = order_;
        if (order_.size() == graph_.pieces) return true;
        // What is sewn decides what is left to find, not in which order it was.
        if (dead_.insert(sewn_).second)
            for (std::size_t next = 0; next < graph_.pieces && !stop(); ++next)
                if (!sewn_[next] && straight(next) && sew(next)) return true;
        sewn_[piece] = false, order_.pop_back();
        return false;
    }

    /// Whether all that the piece shares with what is sewn lies on one line, in one go.
    bool straight(std::size_t piece) const {
        std::vector<const Polyline*> lines;
        for (const std::size_t i : of_[piece]) {
            const SeamGraph::Seam& seam = graph_.seams[i];
            if (sewn_[seam.a == piece ? seam.b : seam.a]) lines.push_back(&seam.line);
        }
        if (lines.empty()) return false;
        // The two points that lie farthest apart bear the line.
        Point a = lines.front()->points.front(), b = a;
        for (int pass = 0; pass < 2; ++pass) {
            const Point from = b;
            for (const Polyline* line : lines)
                for (const Point p : line->points)
                    if (distance(from, p) > distance(from, a)) a = p;
            std::swap(a, b);
        }
        double covered = 0;
        for (const Polyline* line : lines) {
            covered += in_mm(length(*line));
            for (const Point p : line->points)
                if (distance_to_segment(p, a, b) > 0.15) return false;
        }
        return covered > distance(a, b) * 0.98 - 0.5; // no gap that would have to be set in
    }

    const SeamGraph& graph_;
    Progress& progress_;
    std::vector<bool> sewn_;
    std::vector<std::vector<std::size_t>> of_; ///< seams of each piece
    std::vector<std::size_t> order_, best_;
    std::set<std::vector<bool>> dead_;
    std::size_t looked_ = 0;
};

} // namespace

SewingOrder sewing_order(const SeamGraph& graph, Progress& progress) {
    return Search(graph, progress).run();
}

} // namespace dotlane
