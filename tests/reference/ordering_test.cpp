// The order of sheets against the integer program of the tool switching problem (Tang and Denardo, Models
// arising from a flexible manufacturing machine, part I: minimization of the number of tool switches,
// Operations Research 36, 1988), solved by GLPK.
#include <fstream>

#include "core/plan/sequence.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

constexpr const char* model = R"(
param n; param m; param c;
set J := 1..n; set K := 1..n; set T := 1..m;
param need{J,T} binary;
var x{J,K} binary; var v{T,0..n} binary; var p{T,K} >= 0;
minimize put_in: sum{t in T, k in K} p[t,k];
one{j in J}: sum{k in K} x[j,k] = 1;
each{k in K}: sum{j in J} x[j,k] = 1;
seated{t in T, k in K}: v[t,k] >= sum{j in J: need[j,t]=1} x[j,k];
slots{k in K}: sum{t in T} v[t,k] <= c;
empty{t in T}: v[t,0] = 0;
put{t in T, k in K}: p[t,k] >= v[t,k] - v[t,k-1];
)";

} // namespace

TEST_CASE("tools put in for the best order of sheets: as few as GLPK's integer solver proves") {
    Random random("tool switching");
    TemporaryFolder folder;
    std::ofstream(folder / "ssp.mod") << model;
    for (int round = 0; round < 20; ++round) {
        const int sheets = random.whole(5, 7), tools = random.whole(4, 6), slots = random.whole(2, 3);
        INFO("seed " << random.seed() << " round " << round << ": " << sheets << " sheets, " << tools
                     << " tools, " << slots << " slots");
        Job job;
        job.swap = 45;
        job.fits.assign(static_cast<std::size_t>(tools),
                        std::vector<bool>(static_cast<std::size_t>(slots), true));
        std::string needs;
        for (int s = 0; s < sheets; ++s) {
            std::vector<int> all(static_cast<std::size_t>(tools));
            for (int t = 0; t < tools; ++t)
                all[static_cast<std::size_t>(t)] = t;
            std::shuffle(all.begin(), all.end(), random.engine());
            JobSheet sheet;
            for (int k = 0, n = random.whole(1, slots); k < n; ++k) {
                const int tool = all[static_cast<std::size_t>(k)];
                sheet.passes.push_back({tool, tool, 0});
                needs += " [" + std::to_string(s + 1) + "," + std::to_string(tool + 1) + "] 1";
            }
            // The published problem has all tools of a job seated together: a further stop costs too much.
            sheet.hands = [](std::uint32_t) { return 10000.0; };
            job.sheets.push_back(std::move(sheet));
        }
        std::ofstream(folder / "ssp.dat")
            << "data; param n:=" << sheets << "; param m:=" << tools << "; param c:=" << slots
            << ";\nparam need default 0 :=" << needs << ";\nend;\n";
        int status = 0;
        const std::string said =
            shell("cd '" + folder.path +
                      "' && glpsol --math ssp.mod --data ssp.dat --cuts -w out.txt && grep '^s ' "
                      "out.txt",
                  &status);
        REQUIRE(status == 0);
        // "s mip rows columns o objective": o where it is proven.
        std::istringstream line(said.substr(said.rfind("\ns ") == said.npos ? 0 : said.rfind("\ns ") + 1));
        std::string s, mip, proven;
        int rows = 0, columns = 0;
        double switches = -1;
        line >> s >> mip >> rows >> columns >> proven >> switches;
        REQUIRE(proven == "o");
        const auto found = least_hands(job, no_progress());
        REQUIRE(found);
        CHECK(found->proven);
        CHECK(found->hands == Approx(10000.0 * sheets + 45 * switches));
    }
}
