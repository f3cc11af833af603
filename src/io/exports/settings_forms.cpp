// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/exports/settings_forms.h"

#include <algorithm>
#include <array>

namespace gantry::io {
namespace {

constexpr std::array forms{SettingsForm{"text", "Plain sheet", "txt", settingsText},
                           SettingsForm{"csv", "Table (CSV)", "csv", settingsCsv}};

} // namespace

std::span<const SettingsForm> settingsForms() {
    return forms;
}

const SettingsForm* findSettingsForm(std::string_view id) {
    const auto it =
        std::find_if(forms.begin(), forms.end(), [&](const SettingsForm& f) { return f.id == id; });
    return it == forms.end() ? nullptr : &*it;
}

} // namespace gantry::io
