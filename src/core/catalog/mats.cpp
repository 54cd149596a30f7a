#include "core/catalog/mats.h"

#include <algorithm>

namespace dotlane {

const Mat* mat_that_holds(const Catalog& catalog, const Machine& machine, Length width, Length height) {
    const double longer = in_mm(std::max(width, height)), shorter = in_mm(std::min(width, height));
    const Mat* best = nullptr;
    for (const std::string& id : machine.mats) {
        const Mat* mat = catalog.mat(id);
        if (!mat || std::max(mat->usable.width(), mat->usable.height()) < longer ||
            std::min(mat->usable.width(), mat->usable.height()) < shorter)
            continue;
        if (!best || mat->width * in_mm(mat->height) < best->width * in_mm(best->height)) best = mat;
    }
    return best;
}

} // namespace dotlane
