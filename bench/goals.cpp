#include "bench/goals.h"

#include <cstdio>
#include <map>

namespace dotlane::bench {
namespace {

struct Goal {
    double figure, most;
};

std::map<std::string, Goal>& goals() {
    static std::map<std::string, Goal> all;
    return all;
}

} // namespace

void goal(const std::string& name, double figure, double most) {
    goals()[name] = {figure, most};
}

void print_goals() {
    std::printf("\ngoals (figure, and the most it may be)\n");
    for (const auto& [name, g] : goals())
        std::printf("  %-58s %9.3f %9.3f  %s\n", name.c_str(), g.figure, g.most,
                    g.figure <= g.most ? "held" : "MISSED");
}

} // namespace dotlane::bench
