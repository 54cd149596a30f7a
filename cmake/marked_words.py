#!/usr/bin/python3
"""marked_words.py IN.ts OUT.ts: a made-up language, English with a mark before every word, so that a test sees which
words reach no translator."""
import re
import sys
import xml.etree.ElementTree as tree

MARK = "\u00b7"
# Places, tags and file patterns stay; all other words are marked, and keys of menus, which split words, are left out.
WORD = re.compile(r"(%[1-9nL]+|<[^>]*>|\*\.\w+)|([A-Za-z\u00c0-\u024f][\w'\u2019]*)")


def marked(text):
    text = re.sub(r"&(?=\w)", "", text)
    return WORD.sub(lambda m: m.group(1) or MARK + m.group(2), text)


document = tree.parse(sys.argv[1])
document.getroot().set("language", "en_US")
for message in document.iter("message"):
    source = message.find("source").text or ""
    translation = message.find("translation")
    translation.attrib.pop("type", None)
    forms = translation.findall("numerusform")
    if message.get("numerus") == "yes":
        while len(forms) < 2:
            forms.append(tree.SubElement(translation, "numerusform"))
        for form, ending in zip(forms, ("", "s")):
            form.text = marked(source.replace("(s)", ending))
    else:
        translation.text = marked(source)
with open(sys.argv[2], "w", encoding="utf-8") as out:
    out.write('<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n')
    out.write(tree.tostring(document.getroot(), encoding="unicode") + "\n")
