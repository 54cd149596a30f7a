#include <iostream>

#include "cli/verb.h"

int main(int argc, char** argv) {
    return dotlane::cli::run(argc, argv, dotlane::disk(), std::cout, std::cerr);
}
