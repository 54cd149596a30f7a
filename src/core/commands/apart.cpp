#include "core/commands/apart.h"

#include "core/commands/drawn_parts.h"
#include "core/commands/making.h"
#include "core/project/edits.h"
#include "core/project/pieces_text.h"

namespace dotlane {
namespace {

std::string all_but(int one, int count) {
    std::set<int> others;
    for (int n = 1; n <= count; ++n)
        if (n != one) others.insert(n);
    return piece_text(others);
}

/// Of a picture, which stays live.
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
    const double scale = part->scale;
    for (int level = 1; level <= picture->levels; ++level) {
        spec.only = level;
        if (level == 1) {
            if (const auto ok = change_spec(next, id, spec); !ok) return tl::make_unexpected(ok.error());
            continue;
        }
        const auto made = apply(MakePart{spec, name + " " + std::to_string(level)}, next, catalog, fonts);
        if (!made) return tl::make_unexpected(made.error());
        find(next, made->part)->scale = scale;
        out.push_back(made->part);
    }
    project = std::move(next);
    return out;
}

/// Of what is computed or traced, which stays live.
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
    if (count < 2 || count > most_parts_apart)
        return fail("part.apart",
                    say_n(count, "The part has %n [piece|pieces]: from 2 to %1 can be parts of their own.",
                          most_parts_apart));
    Project next = project;
    std::vector<PartId> out;
    const std::string name = part->name;
    const double scale = part->scale;
    const SourceSpec spec = part->source.spec;
    for (std::size_t piece = 1; piece <= count; ++piece) {
        PartId target = id;
        if (piece > 1) {
            const auto made = apply(MakePart{spec, name + " " + std::to_string(piece)}, next, catalog, fonts);
            if (!made) return tl::make_unexpected(made.error());
            target = made->part;
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

} // namespace

Result<Done> apply(const TakeApart& command, Project& project, const Catalog& catalog, FontShelf& fonts,
                   const EvaluatedPart& evaluated) {
    const Part* part = find(project, command.part);
    if (!part) return fail("edit.missing", say("There is no such part."));
    const std::string name = part->name;
    const bool computed = is_made(*part);
    auto parts = command.by == ApartBy::level ? part_per_level(project, catalog, fonts, command.part)
                 : command.by == ApartBy::piece && computed
                     ? part_per_piece(project, catalog, fonts, evaluated)
                     : drawing_apart(project, command.part, command.by);
    if (!parts) return tl::make_unexpected(parts.error());
    Done done{say_n(parts->size(), "Took \"%1\" apart by %2: %n [part|parts].", name,
                    as_word(core_words, apart_name(command.by))),
              command.part};
    done.parts = std::move(*parts);
    return done;
}

} // namespace dotlane
