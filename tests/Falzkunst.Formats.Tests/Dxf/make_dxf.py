"""Writes DXF files with a library that is not ours, and beside each the points that this library says its lines run through.

usage: make_dxf.py FOLDER
"""
import json
import sys

import ezdxf
from ezdxf import path as lines

FOLDER = sys.argv[1]


def entities(doc, msp, k):
    """One of every kind; k is drawing units to the millimetre."""
    doc.layers.add("cuts", color=1)
    doc.layers.add("folds", color=5, linetype="DASHED")
    doc.layers.add("hidden", color=3).off()
    on_cuts, on_folds = {"layer": "cuts"}, {"layer": "folds"}
    msp.add_line((0, 0), (80 * k, 35 * k), dxfattribs=on_folds)
    msp.add_circle((30 * k, 40 * k), 12.5 * k, dxfattribs=on_cuts)
    msp.add_arc((90 * k, 40 * k), 10 * k, 300, 75, dxfattribs=on_cuts)
    msp.add_ellipse((60 * k, 80 * k), (18 * k, 7 * k), 0.45, dxfattribs=on_cuts)
    msp.add_ellipse((110 * k, 80 * k), (12 * k, -4 * k), 0.6, 0.4, 4.1, dxfattribs=on_cuts)
    msp.add_lwpolyline([(0, 100 * k, 0.5), (20 * k, 100 * k, -0.2), (20 * k, 120 * k, 0), (0, 120 * k, 1.7)], format="xyb", close=True, dxfattribs=on_cuts)
    msp.add_lwpolyline([(40 * k, 100 * k, 0), (60 * k, 110 * k, -0.8), (75 * k, 100 * k, 0)], format="xyb", dxfattribs=on_cuts)
    msp.add_polyline2d([(90 * k, 100 * k, 0.3), (110 * k, 100 * k, 0), (110 * k, 115 * k, 0)], format="xyb", close=True, dxfattribs=on_cuts)
    msp.add_spline(dxfattribs=on_cuts).set_uniform(
        [(p[0] * k, p[1] * k, 0) for p in [(0, 140), (10, 160), (30, 120), (45, 158), (60, 140)]], degree=3)
    msp.add_open_spline([(p[0] * k, p[1] * k, 0) for p in [(70, 140), (75, 165), (95, 165), (100, 135), (110, 150)]], degree=2, dxfattribs=on_cuts)
    msp.add_rational_spline([(p[0] * k, p[1] * k, 0) for p in [(0, 180), (20, 210), (40, 170), (60, 200), (80, 180)]], [1, 3, 0.5, 2, 1], degree=3, dxfattribs=on_cuts)
    msp.add_spline(dxfattribs=on_cuts).set_closed([(p[0] * k, p[1] * k, 0) for p in [(100, 180), (120, 185), (125, 200), (110, 210), (95, 200)]], degree=3)
    # seen from behind
    msp.add_arc((-90 * k, 150 * k), 10 * k, 20, 140, dxfattribs={**on_cuts, "extrusion": (0, 0, -1)})
    msp.add_circle((-130 * k, 150 * k), 6 * k, dxfattribs={**on_cuts, "extrusion": (0, 0, -1)})
    # blocks: turned, scaled unevenly, mirrored, in rows and columns, and one in another
    leaf = doc.blocks.new("LEAF", base_point=(2 * k, 1 * k))
    leaf.add_lwpolyline([(0, 0, 0.6), (10 * k, 0, 0.6)], format="xyb", close=True)
    leaf.add_line((1 * k, 0), (9 * k, 0), dxfattribs=on_folds)
    twig = doc.blocks.new("TWIG")
    twig.add_blockref("LEAF", (0, 0), dxfattribs={"rotation": 30})
    twig.add_blockref("LEAF", (0, 0), dxfattribs={"rotation": 150, "yscale": -1})
    msp.add_blockref("LEAF", (140 * k, 20 * k), dxfattribs={**on_cuts, "rotation": 25, "xscale": 1.5, "yscale": 0.8})
    msp.add_blockref("TWIG", (150 * k, 60 * k), dxfattribs={**on_cuts, "rotation": -40})
    msp.add_blockref("LEAF", (140 * k, 100 * k), dxfattribs={**on_cuts, "rotation": 10, "column_count": 3, "row_count": 2, "column_spacing": 16 * k, "row_spacing": 12 * k})
    # what is not shown or not understood
    msp.add_circle((0, 0), 500 * k, dxfattribs={"layer": "hidden"})
    msp.add_text("Hello", dxfattribs=on_cuts)
    msp.add_point((5 * k, 5 * k))


def flat(entity, k):
    """The points of an entity, mm, blocks taken apart."""
    if entity.dxf.layer == "hidden" or entity.dxftype() in ("TEXT", "POINT"):
        return
    if entity.dxftype() == "INSERT":
        for one in (entity.multi_insert() if entity.mcount > 1 else [entity]):
            for part in one.virtual_entities():
                yield from flat(part, k)
        return
    if entity.dxftype() == "SPLINE":
        # over its domain; splines with loose ends are not defined outside it
        curve = entity.construction_tool()
        knots, degree = list(curve.knots()), curve.degree
        low, high = knots[degree], knots[-degree - 1]
        # just inside the end, where the last span is half open
        yield [[p.x / k, p.y / k] for p in curve.points([low + (high - low) * i / 1500 * (1 - 1e-9) for i in range(1501)])]
        return
    # to a thousandth of a millimetre
    yield [[p.x / k, p.y / k] for p in lines.make_path(entity).flattening(0.001 * k, 16)]


def write(name, units, k, version="R2010"):
    doc = ezdxf.new(version, setup=True)
    doc.header["$INSUNITS"] = units
    entities(doc, doc.modelspace(), k)
    doc.saveas(f"{FOLDER}/{name}.dxf")
    # Read again, so that what is compared is what stands in the file.
    again = ezdxf.readfile(f"{FOLDER}/{name}.dxf")
    json.dump([points for e in again.modelspace() for points in flat(e, k)], open(f"{FOLDER}/{name}.json", "w"))


write("millimetres", 4, 1)
write("inches", 1, 1 / 25.4)
write("centimetres", 5, 0.1, "R2000")
