// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace gantry::app {

/// Sends Qt's messages, with category and time, to a file in the user's state folder. At 1 MiB the file
/// becomes calm-gantry.log.1 and a new one begins. Warnings go to standard error too.
void startLog();

} // namespace gantry::app
