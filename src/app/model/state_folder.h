// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

namespace gantry::app {

/// The user's folder for what the program keeps by itself: recovery copies, earlier versions, locks, the log.
/// By the XDG base directories; without HOME the home of the user's account, and without that a folder of the
/// user's own among the temporary ones. Made if it can be; it may still not be writable.
QString stateFolder();

/// A folder within it, made if it can be.
QString stateFolder(const QString& name);

} // namespace gantry::app
