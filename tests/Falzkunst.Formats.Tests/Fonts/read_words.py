"""Words as fontTools reads a face, without a shaper: glyphs by the character map, advances, pair kerning by GPOS, outlines.

python3 read_words.py FACE < words-as-json  ->  for each: where each glyph stands and the points on its outlines, in units of the face.
"""
import json
import sys

from fontTools.pens.basePen import decomposeQuadraticSegment
from fontTools.pens.recordingPen import DecomposingRecordingPen
from fontTools.ttLib import TTFont

font = TTFont(sys.argv[1])
cmap, hmtx, glyphs = font.getBestCmap(), font["hmtx"], font.getGlyphSet()


def pair_lookups():
    if "GPOS" not in font:
        return []
    table = font["GPOS"].table
    wanted = set()
    for script in table.ScriptList.ScriptRecord:
        if script.ScriptTag not in ("latn", "DFLT"):
            continue
        system = script.Script.DefaultLangSys
        if system is None or (script.ScriptTag == "DFLT" and any(s.ScriptTag == "latn" for s in table.ScriptList.ScriptRecord)):
            continue
        for index in system.FeatureIndex:
            feature = table.FeatureList.FeatureRecord[index]
            if feature.FeatureTag == "kern":
                wanted.update(feature.Feature.LookupListIndex)
    return [table.LookupList.Lookup[i] for i in sorted(wanted)]


LOOKUPS = pair_lookups()


def kerning(left, right):
    total = 0
    for lookup in LOOKUPS:
        for sub in lookup.SubTable:
            sub = getattr(sub, "ExtSubTable", sub)
            if sub.LookupType != 2 or left not in sub.Coverage.glyphs:
                continue
            if sub.Format == 1:
                records = sub.PairSet[sub.Coverage.glyphs.index(left)].PairValueRecord
                found = next((r for r in records if r.SecondGlyph == right), None)
                if found is None:
                    continue
                total += (found.Value1 and getattr(found.Value1, "XAdvance", 0)) or 0
            else:
                first = sub.ClassDef1.classDefs.get(left, 0)
                second = sub.ClassDef2.classDefs.get(right, 0)
                value = sub.Class1Record[first].Class2Record[second].Value1
                total += (value and getattr(value, "XAdvance", 0)) or 0
            break  # The first subtable that covers the pair has said what there is to say.
    return total


def points(name):
    pen = DecomposingRecordingPen(glyphs)
    glyphs[name].draw(pen)
    found = []
    for verb, args in pen.value:
        if verb == "qCurveTo" and args[-1] is None:
            # All handles: the points between them are implied.
            off = args[:-1]
            found += [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in zip(off, off[1:] + off[:1])]
        elif verb == "qCurveTo":
            found += [on for _, on in decomposeQuadraticSegment(args)]
        elif verb in ("moveTo", "lineTo", "curveTo"):
            found.append(args[-1])
    return found


answer = []
for words in json.load(sys.stdin):
    names = [cmap[ord(c)] for c in words]
    at, stands, on = 0, [], []
    for i, name in enumerate(names):
        stands.append(at)
        on += [[at + x, y] for x, y in points(name)]
        at += hmtx[name][0] + (kerning(name, names[i + 1]) if i + 1 < len(names) else 0)
    answer.append({"width": at, "stands": stands, "points": on})
json.dump({"capital": getattr(font["OS/2"], "sCapHeight", 0), "words": answer}, sys.stdout)
