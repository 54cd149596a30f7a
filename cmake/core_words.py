#!/usr/bin/python3
"""core_words.py SOURCES TABLES OUT.cpp: what core says, for lupdate, which knows only Qt's own functions.

Takes the literals of say(), say_n() and to_say() out of the C++ below SOURCES, the keys of figures, and the words of
tables from dotlane-words' lines of JSON; writes them as QT_TRANSLATE_NOOP and QT_TRANSLATE_N_NOOP."""
import json
import pathlib
import re
import sys

LITERAL = r'"((?:[^"\\]|\\.)*)"'
SAID = re.compile(r"\b(say|say_n|to_say)\(\s*")
FIGURE = re.compile(r'\bfigure\(\s*"([a-z_0-9]+)"|\{"([a-z_0-9]+)",\s*"(?:mm2?)?",')


def literal(text, at):
    """The literals that stand one behind the other there, as one; and where they end."""
    out = ""
    while match := re.compile(LITERAL + r"\s*", re.S).match(text, at):
        out += match.group(1)
        at = match.end()
    return out, at


def in_parens(text, at):
    """Where the argument that begins there ends."""
    depth = 0
    while True:
        if text[at] == '"':
            at = re.compile(LITERAL, re.S).match(text, at).end()
            continue
        if text[at] in "([{":
            depth += 1
        elif text[at] in ")]}":
            depth -= 1
            if depth < 0:
                return at
        elif text[at] == "," and depth == 0:
            return at
        at += 1


def words_of(text):
    for match in SAID.finditer(text):
        at = match.end()
        if match.group(1) == "say_n":
            at = re.compile(r",\s*").match(text, in_parens(text, at)).end()
        said, _ = literal(text, at)
        if said:
            yield said
    for match in FIGURE.finditer(text):
        yield ("Figures", (match.group(1) or match.group(2)).replace("_", " "))


def main(sources, tables, out):
    found = set()
    for path in sorted(pathlib.Path(sources).rglob("*")):
        if path.suffix in (".cpp", ".h") and "cli" not in path.parts:
            for said in words_of(path.read_text(encoding="utf-8")):
                found.add(said if isinstance(said, tuple) else ("Core", said))
    for line in open(tables, encoding="utf-8"):
        row = json.loads(line)
        found.add((row["context"], row["text"].replace("\\", "\\\\").replace('"', '\\"')))
    with open(out, "w", encoding="utf-8") as file:
        file.write("// Made by cmake/core_words.py.\n#include <QCoreApplication>\nstatic const char* const words[] = {\n")
        for context, text in sorted(found):
            plural = context == "Core" and re.search(r"%n|\[[^\]|]*\|", text)
            macro = "QT_TRANSLATE_N_NOOP" if plural else "QT_TRANSLATE_NOOP"
            file.write(f'    {macro}("{context}", "{text}"),\n')
        file.write("};\n")


main(*sys.argv[1:])
