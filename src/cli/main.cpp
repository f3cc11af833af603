// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"

#include <cerrno>
#include <iostream>
#include <system_error>

int main(int argc, char** argv) {
    const int code = gantry::cli::run({argv + 1, argv + argc}, std::cout, std::cerr);
    errno = 0;
    std::cout.flush();
    if (std::cout) return code;
    // A result that is cut off must not pass for one.
    std::cerr << "The output could not be written"
              << (errno != 0 ? ": " + std::generic_category().message(errno) : std::string()) << ".\n";
    return gantry::cli::outputFailed;
}
