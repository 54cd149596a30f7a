#!/usr/bin/env bash
# libraries.sh FOLDER: libpng, libjpeg-turbo and potrace from Debian's sources, built with clang's address sanitizer
# and the fuzzer's instruments, so that what lies behind our picture reader is watched too. Fails when the sources
# cannot be fetched; the system's libraries then stand in, unwatched.
set -euo pipefail
folder=$(mkdir -p "$1" && cd "$1" && pwd)
[ -e "$folder/done" ] && exit 0
export CC=clang CXX=clang++ CFLAGS="-O1 -g1 -fsanitize=address,fuzzer-no-link" CXXFLAGS="-O1 -g1 -fsanitize=address,fuzzer-no-link"
mkdir -p "$folder/apt/sources" "$folder/apt/lists/partial" "$folder/apt/cache/archives/partial" "$folder/src"
. /etc/os-release
cat >"$folder/apt/sources/src.sources" <<S
Types: deb-src
URIs: http://deb.debian.org/debian
Suites: $VERSION_CODENAME
Components: main
Signed-By: /usr/share/keyrings/debian-archive-keyring.gpg
S
apt=(-o Dir::Etc::sourcelist=/dev/null -o "Dir::Etc::sourceparts=$folder/apt/sources" -o "Dir::State::lists=$folder/apt/lists" -o "Dir::Cache=$folder/apt/cache" -o APT::Sandbox::User=root)
apt-get "${apt[@]}" update -q >"$folder/log" 2>&1
cd "$folder/src"
apt-get "${apt[@]}" source -q --download-only libpng1.6 libjpeg-turbo potrace >>"$folder/log" 2>&1
for archive in *.orig.tar.gz; do tar xzf "$archive"; done
cmake -S libpng-* -B png -DCMAKE_INSTALL_PREFIX="$folder" -DPNG_SHARED=OFF -DPNG_TESTS=OFF >>"$folder/log"
cmake --build png -j 2 --target install >>"$folder/log"
cmake -S libjpeg-turbo-* -B jpeg -DCMAKE_INSTALL_PREFIX="$folder" -DENABLE_SHARED=OFF -DWITH_SIMD=OFF >>"$folder/log"
cmake --build jpeg -j 2 --target install >>"$folder/log"
(cd potrace-* && ./configure --prefix="$folder" --disable-shared --with-libpotrace && make -j 2 install) >>"$folder/log" 2>&1
touch "$folder/done"
