// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "io/report/settings.h"

#include <span>
#include <string_view>

namespace gantry::io {

std::string settingsCsv(const SettingsSheet& sheet);  ///< RFC 4180, columns axis,key,label,value,unit,note
std::string settingsText(const SettingsSheet& sheet); ///< aligned plain text to print

/// A form in which settings leave the program: its id on the command line, its name in the window, what its
/// files end in. One is added by its file here and its line in settings_forms.cpp; both list all there are.
/// Forms of firmwares are not among them: users bring templates.
struct SettingsForm {
    std::string_view id, name, extension;
    std::string (*write)(const SettingsSheet& sheet);
};
std::span<const SettingsForm> settingsForms();

/// Null if there is none of that id.
const SettingsForm* findSettingsForm(std::string_view id);

} // namespace gantry::io
