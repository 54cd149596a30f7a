#!/usr/bin/env bash
# The one entry for people and CI: ./dotlane.sh demo | test | build | bench | shot VIEW OUT.png | sanitize | fuzz | kill | check
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")"

build_packages="g++ cmake ninja-build pkg-config qt6-base-dev qt6-svg-dev qt6-tools-dev qt6-tools-dev-tools
  qt6-l10n-tools qt6-qpa-plugins librsvg2-bin libgl-dev libpolyclipping-dev libpotrace-dev libpng-dev libturbojpeg0-dev nlohmann-json3-dev libpugixml-dev
  libexpected-dev libboost-dev libcli11-dev libfreetype-dev libharfbuzz-dev libfontconfig-dev zlib1g-dev"
# Catch2, the references that the checks compare with, and a display for the real window.
test_packages="catch2 locales libgeos-dev xvfb xauth librsvg2-bin poppler-utils units libpaper-utils glpk-utils libglpk-dev gcc libharfbuzz-bin hershey-fonts-data python3-ezdxf hp2xx potrace fonts-cabin fonts-dancingscript fonts-dejavu-core
  openclipart-svg iso-flags-svg librsvg2-tests tango-icon-theme bootstrap-icons breeze-icon-theme openscad-testing-data"
# The drawings that importing is timed on are among the test's packages.
bench_packages="libbenchmark-dev fonts-dejavu-core libgeos-dev librsvg2-bin openclipart-svg iso-flags-svg librsvg2-tests tango-icon-theme bootstrap-icons breeze-icon-theme"

say() { printf 'dotlane: %s\n' "$*" >&2; }

# Installs what is missing, or names it and stops where it may not.
need() {
    local missing=() package
    for package in "$@"; do
        dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q '^install ok installed$' || missing+=("$package")
    done
    [ ${#missing[@]} -eq 0 ] && return
    local root=()
    if [ "$(id -u)" -ne 0 ]; then
        if command -v sudo >/dev/null && sudo -n true 2>/dev/null; then
            root=(sudo -n)
        else
            say "these Debian packages are missing, and this user may not install them:"
            say "  apt-get install --no-install-recommends ${missing[*]}"
            exit 1
        fi
    fi
    say "installing ${missing[*]}"
    "${root[@]}" apt-get update -q >/dev/null
    "${root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "${missing[@]}" >/dev/null
}

# configure FOLDER [options]: a release build unless told otherwise. A new folder is filled in half the time by
# compiling sources by the dozen; who works on them may switch that off (cmake -DDOTLANE_UNITY=OFF FOLDER).
configure() {
    local folder=$1 dozens=()
    shift
    [ -e "$folder/CMakeCache.txt" ] || dozens=(-DDOTLANE_UNITY=ON)
    mkdir -p "$folder"
    cmake -S . -B "$folder" -G Ninja "${dozens[@]}" "$@" >"$folder/configure.log" 2>&1 || { cat "$folder/configure.log" >&2; exit 1; }
}

build() {
    need $build_packages
    configure build -DDOTLANE_TESTS=OFF
    cmake --build build --target dot-lane dot-lane-cli
}

# A picture needs no session, but Qt asks for its folder.
offscreen() { QT_QPA_PLATFORM=offscreen XDG_RUNTIME_DIR="${XDG_RUNTIME_DIR:-$PWD/build}" "$@" 2> >(grep -v propagateSizeHints >&2); }

has_display() { [ -n "${DISPLAY:-}${WAYLAND_DISPLAY:-}" ]; }

case "${1:-}" in
build)
    build
    ;;
demo)
    build
    if has_display; then
        exec build/src/app/dot-lane --demo
    fi
    say "no display here: doing the demo's work headless"
    out=${2:-demo-out}
    mkdir -p "$out"
    cp data/demo/saltmarsh.dotlane "$out/"
    build/src/cli/dot-lane-cli plan "$out/saltmarsh.dotlane" --why
    build/src/cli/dot-lane-cli export "$out/saltmarsh.dotlane" --to "$out/export"
    offscreen build/src/shots/dot-lane-shots sheets "$out/window.png"
    say "the window is in $out/window.png"
    ;;
shot)
    [ $# -eq 3 ] || { say "usage: ./dotlane.sh shot VIEW OUT.png (a VIEW that does not exist lists them)"; exit 2; }
    build
    offscreen build/src/shots/dot-lane-shots "$2" "$3"
    ;;
test)
    need $build_packages $test_packages
    # A release build runs the tests of the window, the command line and against outside references; one of core with
    # the address and undefined-behaviour sanitizers those of core and the fuzzing. One run of the runner covers both.
    configure build -DDOTLANE_TESTS=ON -DDOTLANE_CORE_TESTS=OFF
    cmake --build build
    configure build-sanitize -DDOTLANE_TESTS=ON -DDOTLANE_SANITIZE=ON -DDOTLANE_APP=OFF
    cmake --build build-sanitize
    mkdir -p build/all-tests
    printf 'subdirs("%s" "%s")\n' "$PWD/build/tests" "$PWD/build-sanitize/tests" >build/all-tests/CTestTestfile.cmake
    ctest --test-dir build/all-tests --output-on-failure -j 2
    ;;
sanitize)
    # Everything under the sanitizers, the window and the command line too: slower, for before a release.
    need $build_packages $test_packages
    configure build-sanitize-all -DDOTLANE_TESTS=ON -DDOTLANE_SANITIZE=ON
    cmake --build build-sanitize-all
    ctest --test-dir build-sanitize-all/tests --output-on-failure -j 2
    ;;
fuzz)
    # Every reader for a minute (or so many SECONDS), from the corpus on; what is found stays in build-fuzz/found and
    # belongs into tests/fuzz/corpus. One READER alone: ./dotlane.sh fuzz 60 svg
    need $build_packages clang libclang-rt-14-dev
    tests/fuzz/libraries.sh build-fuzz/libraries || say "the picture libraries' sources are not to be had: the system's are used"
    PKG_CONFIG_PATH=$PWD/build-fuzz/libraries/lib/pkgconfig:$PWD/build-fuzz/libraries/lib64/pkgconfig configure build-fuzz \
        -DCMAKE_CXX_COMPILER=clang++ -DCMAKE_PREFIX_PATH="$PWD/build-fuzz/libraries" -DDOTLANE_FUZZ=ON -DDOTLANE_SANITIZE=ON -DDOTLANE_APP=OFF -DDOTLANE_TESTS=OFF
    cmake --build build-fuzz --target dotlane-fuzz
    mkdir -p build-fuzz/found
    for reader in ${3:-svg dxf hpgl picture project tools strokes typed}; do
        mkdir -p "build-fuzz/corpus/$reader"
        more=()
        [ "$reader" != project ] || more=(tests/core/project/old)
        say "$reader"
        DOTLANE_READER=$reader ASAN_OPTIONS=detect_leaks=0 LC_ALL=C.UTF-8 build-fuzz/dotlane-fuzz -max_total_time="${2:-60}" -timeout=10 -rss_limit_mb=1500 \
            -print_final_stats=1 -verbosity=0 -artifact_prefix="build-fuzz/found/$reader-" "build-fuzz/corpus/$reader" "tests/fuzz/corpus/$reader" "${more[@]}"
    done
    ;;
kill)
    # Kills the window and the command line so often (300) at random moments and looks whether anything was lost.
    need $build_packages $test_packages
    configure build -DDOTLANE_TESTS=ON -DDOTLANE_CORE_TESTS=OFF
    cmake --build build --target gui dot-lane-cli
    DOTLANE_KILLS=${2:-300} offscreen build/tests/gui "*killed at random moments*"
    ;;
bench)
    need $build_packages $bench_packages
    configure build -DDOTLANE_TESTS=OFF -DDOTLANE_BENCH=ON
    cmake --build build --target dotlane-bench
    build/bench/dotlane-bench "${@:2}"
    ;;
check)
    need $build_packages $test_packages clang-tidy clang-format
    git ls-files '*.h' '*.cpp' | xargs clang-format --dry-run --Werror
    # clang-tidy cannot read the compiler's precompiled headers.
    configure build-tidy -DDOTLANE_UNITY=OFF -DDOTLANE_TESTS=OFF -DCMAKE_DISABLE_PRECOMPILE_HEADERS=ON
    git ls-files 'src/*.cpp' | xargs -P 2 -n 8 clang-tidy -p build-tidy --quiet
    ;;
*)
    say "usage: ./dotlane.sh demo | test | build | bench | shot VIEW OUT.png | sanitize | fuzz | kill | check"
    exit 2
    ;;
esac
