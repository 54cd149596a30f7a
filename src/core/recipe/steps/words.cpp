#include "core/project/steps/words.h"

#include "core/recipe/brought.h"

namespace dotlane {

StepOutcome run(const WordsStep& step, const StepInput& in, Progress&) {
    if (!in.inserted) return refused(say("The words have not been lettered."));
    if (!*in.inserted) return refused(in.inserted->error().message);
    // Words that follow the part's own outline lie where they belong.
    return put(in, step.turn, step.place, step.follows_own());
}

bool mend(WordsStep& step, const Finding& finding, const InkReport*) {
    const std::string& code = finding.remedy.code;
    Lettering& words = step.lettering;
    if (code == "beyond.turn") return step.turn += degrees(90), true;
    if (code == "beyond.smaller") {
        words.sized_by = Lettering::SizedBy::width;
        words.size = mm(number_argument(finding, "width_mm").value_or(50));
        return true;
    }
    if (code != "beyond.wrap") return false;
    std::string& text = words.text;
    const std::size_t middle = text.size() / 2;
    std::size_t best = text.find(' ');
    for (std::size_t at = best; at != std::string::npos; at = text.find(' ', at + 1))
        if (std::max(at, middle) - std::min(at, middle) < std::max(best, middle) - std::min(best, middle))
            best = at;
    if (best == std::string::npos) return false; // no blank to break it at
    text[best] = '\n';
    // The letters keep about their size: what was as wide as all of them is as wide as the longer line.
    if (words.sized_by == Lettering::SizedBy::width)
        words.size = words.size * (static_cast<double>(std::max(best, text.size() - best - 1)) /
                                   static_cast<double>(text.size()));
    return true;
}

} // namespace dotlane
