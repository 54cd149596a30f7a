// PDF files: painted in the colours of paper whatever the interface shows, on any thread, with or without a
// display.
#pragma once

#include <QMarginsF>
#include <QPageSize>
#include <QString>
#include <functional>
#include <string>

#include "core/base/result.h"
#include "core/exports/exporting.h"

class QPdfWriter;

namespace dotlane::present {

/// Calls `paint` on a PDF of this page; lengths are dots of 1/`dots_per_inch`. Starts an offscreen
/// QGuiApplication when there is none. Error "pdf.failed".
Result<std::string> pdf_bytes(const QPageSize& page, const QMarginsF& margins_mm, const QString& title,
                              int dots_per_inch, const std::function<void(QPdfWriter&)>& paint);

/// What an export needs: the run sheet on A4; what is printed, a page of the stock's size.
PdfPainter pdf_painter();

} // namespace dotlane::present
