// A part taken apart into several that keep its source: by level, by piece.
#include "core/commands/making.h"
#include "core/project/pieces_text.h"

namespace dotlane {
namespace {

std::string all_but(int one, int count) {
    std::set<int> others;
    for (int n = 1; n <= count; ++n)
        if (n != one) others.insert(n);
    return piece_text(others);
}

} // namespace

Result<std::vector<PartId>> part_per_level(Project& project, const Catalog& catalog, FontShelf& fonts,
                                           PartId id) {
    const Part* part = find(project, id);
    const auto* picture = part ? std::get_if<Picture>(&part->source.spec) : nullptr;
    if (!picture || picture->levels < 2 || picture->only > 0)
        return fail("part.apart",
                    say("Only a picture of several levels or colours can be taken apart by them."));
    Project next = project;
    std::vector<PartId> out{id};
    Picture spec = *picture;
    const std::string name = part->name;
    for (int level = 1; level <= picture->levels; ++level) {
        spec.only = level;
        if (level == 1) {
            if (const auto ok = change_spec(next, id, spec); !ok) return tl::make_unexpected(ok.error());
            continue;
        }
        const auto made = make_part(next, catalog, fonts, spec, name + " " + std::to_string(level));
        if (!made) return tl::make_unexpected(made.error());
        find(next, *made)->scale = part->scale;
        out.push_back(*made);
    }
    project = std::move(next);
    return out;
}

Result<std::vector<PartId>> part_per_piece(Project& project, const Catalog& catalog, FontShelf& fonts,
                                           const EvaluatedPart& evaluated) {
    const PartId id = evaluated.part;
    const Part* part = find(project, id);
    if (!part || !is_made(*part))
        return fail("part.apart",
                    say("Only a part that is computed or traced can be taken apart by pieces."));
    std::size_t count = 0;
    for (const DrawnLine& line : evaluated.drawing->lines)
        if (fillable(line)) count += pieces(region_of(line.shape)).size();
    if (count < 2 || count > 60)
        return fail("part.apart",
                    say_n(count, "The part has %n [piece|pieces]: from 2 to 60 can be parts of their own."));
    Project next = project;
    std::vector<PartId> out;
    const std::string name = part->name;
    const double scale = part->scale;
    const SourceSpec spec = part->source.spec;
    for (std::size_t piece = 1; piece <= count; ++piece) {
        PartId target = id;
        if (piece > 1) {
            const auto made = make_part(next, catalog, fonts, spec, name + " " + std::to_string(piece));
            if (!made) return tl::make_unexpected(made.error());
            target = *made;
            find(next, target)->scale = scale;
        }
        // Before all other steps: the numbers are those of the source's own pieces.
        const auto step =
            add_step(next, target,
                     {{}, true, {}, PiecesStep{all_but(static_cast<int>(piece), static_cast<int>(count))}});
        if (!step) return tl::make_unexpected(step.error());
        if (const auto ok = move_step(next, target, *step, 0); !ok) return tl::make_unexpected(ok.error());
        out.push_back(target);
    }
    project = std::move(next);
    return out;
}

} // namespace dotlane
