#include "core/formats/svg/writer.h"

#include "core/base/result.h"
#include "core/base/text.h"

namespace dotlane {
namespace {

std::string escaped(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (c == '&')
            out += "&amp;";
        else if (c == '<')
            out += "&lt;";
        else if (c == '>')
            out += "&gt;";
        else if (c == '"')
            out += "&quot;";
        else if (static_cast<unsigned char>(c) >= 0x20 || c == '\n')
            out += c;
    }
    return out;
}

// A tenth of a micrometre: far below what any machine resolves, so nothing is lost by rounding.
std::string mm_text(double v) {
    return number(v, 4);
}

std::string path_of(const Polyline& line) {
    std::string d;
    for (std::size_t i = 0; i < line.points.size(); ++i) {
        d += i == 0 ? "M" : i == 1 ? " L" : " ";
        d += mm_text(line.points[i].x) + "," + mm_text(line.points[i].y);
    }
    if (line.points.size() == 1) d += " L" + mm_text(line.points[0].x) + "," + mm_text(line.points[0].y);
    return line.closed ? d + " Z" : d;
}

std::string path_of(const Polylines& contours) {
    std::string d;
    for (const Polyline& contour : contours)
        d += (d.empty() ? "" : " ") + path_of(contour);
    return d;
}

std::string head(const std::string& width, const std::string& height, const std::string& view,
                 const std::string& title, const std::string& note) {
    std::string out =
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" +
        width + "mm\" height=\"" + height + "mm\" viewBox=\"" + view + "\">\n  <title>" + escaped(title) +
        "</title>\n";
    if (!note.empty()) out += "  <desc>" + escaped(note) + "</desc>\n";
    return out;
}

/// The presentation attributes of SVG 1.1, chapter 11, where they differ from their initial values.
std::string attributes(const Drawn& ink, FillRule rule) {
    std::string out = ink.fill ? " fill=\"" + to_hex(*ink.fill) + "\"" : " fill=\"none\"";
    if (ink.fill && rule == FillRule::evenodd) out += " fill-rule=\"evenodd\"";
    if (ink.fill && ink.fill_opacity < 1) out += " fill-opacity=\"" + number(ink.fill_opacity, 4) + "\"";
    if (!ink.stroke) return out;
    out +=
        " stroke=\"" + to_hex(*ink.stroke) + "\" stroke-width=\"" + mm_text(in_mm(ink.stroke_width)) + "\"";
    if (ink.stroke_opacity < 1) out += " stroke-opacity=\"" + number(ink.stroke_opacity, 4) + "\"";
    if (ink.cap != LineCap::butt)
        out += ink.cap == LineCap::round ? " stroke-linecap=\"round\"" : " stroke-linecap=\"square\"";
    if (ink.join != LineJoin::mitre)
        out += ink.join == LineJoin::round ? " stroke-linejoin=\"round\"" : " stroke-linejoin=\"bevel\"";
    if (ink.mitre_limit != 4) out += " stroke-miterlimit=\"" + number(ink.mitre_limit, 4) + "\"";
    if (!ink.dashes_mm.empty()) {
        out += " stroke-dasharray=\"";
        for (std::size_t i = 0; i < ink.dashes_mm.size(); ++i)
            out += (i > 0 ? " " : "") + mm_text(ink.dashes_mm[i]);
        out += "\" stroke-dashoffset=\"" + mm_text(ink.dash_offset_mm) + "\"";
    }
    return out;
}

std::string references(const ProgramSheet& sheet) {
    std::string d;
    const double arm = 4;
    for (const Point p : {Point{sheet.usable.x0, sheet.usable.y0}, Point{sheet.usable.x1, sheet.usable.y0},
                          Point{sheet.usable.x0, sheet.usable.y1}}) {
        d += "M" + mm_text(p.x - arm / 2) + "," + mm_text(p.y) + " h" + mm_text(arm) + " M" + mm_text(p.x) +
             "," + mm_text(p.y - arm / 2) + " v" + mm_text(arm) + " ";
    }
    const double side = in_mm(check_square), y = in_mm(sheet.mat_height) + (in_mm(check_strip) - side) / 2;
    return "  <g id=\"origin-marks\" fill=\"none\" stroke=\"#9a958c\" stroke-width=\"0.1\">\n    "
           "<title>Origin marks: the same in every "
           "file of this export; not to be cut</title>\n    <path d=\"" +
           d +
           "\"/>\n  </g>\n  <g id=\"check-square\" fill=\"none\" stroke=\"#9a958c\" stroke-width=\"0.1\">\n  "
           "  <title>Check square: "
           "measures 10 mm when the file was opened true to size; not to be cut</title>\n    <rect x=\"5\" "
           "y=\"" +
           mm_text(y) + "\" width=\"" + mm_text(side) + "\" height=\"" + mm_text(side) + "\"/>\n  </g>\n";
}

std::string image_element(const PlacedImage& placed, std::size_t number_of_it) {
    const Affine& m = placed.to_sheet;
    const std::string id = "picture-" + std::to_string(number_of_it),
                      to = number(m.a, 9) + " " + number(m.b, 9) + " " + number(m.c, 9) + " " +
                           number(m.d, 9) + " " + number(m.e, 6) + " " + number(m.f, 6);
    return "    <clipPath id=\"" + id + "\"><path clip-rule=\"evenodd\" d=\"" + path_of(placed.inside) +
           "\"/></clipPath>\n    <g xmlns:xlink=\"http://www.w3.org/1999/xlink\" clip-path=\"url(#" + id +
           ")\"><image transform=\"matrix(" + to + ")\" width=\"" + std::to_string(placed.image.width) +
           "\" height=\"" + std::to_string(placed.image.height) + "\" xlink:href=\"data:image/png;base64," +
           base64(write_png(placed.image)) + "\"/></g>\n";
}

} // namespace

std::string write_svg(const Program& program, const SvgExport& what) {
    const ProgramSheet* sheet = nullptr;
    for (const ProgramSheet& s : program.sheets)
        if (s.sheet == what.sheet) sheet = &s;
    DOTLANE_CHECK(sheet);
    const std::string w = mm_text(in_mm(sheet->mat_width)),
                      h = mm_text(in_mm(sheet->mat_height + check_strip));
    std::string out = head(w, h, "0 0 " + w + " " + h, program.project + ", " + sheet->name, what.note);
    out += references(*sheet);
    for (const Move& move : program.moves) {
        const auto* pass = std::get_if<PassMove>(&move);
        if (!pass || pass->sheet != what.sheet || (what.pass && pass->number != *what.pass)) continue;
        out += "  <g id=\"pass-" + std::to_string(pass->number) + "\" fill=\"none\" stroke=\"" +
               to_hex(pass->colour) + "\" stroke-width=\"0.1\">\n    <title>" +
               escaped(pass->plate + " " + action_name(pass->action) + ": " + pass->lane_name + ", " +
                       pass->tool.english()) +
               (pass->repeats > 1 ? ", run " + std::to_string(pass->repeats) + " times" : "") + "</title>\n";
        for (const Stroke& stroke : pass->strokes)
            out += "    <path d=\"" + path_of(stroke) + "\"/>\n";
        out += "  </g>\n";
    }
    return out + "</svg>\n";
}

std::string write_print_svg(const PrintSheet& print, const std::vector<PlacedImage>& images,
                            const std::string& project, const std::string& note) {
    const Box& page = print.sheet.stock_area;
    const std::string w = mm_text(page.width()), h = mm_text(page.height());
    std::string out = head(w, h, mm_text(page.x0) + " " + mm_text(page.y0) + " " + w + " " + h,
                           project + ", " + print.sheet.name + ": to be printed at 100 %", note);
    out += "  <g id=\"print\">\n";
    for (std::size_t i = 0; i < images.size(); ++i)
        out += image_element(images[i], i + 1);
    for (const PrintShape& shape : print.shapes) {
        std::string nib;
        Polylines contours = shape.contours;
        if (shape.drawn.stroke && shape.drawn.nib != Drawn{}.nib) {
            const auto [a, b, c, d] = shape.drawn.nib;
            contours = transformed(contours, Affine{a, b, c, d, 0, 0}.inverse());
            nib = " transform=\"matrix(" + number(a, 6) + " " + number(b, 6) + " " + number(c, 6) + " " +
                  number(d, 6) + " 0 0)\"";
        }
        out += "    <path" + nib + " d=\"" + path_of(contours) + "\"" + attributes(shape.drawn, shape.rule) +
               "/>\n";
    }
    out +=
        "  </g>\n  <g id=\"origin-marks\" fill=\"none\" stroke=\"#9a958c\" stroke-width=\"0.1\">\n    "
        "<title>Marks near the corners of the tool's reach, where the pass files have theirs if parts leave "
        "room</title>\n    <path d=\"" +
        path_of(print.marks) + "\"/>\n  </g>\n";
    if (print.square)
        out += "  <g id=\"check-square\" fill=\"none\" stroke=\"#9a958c\" stroke-width=\"0.1\">\n    "
               "<title>Check square: "
               "measures " +
               number(print.square->width(), 0) +
               " mm when it was printed true to size</title>\n    <rect x=\"" + mm_text(print.square->x0) +
               "\" y=\"" + mm_text(print.square->y0) + "\" width=\"" + mm_text(print.square->width()) +
               "\" height=\"" + mm_text(print.square->height()) + "\"/>\n  </g>\n";
    return out + "</svg>\n";
}

} // namespace dotlane
