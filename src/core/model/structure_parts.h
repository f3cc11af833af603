// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/estimate.h"
#include "core/model/load_parts.h"

#include <string>
#include <vector>

namespace gantry {

/// Outline of a beam's cross section. NotGiven: nothing is known, so nothing is judged.
enum class SectionShape {
    NotGiven,
    SlottedProfile,
    SolidRectangle,
    HollowRectangle,
    RoundTube,
    RodPair,
    Tee,
    Own
};

enum class BeamMaterial {
    Aluminium,
    Steel,
    CarbonTube,
    Plywood,
    Softwood,
    Hardwood,
    PrintedPla,
    PrintedPetg
};

/// A beam's cross section. Outer sizes as it stands with `onEdge` off; on edge it is laid on its other side.
struct Section {
    SectionShape shape = SectionShape::NotGiven;
    BeamMaterial material = BeamMaterial::Aluminium;
    double width = 0.04;   ///< [m] across; a rod's or tube's diameter
    double height = 0.04;  ///< [m] upright; not used by tubes and rods
    double wall = 0.002;   ///< [m] of tubes; of a T its web
    double flange = 0.004; ///< [m] thickness of a T's flange
    double spacing = 0.06; ///< [m] between the middles of two rods
    bool onEdge = false;
    double ownInertia = 1e-8;  ///< [m⁴] entered for a section of one's own: upright …
    double ownSideways = 1e-8; ///< [m⁴] … sideways
    double ownTorsion = 1e-9;  ///< [m⁴] … and torsion
    double ownMass = 1.0;      ///< [kg/m]
    double price = 0.0;        ///< of a metre, in the user's money; 0: not said
    Estimate stiffnessFactor =
        assumed(1.0, 0.1); ///< [1] how much stiffer it is than the table says, from a sag test

    friend bool operator==(const Section&, const Section&) = default;
};

/// A section on the shelf or in a shop, to be compared with the one in use.
struct Profile {
    std::string id;
    std::string name = "Profile";
    Section section;

    friend bool operator==(const Profile&, const Profile&) = default;
};

enum class RailSupport { TwoStands, OneHead, Bedded };

/// What carries a carriage's rail.
struct Rail {
    Section section;
    RailSupport support = RailSupport::TwoStands;
    double firstStand = 0.1;                     ///< [m] from the low end
    double secondStand = 0.9;                    ///< [m] from the low end, beyond the first
    double headAt = 0.5;                         ///< [m] from the low end, of a single head
    Estimate headTurning = assumed(6000.0, 0.4); ///< [N·m/rad] of a single head's clamp
    Estimate standSway = assumed(60000.0, 0.5);  ///< [N/m] sideways at the top of what it stands on; 0: stiff
    Estimate standMass = assumed(0.0, 0.05);     ///< [kg] of each stand, clamped to the rail
    int clampBolts = 0;             ///< that hold the rail down on each stand or head; 0: not given
    double clampSpacing = 0.05;     ///< [m] between a clamp's bolts along the rail
    double clampBoltLimit = 1000.0; ///< [N] that one of them and its thread stand
    double cameraSide = 0.0;        ///< [m] camera off the rail's middle line
    double shownAt = 0.0;           ///< [m] along the travel where the drawing shows the carriage
    std::vector<RailLoad> loads;    ///< that sit on it and do not travel

    friend bool operator==(const Rail&, const Rail&) = default;
};

/// A weight of which a builder owns several.
struct Disc {
    std::string id;
    std::string name = "Disc";
    double mass = 1.0; ///< [kg]
    int count = 2;
    double price = 0.0; ///< of one, in the user's money; 0: it is there already

    friend bool operator==(const Disc&, const Disc&) = default;
};

/// Weight behind the pivot of an arm.
struct Counterweight {
    Estimate mass = assumed(0.0, 0.02); ///< [kg] all of it
    double behind = 0.5;                ///< [m] behind the pivot
    double above = 0.0;                 ///< [m] above the arm line
    double nearest = 0.2;               ///< [m] the places its bar allows, from …
    double farthest = 0.8;              ///< [m] … to
    double bare = 0.0;                  ///< [kg] of bar and clamps without any disc, part of the mass
    double size = 0.16;                 ///< [m] across the discs

    friend bool operator==(const Counterweight&, const Counterweight&) = default;
};

enum class ArmKind { Plain, ParallelLinks };

/// What holds the arm: figures are 0 where they are not known, and then nothing is judged by them.
struct Pivot {
    double pinDiameter = 0.0;                   ///< [m]
    double cheekGap = 0.05;                     ///< [m] between the middles of the cheeks
    double pinLimit = 235e6;                    ///< [Pa] stress that the pin's material stands
    Estimate bearingRating = assumed(0.0, 0.2); ///< [N] of the pivot's bearings together
    Estimate bearingMoment = assumed(0.0, 0.2); ///< [N·m] that a turning bearing under the arm stands
    int bolts = 0;                              ///< on a circle under that bearing
    double boltCircle = 0.05;                   ///< [m] radius of it
    double boltLimit = 2000.0;                  ///< [N] that one bolt and its thread stand

    friend bool operator==(const Pivot&, const Pivot&) = default;
};

/// The arm of a boom tilt, or of a swing that carries the camera. Its own weight comes from its section.
struct Boom {
    Section section;
    ArmKind arm = ArmKind::Plain;
    double reach = 1.0;                       ///< [m] from pivot to the end where the camera hangs
    double rear = 0.5;                        ///< [m] behind the pivot
    double tipOffset = 0.0;                   ///< [m] centre of gravity of the camera beyond the end
    double tipAbove = 0.0;                    ///< [m] … and above the arm line; below: negative
    double tipSide = 0.0;                     ///< [m] … and beside it
    Estimate mastTurning = assumed(0.0, 0.5); ///< [N·m/rad] of mast and pivot against nodding; 0: stiff
    Counterweight counterweight;
    std::vector<Disc> discs; ///< on hand, for the chart
    Pivot pivot;
    bool hangs = false;   ///< turned over: the camera hangs from above
    double shownAt = 0.0; ///< [rad] where the drawing shows the arm, from the low end; pan, tilt and roll
                          ///< from straight ahead

    friend bool operator==(const Boom&, const Boom&) = default;
};

/// What the whole rig stands on or hangs from. NotGiven: nothing is known, so nothing is judged.
enum class BaseKind { NotGiven, Legs, Rectangle, WallBracket, Overhead };

struct Base {
    BaseKind kind = BaseKind::NotGiven;
    int legs = 3;
    double legRadius = 0.6;                ///< [m] from the middle to a foot
    double firstLeg = 0.0;                 ///< [rad] direction of the first leg; 0 points along the rig
    double length = 1.0;                   ///< [m] of a plate, a stool or two tripods, along the rig
    double width = 0.6;                    ///< [m] across
    double height = 1.0;                   ///< [m] of the column's top, or of the rail, above the feet
    double columnAhead = 0.0;              ///< [m] of the column before the middle of the feet
    double mount = 0.3;                    ///< [m] from wall or ceiling to what turns or hangs on it
    Estimate mass = assumed(5.0, 0.1);     ///< [kg] of legs, column and plate
    double massHeight = 0.4;               ///< [m] of its centre of gravity
    Estimate groundSlope = assumed(0.0);   ///< [rad]
    double downhill = 0.0;                 ///< [rad] direction in which the ground falls
    Estimate ballast = assumed(0.0, 0.02); ///< [kg]
    double ballastOut = 0.0;               ///< [m] behind the middle, away from where the rig points
    int ballastLeg = 0;                    ///< 1 …: on the foot of that leg or corner; 0: behind the middle
    Estimate padStiffness = assumed(0.0, 0.4); ///< [N/m] of one foot's pad, pressed; 0: stiff feet
    Estimate padDamping = assumed(0.1, 0.5);   ///< [1] of critical
    Estimate sidePush = assumed(0.0, 0.3);     ///< [N] a hand, a cable or a knock from any side …
    double pushHeight = 1.2;                   ///< [m] … at this height
    Estimate anchorStrength =
        assumed(0.0, 0.2);          ///< [N] of all anchors of a wall or overhead mount; 0: not given
    double anchorSpread = 0.2;      ///< [m] between the upper and lower, or outer, anchors
    bool tethered = false;          ///< a second, independent tether holds what hangs
    std::vector<PlacedBody> bodies; ///< that stand still, placed from the column's top, or from its mount

    friend bool operator==(const Base&, const Base&) = default;
};

/// How the axes of a head stand to each other, and how large what it carries is. Heights count away from
/// what it stands on; where the head hangs, downwards.
struct Head {
    Estimate stand = assumed(0.04, 0.25); ///< [m] from the rail's middle line to what stands on a carriage
    Estimate panHeight = assumed(0.08, 0.25);    ///< [m] of the pan's body
    Estimate tiltHeight = assumed(0.14, 0.25);   ///< [m] from what carries the tilt up to its axis
    Estimate tiltAhead = assumed(0.0);           ///< [m] the tilt's axis before the pan's
    Estimate rollHeight = assumed(0.0);          ///< [m] the roll's axis above the tilt's
    Estimate plateBelow = assumed(0.06, 0.25);   ///< [m] the camera plate under the axis of tilt or roll
    Estimate lensHeight = assumed(0.06, 0.25);   ///< [m] the lens above the plate
    Estimate lensLeft = assumed(0.0);            ///< [m] the lens to the left of the pan's axis
    Estimate lensFront = assumed(0.09, 0.25);    ///< [m] the lens' front before the axes
    Estimate pupilBack = assumed(0.05, 0.5);     ///< [m] the lens' entrance pupil behind its front
    Estimate lensDiameter = assumed(0.08, 0.25); ///< [m]
    Estimate cameraBack = assumed(0.06, 0.25);   ///< [m] the camera's back behind the axes
    Estimate cameraDepth = assumed(0.08, 0.25);  ///< [m] of its body along the lens
    Estimate cameraWidth = assumed(0.14, 0.25);  ///< [m]
    Estimate cameraHeight = assumed(0.1, 0.25);  ///< [m]

    friend bool operator==(const Head&, const Head&) = default;
};

/// A room that nothing may enter: the subject, an operator's head. Places from the middle of the base: x
/// along the rig, y to its left, z above the feet.
struct KeepOut {
    std::string id;
    std::string name = "Keep out";
    double x = 1.0, y = 0.0, z = 1.0;               ///< [m] its middle
    double length = 0.3, width = 0.3, height = 0.3; ///< [m]

    friend bool operator==(const KeepOut&, const KeepOut&) = default;
};

/// What may hang on the head on different days, for the counterweight chart.
struct Kit {
    std::string id;
    std::string name = "Kit";
    Estimate mass = estimate(3.0, Source::Measured); ///< [kg] all that hangs at the arm's end
    double above = 0.0;                              ///< [m] its centre of gravity above the arm line

    friend bool operator==(const Kit&, const Kit&) = default;
};

} // namespace gantry
