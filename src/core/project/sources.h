// Where a part's lines come from: a file, a calculator that is told what is meant, or lettering. Each kind is
// a file below sources/ and one line in the list here.
#pragma once

#include <string_view>
#include <variant>
#include <vector>

#include "core/project/sources/badge.h"
#include "core/project/sources/carton.h"
#include "core/project/sources/edge_strip.h"
#include "core/project/sources/folded_card.h"
#include "core/project/sources/from_file.h"
#include "core/project/sources/label.h"
#include "core/project/sources/layer.h"
#include "core/project/sources/lettering.h"
#include "core/project/sources/picture.h"
#include "core/project/sources/repeat_pattern.h"
#include "core/project/sources/shape_card.h"

namespace dotlane {

/// In the order in which they are offered.
using SourceSpec = std::variant<FromFile, FoldedCard, Lettering, Label, RepeatPattern, EdgeStrip, Carton,
                                Badge, ShapeCard, Layer, Picture>;

/// Shows every member to the visitor.
void fields(SourceSpec& spec, Fields& f);
/// Where a source that takes another part's outline names that part; null for all others.
PartId* lender_of(SourceSpec& spec);
/// The part whose outline the source takes; none when it takes none.
PartId borrows_from(const SourceSpec& spec);
/// Roles that its lines can have, where these are known without making them: of traced pictures, and of
/// sources that wait for another part. Empty for all others.
std::vector<std::string> known_roles(const SourceSpec& spec);

struct SourceKind : SourceRow {
    SourceSpec fresh;
};
/// All that are made from numbers: not FromFile.
const std::vector<SourceKind>& all_source_kinds();
/// Those of them that can be begun from nothing, in the order in which they are offered.
const std::vector<SourceKind>& source_kinds();
inline Phrase word(const SourceKind& kind) {
    return as_word("Sources", kind.name);
}
const SourceKind* source_kind(std::string_view key);
/// "Cards and boxes": the heading under which sources with it are offered, in the order of the enumerators.
const char* title(SourceRow::Wanted wanted);
/// None for FromFile.
const SourceKind* kind_of(const SourceSpec& spec);
/// As the kind is pictured where it is offered.
SourceSpec sample_of(const SourceKind& kind);

} // namespace dotlane
