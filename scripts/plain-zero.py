"""Makes web/src/fonts from the reading typeface: its zero without the slash, for numbers that are read as numbers.

Run by hand when the typeface is renewed; needs Debian's python3-fonttools and python3-brotli.
"""

from pathlib import Path

from fontTools.subset import Options, Subsetter
from fontTools.ttLib import TTFont
from fontTools.ttLib.tables._g_l_y_f import GlyphCoordinates
from fontTools.ttLib.tables.TupleVariation import TupleVariation
from fontTools.varLib.iup import iup_delta

ROOT = Path(__file__).resolve().parent.parent
FILES = ROOT / "node_modules/@fontsource-variable/atkinson-hyperlegible-next/files"
PHANTOM_POINTS = 4


def crossing(a, b, c, d):
    """Where the line through a and b meets the line through c and d: a control point that goes on with both tangents."""
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = a, b, c, d
    across = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
    s = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / across
    return round(ax + s * (bx - ax)), round(ay + s * (by - ay))


def without_slash(font):
    """The slash parts the counter in two; each half is an arc closed by one straight line. The arcs become one counter."""
    glyph = font["glyf"]["zero"]
    ends = glyph.endPtsOfContours
    assert len(ends) == 3, "an outline and the two halves of its counter"
    outline = list(range(ends[0] + 1))
    points = list(glyph.coordinates)
    halves = []
    for first, last in ((ends[0] + 1, ends[1]), (ends[1] + 1, ends[2])):
        ring = list(range(first, last + 1))
        longest = max(range(len(ring)), key=lambda i: straight(points, glyph.flags, ring[i], ring[(i + 1) % len(ring)]))
        halves.append(ring[longest + 1 :] + ring[: longest + 1])
    (one, other) = halves
    bends = [(one[-2], one[-1], other[0], other[1]), (other[-2], other[-1], one[0], one[1])]
    # An index stands for a point of the old glyph, a tuple for a new one between two of them.
    order = [*outline, *one, bends[0], *other, bends[1]]
    place = lambda p: crossing(points[p[0]], points[p[1]], points[p[3]], points[p[2]]) if isinstance(p, tuple) else points[p]
    glyph.coordinates = GlyphCoordinates([place(p) for p in order])
    glyph.flags = bytearray(0 if isinstance(p, tuple) else glyph.flags[p] & 1 for p in order)
    glyph.endPtsOfContours = [len(outline) - 1, len(order) - 1]
    glyph.numberOfContours = 2
    phantoms = [(0, 0), (font["hmtx"]["zero"][0], 0), (0, 0), (0, 0)]
    varied = []
    for change in font["gvar"].variations["zero"]:
        full = iup_delta(change.coordinates, points + phantoms, ends)
        middle = lambda p: tuple(round((full[p[1]][k] + full[p[2]][k]) / 2) for k in (0, 1))
        moved = [middle(p) if isinstance(p, tuple) else full[p] for p in order]
        varied.append(TupleVariation(change.axes, [tuple(map(round, m)) for m in moved + full[-PHANTOM_POINTS:]]))
    font["gvar"].variations["zero"] = varied


def straight(points, flags, a, b):
    """How long the line from a to b is, where both lie on the curve."""
    (ax, ay), (bx, by) = points[a], points[b]
    return (ax - bx) ** 2 + (ay - by) ** 2 if flags[a] & flags[b] & 1 else 0


for style in ("normal", "italic"):
    font = TTFont(FILES / f"atkinson-hyperlegible-next-latin-wght-{style}.woff2")
    wanted = Subsetter(Options(layout_features=["tnum", "pnum"], notdef_outline=False, hinting=False))
    wanted.populate(unicodes=[ord("0")])
    wanted.subset(font)
    without_slash(font)
    font.flavor = "woff2"
    font.save(ROOT / f"web/src/fonts/plain-zero-{style}.woff2")
