#include "core/run/operation.h"

#include <algorithm>

namespace dotlane {

Operations::Operations(const Program& program)
    : program_(program) {
    std::size_t count = 0;
    for (const Move& move : program.moves) {
        first_.push_back(count);
        const auto* pass = std::get_if<PassMove>(&move);
        count += pass ? runs(*pass) : 1;
    }
    first_.push_back(count);
}

std::size_t Operations::move_of(std::size_t i) const {
    DOTLANE_CHECK(i < size());
    return static_cast<std::size_t>(std::upper_bound(first_.begin(), first_.end(), i) - first_.begin() - 1);
}

bool Operations::is_stop(std::size_t i) const {
    return std::holds_alternative<StopMove>(program_.moves[move_of(i)]);
}

Operation Operations::at(std::size_t i) const {
    Operation out;
    out.move = move_of(i);
    if (const auto* stop = std::get_if<StopMove>(&program_.moves[out.move])) {
        out.id.sheet = stop->sheet, out.id.stop = stop->number;
        return out;
    }
    const auto& pass = std::get<PassMove>(program_.moves[out.move]);
    out.run = i - first_[out.move];
    out.id = {pass.sheet, pass.lane, stroke_of(pass, out.run).of,
              static_cast<int>(out.run / pass.strokes.size()) + 1, 0};
    return out;
}

} // namespace dotlane
