// The run sheet as PDF, A4. Works without a display: starts an offscreen QGuiApplication when there is none.
#pragma once

#include <string>

#include "core/workflow/run_sheet.h"

namespace dotlane::present {

/// PDF bytes. Error "pdf.failed".
Result<std::string> run_sheet_pdf(const RunSheet& sheet);

} // namespace dotlane::present
