// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"

#include <iostream>

int main(int argc, char** argv) {
    return gantry::cli::run({argv + 1, argv + argc}, std::cout, std::cerr);
}
