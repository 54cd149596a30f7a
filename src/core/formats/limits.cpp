#include "core/formats/limits.h"

namespace dotlane {
namespace {

std::string grouped(std::size_t n) {
    std::string digits = std::to_string(n), out;
    for (std::size_t i = 0; i < digits.size(); ++i) {
        if (i > 0 && (digits.size() - i) % 3 == 0) out += ',';
        out += digits[i];
    }
    return out;
}

} // namespace

std::string words(const ReadLimits& limits) {
    return "more than " + grouped(limits.lines) + " lines or " + grouped(limits.segments) + " segments";
}

} // namespace dotlane
