"""Judgement calls on interlaced bodies: width and beads, samples, eyes side by side."""

from jamreel.core.advice import Advice, advise
from jamreel.core.forming.chosen import Wire

FIELD = "piece.entries"


def woven_by_sum(takes: float, spare: float) -> Advice:
    """Return a note on working wire that nobody has counted a sample of.

    Args:
        takes: by the sum, all wires together [mm].
        spare: how many times that is cut.

    Source: taut wire takes what the sum says within some 1 %; how loosely hands weave: no source.
    """
    return advise("woven_by_sum", "note", FIELD, takes=takes, more=takes * (spare - 1))


def room_beside_beads(room: float, along: float) -> Advice | None:
    """Return what to do about a row that has room for one more bead.

    Args:
        room: between the beads and the legs, both sides together [mm].
        along: of one bead along its hole [mm].

    Source: common practice.
    """
    if room <= along:
        return None
    return advise("room_beside_beads", "check", FIELD, room=room, along=along)


def bar_shows(gap: float) -> Advice | None:
    """Return a note on turns that leave a bar bare.

    Args:
        gap: bare along the bar in each row [mm].

    Source: plain counting.
    """
    return advise("bar_shows", "note", FIELD, gap=gap) if gap > 0.05 else None


def turns_push(turns: int, most: int) -> Advice | None:
    """Return a warning about turns that push the beads apart.

    Args:
        turns: between two rows.
        most: that fit beside a bead.

    Source: plain counting.
    """
    return advise("turns_push", "check", FIELD, turns=turns, most=most) if turns > most else None


def thin_bar(bar: float, wire: float) -> Advice | None:
    """Return a warning about bars that the working wire bends.

    Args:
        bar: thickness [mm].
        wire: d [mm].

    Source: a bar of two wires at least stays straight; common practice.
    """
    if bar >= 2 * wire:
        return None
    return advise("thin_bar", "check", FIELD, bar=bar, least=2 * wire)


def ribbon_hides(hides: float) -> Advice | None:
    """Return a note on ribbons so broad that they hide their beads.

    Args:
        hides: share of a bead's girth, 0 to 1.

    Source: up to a third of a bead's width stays visible; common practice.
    """
    return advise("ribbon_hides", "note", FIELD, percent=100 * hides) if hides > 0.22 else None


def tight_gap(gap: float, wire: float) -> Advice | None:
    """Return a note on bars so near that strands step aside between them.

    Args:
        gap: clear between the bars [mm].
        wire: d [mm].

    Source: own numerical tightening: detours of more than 2 % where the gap is under two wires.
    """
    return advise("tight_gap", "note", FIELD, gap=gap, least=2 * wire) if gap < 2 * wire else None


def thin_core(core: float, wire: float) -> Advice | None:
    """Return a warning about core wire thinner than the wire that is knotted round it.

    Args:
        core: D [mm].
        wire: d [mm].

    Source: the core gives way to the knots, it comes out wavy; common practice.
    """
    return advise("thin_core", "check", FIELD, core=core, wire=wire) if core < wire else None


def turns_pile(room: float, wide: float) -> Advice | None:
    """Return a note on ribbons whose turns lie over each other in a gap.

    Args:
        room: for each of two ribbons side by side [mm].
        wide: a ribbon [mm].

    Source: plain geometry.
    """
    return advise("turns_pile", "note", FIELD, room=room, wide=wide) if room < wide - 1e-6 else None


# Strands of that wire and thicker, harder than that, lie looser than the sum; no source.
STIFF_MM, LOOSEST = 0.8, 1.3
# Fewer pulls leave half a circle of a stone free.
FEWEST_PULLS = 3


def stiff_strands(wire: Wire, spare: float, *, counted: bool) -> Advice | None:
    """Return a note on strands so stiff that they lie looser than the sum.

    Args:
        wire: of the strands.
        spare: how many times the sum is cut.
        counted: whether the maker has counted a sample.

    Source: taut wire in tables, looser in hands by up to a third of what crosses; no source.
    """
    soft = wire.temper in ("dead_soft", "quarter_hard")
    if counted or soft or wire.d < STIFF_MM or spare >= LOOSEST:
        return None
    return advise("stiff_strands", "note", FIELD, wire=wire.d, loosest=LOOSEST)


def braid_gapes(six: float, most: float) -> Advice | None:
    """Return a note on crossings so far apart that a braid gapes.

    Args:
        six: crossings take so much [mm].
        most: at which they still lie close [mm].

    Source: common practice.
    """
    return advise("braid_gapes", "note", FIELD, six=six, most=most) if six > most else None


def measure_it(width: float) -> Advice:
    """Return a note on a plait whose width goes by rule.

    Args:
        width: by rule [mm].

    Source: own numerical tightening, within 3 %; hands differ more.
    """
    return advise("measure_plait", "note", FIELD, width=width)


def bunches(strands: int) -> Advice | None:
    """Return a note on plaits that bunch when they are pulled tight.

    Args:
        strands: of the plait.

    Source: own numerical tightening: from twelve strands on the width is the hand's.
    """
    return advise("plait_bunches", "note", FIELD, strands=strands) if strands >= 12 else None


def off_the_loops(skipped: int) -> Advice:
    """Return a note on lacing that meets the edges half a loop off.

    Args:
        skipped: loops, an odd number.

    Source: plain counting: an even number falls on loops.
    """
    return advise("off_the_loops", "note", FIELD, skipped=skipped)


def twist_unsampled(turns: float) -> Advice:
    """Return a note on twisted wire that nobody has measured.

    Args:
        turns: a finished metre.

    Source: fibres that keep their length lose most; real wire shears, too; from memory.
    """
    return advise("twist_unsampled", "note", FIELD, turns=turns)


def cage_open(strands: int, wants: int) -> Advice | None:
    """Return a warning about strands side by side that don't come over both faces of a stone.

    Args:
        strands: side by side.
        wants: that come over both faces.

    Source: plain counting.
    """
    if strands >= wants:
        return None
    return advise("cage_open", "fix", FIELD, strands=strands, wants=wants)


def lip_shallow(lip: float, least: float) -> Advice | None:
    """Return a warning about pulls that let a stone slip out.

    Args:
        lip: how far the outer strands come in over a face [mm].
        least: that holds a stone slid over to one side [mm].

    Source: twice the play, and half a strand or 0.4 mm; common practice.
    """
    if lip >= least - 1e-9:
        return None
    return advise("lip_shallow", "fix", FIELD, lip=lip, least=least)


def pulls_apart(pulls: int) -> Advice | None:
    """Return a warning about pulls that leave half a circle of a stone free.

    Args:
        pulls: round each face.

    Source: three spread evenly, or four; plain geometry.
    """
    if pulls == 0 or pulls >= FEWEST_PULLS:
        return None
    return advise("pulls_apart", "fix", FIELD, pulls=pulls, least=FEWEST_PULLS)
