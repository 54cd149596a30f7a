// Walks the element tree and collects lines. Internal to formats/svg.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <unordered_map>

#include "core/formats/svg/paths_ahead.h"
#include "core/formats/svg/prepare.h"
#include "core/formats/svg/reader.h"
#include "core/formats/svg/style.h"
#include "core/geometry/region.h"

namespace dotlane::svg {

/// Thrown inside the reader only, turned into a Result at its door: the walk is deep and an error ends it.
struct Stop {
    Error error;
};

struct Viewport {
    double width = 0, height = 0; // user units
    double diagonal() const { return std::sqrt((width * width + height * height) / 2); }
};

/// What an element hands to its children.
struct Scope {
    Affine to_page; ///< user units to page mm
    SharedStyle style;
    Viewport viewport;
    std::shared_ptr<const Region> clip = {}; ///< in page mm
    std::string group;
    int depth = 0;
    int use_depth = 0;

    void clip_to(const Region& region) {
        clip = std::make_shared<const Region>(clip ? intersected(*clip, region) : region);
    }
};

class Walker {
  public:
    Walker(const LineNumbers& lines, const SvgOptions& options, Progress& progress);
    SvgResult walk(const pugi::xml_node& root);

  private:
    void element(const pugi::xml_node& node, const Scope& outer);
    void children(const pugi::xml_node& node, const Scope& scope);
    void nested_svg(const pugi::xml_node& node, Scope scope, std::optional<double> width,
                    std::optional<double> height);
    void use(const pugi::xml_node& node, Scope scope);
    void choose(const pugi::xml_node& node, const Scope& scope);
    void shape(const pugi::xml_node& node, std::string_view name, const Scope& scope);
    void text(const pugi::xml_node& node, const Scope& scope);
    bool take_style(const pugi::xml_node& node, const Scope& scope, Drawn& drawn);
    bool make_look(const pugi::xml_node& node, const Scope& scope, Drawn& drawn);
    void emit(const pugi::xml_node& node, const Scope& scope, Shape user_shape);
    void keep(DrawnLine line, const pugi::xml_node& node);
    /// Counts what areas are computed of; throws Stop when it is too much.
    void work(std::size_t segments, const pugi::xml_node& node);
    [[noreturn]] void too_large(const pugi::xml_node& node) const;
    SharedStyle style_of(const pugi::xml_node& node, const SharedStyle& parent);
    std::optional<Shape> shape_of(const pugi::xml_node& node, std::string_view name, const Scope& scope);

    Affine fit(const pugi::xml_node& node, double width, double height, Viewport& viewport) const;
    void apply_clip(Scope& scope, const pugi::xml_node& node);
    Region clip_region(const pugi::xml_node& clip, const Scope& scope, const Box& user_box, int depth);
    Region clip_child(const pugi::xml_node& child, const Scope& scope, int depth);
    Box user_bounds(const pugi::xml_node& node, const Scope& scope, int depth);
    std::optional<Colour> resolve(const Paint& paint, const Style& style, double& alpha);
    std::optional<Colour> average_stop(const std::string& id, double& alpha, int depth);

    double measure(const pugi::xml_node& node, const char* attribute, const Scope& scope, char axis,
                   double otherwise) const;
    double in_user(const Measure& m, const Scope& scope, char axis) const;
    pugi::xml_node by_id(std::string_view id);
    void index(const pugi::xml_node& root);
    void count(const std::string& what, const pugi::xml_node& node);
    int line_of(const pugi::xml_node& node) const;
    void step(const pugi::xml_node& node);
    Findings findings() const;

    const LineNumbers& lines_;
    const SvgOptions& options_;
    Progress& progress_;
    StyleSheet sheet_;
    struct KnownStyle {
        SharedStyle
            parent; ///< kept, so that no other style comes to stand at its address, which is in the key
        SharedStyle style;
        int outside; ///< references out of the file
    };
    std::unordered_map<std::string, KnownStyle> styles_;
    std::string style_key_; ///< kept for its room
    /// How what has a style is drawn under a map, as it was last needed.
    struct KnownLook {
        SharedStyle style;
        std::array<double, 6> under{};
        Drawn drawn;
    } look_;
    PathsAhead paths_;
    pugi::xml_node root_;
    std::unordered_map<std::string_view, pugi::xml_node> ids_; ///< once one was asked for
    bool ids_known_ = false;
    std::set<std::string> paints_in_use_, clips_in_use_;
    /// The area of each clip path as it was last needed, with what it depended on.
    std::map<std::string, std::pair<std::vector<double>, Region>> clips_;
    std::vector<pugi::xml_node> uses_;
    struct Counted {
        int times = 0, first_line = 0;
    };
    std::map<std::string, Counted> counted_;
    int outside_ = 0;
    std::size_t visited_ = 0, segments_ = 0, segments_worked_ = 0;
    SvgResult out_;
};

} // namespace dotlane::svg
