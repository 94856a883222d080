#!/usr/bin/env python3
"""Makes leaf packs up, loads them with finite elements, and holds the program's own answers against them.

    pip install openseespy
    cargo build --release -p wise-badger-web
    python3 scripts/finite-elements/random_packs.py target/release/wise-badger --packs 500 --seed 7

Prints how far heights, tilt, rate and the stress of every single leaf lie apart, and the worst packs. With `--keep FOLDER` two
packs of each kind are kept there with the finite elements' answer, for the tests.
"""

import argparse
import json
import math
import pathlib
import random
import subprocess
import tempfile

from leaf_packs import answers_of
import openseespy.opensees as ops

E = 206e9
KINDS = ["stepped", "asymmetric", "overload", "long overload", "full-length", "added short", "added long", "inverse", "spacers"]


def made_up(kind, dice):
    """A pack of a kind, as leaf springs are built: 2 to 9 leaves, any widths and thicknesses that are rolled."""
    count = dice.randint(2, 9)
    front = dice.uniform(0.45, 0.80)
    rear = front * (dice.uniform(0.8, 1.25) if kind == "asymmetric" else 1.0)
    clamp = dice.choice([0.0, 0.05, 0.0762])
    width = dice.uniform(0.05, 0.09)
    thickness = dice.uniform(0.006, 0.012)
    curvature = dice.uniform(0.3, 1.0)
    leaves = []
    for index in range(count):
        share = 1.0 - index / (count + dice.uniform(0.0, 0.6))
        if kind == "full-length" and index == 1:
            share = 1.0
        leaves.append({
            "name": f"l{index}",
            "width_m": width,
            "thickness_m": thickness * dice.uniform(0.8, 1.2),
            "front_m": clamp + (front - clamp) * share,
            "rear_m": clamp + (rear - clamp) * share * (dice.uniform(0.93, 1.0) if index else 1.0),
            "curvature_per_m": curvature * dice.uniform(0.95, 1.25),
            "spacer_above_m": dice.uniform(0.0, 0.006) if kind == "spacers" and index else 0.0,
        })
    last = leaves[-1]
    if kind in ("overload", "long overload"):
        share = 0.5 if kind == "overload" else dice.uniform(0.85, 0.97)
        last.update(front_m=clamp + (front - clamp) * share, rear_m=clamp + (rear - clamp) * share,
                    thickness_m=1.6 * thickness, curvature_per_m=dice.uniform(-0.1, 0.3),
                    spacer_above_m=dice.uniform(0.0, 0.01))
    if kind in ("added short", "added long"):
        share = 0.55 if kind == "added short" else dice.uniform(0.85, 0.99)
        added = dict(leaves[0], name="added", front_m=clamp + (front - clamp) * share, rear_m=clamp + (rear - clamp) * share,
                     thickness_m=0.0075, curvature_per_m=curvature * dice.uniform(1.2, 1.8))
        leaves.insert(dice.randint(1, len(leaves)), added)
    if kind == "inverse":
        last.update(curvature_per_m=-dice.uniform(0.1, 0.5))
    for leaf in leaves:
        leaf["front_m"], leaf["rear_m"] = min(leaf["front_m"], front), min(leaf["rear_m"], rear)
    return {"format": "wise-badger/pack", "version": 1, "young_modulus_pa": E,
            "clamp": {"front_m": clamp, "rear_m": clamp}, "leaves": leaves}


def loads_of(pack):
    """Up to about 700 MPa in an even pack; about the middle one load to either side, for the rate."""
    leaves = pack["leaves"]
    stiffness = sum(leaf["width_m"] * leaf["thickness_m"] ** 2 for leaf in leaves)
    full = round(2 * 700e6 * stiffness / 6 / leaves[0]["front_m"], 1)
    return [0.0, round(0.49 * full, 2), round(0.5 * full, 2), round(0.51 * full, 2), full]


def rate_of(answers):
    below, above = answers[1], answers[3]
    return (above["load_n"] - below["load_n"]) / (below["arch_linear_m"] - above["arch_linear_m"])


def main():
    ask = argparse.ArgumentParser()
    ask.add_argument("program")
    ask.add_argument("--packs", type=int, default=500)
    ask.add_argument("--seed", type=int, default=7)
    ask.add_argument("--keep", type=pathlib.Path)
    asked = ask.parse_args()
    dice = random.Random(asked.seed)
    apart, kept, unsolved = [], {kind: 0 for kind in KINDS}, 0
    with tempfile.TemporaryDirectory() as folder:
        file = pathlib.Path(folder) / "pack.json"
        for number in range(asked.packs):
            kind = KINDS[number % len(KINDS)]
            pack = made_up(kind, dice)
            loads = loads_of(pack)
            try:
                theirs = answers_of(pack, loads)
            except AssertionError:
                unsolved += 1
                continue
            document = dict(pack, loads_n=loads)
            file.write_text(json.dumps(document))
            ours = json.loads(subprocess.run([asked.program, "pack", str(file)], capture_output=True, check=True).stdout)["states"]
            arch = max(abs(a["arch_linear_m"] - b["arch_linear_m"]) for a, b in zip(ours, theirs))
            tilt = max(abs(a["seat_tilt_rad"] - b["seat_tilt_rad"]) for a, b in zip(ours, theirs))
            rate = abs(rate_of(ours) / rate_of(theirs) - 1)
            stresses = []
            for a, b in zip(ours, theirs):
                for leaf, front, rear in zip(a["leaves"], b["front_peak_stress_pa"], b["rear_peak_stress_pa"]):
                    for mine, exact in ((leaf["front_peak_stress_pa"], front), (leaf["rear_peak_stress_pa"], rear)):
                        stresses.append(abs(mine - exact) / max(8e6, 0.02 * exact))
            apart.append((max(stresses), arch, tilt, rate, stresses, kind, number))
            if asked.keep and kept[kind] < 2 and 3 <= len(pack["leaves"]) <= 7:
                kept[kind] += 1
                name = f"made_up_{kind.replace(' ', '_').replace('-', '_')}_{kept[kind]}.json"
                (asked.keep / "pack" / name).write_text(json.dumps(document, indent=1) + "\n")
                made = {"made_by": f"scripts/finite-elements/random_packs.py --seed {asked.seed}, OpenSees {ops.version()}",
                        "states": theirs}
                (asked.keep / "finite_elements" / name).write_text(json.dumps(made, indent=1) + "\n")
    every = [stress for pack in apart for stress in pack[4]]
    print(f"{len(apart)} packs, {unsolved} without an answer of the finite elements; seed {asked.seed}")
    print(f"arch: largest difference {1e3 * max(pack[1] for pack in apart):.3f} mm")
    print(f"tilt: largest difference {max(pack[2] for pack in apart):.6f} rad")
    rates = sorted(pack[3] for pack in apart)
    print(f"rate: 95 of 100 within {100 * rates[math.ceil(0.95 * len(rates)) - 1]:.2f} %, largest {100 * rates[-1]:.2f} %")
    within = sum(stress <= 1 for stress in every)
    print(f"stress of {len(every)} leaf halves: {100 * within / len(every):.2f} % within the larger of 8 MPa and 2 %")
    for worst in sorted(apart, key=lambda pack: -pack[0])[:8]:
        print(f"  pack {worst[6]}, {worst[5]}: stress off by {worst[0]:.2f} of that, arch {1e3 * worst[1]:.3f} mm, rate {100 * worst[3]:.2f} %")


if __name__ == "__main__":
    main()
