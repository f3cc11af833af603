// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/parts_dialog.h"

#include "app/model/write_bytes.h"
#include "app/stations/drives/import_dialog.h"
#include "io/parts/parts_csv.h"

#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTabBar>
#include <QTableView>
#include <algorithm>

namespace gantry::app {
namespace {
enum Column { Family, Name, Figures, Price, Count, columns_ };
}

PartsModel::PartsModel(const Context& context, QObject* parent)
    : QAbstractTableModel(parent), context_(context) {}

void PartsModel::show(const std::vector<parts::Part>& all, const QString& family, const QString& words) {
    beginResetModel();
    all_ = &all;
    shown_.clear();
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (!family.isEmpty() && QString::fromStdString(all[i].family) != family) continue;
        const QString text = QString::fromStdString(all[i].name + ' ' + all[i].reason);
        bool fits = true;
        for (const QString& word : words.split(QLatin1Char(' '), Qt::SkipEmptyParts))
            fits = fits && text.contains(word, Qt::CaseInsensitive);
        if (fits) shown_.push_back(static_cast<int>(i));
    }
    endResetModel();
}

int PartsModel::partAt(int row) const {
    return row >= 0 && row < static_cast<int>(shown_.size()) ? shown_[static_cast<std::size_t>(row)] : -1;
}
int PartsModel::rowCount(const QModelIndex&) const {
    return static_cast<int>(shown_.size());
}
int PartsModel::columnCount(const QModelIndex&) const {
    return columns_;
}

QVariant PartsModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole || orientation != Qt::Horizontal) return {};
    const QStringList names{tr("Kind"), tr("Part"), tr("Figures"), tr("Price"), tr("Count")};
    return names[section];
}

QVariant PartsModel::data(const QModelIndex& index, int role) const {
    const int i = partAt(index.row());
    if (i < 0 || (role != Qt::DisplayRole && role != Qt::ToolTipRole && role != Qt::TextAlignmentRole))
        return {};
    if (role == Qt::TextAlignmentRole)
        return index.column() == Price || index.column() == Count
                   ? QVariant(Qt::AlignRight | Qt::AlignVCenter)
                   : QVariant(Qt::AlignLeft | Qt::AlignVCenter);
    const parts::Part& part = (*all_)[static_cast<std::size_t>(i)];
    const parts::Family* family = parts::findFamily(part.family);
    switch (index.column()) {
    case Family:
        return family != nullptr ? QString::fromUtf8(family->label.data())
                                 : QString::fromStdString(part.family);
    case Name:
        return QString::fromStdString(part.name);
    case Figures: {
        QStringList figures;
        if (family != nullptr)
            for (const FieldInfo& info : family->numbers)
                if (const auto v = parts::numberOf(part, info.key);
                    v && figures.size() < 3 && info.key != "rotor_teeth" && info.key != "starts")
                    figures << context_.show(*v, info.kind) +
                                   (info.kind == units::Kind::Count
                                        ? QStringLiteral(" ") + QString::fromUtf8(info.label.data()).toLower()
                                        : QString());
        return figures.join(QStringLiteral(" · "));
    }
    case Price:
        return part.price > 0.0 ? context_.show(part.price, units::Kind::Money) : QString();
    case Count:
        return part.count > 0 ? QString::number(part.count) : QString();
    }
    return {};
}

PartsDialog::PartsDialog(const Context& context, std::function<int()> link, QWidget* parent)
    : ToolWindow(context, QStringLiteral("partsDialog"), tr("Parts"), parent), shelf_(context.shelf),
      link_(std::move(link)), tabs_(new QTabBar), family_(new QComboBox), search_(new QLineEdit),
      table_(new QTableView), model_(context), why_(new QLabel), status_(new QLabel),
      use_(new QPushButton(tr("Put into the rig"))), own_(new QPushButton(tr("I own one"))),
      more_(new QPushButton(tr("One more"))), fewer_(new QPushButton(tr("One less"))),
      import_(new QPushButton(tr("Import a table"))), export_(new QPushButton(tr("Export a table"))) {
    resize(840, 560);
    tabs_->addTab(tr("Library"));
    tabs_->addTab(tr("Parts on hand"));
    tabs_->setDrawBase(false);
    tabs_->setObjectName(QStringLiteral("partsTabs"));
    family_->setObjectName(QStringLiteral("partsFamily"));
    family_->setAccessibleName(tr("Kind of part"));
    family_->addItem(tr("all kinds"), QString());
    for (const parts::Family& f : parts::families())
        family_->addItem(QString::fromUtf8(f.label.data()), QString::fromUtf8(f.key));
    search_->setPlaceholderText(tr("words in the name"));
    search_->setObjectName(QStringLiteral("partsSearch"));
    search_->setAccessibleName(tr("Search parts"));
    table_->setModel(&model_);
    table_->setObjectName(QStringLiteral("partsTable"));
    table_->setAccessibleName(tr("Parts"));
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setShowGrid(false);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(23);
    table_->horizontalHeader()->setStretchLastSection(true);
    for (const auto& [column, width] : {std::pair{int(Family), 168},
                                        {int(Name), 250},
                                        {int(Figures), 280},
                                        {int(Price), 56},
                                        {int(Count), 50}})
        table_->setColumnWidth(column, width);
    why_->setObjectName(QStringLiteral("partsWhy"));
    why_->setWordWrap(true);
    why_->setMinimumHeight(34); // two lines, so that nothing moves from part to part
    why_->setAlignment(Qt::AlignTop);
    status_->setObjectName(QStringLiteral("partsStatus"));
    status_->setWordWrap(true);
    use_->setProperty("role", "primary");

    auto* top = new QHBoxLayout;
    top->addWidget(tabs_);
    top->addStretch();
    top->addWidget(family_);
    top->addWidget(search_);
    auto* bottom = new QHBoxLayout;
    auto* close = new QPushButton(tr("Close"));
    for (QPushButton* b : {use_, own_, more_, fewer_, import_, export_}) {
        b->setAutoDefault(false);
        bottom->addWidget(b);
    }
    bottom->addStretch();
    close->setAutoDefault(false);
    bottom->addWidget(close);
    auto* all = new QVBoxLayout(this);
    all->addLayout(top);
    all->addWidget(table_, 1);
    all->addWidget(why_);
    all->addWidget(status_);
    all->addLayout(bottom);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, &PartsDialog::showWhy);
    connect(tabs_, &QTabBar::currentChanged, this, &PartsDialog::refresh);
    connect(family_, &QComboBox::activated, this, &PartsDialog::refresh);
    connect(search_, &QLineEdit::textChanged, this, &PartsDialog::refresh);
    connect(use_, &QPushButton::clicked, this, &PartsDialog::use);
    connect(own_, &QPushButton::clicked, this, &PartsDialog::addToShelf);
    connect(more_, &QPushButton::clicked, this, [this] { changeCount(1); });
    connect(fewer_, &QPushButton::clicked, this, [this] { changeCount(-1); });
    connect(import_, &QPushButton::clicked, this, &PartsDialog::importFile);
    connect(export_, &QPushButton::clicked, this, &PartsDialog::exportFile);
    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(&shelf_, &Shelf::changed, this, &PartsDialog::refresh);
}

void PartsDialog::refresh() {
    const bool shelf = tabs_->currentIndex() == 1;
    const int row = table_->currentIndex().row();
    model_.show(shelf ? shelf_.parts() : partsLibrary(), family_->currentData().toString(), search_->text());
    own_->setVisible(!shelf);
    for (QPushButton* b : {more_, fewer_, import_, export_}) b->setVisible(shelf);
    if (model_.rowCount() > 0) table_->selectRow(std::clamp(row, 0, model_.rowCount() - 1));
    showWhy();
    use_->setEnabled(model_.rowCount() > 0 && context_.axis() != nullptr && !context_.document.readOnly());
    if (shelf && shelf_.parts().empty())
        status_->setText(tr(
            "Nothing on hand yet. Mark library parts as owned, or import the table that you keep them in."));
    else
        status_->setText(tr("%1 parts").arg(model_.rowCount()));
}

void PartsDialog::showWhy() {
    const parts::Part* part = chosen();
    why_->setText(part == nullptr || part->reason.empty()
                      ? QString()
                      : tr("Why these figures: %1").arg(QString::fromStdString(part->reason)));
}

const parts::Part* PartsDialog::chosen() const {
    const int i = model_.partAt(table_->currentIndex().row());
    if (i < 0) return nullptr;
    return &(tabs_->currentIndex() == 1 ? shelf_.parts() : partsLibrary())[static_cast<std::size_t>(i)];
}

void PartsDialog::use() {
    const parts::Part* part = chosen();
    if (part == nullptr) return;
    Project next = context_.document.project();
    const std::string why = parts::usePart(next, context_.session.axis(), link_(), *part);
    if (!why.empty()) {
        status_->setText(QString::fromStdString(why));
        return;
    }
    context_.document.edit(tr("Use a part"), std::move(next));
    status_->setText(tr("%1 is in the rig now; undo takes it out.").arg(QString::fromStdString(part->name)));
}

void PartsDialog::setShelf(std::vector<parts::Part> next) {
    QString error;
    if (!shelf_.set(std::move(next), error)) status_->setText(error);
}

void PartsDialog::addToShelf() {
    const parts::Part* part = chosen();
    if (part == nullptr) return;
    std::vector<parts::Part> next = shelf_.parts();
    const auto same = std::find_if(next.begin(), next.end(), [&](const parts::Part& p) {
        return p.name == part->name && p.family == part->family;
    });
    if (same != next.end())
        ++same->count;
    else {
        next.push_back(*part);
        next.back().count = 1;
    }
    const QString name = QString::fromStdString(part->name);
    setShelf(std::move(next));
    status_->setText(tr("%1 is on hand.").arg(name));
}

void PartsDialog::changeCount(int by) {
    const int i = model_.partAt(table_->currentIndex().row());
    if (i < 0) return;
    std::vector<parts::Part> next = shelf_.parts();
    parts::Part& part = next[static_cast<std::size_t>(i)];
    part.count = std::max(0, part.count + by);
    if (part.count == 0) next.erase(next.begin() + i);
    setShelf(std::move(next));
}

void PartsDialog::importFile() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Import a table of parts"), {},
                                                      tr("Tables (*.csv *.txt *.tsv);;All files (*)"));
    if (path.isEmpty()) return;
    auto* dialog = new ImportDialog(path, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    connect(dialog, &ImportDialog::imported, this, [this](const std::vector<parts::Part>& added) {
        std::vector<parts::Part> next = shelf_.parts();
        next.insert(next.end(), added.begin(), added.end());
        setShelf(std::move(next));
    });
    dialog->open();
}

void PartsDialog::exportFile() {
    const QString path = QFileDialog::getSaveFileName(
        this, tr("Export the parts on hand"), QStringLiteral("parts-on-hand.csv"), tr("Tables (*.csv)"));
    if (path.isEmpty()) return;
    const QString problem = writeBytes(path, QByteArray::fromStdString(io::writeParts(shelf_.parts())));
    status_->setText(problem.isEmpty() ? tr("Exported to %1.").arg(path) : problem);
}

} // namespace gantry::app
