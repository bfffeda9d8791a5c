#!/usr/bin/python3
"""Writes src/core/senders/confusables.json: which characters look like which others (UTS #39, section 4).

The data are Unicode's confusables.txt, as ICU carries them and asks them (Debian's python3-icu). Each key is one
character, its value the skeleton of it; left out are characters that look like nothing else, and those that fall apart
by canonical decomposition (NFD), which skeletons are made after.

    apt-get install python3-icu && /usr/bin/python3 scripts/confusables-table.py
"""
import json
import os
import unicodedata

import icu

checker = icu.SpoofChecker()
table = {}
for code in range(0x110000):
    if 0xD800 <= code <= 0xDFFF:
        continue
    character = chr(code)
    if unicodedata.category(character) in ("Cn", "Co", "Cs"):
        continue
    if unicodedata.normalize("NFD", character) != character:
        continue
    skeleton = checker.getSkeleton(0, character)
    if skeleton != character:
        table[character] = skeleton

path = os.path.join(os.path.dirname(__file__), "../src/core/senders/confusables.json")
with open(path, "w", encoding="utf-8") as file:
    rows = ",\n".join(f"  {json.dumps(key, ensure_ascii=False)}: {json.dumps(value, ensure_ascii=False)}" for key, value in table.items())
    file.write("{\n" + rows + "\n}\n")
print(len(table), "characters, Unicode", icu.UNICODE_VERSION, "ICU", icu.ICU_VERSION)
