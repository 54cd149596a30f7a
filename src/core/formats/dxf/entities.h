// One entity of a DXF file as a contour in the drawing's own plane and units, y up. Internal to formats/dxf.
#pragma once

#include <map>
#include <optional>
#include <string>

#include "core/formats/dxf/groups.h"
#include "core/geometry/path.h"
#include "core/project/drawing.h"

namespace dotlane::dxf {

/// From the plane an entity was drawn in to the drawing's, seen from above: the arbitrary axis algorithm (DXF
/// reference, "Object coordinate systems"). The identity without an extrusion direction (groups 210 to 230).
Affine plane_of(const Record& record);

/// The points of an old-style polyline, each with the bulge of the edge behind it.
struct Vertex {
    Point at;
    double bulge = 0;
};
Contour polyline(const std::vector<Vertex>& vertices, bool closed);

/// None for kinds that are no line, and for broken ones; `told` counts, under words for a message, what could
/// not be taken as it was meant.
std::optional<Contour> contour_of(const Record& record, std::map<std::string, int>& told);
/// Words under which a kind of entity that is left out is counted; empty for what nobody would miss.
std::string left_out(std::string_view kind);

/// Of a colour index, 1 to 255; black for everything else.
Colour colour_of_index(int index);

} // namespace dotlane::dxf
