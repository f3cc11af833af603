// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/chart_dialog.h"

#include "app/instruments/field_group.h"
#include "app/model/write_bytes.h"
#include "core/model/retired_ids.h"
#include "core/tools/structure_solve.h"

#include <QBuffer>
#include <QFileDialog>
#include <QPdfWriter>
#include <QPushButton>
#include <QTextDocument>
#include <QVBoxLayout>

namespace gantry::app {

using units::Kind;

namespace {

const char* loadingOrder() {
    return QT_TR_NOOP(
        "Order when loading: arm tied level, camera on first, then the discs of its line, then untie. "
        "Unloading: tie the arm, discs off first, the camera last. A camera taken off a balanced arm "
        "throws the arm up. Lift heavy discs with two people.");
}

QStringList columns() {
    return {ChartDialog::tr("Kit"),      ChartDialog::tr("Weighs"),       ChartDialog::tr("Discs"),
            ChartDialog::tr("Together"), ChartDialog::tr("Place behind"), ChartDialog::tr("Left, worst")};
}

} // namespace

ChartDialog::ChartDialog(const Context& context, QWidget* parent)
    : TableWindow(context, QStringLiteral("chartDialog"), tr("Counterweight chart"), parent) {
    connect(pane_->addButton(tr("Add a kit"), QStringLiteral("addKit")), &QPushButton::clicked, this,
            &ChartDialog::addKit);
    connect(pane_->addButton(tr("Remove the last kit"), QStringLiteral("removeKit")), &QPushButton::clicked,
            this, &ChartDialog::removeKit);
    auto* pdf = pane_->addButton(tr("Save as PDF"), QStringLiteral("chartPdf"));
    connect(pdf, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("Save as PDF"), tr("counterweights.pdf"),
                                                          tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        const QString problem = savePdf(path);
        pane_->setSentence(problem.isEmpty() ? tr("Saved to %1.").arg(path) : problem);
    });
}

void ChartDialog::follow() {
    const Project& p = context_.document.project();
    const Axis* axis = context_.axis();
    rows_.clear();
    const auto* r = axis != nullptr ? std::get_if<RotaryMechanism>(&axis->mechanism) : nullptr;
    if (r != nullptr)
        for (const ChartRow& row : counterweightChart(p, *axis)) {
            const Kit& kit = p.kits[static_cast<std::size_t>(row.kit)];
            QStringList discs;
            for (std::size_t d = 0; d < row.discs.size(); ++d)
                if (row.discs[d] > 0)
                    discs << QStringLiteral("%1 × %2")
                                 .arg(row.discs[d])
                                 .arg(context_.show(r->boom.discs[d].mass, Kind::Mass));
            rows_ << QStringList{
                QString::fromStdString(kit.name),
                context_.show(kit.mass.value, Kind::Mass),
                discs.isEmpty() ? tr("none") : discs.join(QStringLiteral(" + ")),
                context_.show(row.mass, Kind::Mass),
                row.reaches ? context_.show(row.behind, Kind::Length)
                            : tr("cannot: %1 comes nearest").arg(context_.show(row.behind, Kind::Length)),
                context_.show(row.left, Kind::Torque)};
        }
    QString text = tr(loadingOrder());
    if (r == nullptr || r->boom.section.shape == SectionShape::NotGiven)
        text = tr("Choose a boom tilt whose arm is given; then each kit gets its line.");
    else if (p.kits.empty())
        text = tr("Add the kits that may hang at the arm's end. ") + text;
    pane_->setSentence(text);
    pane_->setTable(columns(), rows_);
    // Kits are edited here, in place.
    for (FieldGroup* old : findChildren<FieldGroup*>()) old->setVisible(false);
    if (p.kits.empty()) return pane_->fit();
    auto* group = findChild<FieldGroup*>();
    if (group == nullptr) {
        group = new FieldGroup(context_, this);
        group->setColumns(3);
        pane_->content()->insertWidget(TablePane::belowTable, group);
    }
    QList<FieldSlot> fields;
    for (const Kit& kit : p.kits)
        for (const char* key : {"name", "mass_kg", "above_m"})
            fields << FieldSlot{
                QStringLiteral("kits/%1/%2").arg(QString::fromStdString(kit.id), QLatin1String(key)),
                {},
                1.0};
    group->setTitle(tr("Kits"));
    group->setFields(fields);
    pane_->fit();
    group->setFixedHeight(group->heightFor(width() - 24));
    group->setVisible(true);
    pane_->fit();
}

void ChartDialog::addKit() {
    context_.document.change(tr("Add a kit"), [](Project& p) {
        Kit kit;
        kit.id = freeIdIn(p, p.kits, "kit");
        kit.name = tr("Kit %1").arg(p.kits.size() + 1).toStdString();
        p.kits.push_back(kit);
    });
}

void ChartDialog::removeKit() {
    context_.document.change(tr("Remove the last kit"), [](Project& p) {
        if (!p.kits.empty()) p.kits.pop_back();
    });
}

QString ChartDialog::savePdf(const QString& path) const {
    QString html =
        QStringLiteral("<h2>%1</h2><p>%2</p><table border='1' cellspacing='0' cellpadding='6'><tr>")
            .arg(tr("Counterweights: %1").arg(context_.document.displayName().toHtmlEscaped()),
                 tr(loadingOrder()).toHtmlEscaped());
    for (const QString& c : columns()) html += QStringLiteral("<th>%1</th>").arg(c.toHtmlEscaped());
    html += QStringLiteral("</tr>");
    for (const QStringList& row : rows_) {
        html += QStringLiteral("<tr>");
        for (const QString& cell : row) html += QStringLiteral("<td>%1</td>").arg(cell.toHtmlEscaped());
        html += QStringLiteral("</tr>");
    }
    html += QStringLiteral("</table>");
    QBuffer pages;
    pages.open(QIODevice::WriteOnly);
    QPdfWriter writer(&pages);
    writer.setPageSize(QPageSize(QPageSize::A4));
    writer.setPageOrientation(QPageLayout::Landscape);
    writer.setResolution(96);
    QTextDocument document;
    document.setHtml(html);
    document.print(&writer);
    pages.close();
    return writeBytes(path, pages.data());
}

} // namespace gantry::app
