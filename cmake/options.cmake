# SPDX-License-Identifier: GPL-3.0-or-later
find_program(CCACHE ccache)
if(CCACHE)
  set(CMAKE_CXX_COMPILER_LAUNCHER ${CCACHE})
endif()

# One target that every target of ours links: warnings are errors, sources are found from src/.
add_library(gantry_options INTERFACE)
target_compile_options(gantry_options INTERFACE -Wall -Wextra -Wpedantic -Wshadow=local -Wnon-virtual-dtor -Werror
  # GCC 12 sees overlaps in std::string concatenation that are not there (its bug 105651).
  -Wno-restrict)
target_include_directories(gantry_options INTERFACE ${CMAKE_SOURCE_DIR}/src)
add_library(gantry_strict INTERFACE)
target_link_libraries(gantry_strict INTERFACE gantry_options)
target_compile_options(gantry_strict INTERFACE -Wconversion)
if(GANTRY_SANITIZE)
  # Left out is what doubles the time to compile: what of it happens (null pointers, objects too small) is found by addresses
  # too, and misplaced pointers only casts could make, of which there are none.
  target_compile_options(gantry_options INTERFACE -fsanitize=address,undefined,float-cast-overflow -fno-sanitize-recover=all -fno-omit-frame-pointer
    -fno-sanitize=null,alignment,vptr,object-size,nonnull-attribute,returns-nonnull-attribute,pointer-overflow)
  # With the sanitizers in, GCC 12 warns of uninitialised values inside the standard library.
  target_compile_options(gantry_options INTERFACE -Wno-maybe-uninitialized)
  target_link_options(gantry_options INTERFACE -fsanitize=address,undefined,float-cast-overflow)
endif()
