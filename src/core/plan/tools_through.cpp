#include <algorithm>
#include <map>

#include "core/plan/sequence.h"

namespace dotlane {

Result<Sequence> tools_through(const Job& job, Progress& progress) {
    // The job as one sheet, whose passes are the lanes.
    std::map<int, JobPass> lanes;
    for (const JobSheet& sheet : job.sheets)
        for (const JobPass& pass : sheet.passes) {
            if (pass.lane > 31)
                return fail(
                    "plan.too-many",
                    say("More than 32 lanes run in one job: join some of them, or finish each sheet."));
            JobPass& lane = lanes.try_emplace(pass.lane, JobPass{pass.tool, pass.lane, 0}).first->second;
            for (std::size_t p = 0; p < sheet.passes.size(); ++p)
                if (pass.after >> p & 1U) lane.after |= std::uint32_t{1} << sheet.passes[p].lane;
        }
    std::vector<int> number(32, -1); // of a lane, among those that run
    JobSheet all;
    for (const auto& [lane, pass] : lanes) {
        number[static_cast<std::size_t>(lane)] = static_cast<int>(all.passes.size());
        JobPass out{pass.tool, pass.lane, 0};
        for (std::size_t l = 0; l < number.size(); ++l)
            if (pass.after >> l & 1U) out.after |= std::uint32_t{1} << number[l];
        all.passes.push_back(out);
    }
    const auto on = [&](const JobSheet& sheet, std::uint32_t run) {
        std::uint32_t mine = 0;
        for (std::size_t p = 0; p < sheet.passes.size(); ++p)
            if (run >> number[static_cast<std::size_t>(sheet.passes[p].lane)] & 1U)
                mine |= std::uint32_t{1} << p;
        return mine;
    };
    all.hands = [&](std::uint32_t run) {
        double sum = 0;
        for (const JobSheet& sheet : job.sheets) {
            const std::uint32_t mine = on(sheet, run);
            if (mine == 0) continue;
            const double hands = sheet.hands(mine);
            if (hands < 0) return -1.0;
            sum += hands + job.reload;
        }
        return sum;
    };
    auto seatings = least_hands({{all}, job.fits, job.swap}, progress);
    if (!seatings) return seatings;
    Sequence out;
    std::size_t last = job.sheets.size(); // that lies in the machine
    for (std::size_t k = 0; k < seatings->stretches.size(); ++k) {
        const Stretch& seating = seatings->stretches[k];
        const auto mask = [&](const Stretch& stretch) {
            std::uint32_t run = 0;
            for (const std::size_t p : stretch.passes)
                run |= std::uint32_t{1} << p;
            return run;
        };
        const std::uint32_t run = mask(seating);
        std::vector<std::size_t> sheets;
        for (std::size_t s = 0; s < job.sheets.size(); ++s)
            if (on(job.sheets[s], run) != 0) sheets.push_back(s);
        // The one that lies there first; behind the others the one that the next seating needs too.
        if (const auto there = std::find(sheets.begin(), sheets.end(), last); there != sheets.end())
            std::rotate(sheets.begin(), there, there + 1);
        if (k + 1 < seatings->stretches.size() && sheets.size() > 1) {
            const std::uint32_t next = mask(seatings->stretches[k + 1]);
            for (std::size_t i = sheets.size(); i-- > 1;)
                if (on(job.sheets[sheets[i]], next) != 0) {
                    std::rotate(sheets.begin() + static_cast<std::ptrdiff_t>(i),
                                sheets.begin() + static_cast<std::ptrdiff_t>(i) + 1, sheets.end());
                    break;
                }
        }
        for (const std::size_t s : sheets) {
            Stretch stretch{s, {}, seating.holds};
            const std::uint32_t mine = on(job.sheets[s], run);
            for (std::size_t p = 0; p < job.sheets[s].passes.size(); ++p)
                if (mine >> p & 1U) stretch.passes.push_back(p);
            if (s == last) out.hands -= job.reload;
            last = s;
            out.stretches.push_back(std::move(stretch));
        }
    }
    out.hands += seatings->hands - job.reload * static_cast<double>(job.sheets.size());
    out.stops = static_cast<int>(out.stretches.size());
    return out;
}

} // namespace dotlane
