// The calculators behind make_lines, one file each; and what they share.
#pragma once

#include "core/geometry/region.h"
#include "core/sources/make.h"

namespace dotlane::sources {

class Lines {
  public:
    void add(const char* role, Shape shape, std::string name = {});
    void add(const char* role, Contour contour) { add(role, Shape{{std::move(contour)}}); }
    void straight(const char* role, Point a, Point b);
    void figure(const char* key, const char* unit, double value) { figures_.push_back({key, unit, value}); }
    void tell(Finding finding) { findings_.push_back(std::move(finding)); }
    SourceLines take();

  private:
    Drawing drawing_;
    Findings findings_;
    std::vector<Figure> figures_;
};

/// Error "source.part" unless there is a part and it has an outline.
Result<void> needs(const Borrowed* borrowed, const char* for_what);

/// A closed run of straight lines.
Contour polygon(const std::vector<Point>& points);
/// The area's rings as straight lines.
Shape shape_of(const Region& region);

} // namespace dotlane::sources
