// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/report/texts.h"

#include "core/criteria/criteria.h"
#include "core/evaluate/rig/rig_layout.h"
#include "core/model/describe.h"
#include "core/parts/part.h"
#include "core/recipes/recipe.h"
#include "core/tools/capability.h"
#include "core/tools/chain_table.h"
#include "core/tools/compare_ramps.h"
#include "core/tools/error_budget.h"
#include "core/tools/limits.h"
#include "core/verdicts/completeness.h"
#include "core/verdicts/fixes/family.h"
#include "core/verdicts/next_step.h"
#include "core/verdicts/rules.h"
#include "core/words/differences.h"
#include "core/words/empty_hint.h"
#include "io/exports/settings_forms.h"
#include "io/tables/csv.h"

#include <set>

namespace gantry::io {
namespace {

class Catalogue {
public:
    std::set<Text> all;

    void add(std::string_view group, std::string_view text) {
        if (!text.empty()) all.insert({group, std::string(text)});
    }

    // Descriptions of inputs, every kind of every part.
    template <class T>
    void field(const FieldInfo& info, const T&) {
        add("field", info.label);
    }
    template <class E>
    void choice(const FieldInfo& info, const E&) {
        add("field", info.label);
        for (const std::string_view label : ChoiceNames<E>::labels) add("choice", label);
    }
    template <class T>
    void part(std::string_view, const T& part) {
        describe(*this, part);
    }
    template <class T>
    void parts(std::string_view, const std::vector<T>&) {
        element(T{});
    }
    template <class... Ts>
    void either(std::string_view, const std::variant<Ts...>& one) {
        element(one);
    }
    void texts(std::string_view, const std::vector<std::string>&) {}

    // Descriptions of results.
    template <class T>
    void figure(const FigureInfo& info, const T&) {
        add("result", info.label);
    }
    template <class T>
    void flag(const FigureInfo& info, const T&) {
        add("result", info.label);
    }
    template <class T>
    void rank(const FigureInfo& info, const T&) {
        add("result", info.label);
    }
    template <class E>
    void outcome(const FigureInfo& info, const E&) {
        add("result", info.label);
        for (const std::string_view label : ChoiceNames<E>::labels) add("choice", label);
    }
    template <class T>
    void list(std::string_view, const std::vector<T>&) {
        described<T>();
    }
    template <class T>
    void described() {
        const T one{};
        describe(*this, one);
    }

private:
    template <class T>
    void element(const T& one) {
        describe(*this, one);
    }
    template <class... Ts>
    void element(const std::variant<Ts...>&) {
        (kind<Ts>(), ...);
    }
    template <class T>
    void kind() {
        if constexpr (requires { KindName<T>::label; }) add("kind", KindName<T>::label);
        described<T>();
    }
};

} // namespace

std::vector<Text> everyText() {
    Catalogue out;
    out.described<Project>();
    out.add("field", words::kindField.label);
    out.described<Evaluation>();
    out.described<AxisLimits>();
    out.described<RampRow>();
    out.described<ChainColumn>();
    out.described<Capability>();
    for (const criteria::Criterion& c : criteria::all()) out.add("criterion", c.what);
    for (int i = 0; i <= static_cast<int>(Reason::OutOfRange); ++i)
        out.add("reason", words::reasonText(static_cast<Reason>(i)));
    for (const words::EmptyHint& h : words::emptyHints()) out.add("field", h.hint);
    out.add("rule", words::unknownText.text);
    for (const words::Message& m : doubtTexts()) out.add("rule", m.text);
    for (const words::Message& m : nextStepTexts()) out.add("rule", m.text);
    for (const rules::Rule* rule : rules::all()) {
        out.add("rule", rule->title.text);
        out.add("fix", rule->advice.text);
        for (const words::Message& m : rule->sentences) out.add("rule", m.text);
        for (const fixes::Family* family : rule->fixes)
            for (const words::Message& m : family->labels) out.add("fix", m.text);
    }
    for (const words::Message& m : fixTexts()) out.add("fix", m.text);
    for (int i = 0; i <= static_cast<int>(State::Unknown); ++i)
        out.add("rule", stateWord(static_cast<State>(i)));
    for (int i = 0; i <= static_cast<int>(FixCost::ToBuy); ++i)
        out.add("fix", costWords(static_cast<FixCost>(i)));
    // Up to the first that is no member, for which there is no word.
    const auto members = [&]<class E>(std::string_view (*word)(E)) {
        for (int i = 0; !word(static_cast<E>(i)).empty(); ++i) out.add("word", word(static_cast<E>(i)));
    };
    members(softName);
    members(bodyName);
    members(limitName);
    members(bindingName);
    members(shapeName);
    members(errorKindName);
    members(causeName);
    for (const parts::Family& family : parts::families()) {
        out.add("part", family.label);
        for (const FieldInfo& info : family.numbers) out.add("field", info.label);
    }
    for (const SettingsForm& form : settingsForms()) out.add("export", form.name);
    for (const words::Message& m : completenessTexts()) out.add("need", m.text);
    std::vector<recipes::Recipe> howTo = recipes::all();
    howTo.push_back(recipes::directReading("", units::Kind::Ratio, 0.0, 0.0));
    for (const recipes::Recipe& r : howTo) {
        for (const std::string_view text : {r.title, r.steps, r.precaution}) out.add("recipe", text);
        for (const recipes::Reading& reading : r.readings) out.add("recipe", reading.label);
    }
    return {out.all.begin(), out.all.end()};
}

std::string textsCsv() {
    CsvWriter out("\n");
    out.line(std::string_view("group"), std::string_view("text"));
    for (const Text& t : everyText()) out.line(t.group, std::string_view(t.text));
    return out.text();
}

} // namespace gantry::io
