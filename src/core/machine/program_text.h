// A program as text: one JSON document a line, described in docs/program.md. Reading what was written gives
// the same program, to the last digit.
#pragma once

#include <string_view>

#include "core/base/result.h"
#include "core/machine/program.h"

namespace dotlane {

inline constexpr int program_version = 2;

std::string program_text(const Program& program);
/// Errors, with the line: "program.not-ours", "program.newer", "program.damaged" (also of a text that was cut
/// short).
Result<Program> program_from_text(std::string_view text, const std::string& file_name = {});

} // namespace dotlane
