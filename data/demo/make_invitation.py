#!/usr/bin/python3
"""Writes invitation.svg, the demo's source drawing: lettering as outlines, a dashed fold, a heron.

Needs python3-fonttools, fonts-dancingscript and fonts-cabin; run it only to change the drawing.
The lettering keeps the overlaps of its script letters, as bought files do.
"""
import glob
from fontTools.ttLib import TTFont
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen

HERON = ("M39,7.4 L27.6,4.2 C26,2.2 23,1.4 20.5,2.2 C16.5,2.5 12,1.6 7.5,3.6 C12,3.9 15.2,5 17.6,6.6 "
         "C16.4,9.6 17.4,12.6 19.4,15.4 C21.8,18.8 22,21.8 19.2,24 C13,27 6.5,32 1.5,42.5 C6.6,41.4 10,39.6 12.6,37.6 "
         "C13.6,38.6 14.6,39.3 16,39.8 L15.4,55.8 L10.6,58.9 L20.4,58.9 L17.2,56.2 L17.9,40.1 C19,40 20,39.6 21,39.1 "
         "L24,55.9 L20.9,58.9 L30,58.9 L25.8,56 L22.9,38 C27.2,34.6 28.8,29.6 28.2,25 C27.6,19.6 24.6,16 23.5,13 "
         "C22.8,11 23.2,9.8 24.8,9 C27,9 31,8.3 39,7.4 Z")


def outlines(font_file, text, x, baseline, em, weight=None):
    font = TTFont(font_file)
    if weight and "fvar" in font:
        from fontTools.varLib.instancer import instantiateVariableFont
        font = instantiateVariableFont(font, {"wght": weight})
    glyphs, cmap, scale = font.getGlyphSet(), font.getBestCmap(), em / font["head"].unitsPerEm
    out = []
    for letter in text:
        name = cmap[ord(letter)]
        pen = SVGPathPen(glyphs, ntos=lambda v: f"{v:.3f}".rstrip("0").rstrip("."))
        glyphs[name].draw(TransformPen(pen, (scale, 0, 0, -scale, x, baseline)))
        if pen.getCommands():
            out.append(pen.getCommands())
        x += glyphs[name].width * scale
    return " ".join(out), x


def find(pattern):
    return sorted(glob.glob("/usr/share/fonts/**/" + pattern, recursive=True))[0]


title, title_end = outlines(find("DancingScript*.?tf"), "Lantern Walk", 162, 33, 23.5, 700)
lines = ["along the long water, at dusk", "bring a light and a friend"]
greeting = []
for i, line in enumerate(lines):
    path, end = outlines(find("Cabin-Italic.otf"), line, 206, 60 + 10 * i, 6.2)
    greeting.append(path)
print(f"title ends at {title_end:.1f} mm, greeting at {end:.1f} mm")
with open("invitation.svg", "w", encoding="utf-8") as f:
    f.write(f'''<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="100mm" viewBox="0 0 300 100">
  <title>Saltmarsh Lantern Walk: invitation</title>
  <g id="card" fill="none" stroke="#22282c" stroke-width="0.4">
    <rect id="card-edge" width="300" height="100" rx="3"/>
    <path id="heron" transform="translate(159,41.5) scale(0.93)" d="{HERON}"/>
    <circle id="heron-eye" cx="180.9" cy="46.2" r="1.2"/>
  </g>
  <path id="fold" d="M150,1 V99" fill="none" stroke="#5a6996" stroke-width="0.5" stroke-dasharray="5 2"/>
  <path id="title" fill="#a8832d" d="{title}"/>
  <g id="greeting" fill="none" stroke="#a8462d" stroke-width="0.4">
    <path id="greeting-1" d="{greeting[0]}"/>
    <path id="greeting-2" d="{greeting[1]}"/>
  </g>
</svg>
''')
