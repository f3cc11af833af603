// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/instruments/field_group.h"
#include "core/verdicts/completeness.h"

class QPushButton;

namespace gantry::app {

/// A list of parts as rows of fields, with its sum in the title and buttons to add and remove.
class ListCard : public QWidget {
    Q_OBJECT
public:
    ListCard(const Context& context, const QString& name, QWidget* parent = nullptr);
    FieldGroup* fields() { return fields_; }
    int heightFor(int width) const;
    void setCan(bool add, bool remove);

signals:
    void addWanted();
    void removeWanted();
    void message(const QString& sentence, bool refused);

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    FieldGroup* fields_;
    QPushButton *add_, *remove_;
};

/// What the shots ask of each axis: fastest, slowest, steepest and finest, each with its shot.
class DemandsCard : public QWidget {
    Q_OBJECT
public:
    explicit DemandsCard(const Context& context, QWidget* parent = nullptr);
    void refresh();
    int wantedHeight() const;
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    QList<QStringList> rows_;
    QString words_;
};

/// What the rig needs besides drives, with ticks for what is there.
class CompletenessCard : public QWidget {
    Q_OBJECT
public:
    explicit CompletenessCard(const Context& context, QWidget* parent = nullptr);
    void refresh();
    int wantedHeight() const;
    QString inWords() const { return words_; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    Context context_;
    std::vector<CompletenessLine> lines_;
    QString words_;
};

} // namespace gantry::app
