// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/evaluate/evaluate.h"
#include "core/rigs/rigs.h"

#include <initializer_list>
#include <map>
#include <nlohmann/json.hpp>
#include <numbers>
#include <set>
#include <string>

/// What rigs of the cases are made of.
namespace judged {

using namespace gantry;
using nlohmann::json;
inline constexpr double pi = std::numbers::pi;

/// The inputs of a case. Each has to be asked for.
class Inputs {
public:
    explicit Inputs(const json& all) : all_(all) {}
    bool has(const char* key) const { return all_.contains(key); }
    const json& raw(const char* key) {
        read_.insert(key);
        return all_.at(key).at("value");
    }
    double number(const char* key) { return raw(key).get<double>(); }
    double number(const char* key, double otherwise) { return has(key) ? number(key) : otherwise; }
    int count(const char* key) { return raw(key).get<int>(); }
    Estimate value(const char* key);
    Estimate value(const char* key, Estimate otherwise) { return has(key) ? value(key) : otherwise; }
    /// What says only how the case was worked out, or is told by another input.
    void skip(std::initializer_list<const char*> keys) {
        for (const char* k : keys) read_.insert(k);
    }
    std::string unread() const {
        std::string out;
        for (const auto& [key, v] : all_.items())
            if (!read_.contains(key)) out += key + " ";
        return out;
    }

private:
    const json& all_;
    std::set<std::string> read_;
};

Estimate known(double v);
Estimate sheet(double v);
Stepper stepper(Inputs& in);
/// One axis, everything that no case gives known exactly and out of the way.
Project bare(rigs::RigKind kind);
void settle(Axis& a);
void drive(Project& p, Inputs& in);
LinearMechanism& line(Project& p);
RotaryMechanism& turn(Project& p);
/// A rail with a carriage: mass, friction and slope as the case has them, nothing else.
Project slider(Inputs& in);
void belt(Project& p, Inputs& in);
void lineShot(Project& p, double distance, double speed, double acceleration);
void turnShot(Project& p, double distance, double speed, double acceleration);
/// A carriage on a belt with one shot, as most sliders of the cases are.
Project beltSlider(Inputs& in, double distance);
/// A turning axis with nothing on it.
Project turning(Inputs& in, Role role);
void ratio(Project& p, int numerator, const Estimate& efficiency, const Estimate& backlash = known(0.0));
MassItem item(const char* id, const Estimate& mass, double along, double above = 0.0);
void lens(Project& p, Inputs& in);
GearedDc geared(Inputs& in);

using Build = Project (*)(Inputs&, char variant);
using Builders = std::map<std::string, Build>;
const Builders& railBuilders(); ///< what runs along a line
const Builders& armBuilders();  ///< what turns

} // namespace judged
