#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Recomputes the main figures of a rig from its project file alone, in another language and by other methods than
the program: ratios as exact fractions, inertias from energies, pull-out by walking through all currents, ramps by
bisection. Usage: recompute.py COMMAND_LINE_PROGRAM PROJECT…; a name without a dot is one of its starting rigs.
Exit code 1 where a figure of the program is off by more than 1 %."""

import json
import math
import subprocess
import sys
import tempfile
from fractions import Fraction

G = 9.80665
AIR = 0.5 * 1.2 * 1.2  # half of density times drag coefficient


def val(x):
    return x["value"] if isinstance(x, dict) else x


def mm(length):
    """A length [m] as an exact number of mm, as it is written."""
    return Fraction(repr(round(val(length) * 1e3, 9)))


class Stage:
    def __init__(self, ratio, eta, inertia, start=None):
        self.ratio, self.eta, self.inertia = float(ratio), eta, inertia
        self.exact = ratio if isinstance(ratio, Fraction) else None
        self.back = 2 - 1 / eta
        self.start = start if start is not None else eta


def worm_stage(l):
    lam, alpha = val(l["lead_angle_rad"]), math.radians(20)
    mu, rest = val(l["friction"]), val(l["start_friction"])
    rest = max(rest if rest > 0 else 1.5 * mu, mu)

    def eta(m):  # thread formula of the flank forces, written with cos and sin
        c, s = math.cos(lam), math.sin(lam)
        return (s / c) * (math.cos(alpha) * c - m * s) / (math.cos(alpha) * s + m * c)

    st = Stage(Fraction(l["wheel_teeth"], l["starts"]), eta(mu), val(l["inertia_kgm2"]), eta(rest))
    c, s = math.cos(lam), math.sin(lam)
    st.back = (math.cos(alpha) * s - mu * c) / (math.cos(alpha) * c + mu * s) * c / s
    return st


def link_stage(l):
    k = l["kind"]
    if k == "coupling":
        return Stage(Fraction(1), 1.0, val(l["inertia_kgm2"]))
    if k == "worm":
        return worm_stage(l)
    f = l.get("figures", l)
    eta, j = val(f["efficiency"]), val(f["inertia_kgm2"])
    if k in ("belt_stage", "gear_stage"):
        return Stage(Fraction(l["load_teeth"], l["motor_teeth"]), eta, j)
    if k == "planetary":
        return Stage((1 + Fraction(l["ring_teeth"], l["sun_teeth"])) ** l["stages"], eta, j)
    if k == "strain_wave":
        return Stage(Fraction(l["flex_teeth"], 2), eta, j)
    if k == "reducer":
        return Stage(Fraction(l["numerator"], l["denominator"]), eta, j)
    return Stage(val(l["wheel_diameter_m"]) / val(l["roller_diameter_m"]), eta, j)


def section(s):
    """Area [m²] of an arm's section."""
    w, h, t = s["width_m"], s["height_m"], s["wall_m"]
    shape = s["shape"]
    if shape == "solid_rectangle":
        return w * h
    if shape == "hollow_rectangle":
        return w * h - max(0, w - 2 * t) * max(0, h - 2 * t)
    if shape == "round_tube":
        return math.pi * (w * w - max(0, w - 2 * t) ** 2) / 4
    if shape == "tee":
        return w * s["flange_m"] + t * max(h - s["flange_m"], 1e-4)
    if shape == "slotted_profile":
        return 0.4 * w * h
    if shape == "rod_pair":
        return 2 * math.pi * w * w / 4
    raise KeyError(shape)


def wound_radius(o, travel):
    """Radius [m] at which a cord pulls when all of the travel is wound, laid turn by turn."""
    first, cord = (val(o["drum_diameter_m"]) + val(o["cord_diameter_m"])) / 2, val(o["cord_diameter_m"])
    if o["closed_loop"]:
        return first
    a_layer = max(1, math.floor(o["drum_width_m"] / cord + 1e-9))
    turn, radius = o["turns_on"], first
    while travel > 0:
        layer = math.floor(turn / a_layer)
        radius = first + layer * cord * val(o["layer_height"])
        part = min((layer + 1) * a_layer - turn, 1.0)
        travel -= 2 * math.pi * radius * part
        turn += part
    return radius


DENSITY = {"aluminium": 2700, "steel": 7850, "carbon_tube": 1550, "plywood": 680, "softwood": 450, "hardwood": 680,
           "printed_pla": 1240, "printed_petg": 1270}


def arm_points(project, axis):
    """Everything on an arm as many points (mass, along, above): the arm itself in slices. On parallel links what is
    carried keeps its direction, so that all of it moves as the joint at the arm's end does."""
    m, out = axis["mechanism"], []
    boom = m["boom"]
    given = boom["section"]["shape"] != "not_given"
    if given:
        s = boom["section"]
        per = s["own_mass_kg_m"] if s["shape"] == "own" else section(s) * DENSITY[s["material"]]
        n, length = 2000, boom["reach_m"] + boom["rear_m"]
        out += [(per * length / n, -boom["rear_m"] + length * (i + 0.5) / n, 0.0) for i in range(n)]
    links = boom["arm"] == "parallel_links"
    out += [(val(i["mass_kg"]), i["along_m"], 0.0 if links and i["along_m"] > 0 else i["above_m"]) for i in m["items"]]
    if axis["carries_payload"] and links and given:
        out.append((sum(val(i["mass_kg"]) for i in project["payload"]), boom["reach_m"], 0.0))
    elif axis["carries_payload"]:
        end = boom["reach_m"] + boom["tip_offset_m"] if given else 0.0
        out += [(val(i["mass_kg"]), end + i["along_m"], boom["tip_above_m"] + i["above_m"]) for i in project["payload"]]
    c = boom["counterweight"]
    if given and val(c["mass_kg"]) > 0:
        out.append((val(c["mass_kg"]), -c["behind_m"], c["above_m"]))
    return out


def seen_from_a_swing(project, boom):
    """Points of a boom that a swing carries, as (mass, distance from the upright axis, 0), at its widest."""
    m, b = boom["mechanism"], boom["mechanism"]["boom"]
    angle = min(max(0.0, m["low_angle_rad"]), m["low_angle_rad"] + m["range_rad"])
    c, s = math.cos(angle), math.sin(angle)
    out = [(w, x * c - h * s, 0.0) for w, x, h in arm_points(project, boom)]
    if b["arm"] == "parallel_links" and boom["carries_payload"] and b["section"]["shape"] != "not_given":
        # arm_points has the payload in one at the joint; beyond it, it stays level.
        out = [q for q in out if abs(q[0] - sum(val(i["mass_kg"]) for i in project["payload"])) > 1e-12]
        out += [(val(i["mass_kg"]), b["reach_m"] * c + b["tip_offset_m"] + i["along_m"], 0.0) for i in project["payload"]]
    return out


class Axis:
    def __init__(self, project, axis):
        self.p, self.a, self.m = project, axis, axis["mechanism"]
        self.linear = self.m["kind"] == "linear"
        self.stages = [link_stage(l) for l in axis["links"]]
        self.output()
        self.total = math.prod(s.ratio for s in self.stages)  # motor turns [rad] per unit
        self.motor_inertia = val(axis["motor"].get("rotor_inertia_kgm2", 0))
        motor = axis["motor"]
        if motor["kind"] == "geared_dc":
            n = motor["gear_numerator"] / motor["gear_denominator"]
            self.motor_inertia *= n * n

    def output(self):
        m, o = self.m, self.m["output"]
        k, wind = o["kind"], AIR * self.m["wind_area_m2"] * self.p["conditions"]["wind_speed_m_s"] ** 2
        self.per_turn = None  # mm or degrees for a turn of the last shaft, exactly
        if self.linear:
            drag = val(m["cable_drag_N"])
            run, still = val(m["running_friction_N"]) + drag, val(m["static_friction_N"]) + drag
            if k == "belt":
                parts = 2 if o["doubled"] else 1
                self.per_turn = mm(o["pitch_m"]) * o["teeth"] / parts
                self.stages.append(Stage(2000 * math.pi / float(self.per_turn), val(o["efficiency"]),
                                         val(o["pulley_inertia_kgm2"]) * o["motors"]))
            elif k == "screw":
                self.per_turn = mm(o["lead_m"])
                d, lead, mu, half = (val(o["pitch_diameter_m"]), val(o["lead_m"]), val(o["friction"]),
                                     o["thread_half_angle_rad"])
                lam = math.atan(lead / (math.pi * d))
                c, s = math.cos(lam), math.sin(lam)
                n = math.cos(math.atan(math.tan(half) * c))  # flank square to the thread
                eta = (s / c) * (n * c - mu * s) / (n * s + mu * c)
                bar = 7850 * math.pi * d ** 4 / 32 * m["rail_length_m"]
                st = Stage(2 * math.pi / lead, eta, bar)
                st.back = (n * s - mu * c) / (n * c + mu * s) * c / s
                self.stages.append(st)
                run, still = (f + val(o["nut_drag_Nm"]) * 2 * math.pi / lead * eta for f in (run, max(still, run)))
            elif k == "rack":
                self.stages.append(Stage(2 / (o["teeth"] * val(o["module_m"])), val(o["efficiency"]),
                                         val(o["pinion_inertia_kgm2"])))
            elif k == "wheel":
                self.stages.append(Stage(2 / val(o["diameter_m"]), val(o["efficiency"]), val(o["wheel_inertia_kgm2"])))
            else:
                self.stages.append(Stage(1 / wound_radius(o, self.rail_travel()), val(o["efficiency"]),
                                         val(o["drum_inertia_kgm2"])))
            self.mass = val(m["moving_mass_kg"]) + sum(val(i["mass_kg"]) for i in m["items"])
            if self.a["carries_payload"]:
                self.mass += sum(val(i["mass_kg"]) for i in self.p["payload"])
            if k == "belt" and o["motor_rides"]:
                self.mass += o["motors"] * val(self.a["motor"]["mass_kg"])
            self.steady = self.mass * G * math.sin(val(m["slope_rad"]))
            side = wind + val(m["disturbance_N"])
            self.run, self.still = run + side, max(still, run) + side
            self.travel = self.rail_travel()
            return
        self.per_turn = Fraction(360)
        if k != "direct":
            teeth = Fraction(o["ring_teeth"], o["pinion_teeth"])
            self.stages.append(Stage(teeth, val(o["efficiency"]), 0.0))
        points = arm_points(self.p, self.a)
        if not points and self.a["role"] == "swing":
            booms = [x for x in self.p["axes"][self.p["axes"].index(self.a):] if x["role"] == "boom_tilt"]
            points = seen_from_a_swing(self.p, booms[0]) if booms else []
        upright = self.a["role"] not in ("boom_tilt", "tilt", "roll")
        # From the energy of every point at one radian a second.
        energy = sum(0.5 * w * (x * x + (0 if upright else h * h)) for w, x, h in points)
        self.mass = 2 * energy + val(m["inertia_kgm2"]) + val(m["point_mass_kg"]) * m["point_radius_m"] ** 2
        spring = m["spring"]

        def torque(angle):
            c, s = math.cos(angle), math.sin(angle)
            t = 0.0 if upright else G * sum(w * (x * c - h * s) for w, x, h in points)
            return t - val(spring["torque_at_low_Nm"]) - val(spring["rate_Nm_rad"]) * (angle - m["low_angle_rad"])

        n = 1500
        all_t = [torque(m["low_angle_rad"] + m["range_rad"] * i / n) for i in range(n + 1)]
        self.steady = max(abs(min(all_t) - val(m["unbalance_Nm"])), abs(max(all_t) + val(m["unbalance_Nm"])))
        drag = val(m["cable_drag_Nm"])
        side = wind * m["wind_arm_m"] + val(m["disturbance_Nm"])
        run, still = val(m["friction_Nm"]) + drag, val(m["static_friction_Nm"]) + drag
        self.run, self.still = run + side, max(still, run) + side
        self.travel = m["range_rad"]

    def rail_travel(self):
        m = self.m
        return max(0, m["rail_length_m"] - m["carriage_length_m"] - 2 * m["bumper_length_m"])

    def torque(self, acceleration, friction, at_rest=False):
        """Largest torque [N·m] at the motor over both ways, speeding up and braking."""
        worst = 0.0
        for way in (1, -1):
            for a in (acceleration, -acceleration):
                t = self.mass * a + self.steady + way * friction
                rate = a
                for s in reversed(self.stages):
                    eta = s.start if at_rest else s.eta
                    t = t / (s.ratio * eta) if t * way >= 0 else t * s.back / s.ratio
                    rate *= s.ratio
                    t += s.inertia * rate
                worst = max(worst, abs(t + self.motor_inertia * rate))
        return worst

    def energy(self, speed):
        """[J] of everything that moves at a speed."""
        w, e = speed, 0.5 * self.mass * speed ** 2
        for s in reversed(self.stages):
            w *= s.ratio
            e += 0.5 * s.inertia * w * w
        return e + 0.5 * self.motor_inertia * w * w

    def available(self, w):
        """Pull-out torque [N·m] at a motor speed: the largest over all currents that voltage and chopper allow."""
        motor, drv, sup = self.a["motor"], self.a["driver"], self.p["supply"]
        copper = 2 * 1.724e-8 * sup["cable_length_m"] / sup["cable_section_m2"]
        r = val(motor["resistance_ohm"]) + val(drv["bridge_resistance_ohm"]) + val(sup["source_resistance_ohm"]) + copper
        n, ind, v = motor["rotor_teeth"], val(motor["inductance_H"]), val(sup["voltage_V"])
        kt = val(motor["holding_torque_Nm"]) / (math.sqrt(2) * val(motor["rated_current_A"]))
        peak = drv["run_current_rms_A"] * math.sqrt(2)
        we, best = n * w, 0.0
        for i in range(4001):  # angle of the current; for each the most that is allowed
            phi = -math.pi / 2 + math.pi * i / 4000
            c, s = math.sin(phi), math.cos(phi)
            low, high = 0.0, peak
            def fits(i_):
                vd, vq = r * i_ * c - we * ind * i_ * s, r * i_ * s + we * ind * i_ * c + kt * w
                return vd * vd + vq * vq <= v * v
            if fits(high):
                best = max(best, high * s)
                continue
            # The largest current of this angle inside the voltage's disc, from above.
            k = [peak * j / 200 for j in range(200, -1, -1)]
            inside = next((x for x in k if fits(x)), None)
            if inside is None:
                continue
            low, high = inside, min(peak, inside + peak / 200)
            for _ in range(30):
                mid = (low + high) / 2
                low, high = (mid, high) if fits(mid) else (low, mid)
            best = max(best, low * s)
        return kt * best

    def motion(self, move):
        """Top speed, peak acceleration and time of a movement."""
        set_ = self.m["motion"]
        u = "m" if self.linear else "rad"
        s_curve = self.p["controller"]["ramps"] == "s_curve"
        jerk = set_[f"jerk_{u}_s3"] if s_curve else 0.0
        d = abs(move[f"distance_{u}"])
        if move["kind"].endswith("by_time"):
            t, e1, e2 = move["time_s"], move["ease_in_s"], move["ease_out_s"]
            if e1 <= 0 or e2 <= 0:
                return None
            low, high = 0.0, 10 * d / t
            for _ in range(200):  # distance grows with the cruise speed
                v = (low + high) / 2
                covered = v * (t - (e1 + e2) / 2)
                low, high = (v, high) if covered < d else (low, v)
            def peak(e):
                if jerk <= 0:
                    return v / e
                root = e * e - 4 * v / jerk
                return 2 * v / e if root < 0 else jerk * (e - math.sqrt(root)) / 2
            return v, max(peak(e1), peak(e2)), t
        v, a = move[f"speed_{u}_s"], move[f"acceleration_{u}_s2"]
        if jerk > 0:
            a = min(a, math.sqrt(v * jerk))
            ramp = v / a + a / jerk
        else:
            ramp = v / a
        if v * ramp > d:
            return None  # too short to reach its speed: another case
        return v, a, d / v + ramp

    def pixels(self, shot):
        """[px] of the delivered picture for a unit, where the role makes that simple."""
        cam = self.p["camera"]
        f = shot["focal_length_m"] / cam["sensor_width_m"] * cam["delivered_width"]
        role = self.a["role"]
        if self.linear:
            return f / shot["subject_distance_m"]
        return f if role in ("pan", "tilt") else None


def figures(project):
    """(path, value) of all that is recomputed."""
    for k, raw in enumerate(project["axes"]):
        at = f"/axes/{k}"
        a = Axis(project, raw)
        motor = raw["motor"]
        ratio = math.prod(s.ratio for s in a.stages[:-1]) if a.linear else a.total
        yield at + "/total_ratio", ratio
        unit = 1e-3 if a.linear else math.pi / 180
        u = "m" if a.linear else "rad"
        yield at + f"/travel_per_motor_rev_{u}", 2 * math.pi / a.total
        yield at + f"/usable_travel_{u}", a.travel
        if motor["kind"] == "stepper":
            # Steps for a turn of the last shaft, over what that moves.
            exact = all(s.exact is not None for s in a.stages[:-1 if a.linear else None])
            per_turn = 4 * motor["rotor_teeth"] * raw["driver"]["microsteps"]
            if exact and a.per_turn is not None:
                train = Fraction(1)
                for s in a.stages[:-1 if a.linear else None]:
                    train *= s.exact
                yield at + "/steps_per_unit", float(per_turn * train / a.per_turn)
            yield at + f"/step_{u}", 2 * math.pi / per_turn / a.total
        yield at + "/hold_torque_needed_Nm", abs(a.steady) / a.total
        one = a.total  # motor speed at one unit a second
        yield at + "/inertia_at_motor_kgm2", 2 * a.energy(1.0) / one ** 2
        for shot in project["shots"]:
            own = next((m for m in shot["moves"] if m["axis"] == raw["id"]), None)
            if own is None:
                continue
            if shot["kind"] in ("interval", "stop_motion"):
                continue  # steps, not one movement
            planned = a.motion(own["movement"])
            if planned is None or project["controller"]["ramps"] == "none" or motor["kind"] == "geared_dc":
                continue
            v, acc, time = planned
            path = f"{at}/shots/{shot['id']}"
            yield path + f"/distance_{u}", abs(own["movement"][f"distance_{u}"])
            yield path + f"/top_speed_{u}_s", v
            yield path + f"/acceleration_{u}_s2", acc
            yield path + "/time_s", time
            yield path + "/motor_speed_rpm", v * a.total * 30 / math.pi
            yield path + "/kinetic_energy_J", a.energy(v)
            px = a.pixels(shot)
            if px is not None and not shot["keep_framed"]:
                yield path + "/picture_speed_px_s", v * px
            below = any(m["axis"] != raw["id"] for m in shot["moves"] if
                        [x["id"] for x in project["axes"]].index(m["axis"]) < k)
            if motor["kind"] == "stepper":
                yield path + "/pulse_rate_hz", v * a.total / (2 * math.pi) * 4 * motor["rotor_teeth"] * raw["driver"]["microsteps"]
                there = a.available(v * a.total)
                yield path + "/torque_available_Nm", there
                rest = a.torque(0.0, a.still, True)
                yield path + "/breakaway_torque_Nm", rest
                if not below:
                    need = a.torque(acc, a.run)
                    yield path + "/torque_needed_Nm", need
                    yield path + "/torque_margin", min(there / need, a.available(0.0) / rest)


def at(result, path):
    node = result
    for step in path.strip("/").split("/"):
        if isinstance(node, list):
            node = node[int(step)] if step.isdigit() else next((x for x in node if x["id"] == step), None)
        else:
            node = node.get(step)
        if node is None:
            return None
    return node


def main():
    program, names = sys.argv[1], sys.argv[2:]
    compared = wrong = 0
    for name in names:
        if "." in name:
            text = open(name, encoding="utf-8").read()
        else:
            text = subprocess.run([program, "rig", name], capture_output=True, text=True, check=True).stdout
        with tempfile.NamedTemporaryFile("w", suffix=".gantry", encoding="utf-8") as f:
            f.write(text)
            f.flush()
            result = json.loads(subprocess.run([program, "evaluate", "--json", f.name], capture_output=True, text=True).stdout)
        here = 0
        for path, mine in figures(json.loads(text)):
            theirs = at(result, path)
            if theirs is None:
                continue
            here += 1
            if abs(theirs - mine) > 0.01 * abs(mine) + 1e-15:
                wrong += 1
                print(f"{name} {path}: recomputed {mine:.6g}, the program says {theirs:.6g}")
        compared += here
        print(f"{name}: {here} figures")
    print(f"{compared} figures recomputed, {wrong} off by more than 1 %")
    return 1 if wrong or compared < 12 * len(names) else 0


if __name__ == "__main__":
    sys.exit(main())
