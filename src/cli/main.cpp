#include <iostream>

#include "cli/run.h"
#include "core/base/files.h"

int main(int argc, char** argv) {
    return dotlane::cli::run(argc, argv, dotlane::disk(), std::cout, std::cerr);
}
