#!/usr/bin/env python3
"""Reads the template fixture back with ezdxf and holds its arc against the circle it stands for.

    WRITE_FIXTURES=1 cargo test -p wise-badger-web --lib full_size
    pip install ezdxf
    python3 scripts/templates/read_back.py
"""

import math
import pathlib

import ezdxf

FIXTURE = pathlib.Path(__file__).resolve().parents[2] / "crates/web/tests/fixtures/leaf.dxf"
RADIUS_MM, FRONT_MM, REAR_MM = 1524.0, 24 * 25.4, 30 * 25.4

drawing = ezdxf.readfile(FIXTURE)
audit = drawing.audit()
assert drawing.dxfversion == "AC1009" and not audit.errors and not audit.fixes, (audit.errors, audit.fixes)
entities = list(drawing.modelspace())
(outline,) = [entity for entity in entities if entity.dxftype() == "POLYLINE"]
assert outline.is_closed
points = [vertex.dxf.location for vertex in outline.vertices]
under = points[: len(points) // 2]
half = (FRONT_MM + REAR_MM) / 2 / RADIUS_MM
chord = 2 * RADIUS_MM * math.sin(half)
assert abs(under[-1].x - under[0].x - chord) < 1e-3, (under[-1].x - under[0].x, chord)
middle = (under[0].x + chord / 2, under[0].y + RADIUS_MM * math.cos(half))
off = max(abs(math.dist((point.x, point.y), middle) - RADIUS_MM) for point in under)
assert off < 1e-3, off
(chord_line,) = [entity for entity in entities if entity.dxf.layer == "CHORD"]
bars = [entity for entity in entities if entity.dxftype() == "LINE" and entity.dxf.layer == "TEXT"]
assert any(abs(bar.dxf.end.x - bar.dxf.start.x - 101.6) < 1e-3 for bar in bars), "the check bar is 4 in"
print(f"read back clean; {len(points)} points, the arc within {off:.6f} mm of its circle")
