// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/table_pane.h"
#include "app/shell/context.h"
#include "core/tools/structure_solve.h"

namespace gantry::app {

class SectionSketch;

/// The section there is, those that the user lists, and stock ones near it, flat and on edge, over the same
/// span with the same load.
class SectionsDialog : public TableWindow {
    Q_OBJECT
public:
    explicit SectionsDialog(const Context& context, QWidget* parent);

private:
    void follow() override;
    void use();
    void list();
    void unlist();
    const SectionRow* chosen() const;
    const Profile* profileOf(const Section& section) const;

    SectionSketch* sketch_;
    std::vector<SectionRow> rows_;
};

} // namespace gantry::app
