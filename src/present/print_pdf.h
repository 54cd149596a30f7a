// What is printed on a sheet as a PDF of the stock's size, true to scale.
#pragma once

#include <QPainter>
#include <string>

#include "core/base/result.h"
#include "core/formats/trace/printed.h"
#include "core/machine/program.h"

namespace dotlane::present {

/// Its shapes and marks; the painter counts in millimetres of the mat.
void paint_print(QPainter& painter, const PrintSheet& print);

/// PDF bytes; `images`: of the print's pictures, behind its shapes. Error "pdf.failed".
Result<std::string> print_pdf(const PrintSheet& print, const std::vector<PlacedImage>& images,
                              const std::string& title);

} // namespace dotlane::present
