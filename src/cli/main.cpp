#include <iostream>

#include "cli/run.h"
#include "core/base/aside.h"
#include "core/base/files.h"
#include "core/base/heap.h"

int main(int argc, char** argv) {
    dotlane::keep_freed_memory();
    const dotlane::AwaitsAside last;
    dotlane::report_full_files();
    return dotlane::cli::run(argc, argv, dotlane::disk(), std::cout, std::cerr);
}
