// What is printed on a sheet as a PDF of the stock's size, true to scale.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/machine/program.h"

namespace dotlane::present {

/// PDF bytes. Error "pdf.failed".
Result<std::string> print_pdf(const PrintSheet& print, const std::string& title);

} // namespace dotlane::present
