// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/exports/settings_forms.h"

#include "io/tables/csv.h"

namespace gantry::io {

std::string settingsCsv(const SettingsSheet& sheet) {
    CsvWriter out;
    out.line("axis", "key", "label", "value", "unit", "note");
    for (const AxisSettings& axis : sheet.axes)
        for (const Setting& s : axis.rows) out.line(axis.id, s.key, s.label, s.value, s.unit, s.note);
    for (const std::string& caution : sheet.cautions) out.line("", "caution", "Caution", "", "", caution);
    return out.text();
}

} // namespace gantry::io
