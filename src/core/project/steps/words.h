// Words on the part: a greeting, a name, a number. Made like a part of lettering, then turned and put at an
// edge or the middle of all the other lines.
#pragma once

#include "core/project/sources/lettering.h"
#include "core/project/steps/align.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct WordsStep {
    Lettering lettering = greeting();
    Angle turn; ///< clockwise
    AlignStep place{AlignStep::Across::middle, AlignStep::Down::middle, {}, {}};
    bool operator==(const WordsStep&) const = default;

    PartId* lender() { return lettering.lender(); }
    bool follows_own() const { return lettering.path == Lettering::Path::outline && !lettering.of; }
    const char* role() const {
        return lettering.kind == Lettering::Kind::outlines ? dotlane::role::letters : dotlane::role::strokes;
    }

    static constexpr StepRow row{.key = "words",
                                 .name = "Words",
                                 .about = "Lettering on the part: a greeting, a name.",
                                 .wanted = StepRow::Wanted::words,
                                 .makes = true,
                                 .brings = true};
    friend void fields(WordsStep& s, Fields& f) {
        fields(s.lettering, f);
        f.angle({"turn", "turned by", "Clockwise"}, s.turn);
        fields(s.place, f);
    }
    friend Result<SourceLines> make(const WordsStep& step, const MakeInput& in);
    friend bool mend(WordsStep& step, const Finding& finding, const InkReport* ink);
    friend StepOutcome run(const WordsStep& step, const StepInput& in, Progress& progress);

  private:
    static Lettering greeting() {
        Lettering l;
        l.text = "Bring a light", l.kind = Lettering::Kind::strokes, l.font = "Script simplex",
        l.size = mm(7);
        return l;
    }
};

} // namespace dotlane
