// The run sheet as PDF, A4: the board, what to do, and every sheet with its parts numbered.
#pragma once

#include <string>

#include "core/exports/run_sheet.h"

namespace dotlane::present {

/// PDF bytes. Error "pdf.failed".
Result<std::string> run_sheet_pdf(const RunSheet& sheet, const Derived& derived, const Catalog& catalog);

} // namespace dotlane::present
