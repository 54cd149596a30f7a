// Export: a folder with one SVG for each pass, one of everything for each sheet, what is printed, and the run
// sheet. All or nothing.
#pragma once

#include <functional>

#include "core/base/files.h"
#include "core/exports/run_sheet.h"
#include "core/formats/trace/printed.h"

namespace dotlane {

/// Given by whoever can paint (present). Each returns the bytes of a PDF.
struct PdfPainter {
    std::function<Result<std::string>(const RunSheet&, const Derived&, const Catalog&)> run_sheet;
    std::function<Result<std::string>(const PrintSheet&, const std::vector<PlacedImage>&,
                                      const std::string& title)>
        print;
};

struct ExportOptions {
    bool override_errors = false; ///< export although error findings stand; the run sheet says so
    PdfPainter pdf = {};          ///< empty: no PDFs
    Speaker speak = in_english;   ///< for the run sheet in text
};

struct ExportResult {
    std::vector<std::string> files;   ///< names inside the folder, in order; the manifest stands beside them
    std::vector<std::string> removed; ///< of an earlier export, no longer right
    std::vector<std::string> changed; ///< the same, but changed since by somebody, so left where they are
};

/// Errors: "export.findings" (error findings stand), "export.no-plan", "export.foreign" (a file that no
/// export made bears the name of one of these), "pdf.failed", "file.unwritable". Nothing is written before
/// all content is ready; then the folder is swapped.
Result<ExportResult> export_folder(const Derived& derived, const Catalog& catalog, FileSystem& files,
                                   const std::string& folder, const ExportOptions& options);

} // namespace dotlane
