// How the program keeps memory that it will need again.
#pragma once

namespace dotlane {

/// Freed memory stays with the program, up to 128 MB of it, and large blocks come out of what stays. Each
/// edit makes lines and areas anew, hundreds of kilobytes at a time, which the C library would hand back to
/// the system and fetch again page by page: a quarter to a third of the time of a fill in one stroke (bench
/// "one stroke a piece"). For `main`, before threads begin; without effect where there is no glibc.
void keep_freed_memory();

} // namespace dotlane
