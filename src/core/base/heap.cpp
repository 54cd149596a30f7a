#include "core/base/heap.h"

#if __has_include(<malloc.h>)
#include <malloc.h>
#endif

namespace dotlane {

void keep_freed_memory() {
#ifdef __GLIBC__
    constexpr int large = 32 << 20, kept = 128 << 20; // bytes; glibc takes no more than the former
    (void)mallopt(M_MMAP_THRESHOLD, large);
    (void)mallopt(M_TRIM_THRESHOLD, kept);
#endif
}

} // namespace dotlane
