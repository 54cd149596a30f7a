"""Writes random DXF files with ezdxf, an independent library, into a folder: arrays of scaled and turned blocks, arcs whose
angles count several turns, rational splines, bulges, planes seen from below and tilted. dxf_random.py FOLDER SEED COUNT"""
import math
import random
import sys
import ezdxf

folder, seed, count = sys.argv[1], int(sys.argv[2]), int(sys.argv[3])
dice = random.Random(seed)
turn = lambda: dice.uniform(-720, 1080)
real = lambda low, high: dice.uniform(low, high)


def plane():
    """An extrusion direction: mostly none, sometimes from below, sometimes tilted."""
    kind = dice.randrange(4)
    if kind == 1:
        return {"extrusion": (0, 0, -1)}
    if kind == 2:
        return {"extrusion": (real(-1, 1), real(-1, 1), real(0.3, 1))}
    return {}


def something(space):
    kind = dice.randrange(6)
    at = (real(-50, 50), real(-50, 50))
    if kind == 0:
        space.add_line(at, (real(-50, 50), real(-50, 50)))
    elif kind == 1:
        space.add_arc(at, real(1, 30), turn(), turn(), dxfattribs=plane())
    elif kind == 2:
        space.add_circle(at, real(1, 30), dxfattribs=plane())
    elif kind == 3:
        points = [(real(-50, 50), real(-50, 50), dice.choice([0, real(-2, 2)])) for _ in range(dice.randint(2, 7))]
        space.add_lwpolyline(points, format="xyb", close=dice.random() < 0.5, dxfattribs=plane())
    elif kind == 4:
        n, degree = dice.randint(5, 9), dice.randint(2, 4)
        points = [(real(-50, 50), real(-50, 50)) for _ in range(n)]
        weights = [math.exp(real(-4, 4)) for _ in range(n)]
        space.add_rational_spline(points, weights, degree=degree)
    else:
        a = real(0, 2 * math.pi)
        space.add_ellipse(at, (30 * math.cos(a), 30 * math.sin(a)), real(0.1, 1), real(0, 6), real(0, 6))


for i in range(count):
    doc = ezdxf.new("R2000", setup=False)
    doc.header["$INSUNITS"] = 4
    block = doc.blocks.new("b", base_point=(real(-9, 9), real(-9, 9)))
    inner = doc.blocks.new("inner", base_point=(real(-9, 9), real(-9, 9)))
    for _ in range(2):
        something(block)
        something(inner)
    block.add_blockref("inner", (real(-9, 9), real(-9, 9)), dxfattribs={"rotation": turn(), "xscale": real(0.3, 2), "yscale": real(0.3, 2)})
    space = doc.modelspace()
    for _ in range(3):
        something(space)
    k = real(0.2, 3)
    space.add_blockref("b", (real(-50, 50), real(-50, 50)), dxfattribs={
        "rotation": turn(), "xscale": k, "yscale": k * dice.choice([1, 1, -1]), "column_count": dice.randint(1, 3),
        "row_count": dice.randint(1, 3), "column_spacing": real(-40, 40), "row_spacing": real(-40, 40)})
    doc.saveas(f"{folder}/{i}.dxf")
