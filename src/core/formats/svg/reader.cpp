#include "core/formats/svg/reader.h"

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/formats/svg/prepare.h"
#include "core/formats/svg/walker.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count> outside_entities{
    "svg.outside",
    Grade::caution,
    to_say("%n [reference|references] out of the file (entities) [was|were] not followed."),
    {"count"}};

constexpr int max_depth = 256;

/// Depth is checked before any recursion runs over the tree. The first element that lies too deep, or none.
pugi::xml_node too_deep(const pugi::xml_node& root) {
    int depth = 0;
    auto node = root;
    while (true) {
        if (node.first_child()) {
            node = node.first_child();
            if (++depth > max_depth) return node;
            continue;
        }
        while (node != root && !node.next_sibling())
            node = node.parent(), --depth;
        if (node == root) return {};
        node = node.next_sibling();
    }
}

} // namespace

Result<SvgResult> read_svg(std::string bytes, const SvgOptions& options, Progress& progress) {
    const auto in_file = [&](Error error) {
        error.place.file = options.file_name;
        return tl::make_unexpected(std::move(error));
    };
    auto prepared = svg::prepare(std::move(bytes), options.limits.bytes);
    if (!prepared) return in_file(prepared.error());
    std::string& text = prepared->text;
    const svg::LineNumbers lines(text); // the parser works in the text, and line ends in values go
    pugi::xml_document document;
    const auto parsed = document.load_buffer_inplace(
        text.data(), text.size(), pugi::parse_default | pugi::parse_ws_pcdata | pugi::parse_doctype);
    if (!parsed) {
        const int line = lines.at(parsed.offset);
        return in_file({"svg.not-xml",
                        say("The file is damaged or cut short: %1. It was not opened; nothing has changed.",
                            lower_case(parsed.description())),
                        {"", line}});
    }
    const auto root = document.document_element();
    if (svg::local_name(root.name()) != "svg")
        return in_file({"svg.not-svg",
                        say("This is not an SVG file: its outermost element is \"%1\". Nothing has changed.",
                            as_is(root.name())),
                        {"", 1}});
    if (const auto deep = too_deep(root)) {
        const int line = lines.at(deep.offset_debug());
        return in_file({"svg.deep",
                        say("The file nests its groups more than 256 levels deep. It was not opened; nothing "
                            "has changed."),
                        {"", line}});
    }
    try {
        svg::Walker walker(lines, options, progress);
        auto result = walker.walk(root);
        if (prepared->external_references > 0)
            result.findings.push_back(outside_entities({}, Count{prepared->external_references}));
        return result;
    } catch (const svg::Stop& stop) {
        return in_file(stop.error);
    }
}

} // namespace dotlane
