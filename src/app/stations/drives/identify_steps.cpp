// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/stations/drives/identify_steps.h"

#include <QCoreApplication>

namespace gantry::app {
namespace {

using units::Kind;
#define SAY(text) QT_TRANSLATE_NOOP("IdentifyDialog", text)

constexpr const char* blocked = SAY("The motor gets hot enough to burn. Clamp it on metal away from paper, "
                                    "stay with it, read a thermometer and "
                                    "do not touch, and switch off at the agreed temperature.");

} // namespace

const std::vector<IdentifyStep>& identifySteps() {
    static const std::vector<IdentifyStep> steps{
        {SAY("Leads and windings"),
         SAY("Unplug the motor. Touch the probes together and subtract that reading. With 4 or 8 leads "
             "measure one "
             "winding from end to end. With 5 or 6 measure from the common lead, which has the smaller "
             "resistance to "
             "all others, to one end."),
         SAY("Switch the supply off and wait a minute before you touch leads."),
         {{"leads", SAY("Leads"), Kind::Count, "4", SAY("4, 5, 6 or 8")},
          {"resistance", SAY("Resistance of one phase"), Kind::Resistance, "", SAY("from the meter")}},
         true,
         false},
        {SAY("Resistance"),
         SAY("Unplug the motor. Measure between the leads, turn the shaft a little, measure again, five "
             "times; type the "
             "least, less the probes touched together."),
         SAY("Switch the supply off and wait a minute before you touch leads."),
         {{"resistance", SAY("Least resistance"), Kind::Resistance, "", SAY("from the meter")}},
         false,
         true},
        {SAY("Steps and gearbox"),
         SAY("Put a tape flag on the shaft. Power one phase after the other by hand or step it slowly with a "
             "driver set "
             "to full steps, and count the steps of one turn. If the shaft turns more slowly than what is "
             "inside, open "
             "the cover and count the turns of the rotor for a whole number of turns of the shaft."),
         SAY("Keep the voltage low, sleeves and fingers clear."),
         {{"steps", SAY("Full steps in a turn"), Kind::Count, "", SAY("200 or 400; 20 to 48 on small cans")},
          {"gear_in", SAY("Turns of the rotor"), Kind::Count, "1", SAY("1 without a gearbox")},
          {"gear_out", SAY("for turns of the shaft"), Kind::Count, "1", ""}},
         true,
         false},
        {SAY("Free run and gearbox"),
         SAY("Let it run free at a steady voltage, near what it will get. Count the turns of a tape flag on "
             "the shaft "
             "for half a minute; a film of it helps. Read the current. With a gearbox, count the turns of "
             "the rotor "
             "for whole turns of the shaft."),
         SAY("Clamp the motor. Keep sleeves, hair and strings away from the turning shaft."),
         {{"voltage", SAY("Voltage"), Kind::Voltage, "", SAY("at the leads while it runs")},
          {"turns", SAY("Turns of the shaft"), Kind::Count, "", ""},
          {"time", SAY("in the time"), Kind::Time, "30 s", ""},
          {"free_current", SAY("Current"), Kind::Current, "", SAY("running free")},
          {"gear_in", SAY("Turns of the rotor"), Kind::Count, "1", SAY("1 without a gearbox")},
          {"gear_out", SAY("for turns of the shaft"), Kind::Count, "1", ""}},
         false,
         true},
        {SAY("Size"),
         SAY("Measure the body with a rule. It tells inertia and mass, and the torque where nothing else "
             "does."),
         "",
         {{"frame", SAY("Across the body"), Kind::PartLength, "", SAY("28 mm, 35.2 mm, 42.3 mm …")},
          {"length", SAY("Length of the body"), Kind::PartLength, "", SAY("without the shaft")}},
         true,
         true},
        {SAY("Rising current"),
         SAY("Hold the motor still with a current-limited supply (both phases of a stepper at once; a "
             "brushed motor "
             "blocked). Start small, wait until the case stops warming, type current and case temperature, "
             "go on to "
             "the current that is offered below. Leave it out if you have no thermometer."),
         blocked,
         {{"air", SAY("Air"), Kind::Celsius, "22", ""}, {"limit", SAY("Stop at"), Kind::Celsius, "70", ""}},
         true,
         true,
         true},
        {SAY("What it pulls"),
         SAY("Clamp an arm on the shaft, hold both phases at a known current, pull square to the arm with a "
             "luggage "
             "scale until it gives way. Leave it out if you have no scale."),
         SAY("The arm snaps round when it gives way: keep hands and face out of its circle."),
         {{"pull", SAY("Pull"), Kind::Force, "", ""},
          {"arm", SAY("Distance from the shaft"), Kind::Length, "", ""},
          {"pull_current", SAY("Current, rms"), Kind::Current, "", SAY("in each phase")}},
         true,
         false},
        {SAY("What it pulls"),
         SAY("Clamp an arm on the shaft, give it about half its voltage for a second or two, and read the "
             "luggage scale "
             "that holds the arm. Leave it out if you have no scale."),
         SAY("A gearbox pulls hard enough to break fingers: block the arm, power on from a distance, only "
             "for seconds."),
         {{"pull", SAY("Pull"), Kind::Force, "", ""},
          {"arm", SAY("Distance from the shaft"), Kind::Length, "", ""},
          {"pull_voltage", SAY("Voltage"), Kind::Voltage, "", ""}},
         false,
         true}};
    return steps;
}

#undef SAY

} // namespace gantry::app
