// Export: a folder with one SVG for each pass, one of everything for each sheet, and the run sheet.
#pragma once

#include <functional>

#include "core/base/files.h"
#include "core/workflow/run_sheet.h"

namespace dotlane {

struct ExportOptions {
    bool override_errors = false; ///< export although error findings stand; the run sheet says so
    /// Renders the run sheet as PDF bytes; given by whoever can paint (present). Empty: no PDF.
    std::function<Result<std::string>(const RunSheet&)> pdf;
};

struct ExportResult {
    std::vector<std::string> files; ///< names inside the folder, in order
};

/// Errors: "export.findings" (error findings stand), "export.no-plan", "file.unwritable". Nothing is written
/// before all content is ready; files of the same names are replaced.
Result<ExportResult> export_folder(const Derived& derived, const Catalog& catalog, FileSystem& files,
                                   const std::string& folder, const ExportOptions& options);

} // namespace dotlane
