// What stock that is not used is worth.
#pragma once

#include <optional>

#include "core/catalog/catalog.h"
#include "core/project/project.h"

namespace dotlane {

struct StockSaved {
    const Stock* stock;
    double sheets; ///< of that stock, in all copies that are wanted
    double price;  ///< of them, in the maker's money
};
/// Of an area of each copy of the part: of the stock it is of, or of that of the first sheet it lies on; none
/// when neither is known.
std::optional<StockSaved> stock_saved(const Project& project, const Catalog& catalog, const Part& part,
                                      Area saved);

} // namespace dotlane
