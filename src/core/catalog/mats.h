// Which mat holds a piece of stock.
#pragma once

#include "core/catalog/catalog.h"

namespace dotlane {

/// The smallest mat of the machine whose reach holds a rectangle, turned if need be; null: none does.
const Mat* mat_that_holds(const Catalog& catalog, const Machine& machine, Length width, Length height);

} // namespace dotlane
