#!/usr/bin/python3
"""Fills the English plural forms of data/translations/dot-lane_en.ts: "%n line(s)" -> "%n line", "%n lines"."""
import sys
import xml.etree.ElementTree as tree

path = sys.argv[1]
document = tree.parse(path)
for message in document.iter("message"):
    source = message.find("source").text
    forms = message.find("translation").findall("numerusform")
    forms[0].text = source.replace("(s)", "")
    forms[1].text = source.replace("(s)", "s")
    message.find("translation").attrib.pop("type", None)
with open(path, "w", encoding="utf-8") as out:
    out.write('<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n')
    out.write(tree.tostring(document.getroot(), encoding="unicode") + "\n")
