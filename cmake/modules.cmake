# One target a module. dotlane_module(name DEPENDS ... LIBRARIES ...): what a module may include is what it
# links, so a door that is shut in docs/ARCHITECTURE.md stays shut in the build as well.
add_library(dotlane_flags INTERFACE)
target_include_directories(dotlane_flags INTERFACE ${CMAKE_SOURCE_DIR}/src ${CMAKE_BINARY_DIR}/generated)
target_compile_options(dotlane_flags INTERFACE -Wall -Wextra -Wpedantic -Wshadow -Wno-missing-field-initializers
                       -Werror=vexing-parse # a call that is read as a declaration does nothing
                       -Wno-restrict) # gcc 12 sees overlaps in std::string that are not there (GCC bug 105651)
if(DOTLANE_SANITIZE)
  # Not undefined behaviour in the tests themselves: it doubles what their many checks take to compile.
  target_compile_options(dotlane_flags INTERFACE -fsanitize=address -fno-omit-frame-pointer
                         $<$<NOT:$<BOOL:$<TARGET_PROPERTY:DOTLANE_IS_TEST>>>:-fsanitize=undefined>
                         $<$<NOT:$<BOOL:$<TARGET_PROPERTY:DOTLANE_IS_TEST>>>:-fno-sanitize-recover=undefined>)
  target_link_options(dotlane_flags INTERFACE -fsanitize=address,undefined)
endif()
if(DOTLANE_FUZZ)
  target_compile_options(dotlane_flags INTERFACE -fsanitize=fuzzer-no-link)
endif()

function(dotlane_module name)
  cmake_parse_arguments(M "" "" "DEPENDS;LIBRARIES;FOLDERS" ${ARGN})
  set(patterns ${CMAKE_CURRENT_SOURCE_DIR}/${name}/*.cpp)
  foreach(folder IN LISTS M_FOLDERS)
    list(APPEND patterns ${CMAKE_CURRENT_SOURCE_DIR}/${name}/${folder}/*.cpp)
  endforeach()
  file(GLOB sources CONFIGURE_DEPENDS ${patterns})
  string(REPLACE "/" "_" target dotlane_${name})
  add_library(${target} STATIC ${sources})
  target_link_libraries(${target} PUBLIC dotlane_flags ${M_DEPENDS} PRIVATE ${M_LIBRARIES})
  # The standard headers that nearly every file includes, parsed once: a clean build takes half the time.
  if(target STREQUAL dotlane_base)
    target_precompile_headers(${target} PRIVATE <algorithm> <cmath> <functional> <map> <memory> <optional> <set>
                              <string> <string_view> <unordered_map> <variant> <vector> <tl/expected.hpp>)
  else()
    target_precompile_headers(${target} REUSE_FROM dotlane_base)
  endif()
endfunction()
