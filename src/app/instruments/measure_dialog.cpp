// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/instruments/measure_dialog.h"

#include "core/model/fields.h"
#include "core/units/text.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>

namespace gantry::app {
namespace {

/// Value of the field of this axis, or of the place, whose key is wanted.
std::optional<double> valueNear(const Project& project, const QString& path, std::string_view key) {
    if (key.empty()) return std::nullopt;
    const std::string axis = path.section(QLatin1Char('/'), 0, 1).toStdString() + '/';
    Project copy = project;
    for (const FieldRef& f : allFields(copy))
        if (f.info.key == key && (f.path.starts_with(axis) || f.path.starts_with("conditions/")))
            return numberAt(project, f.path);
    return std::nullopt;
}

} // namespace

MeasureDialog::MeasureDialog(const Context& context, const QString& path, QWidget* parent)
    : QDialog(parent), context_(context), path_(path), recipes_(recipes::forField(path.toStdString())),
      which_(new QComboBox), precaution_(new QLabel), steps_(new QLabel), result_(new QLabel),
      readings_(new QWidget), form_(new QFormLayout(readings_)),
      take_(new QPushButton(tr("Take this value"))) {
    setObjectName(QStringLiteral("measureDialog"));
    setWindowTitle(tr("Measure it"));
    resize(520, 420);
    Project copy = context_.document.project();
    if (const auto field = findField(copy, path.toStdString()); recipes_.empty() && field) {
        const double value = numberAt(copy, path.toStdString()).value_or(0.0);
        direct_ = recipes::directReading(field->info.label, field->info.kind, value,
                                         usualTolerance(field->info, Source::Measured, value));
        recipes_.push_back(&direct_);
    }
    for (const recipes::Recipe* r : recipes_) which_->addItem(QString::fromUtf8(r->title));
    which_->setObjectName(QStringLiteral("measureRecipe"));
    which_->setAccessibleName(tr("Recipe"));
    precaution_->setObjectName(QStringLiteral("measurePrecaution"));
    precaution_->setProperty("role", "error");
    precaution_->setWordWrap(true);
    steps_->setWordWrap(true);
    steps_->setObjectName(QStringLiteral("measureSteps"));
    result_->setObjectName(QStringLiteral("measureResult"));
    result_->setProperty("role", "title");
    result_->setWordWrap(true);
    take_->setProperty("role", "primary");
    take_->setObjectName(QStringLiteral("measureTake"));
    auto* buttons = new QHBoxLayout;
    auto* close = new QPushButton(tr("Close"));
    take_->setAutoDefault(false);
    close->setAutoDefault(false);
    buttons->addStretch();
    buttons->addWidget(take_);
    buttons->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addWidget(which_);
    all->addWidget(precaution_);
    all->addWidget(steps_);
    all->addWidget(readings_);
    all->addWidget(result_);
    all->addStretch();
    all->addLayout(buttons);
    connect(which_, &QComboBox::activated, this, &MeasureDialog::showRecipe);
    connect(take_, &QPushButton::clicked, this, &MeasureDialog::take);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    if (!recipes_.empty()) showRecipe(0);
}

void MeasureDialog::showRecipe(int index) {
    recipe_ = recipes_[static_cast<std::size_t>(index)];
    precaution_->setVisible(!recipe_->precaution.empty());
    precaution_->setText(tr("First: %1").arg(QString::fromUtf8(recipe_->precaution)));
    steps_->setText(QString::fromUtf8(recipe_->steps));
    while (form_->rowCount() > 0) form_->removeRow(0);
    edits_.clear();
    for (const recipes::Reading& r : recipe_->readings) {
        auto* edit = new QLineEdit;
        const double start = valueNear(context_.document.project(), path_, r.takenFrom).value_or(r.start);
        edit->setText(context_.typed(start, r.kind));
        edit->setAccessibleName(QString::fromUtf8(r.label));
        edit->setObjectName(QStringLiteral("reading%1").arg(edits_.size()));
        connect(edit, &QLineEdit::textChanged, this, &MeasureDialog::compute);
        edits_.push_back(edit);
        form_->addRow(QString::fromUtf8(r.label), edit);
    }
    compute();
}

void MeasureDialog::compute() {
    std::vector<double> readings;
    take_->setEnabled(false);
    for (qsizetype i = 0; i < edits_.size(); ++i) {
        const recipes::Reading& r = recipe_->readings[static_cast<std::size_t>(i)];
        const auto parsed = units::parse(edits_[i]->text().toStdString(), r.kind, context_.system());
        if (const auto* bad = std::get_if<units::ParseError>(&parsed)) {
            result_->setText(
                tr("%1: %2").arg(QString::fromUtf8(r.label), QString::fromStdString(bad->sentence)));
            return;
        }
        readings.push_back(std::get<double>(parsed));
    }
    value_ = recipe_->value(readings);
    Project copy = context_.document.project();
    const auto field = findField(copy, path_.toStdString());
    if (!field) return;
    if (std::holds_alternative<int*>(field->target)) value_ = std::round(value_);
    if (!std::isfinite(value_) || value_ < field->info.min || value_ > field->info.max) {
        result_->setText(tr("These readings give no usable value; check them and their units."));
        return;
    }
    result_->setText(tr("%1: %2, ±%3")
                         .arg(QString::fromUtf8(field->info.label),
                              context_.show(value_, field->info.kind, 4),
                              context_.show(recipe_->tolerance, units::Kind::Percentage)));
    take_->setEnabled(!context_.document.readOnly());
}

void MeasureDialog::take() {
    context_.document.change(tr("Take a measured value"), [&](Project& p) {
        const auto field = findField(p, path_.toStdString());
        if (!field) return;
        setNumberAt(p, path_.toStdString(), value_);
        if (auto* const* e = std::get_if<Estimate*>(&field->target)) {
            (*e)->source = recipe_->tolerance > 0.0 ? Source::Measured : Source::Counted;
            (*e)->tolerance = recipe_->tolerance;
        }
    });
    accept();
}

} // namespace gantry::app
