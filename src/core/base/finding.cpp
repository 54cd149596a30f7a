#include "core/base/finding.h"

#include <algorithm>

#include "core/base/text.h"

namespace dotlane {

const char* grade_name(Grade grade) {
    switch (grade) {
    case Grade::hint:
        return "hint";
    case Grade::caution:
        return "caution";
    case Grade::error:
        break;
    }
    return "error";
}

std::optional<double> number_argument(const Finding& finding, std::string_view key) {
    for (const auto& [name, value] : finding.args)
        if (name == key) return plain_number(value);
    return std::nullopt;
}

int count(const Findings& findings, Grade grade) {
    return static_cast<int>(std::count_if(findings.begin(), findings.end(),
                                          [grade](const Finding& f) { return f.grade == grade; }));
}

} // namespace dotlane
