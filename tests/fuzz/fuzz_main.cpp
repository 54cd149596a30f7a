// libFuzzer's entry: DOTLANE_READER names the reader that gets the bytes. Built with clang by ./dotlane.sh
// fuzz.
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>

#include "tests/fuzz/readers.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const dotlane::fuzz::Reader& reader = [&]() -> const dotlane::fuzz::Reader& {
        const char* name = std::getenv("DOTLANE_READER");
        for (const auto& one : dotlane::fuzz::readers())
            if (name && std::strcmp(one.name, name) == 0) return one;
        std::fputs("DOTLANE_READER must name a reader:", stderr);
        for (const auto& one : dotlane::fuzz::readers())
            std::fprintf(stderr, " %s", one.name);
        std::fputs("\n", stderr);
        std::exit(2);
    }();
    const std::string wrong = reader.read(std::string(reinterpret_cast<const char*>(data), size));
    if (!wrong.empty()) {
        std::fprintf(stderr, "%s: %s\n", reader.name, wrong.c_str());
        std::abort();
    }
    return 0;
}
