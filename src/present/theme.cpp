#include "present/theme.h"

#include <QFontDatabase>
#include <algorithm>
#include <atomic>
#include <cmath>

namespace dotlane::present {
namespace {

std::atomic<bool> dark_chosen = false; // painters on other threads read it while the window writes it
thread_local int on_paper = 0;

double luminance(QColor c) {
    const auto linear = [](double v) {
        return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
    };
    return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}

} // namespace

const Theme& Theme::light() {
    static const Theme theme{false,     "#e9e4db", "#f5f2ec", "#fffdf9", "#22282c", "#6d6a64",
                             "#d8d0c4", "#d9822b", "#2f5d62", "#ffffff", "#b3402e", "#c77a1e",
                             "#5b7a86", "#fffdf9", "#ece6db", "#fbeae3", "#f5f2ec"};
    return theme;
}

const Theme& Theme::dark_one() {
    static const Theme theme{true,      "#1b1f22", "#23292d", "#2b3237", "#ece7de", "#a9a59c",
                             "#3d464c", "#e5963f", "#4d8f95", "#ffffff", "#e0705c", "#e0a04a",
                             "#8fb2bf", "#262c30", "#1f2528", "#3a2a27", "#d6cfc2"};
    return theme;
}

const Theme& Theme::current() {
    return dark_chosen && on_paper == 0 ? dark_one() : light();
}
void Theme::choose(bool dark) {
    dark_chosen = dark;
}

OnPaper::OnPaper() {
    ++on_paper;
}
OnPaper::~OnPaper() {
    --on_paper;
}

void load_fonts(const QString& data_folder) {
    static bool loaded = false;
    if (std::exchange(loaded, true)) return;
    // The weights that the interface uses: each costs the window's coming up a few milliseconds.
    for (const char* weight : {"Regular", "SemiBold"})
        QFontDatabase::addApplicationFont(data_folder + "/fonts/Cabin-" + weight + ".otf");
}

QFont ui_font(double points, QFont::Weight weight) {
    QFont font("Cabin");
    // Whole pixels at 96 an inch, as the style sheet's: sizes that differ by less than that look alike, and
    // each one that differs at all costs the window's coming up a millisecond.
    font.setPointSizeF(std::round(points * 96 / 72) * 72 / 96);
    font.setWeight(weight);
    return font;
}

QColor to_qcolor(Colour c) {
    return {c.r, c.g, c.b};
}

double contrast(QColor a, QColor b) {
    const double la = luminance(a), lb = luminance(b);
    return (std::max(la, lb) + 0.05) / (std::min(la, lb) + 0.05);
}

QColor legible_on(QColor colour, QColor ground) {
    const bool darken = luminance(ground) > 0.4;
    for (int i = 0; i < 12 && contrast(colour, ground) < 2.2; ++i) {
        float h = 0, s = 0, l = 0;
        colour.getHslF(&h, &s, &l);
        colour =
            QColor::fromHslF(std::max(h, 0.0F), s, std::clamp(darken ? l - 0.07F : l + 0.07F, 0.0F, 1.0F));
    }
    return colour;
}

QColor text_on(QColor ground) {
    return contrast(ground, Qt::white) >= 3.2 ? QColor("#ffffff") : QColor("#1d2326");
}

} // namespace dotlane::present
