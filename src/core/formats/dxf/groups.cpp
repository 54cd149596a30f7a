#include "core/formats/dxf/groups.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>

#include "core/base/text.h"

namespace dotlane::dxf {

std::string_view Groups::line() {
    const auto end = std::min(text_.find('\n', at_), text_.size());
    const auto out = trimmed(text_.substr(at_, end - at_));
    at_ = std::min(end + 1, text_.size());
    ++number_;
    return out;
}

bool Groups::next(Group& group) {
    while (at_ < text_.size()) {
        const auto code = line();
        if (code.empty() && trimmed(text_.substr(at_)).empty()) return false; // blank lines at the end
        const auto [end, bad] = std::from_chars(code.data(), code.data() + code.size(), group.code);
        if (bad != std::errc() || end != code.data() + code.size())
            throw Stop{"dxf.not-dxf",
                       say("This is not a DXF file in text form: a group code should stand here."), number_};
        if (at_ >= text_.size()) return false; // cut short: the reader tells by what is missing
        group.value = line();
        group.line = number_;
        if (group.code != 999) return true; // a comment
    }
    return false;
}

namespace {

double parsed(const Group& group) {
    std::string text(group.value);
    std::replace(text.begin(), text.end(), ',', '.'); // of programs that write as their country does
    const auto v = plain_number(text);
    if (!v) throw Stop{"dxf.number", say("A number should stand here that can be worked with."), group.line};
    return *v;
}

} // namespace

double number_of(const Group& group) {
    const double v = parsed(group);
    if (std::abs(v) > 1e9)
        throw Stop{"dxf.number", say("The file holds a number that no drawing can have."), group.line};
    return v;
}

int whole_of(const Group& group) {
    constexpr double low = std::numeric_limits<int>::min(), high = std::numeric_limits<int>::max();
    return static_cast<int>(std::clamp(parsed(group), low, high));
}

const Group* Record::find(int code) const {
    for (const Group& g : groups)
        if (g.code == code) return &g;
    return nullptr;
}

std::string Record::text(int code) const {
    const Group* g = find(code);
    return g ? valid_utf8(g->value) : std::string();
}

double Record::number(int code, double otherwise) const {
    const Group* g = find(code);
    return g ? number_of(*g) : otherwise;
}

int Record::whole(int code, int otherwise) const {
    const Group* g = find(code);
    return g ? whole_of(*g) : otherwise;
}

} // namespace dotlane::dxf
