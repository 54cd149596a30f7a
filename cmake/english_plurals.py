#!/usr/bin/python3
"""Fills the English plural forms of data/translations/dot-lane_en.ts: "%n line(s)" -> "%n line", "%n lines";
"%n pass(es)" -> "%n pass", "%n passes"."""
import re
import sys
import xml.etree.ElementTree as tree

path = sys.argv[1]
document = tree.parse(path)
for message in document.iter("message"):
    source = message.find("source").text
    forms = message.find("translation").findall("numerusform")
    forms[0].text = re.sub(r"\((s|es)\)", "", source)
    forms[1].text = re.sub(r"\((s|es)\)", r"\1", source)
    message.find("translation").attrib.pop("type", None)
with open(path, "w", encoding="utf-8") as out:
    out.write('<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n')
    out.write(tree.tostring(document.getroot(), encoding="unicode") + "\n")
