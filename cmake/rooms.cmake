# SPDX-License-Identifier: GPL-3.0-or-later
# Most of what a small file takes to compile is the headers it reads, so those of a folder are compiled together, a dozen
# at a time. Names that are a file's own must then differ within a folder; -DGANTRY_ROOMS=OFF compiles each file by itself,
# which also shows whether it includes what it needs.
option(GANTRY_ROOMS "Compile the files of a folder together" ON)
function(gantry_rooms target)
  if(NOT GANTRY_ROOMS)
    return()
  endif()
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_MODE GROUP)
  foreach(source ${ARGN})
    cmake_path(GET source PARENT_PATH folder)
    cmake_path(RELATIVE_PATH folder BASE_DIRECTORY ${CMAKE_CURRENT_SOURCE_DIR} OUTPUT_VARIABLE room)
    string(MAKE_C_IDENTIFIER "${room}" room)
    math(EXPR dozen "${count_${room}} + 0")
    math(EXPR count_${room} "${dozen} + 1")
    math(EXPR dozen "${dozen} / 12 + 1")
    set_source_files_properties(${source} PROPERTIES UNITY_GROUP "${room}_${dozen}")
  endforeach()
endfunction()
