// Pieces of a part named by their numbers: "2, 5-7", and in groups, "1-3; 5, 6".
#pragma once

#include <set>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace dotlane {

/// The numbers in "2, 5-7", each from 1 to 100,000. Error "step.pieces".
Result<std::vector<int>> piece_numbers(const std::string& text);
std::string piece_text(const std::set<int>& numbers);
/// The groups in "1-3; 5, 6". Error "step.pieces".
Result<std::vector<std::set<int>>> piece_groups(const std::string& text);
std::string group_text(const std::vector<std::set<int>>& groups);

} // namespace dotlane
