// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/find_ratio.h"

#include "cli/long_job.h"
#include "core/drivetrain/electronic_gear.h"
#include "core/parts/bins.h"
#include "core/units/text.h"
#include "io/files/text_file.h"
#include "io/parts/parts_csv.h"

#include <array>
#include <charconv>
#include <nlohmann/json.hpp>
#include <optional>

namespace gantry::cli {
namespace {

struct StockName {
    std::string_view name;
    parts::Stock stock;
};
constexpr std::array stockNames{
    StockName{"gears-0.5", parts::Stock::GearsHalf}, StockName{"gears-1", parts::Stock::GearsOne},
    StockName{"pulleys-2", parts::Stock::Pulleys2}, StockName{"pulleys-3", parts::Stock::Pulleys3},
    StockName{"pulleys-5", parts::Stock::Pulleys5}};

std::optional<double> number(std::string_view text) {
    double v = 0.0;
    const auto [end, problem] = std::from_chars(text.data(), text.data() + text.size(), v);
    return problem == std::errc() && end == text.data() + text.size() && v > 0.0 ? std::optional(v)
                                                                                 : std::nullopt;
}

std::optional<drivetrain::Ratio> readRatio(const std::string& text) {
    const auto mark = text.find_first_of("/:");
    const auto p = number(std::string_view(text).substr(0, mark));
    const auto q =
        mark == std::string::npos ? std::optional(1.0) : number(std::string_view(text).substr(mark + 1));
    return p && q ? drivetrain::nearestFraction(*p / *q, 1'000'000'000) : std::nullopt;
}

std::optional<ratiofinder::Bin> binOf(const std::string& from, std::ostream& err) {
    if (from.empty()) return parts::stockBin(parts::Stock::Pulleys2);
    for (const StockName& s : stockNames)
        if (s.name == from) return parts::stockBin(s.stock);
    std::string problem;
    const auto text = io::readTextFile(from, 64 * 1024 * 1024, problem);
    if (!text) {
        err << from << ": " << problem << '\n';
        return std::nullopt;
    }
    const io::PartsTable table = io::readParts(*text, io::suggestedColumns(io::csvHeader(*text)));
    for (const io::CsvError& e : table.errors)
        err << from << ": line " << e.line << ", column " << e.column << ": " << e.sentence << '\n';
    return parts::shelfBin(table.parts);
}

} // namespace

int findRatio(const RatioCall& call, std::ostream& out, std::ostream& err) {
    const auto target = readRatio(call.ratio);
    if (!target) {
        err << "“" << call.ratio << "” is no ratio; write one such as 3.6 or 57/11.\n";
        return 2;
    }
    ratiofinder::Query query;
    query.target = *target;
    query.mostStages = call.stages;
    query.most = static_cast<std::size_t>(call.most);
    const std::optional<ratiofinder::Bin> bin = binOf(call.from, err);
    if (!bin) return 2;
    LongJob job("Searching");
    const std::vector<ratiofinder::Train> trains = bin->find(query, job.token());
    if (const int code = job.conclude(err); code != 0) return code;
    nlohmann::ordered_json list = nlohmann::ordered_json::array();
    for (const ratiofinder::Train& t : trains) {
        std::string words;
        nlohmann::ordered_json steps = nlohmann::ordered_json::array();
        for (const ratiofinder::Stage& s : t.stages) {
            const int a = bin->wheels()[static_cast<std::size_t>(s.driver)].teeth,
                      b = bin->wheels()[static_cast<std::size_t>(s.driven)].teeth;
            words += (words.empty() ? "" : " x ") + std::to_string(a) + ':' + std::to_string(b);
            steps.push_back({{"driver", a}, {"driven", b}});
        }
        if (call.json)
            list.push_back({{"ratio", t.ratio.value()},
                            {"ratio_exact", t.ratio.text()},
                            {"relative_error", t.error},
                            {"stages", steps},
                            {"inertia_kgm2", t.inertia},
                            {"size_m", t.size},
                            {"efficiency", t.efficiency},
                            {"backlash_rad", t.backlash},
                            {"to_buy", t.toBuy},
                            {"reverses", t.reverses},
                            {"wheel_sets", t.gearSets}});
        else
            out << t.ratio.text() << '\t' << units::plainNumber(100 * t.error, 5) << " %\t" << words << '\n';
    }
    if (call.json)
        out << nlohmann::ordered_json{{"format", "calm-gantry-trains"},
                                      {"version", 1},
                                      {"target", target->text()},
                                      {"trains", list}}
                   .dump(2)
            << '\n';
    if (trains.empty()) err << "No train of these wheels comes near " << call.ratio << ".\n";
    return trains.empty() ? 1 : 0;
}

} // namespace gantry::cli
