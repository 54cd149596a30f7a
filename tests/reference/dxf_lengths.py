"""Total length and box of each DXF file named, by ezdxf: an independent reader. Prints file, length, width, height."""
import sys
import ezdxf
from ezdxf import path, disassemble, recover, bbox

for name in sys.argv[1:]:
    try:
        doc, _ = recover.readfile(name)
    except Exception:
        continue
    length, box = 0.0, None
    points = []
    for e in disassemble.recursive_decompose(doc.modelspace()):
        if e.dxftype() not in ("LINE", "ARC", "CIRCLE", "ELLIPSE", "LWPOLYLINE", "POLYLINE", "SPLINE"):
            continue
        layer = doc.layers.get(e.dxf.layer) if e.dxf.layer in doc.layers else None
        if layer is not None and (layer.is_off() or layer.is_frozen()):
            continue
        if hasattr(e, "flattening"):  # round ones and splines, from their formulas rather than as cubics
            v = list(e.flattening(0.0005, 32) if e.dxftype() == "SPLINE" else e.flattening(0.0005))
        else:
            try:
                p = path.make_path(e)
            except TypeError:
                continue
            if len(p) == 0:
                continue
            v = list(p.flattening(0.00005))
        length += sum(a.vec2.distance(b.vec2) for a, b in zip(v, v[1:]))  # seen from above
        points += v
    if points:
        xs, ys = [q.x for q in points], [q.y for q in points]
        print(name, repr(length), repr(max(xs) - min(xs)), repr(max(ys) - min(ys)), sep="\t")
