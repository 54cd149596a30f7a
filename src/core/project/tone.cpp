#include "core/project/tone.h"

#include <cctype>

namespace dotlane {
namespace {

/// The next number of a header; comments run to the end of their line.
int header_number(const std::string& bytes, std::size_t& at) {
    while (at < bytes.size() && (std::isspace(static_cast<unsigned char>(bytes[at])) || bytes[at] == '#')) {
        if (bytes[at] == '#')
            while (at < bytes.size() && bytes[at] != '\n')
                ++at;
        else
            ++at;
    }
    int out = 0;
    const std::size_t begin = at;
    while (at < bytes.size() && std::isdigit(static_cast<unsigned char>(bytes[at])) && out < 100'000)
        out = 10 * out + (bytes[at++] - '0');
    return at > begin ? out : -1;
}

} // namespace

std::string graymap(const GreyPixels& pixels) {
    std::string out = "P5\n" + std::to_string(pixels.width) + " " + std::to_string(pixels.height) + "\n255\n";
    out.append(pixels.grey.begin(), pixels.grey.end());
    return out;
}

std::optional<GreyPixels> graymap_read(const std::string& bytes) {
    if (bytes.rfind("P5", 0) != 0) return std::nullopt;
    std::size_t at = 2;
    GreyPixels out;
    out.width = header_number(bytes, at), out.height = header_number(bytes, at);
    const int most = header_number(bytes, at);
    if (out.width < 1 || out.height < 1 || out.width > most_tone_pixels || out.height > most_tone_pixels ||
        most != 255)
        return std::nullopt;
    const std::size_t count = static_cast<std::size_t>(out.width) * static_cast<std::size_t>(out.height);
    if (bytes.size() - at < count + 1) return std::nullopt;
    const auto begin = bytes.begin() + static_cast<std::ptrdiff_t>(at) + 1;
    out.grey.assign(begin, begin + static_cast<std::ptrdiff_t>(count));
    return out;
}

} // namespace dotlane
