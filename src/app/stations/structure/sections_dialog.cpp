// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/structure/sections_dialog.h"

#include "app/instruments/section_sketch.h"
#include "core/model/retired_ids.h"
#include "core/words/section_name.h"

#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace gantry::app {

using units::Kind;

SectionsDialog::SectionsDialog(const Context& context, QWidget* parent)
    : TableWindow(context, QStringLiteral("sectionsDialog"), tr("Compare sections"), parent),
      sketch_(new SectionSketch(context, this)) {
    pane_->content()->insertWidget(TablePane::belowTable, sketch_);
    connect(pane_->table(), &QTableWidget::itemSelectionChanged, this,
            [this] { sketch_->show(rows_, pane_->chosenRow()); });
    followAfter(120); // many sections are solved
    connect(pane_->addButton(tr("Use the chosen one"), QStringLiteral("useSection")), &QPushButton::clicked,
            this, &SectionsDialog::use);
    connect(pane_->addButton(tr("List the chosen one"), QStringLiteral("listSection")), &QPushButton::clicked,
            this, &SectionsDialog::list);
    connect(pane_->addButton(tr("Take out of the list"), QStringLiteral("unlistSection")),
            &QPushButton::clicked, this, &SectionsDialog::unlist);
}

const Profile* SectionsDialog::profileOf(const Section& section) const {
    // On its other side it is the same piece.
    const auto same = [&](const Profile& p) {
        Section turned = p.section;
        turned.onEdge = section.onEdge;
        return turned == section;
    };
    const std::vector<Profile>& all = context_.document.project().profiles;
    const auto it = std::find_if(all.begin(), all.end(), same);
    return it == all.end() ? nullptr : &*it;
}

void SectionsDialog::follow() {
    const Axis* axis = context_.axis();
    rows_.clear();
    if (axis != nullptr && sectionOf(*axis).shape != SectionShape::NotGiven)
        rows_ = compareSections(context_.document.project(), *axis,
                                sectionsToTry(context_.document.project(), sectionOf(*axis),
                                              {partsLibrary(), context_.shelf.parts()}));
    pane_->setSentence(
        rows_.empty()
            ? tr("Say what the rail or arm is made of first; then others are compared with it.")
            : tr("The first line is what is there; then what you list to compare, flat and on edge, and "
                 "stock sizes near it. Same span, same load, same lens. List one and change its figures "
                 "under “Sections to compare”. Stock prices are yours by weight: a maker's list "
                 "decides."));
    QList<QStringList> table;
    for (const SectionRow& r : rows_) {
        const Profile* listed = profileOf(r.section);
        const QString words = QString::fromStdString(words::sectionName(r.section, context_.system()));
        table << QStringList{listed != nullptr
                                 ? QStringLiteral("%1: %2").arg(QString::fromStdString(listed->name), words)
                                 : words,
                             context_.show(r.found.sag, Kind::Length),
                             context_.show(r.found.twist, Kind::Angle),
                             context_.show(r.found.bounce, Kind::Frequency),
                             context_.show(r.pixels, Kind::Pixels),
                             context_.show(r.found.ownMass, Kind::Mass),
                             context_.show(r.found.stressRatio, Kind::Ratio),
                             r.price > 0.0 ? context_.show(r.price, Kind::Money) : QStringLiteral("–")};
    }
    pane_->setTable({tr("Section"), tr("Sags"), tr("Twists"), tr("Vertical"), tr("Shifts"), tr("Weighs"),
                     tr("Strength ×"), tr("Costs")},
                    table);
    sketch_->setVisible(!rows_.empty());
    sketch_->show(rows_, pane_->chosenRow());
    pane_->fit();
}

const SectionRow* SectionsDialog::chosen() const {
    const int row = pane_->chosenRow();
    return row < 0 || row >= static_cast<int>(rows_.size()) || context_.document.readOnly()
               ? nullptr
               : &rows_[static_cast<std::size_t>(row)];
}

void SectionsDialog::use() {
    if (const SectionRow* row = chosen()) {
        context_.document.change(tr("Use another section"), [&](Project& p) {
            sectionOf(p.axes[static_cast<std::size_t>(context_.session.axis())]) = row->section;
        });
    }
}

void SectionsDialog::list() {
    const SectionRow* row = chosen();
    if (row == nullptr || profileOf(row->section) != nullptr) return;
    context_.document.change(tr("List a section"), [&](Project& p) {
        Profile profile;
        profile.id = freeIdIn(p, p.profiles, "profile");
        profile.name = tr("Profile %1").arg(p.profiles.size() + 1).toStdString();
        profile.section = row->section;
        p.profiles.push_back(profile);
    });
}

void SectionsDialog::unlist() {
    const SectionRow* row = chosen();
    const Profile* listed = row != nullptr ? profileOf(row->section) : nullptr;
    if (listed == nullptr) return;
    context_.document.change(tr("Take a section out"), [id = listed->id](Project& p) {
        std::erase_if(p.profiles, [&](const Profile& profile) { return profile.id == id; });
    });
}

} // namespace gantry::app
