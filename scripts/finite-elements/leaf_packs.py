#!/usr/bin/env python3
"""Loads the reference leaf packs with finite elements and writes what they do, for the tests to hold the program against.

    pip install openseespy
    python3 scripts/finite-elements/leaf_packs.py

Every leaf is a row of elastic beam elements, clamped at the clamp's edge; neighbours are joined node by node by springs that
push when the gap between the leaves has closed and never pull (ENT with an initial strain as large as the gap). OpenSees
brings them to balance by Newton's method with the load in steps. Small slopes, as the program's linear arch. Nothing here is
shared with the program: other unknowns, another contact law, another solver, five times as many places of contact.
"""

import json
import pathlib

import openseespy.opensees as ops

REFERENCE = pathlib.Path(__file__).resolve().parents[2] / "crates/mechanics/tests/reference"
PLACES = 100
# Softer, and leaves of one length share a load by a few percent otherwise.
CONTACT_N_PER_M = 1e10
# Beams are straight and slender here: their axial stiffness has no part in the answer.
AREA_M2 = 1e-3


def nodes_of(lengths):
    """Places along the half, from the clamp's edge: a fine grid, and every leaf's end."""
    grid = {round(max(lengths) * step / PLACES, 9) for step in range(PLACES + 1)}
    return sorted(grid | {round(length, 9) for length in lengths})


def load_half(pack, half, loads):
    """Height of the eye and largest stress of every leaf under each of the loads, which rise."""
    clamp = pack["clamp"][f"{half}_m"]
    leaves = pack["leaves"]
    lengths = [leaf[f"{half}_m"] - clamp for leaf in leaves]
    places = nodes_of(lengths)
    ops.wipe()
    ops.model("basic", "-ndm", 2, "-ndf", 3)
    ops.geomTransf("Linear", 1)
    tag = lambda leaf, place: 1 + leaf * 10_000 + places.index(place)
    beams = {}
    for index, leaf in enumerate(leaves):
        own = [place for place in places if place <= lengths[index] + 1e-9]
        inertia = leaf["width_m"] * leaf["thickness_m"] ** 3 / 12
        for place in own:
            ops.node(tag(index, place), place, 0.0)
        ops.fix(tag(index, own[0]), 1, 1, 1)
        for number, (one, other) in enumerate(zip(own, own[1:])):
            element = 1 + index * 10_000 + number
            ops.element("elasticBeamColumn", element, tag(index, one), tag(index, other), AREA_M2,
                        pack["young_modulus_pa"], inertia, 1)
            beams.setdefault(index, []).append(element)
    contact = 1_000_000
    for upper in range(len(leaves)):
        between = 0.0
        for lower in range(upper + 1, len(leaves)):
            overlap = min(lengths[upper], lengths[lower])
            stacked = sum(leaves[leaf].get("spacer_above_m", 0.0) for leaf in range(upper + 1, lower + 1))
            stacked += sum(leaves[leaf]["thickness_m"] for leaf in range(upper + 1, lower))
            apart = leaves[upper]["curvature_per_m"] - leaves[lower]["curvature_per_m"]
            for place in places:
                if between + 1e-9 < place <= overlap + 1e-9:
                    contact += 1
                    ops.uniaxialMaterial("ENT", contact, CONTACT_N_PER_M)
                    ops.uniaxialMaterial("InitStrainMaterial", contact + 500_000, contact, apart * place**2 / 2 + stacked)
                    ops.element("zeroLength", contact, tag(lower, place), tag(upper, place), "-mat", contact + 500_000, "-dir", 2)
            between = max(between, lengths[lower])
    ops.system("UmfPack")
    ops.numberer("RCM")
    ops.constraints("Plain")
    ops.test("NormUnbalance", 1e-2, 200)
    ops.algorithm("Newton")
    eye = tag(0, round(lengths[0], 9))
    ops.timeSeries("Constant", 1)
    ops.pattern("Plain", 1, 1)
    ops.integrator("LoadControl", 1.0)
    ops.analysis("Static")
    # Nip that closes over many nodes at once is too much for the plain method now and then.
    assert any(balances(method) for method in ("Newton", "KrylovNewton", "NewtonLineSearch")), "no balance without a load"
    ops.timeSeries("Linear", 2)
    ops.pattern("Plain", 2, 2)
    ops.load(eye, 0.0, -max(loads[-1], 1.0), 0.0)
    ops.setTime(0.0)
    done, answers = 0.0, []
    for load in loads:
        done = raise_to(load / max(loads[-1], 1.0), done)
        answers.append(read(leaves, lengths, beams, eye))
    return answers


def balances(method):
    ops.algorithm(method)
    return ops.analyze(1) == 0


def raise_to(share, done):
    step = 0.05
    # Contact that rolls out over many nodes at once makes Newton's method wander: smaller steps then, and larger ones after.
    while done < share - 1e-12:
        step = min(step, share - done)
        ops.integrator("LoadControl", step)
        if ops.analyze(1) == 0:
            done, step = done + step, step * 1.5
        else:
            step /= 4
            assert step > 1e-7, f"no balance at {done} of the load"
    return done


def read(leaves, lengths, beams, eye):
    height = leaves[0]["curvature_per_m"] * lengths[0] ** 2 / 2 + ops.nodeDisp(eye, 2)
    stresses = []
    for index, leaf in enumerate(leaves):
        ends = [ops.eleForce(element) for element in beams[index]]
        moment = max(max(abs(force[2]), abs(force[5])) for force in ends)
        stresses.append(moment * 6 / (leaf["width_m"] * leaf["thickness_m"] ** 2))
    return height, stresses


def answers_of(pack, loads):
    """What the whole spring does under loads that rise, as the program's result documents say it."""
    front, rear = pack["leaves"][0]["front_m"], pack["leaves"][0]["rear_m"]
    length = front + rear
    of_front = load_half(pack, "front", [load * rear / length for load in loads])
    of_rear = load_half(pack, "rear", [load * front / length for load in loads])
    return [
        {
            "load_n": load,
            "arch_linear_m": (rear * front_height + front * rear_height) / length,
            "seat_tilt_rad": (front_height - rear_height) / length,
            "front_peak_stress_pa": front_stress,
            "rear_peak_stress_pa": rear_stress,
        }
        for load, (front_height, front_stress), (rear_height, rear_stress) in zip(loads, of_front, of_rear)
    ]


def main():
    for file in sorted((REFERENCE / "pack").glob("*.json")):
        if ".expected" in file.name:
            continue
        pack = json.loads(file.read_text())
        states = answers_of(pack, sorted({0.0, max(pack["loads_n"]) / 2, max(pack["loads_n"])}))
        made = {"made_by": f"scripts/finite-elements/leaf_packs.py, OpenSees {ops.version()}", "states": states}
        (REFERENCE / "finite_elements" / file.name).write_text(json.dumps(made, indent=1) + "\n")
        print(file.stem, [round(1e3 * state["arch_linear_m"], 3) for state in states])


if __name__ == "__main__":
    main()
