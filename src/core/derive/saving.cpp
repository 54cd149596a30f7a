#include "core/derive/saving.h"

#include <algorithm>

namespace dotlane {

std::optional<StockSaved> stock_saved(const Project& project, const Catalog& catalog, const Part& part,
                                      Area saved) {
    const Stock* stock = catalog.stock(part.stock);
    for (const Sheet& sheet : project.sheets) {
        if (stock) break;
        if (std::any_of(sheet.placements.begin(), sheet.placements.end(),
                        [&](const Placement& p) { return p.part == part.id; }))
            stock = catalog.stock(sheet.stock);
    }
    if (!stock) return std::nullopt;
    const double sheets = in_square_mm(saved) * part.quantity / (in_mm(stock->width) * in_mm(stock->height));
    return StockSaved{stock, sheets, sheets * stock->price};
}

} // namespace dotlane
