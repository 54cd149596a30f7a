#include "core/project/fills.h"

#include "core/project/kinds.h"

namespace dotlane {

const std::vector<FillKind>& fill_kinds() {
    static const auto all = kinds_of<FillKind, FillStyle>();
    return all;
}

const FillKind& kind_of(const FillStyle& style) {
    return fill_kinds()[style.index()];
}

void choose(FillStyle& style, Fields& f) {
    std::vector<const char*> keys;
    for (const FillKind& kind : fill_kinds())
        keys.push_back(kind.key);
    const int before = static_cast<int>(style.index());
    int now = before;
    f.choice({"style", "style", "", {7, R"("parallel")"}}, now, keys);
    if (now != before && now >= 0 && now < static_cast<int>(keys.size()))
        style = fill_kinds()[static_cast<std::size_t>(now)].fresh;
}

void fields(FillStyle& style, Fields& f) {
    std::visit([&](auto& s) { fields(s, f); }, style);
}

} // namespace dotlane
