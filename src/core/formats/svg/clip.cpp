// Clip paths: the union of a clipPath's children becomes a region in page millimetres.
#include "core/formats/svg/walker.h"

namespace dotlane::svg {

void Walker::apply_clip(Scope& scope, const pugi::xml_node& node) {
    bool external = false;
    const auto id = parse_reference(scope.style->clip_path, external);
    outside_ += external;
    if (id.empty()) return;
    const auto clip = by_id(id);
    if (!clip || local_name(clip.name()) != "clipPath") return;
    const bool of_box = std::string_view(clip.attribute("clipPathUnits").value()) == "objectBoundingBox";
    const Box box = of_box ? user_bounds(node, scope, 0) : Box{};
    if (of_box) {
        const Region region = clip_region(clip, scope, box, 0);
        scope.clip_to(region);
        return;
    }
    // Many elements of a drawing share one clip: all that its area depends on is the key.
    const Affine& t = scope.to_page;
    const std::vector<double> key{t.a,
                                  t.b,
                                  t.c,
                                  t.d,
                                  t.e,
                                  t.f,
                                  scope.viewport.width,
                                  scope.viewport.height,
                                  scope.style->font_size,
                                  scope.style->clip_rule == FillRule::evenodd ? 1.0 : 0.0};
    auto& known = clips_[std::string(id)];
    if (known.first != key) known = {key, clip_region(clip, scope, box, 0)};
    const Region& region = known.second;
    scope.clip_to(region);
}

Region Walker::clip_region(const pugi::xml_node& clip, const Scope& outer, const Box& user_box, int depth) {
    if (depth > 8 || !clips_in_use_.insert(clip.attribute("id").value()).second) {
        count("circular references", clip);
        return {};
    }
    Scope scope = outer;
    auto style = std::make_shared<Style>(*style_of(clip, outer.style));
    style->visible = true;
    scope.style = std::move(style);
    const std::string own_clip = scope.style->clip_path;
    if (!user_box.empty())
        scope.to_page = scope.to_page * Affine::translation({user_box.x0, user_box.y0}) *
                        Affine::scaling(user_box.width(), user_box.height());
    if (const auto t = clip.attribute("transform"))
        if (const auto own = parse_transform(t.value())) scope.to_page = scope.to_page * *own;
    std::vector<Region> pieces;
    for (const auto& child : clip.children())
        if (child.type() == pugi::node_element) pieces.push_back(clip_child(child, scope, depth));
    Region region = united(pieces);
    if (!own_clip.empty()) {
        bool external = false;
        if (const auto further = by_id(parse_reference(own_clip, external)))
            region = intersected(region, clip_region(further, outer, user_box, depth + 1));
    }
    clips_in_use_.erase(clip.attribute("id").value());
    return region;
}

Region Walker::clip_child(const pugi::xml_node& child, const Scope& outer, int depth) {
    step(child);
    const auto name = local_name(child.name());
    Scope scope = outer;
    scope.style = style_of(child, outer.style);
    if (!scope.style->displayed || !scope.style->visible) return {};
    if (const auto t = child.attribute("transform"))
        if (const auto own = parse_transform(t.value())) scope.to_page = scope.to_page * *own;
    Region region;
    if (name == "use") {
        const auto href = href_of(child);
        const auto target = href.starts_with('#') ? by_id(href.substr(1)) : pugi::xml_node();
        if (!target || depth > 8 || local_name(target.name()) == "use") return {};
        scope.to_page = scope.to_page * Affine::translation({measure(child, "x", scope, 'x', 0),
                                                             measure(child, "y", scope, 'y', 0)});
        region = clip_child(target, scope, depth + 1);
    } else if (const auto shape = shape_of(child, name, scope); shape && name != "text") {
        work(segment_count(*shape), child);
        Polylines lines = flattened(transformed(*shape, scope.to_page));
        region = region_of(lines, scope.style->clip_rule, true);
    }
    if (!scope.style->clip_path.empty()) {
        bool external = false;
        if (const auto further = by_id(parse_reference(scope.style->clip_path, external)))
            region = intersected(region, clip_region(further, scope, {}, depth + 1));
    }
    return region;
}

Box Walker::user_bounds(const pugi::xml_node& node, const Scope& scope, int depth) {
    const auto name = local_name(node.name());
    Box box;
    if (depth > 32) return box;
    if (name == "g" || name == "a" || name == "svg" || name == "switch") {
        for (const auto& child : node.children()) {
            if (child.type() != pugi::node_element) continue;
            step(child);
            const Box inner = user_bounds(child, scope, depth + 1);
            if (inner.empty()) continue;
            const auto t = child.attribute("transform");
            const Affine by = (t ? parse_transform(t.value()) : std::nullopt).value_or(Affine{});
            box.add(bounds(transformed(rectangle(inner), by)));
        }
        return box;
    }
    if (name == "use") {
        const auto href = href_of(node);
        const auto target = href.starts_with('#') ? by_id(href.substr(1)) : pugi::xml_node();
        if (!target) return box;
        const Box inner = user_bounds(target, scope, depth + 8);
        const Point by{measure(node, "x", scope, 'x', 0), measure(node, "y", scope, 'y', 0)};
        if (!inner.empty())
            box.add(inner.x0 + by.x < 1e300
                        ? Box{inner.x0 + by.x, inner.y0 + by.y, inner.x1 + by.x, inner.y1 + by.y}
                        : inner);
        return box;
    }
    for (const auto* drawable : {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"})
        if (name == drawable)
            if (const auto shape = shape_of(node, name, scope)) box = bounds(*shape);
    return box;
}

} // namespace dotlane::svg
