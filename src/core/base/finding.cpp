#include "core/base/finding.h"

#include <algorithm>

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

int count(const Findings& findings, Grade grade) {
    return static_cast<int>(std::count_if(findings.begin(), findings.end(),
                                          [grade](const Finding& f) { return f.grade == grade; }));
}

} // namespace dotlane
