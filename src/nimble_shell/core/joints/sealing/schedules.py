"""The seal schedule of every family and variant, in the order of work."""

from __future__ import annotations

from nimble_shell.core.joints.sealing.seals import SealingStep

_BEAD_IN = SealingStep(key="bead-in", kind="bead", text="bead behind the inner skin", carries=("air", "vapour"))
_BEAD_OUT = SealingStep(key="bead-out", kind="bead", text="bead behind the outer skin", carries=("air",))
_CLOSE = SealingStep(key="close", kind="work", text="pieces drawn together and screwed")
_TAPE_IN = SealingStep(
    key="tape-in", kind="tape", text="tape over the inner seam, rolled on", carries=("air", "vapour")
)
_WRAP = SealingStep(
    key="wrap", kind="lap", text="outer membrane lapped over the seam, upper over lower", carries=("rain",)
)
_LINE = SealingStep(key="line", kind="work", text="lining", covers=("tape-in", "bead-in"))
_LINE_OVER_TAPE = SealingStep(key="line", kind="work", text="lining", covers=("tape-in",))
_CLAD = SealingStep(key="clad", kind="work", text="cladding on battens", covers=("wrap",))
_ORDINARY = (_BEAD_IN, _BEAD_OUT, _CLOSE, _TAPE_IN, _WRAP, _LINE, _CLAD)

_SEAM: dict[str, tuple[SealingStep, ...]] = {
    "block": (
        _BEAD_IN,
        SealingStep(key="bead-mid", kind="bead", text="third bead at mid-core, out of the cold", carries=("air",)),
        _BEAD_OUT,
        SealingStep(key="foam", kind="foam", text="gap filled with expanding foam through the ports", carries=("air",)),
        *_ORDINARY[2:],
    ),
    "one seal": (
        SealingStep(
            key="gasket-in", kind="gasket", text="factory gasket in the inner groove", carries=("air", "vapour")
        ),
        SealingStep(key="engage", kind="work", text="panel engaged and screwed to the frame", covers=("gasket-in",)),
        SealingStep(
            key="drain",
            kind="drain",
            text="outer groove left open at its foot to drain",
            carries=("rain",),
            needed=True,
        ),
    ),
    "two seals": (
        SealingStep(key="gasket-in", kind="gasket", text="gasket in the inner groove", carries=("air", "vapour")),
        SealingStep(key="bead-in", kind="bead", text="butyl bead beside the inner gasket", carries=("air", "vapour")),
        SealingStep(key="gasket-out", kind="gasket", text="gasket in the outer groove", carries=("rain",)),
        SealingStep(key="engage", kind="work", text="panel engaged and screwed", covers=("gasket-in", "bead-in")),
        SealingStep(
            key="drain", kind="drain", text="groove outside of the inner seal left open at its foot", needed=True
        ),
    ),
    "double stud": (
        SealingStep(key="strip", kind="gasket", text="compressed strip between the studs", carries=("air",)),
        _CLOSE,
        _TAPE_IN,
        SealingStep(key="tape-out", kind="tape", text="tape over the outer boards", carries=("rain",)),
        _LINE_OVER_TAPE,
        SealingStep(key="clad", kind="work", text="cladding on battens", covers=("tape-out",)),
    ),
    "loose": (
        _CLOSE,
        SealingStep(key="mesh", kind="work", text="mesh over the gap"),
        SealingStep(key="plaster-in", kind="work", text="inner plaster brought across", carries=("air", "vapour")),
        SealingStep(key="plaster-out", kind="work", text="outer plaster brought across", carries=("rain",)),
    ),
    "stuffed": (
        _CLOSE,
        SealingStep(
            key="roll", kind="foam", text="straw roll dipped in plaster pressed into the gap", carries=("air",)
        ),
        SealingStep(key="mesh", kind="work", text="mesh over the gap", covers=("roll",)),
        SealingStep(key="plaster-in", kind="work", text="inner plaster brought across", carries=("air", "vapour")),
        SealingStep(key="plaster-out", kind="work", text="outer plaster brought across", carries=("rain",)),
    ),
    "staggered": (
        SealingStep(key="foam", kind="foam", text="every board joint foamed", carries=("air",)),
        SealingStep(key="tape-in", kind="tape", text="edges of the inner boards taped", carries=("air", "vapour")),
        SealingStep(
            key="mesh", kind="work", text="joint mesh and plaster", covers=("foam", "tape-in"), carries=("rain",)
        ),
    ),
}
_MORTAR = (
    SealingStep(key="splice", kind="work", text="splice mesh tied over the seam, both faces"),
    SealingStep(key="foam", kind="foam", text="gap foamed before the mortar, so that none runs in", carries=("air",)),
    SealingStep(key="mortar-in", kind="work", text="inner mortar in two coats", carries=("air", "vapour"),
         covers=("foam", "splice")),
    SealingStep(key="mortar-out", kind="work", text="outer mortar in two coats", carries=("rain",)),
)  # fmt: skip
_CONCRETE = (
    SealingStep(key="pour", kind="work", text="concrete, in lifts", carries=("air", "vapour")),
    SealingStep(key="joint-foam", kind="foam", text="foam panels' joints filled"),
    SealingStep(key="wash", kind="work", text="chalked foam washed where a membrane is to hold"),
    SealingStep(key="membrane", kind="lap", text="membrane or base coat over the foam", carries=("rain",)),
    SealingStep(key="render", kind="work", text="render or veneer", covers=("membrane",)),
)
#: Two pours with a buck between them that stays: what runs past it is kept out by a strip, and by the foam outside.
_POUR_STOP = (
    SealingStep(key="strip", kind="gasket", text="swelling strip along the buck, on the side of the next pour",
                carries=("air", "vapour")),
    SealingStep(key="pour", kind="work", text="next pour against the buck, in lifts", covers=("strip",)),
    SealingStep(key="cut-foam", kind="foam", text="cut foam strapped, its joint filled with foam"),
    SealingStep(key="wash", kind="work", text="chalked foam washed where a membrane is to hold"),
    SealingStep(key="membrane", kind="lap", text="membrane or base coat over the cut", carries=("rain",)),
    SealingStep(key="render", kind="work", text="render or veneer", covers=("membrane",)),
)  # fmt: skip
_STOPS = ("timber buck", "foam buck", "site-cut buck")
_BASE_PLATE = (
    SealingStep(key="capillary", kind="lap", text="capillary break on the concrete", needed=True),
    SealingStep(key="gasket", kind="gasket", text="sill gasket under the plate", carries=("air",)),
    SealingStep(key="plate", kind="work", text="plate bolted down", covers=("gasket", "capillary")),
    SealingStep(
        key="beads", kind="bead", text="two beads on the plate, panel set into them", carries=("air",), beads=2
    ),
    SealingStep(key="panel", kind="work", text="panel set and screwed", covers=("beads",)),
    SealingStep(key="tape-in", kind="tape", text="tape from the inner skin to the slab", carries=("air", "vapour")),
    SealingStep(
        key="flashing", kind="lap", text="base flashing, its head under the membrane", carries=("rain",), falls=True
    ),
    SealingStep(
        key="wrap", kind="lap", text="wall membrane lapped over the flashing", carries=("rain",), over="flashing"
    ),
    SealingStep(key="drain", kind="drain", text="gap under the cladding left open", needed=True),
    SealingStep(key="line", kind="work", text="floor finish and lining", covers=("tape-in",)),
)
_BASE_MORTAR = (
    SealingStep(key="dowels", kind="work", text="dowels set in grout along both faces"),
    SealingStep(key="capillary", kind="lap", text="capillary break under the panel's foam", needed=True),
    SealingStep(
        key="panel", kind="work", text="panel set between the dowels, mesh tied to them", covers=("capillary",)
    ),
    SealingStep(key="foam", kind="foam", text="gap under the foam filled before the mortar", carries=("air",)),
    SealingStep(
        key="mortar-in",
        kind="work",
        text="inner mortar brought down to the slab",
        carries=("air", "vapour"),
        covers=("foam", "dowels"),
    ),
    SealingStep(key="mortar-out", kind="work", text="outer mortar brought down to a drip", carries=("rain",)),
    SealingStep(
        key="flashing", kind="lap", text="drip or base flashing over the slab's edge", carries=("rain",), falls=True
    ),
    SealingStep(key="line", kind="work", text="floor finish"),
)
_BOX_PLATE = (
    SealingStep(key="capillary", kind="lap", text="capillary break on the concrete, turned up outside", needed=True),
    SealingStep(key="gasket", kind="gasket", text="gasket under the box plate", carries=("air",)),
    SealingStep(key="box", kind="work", text="box plate bolted down and filled", covers=("gasket", "capillary")),
    SealingStep(key="panel", kind="work", text="straw panel set on the box and strapped"),
    SealingStep(key="tape-in", kind="tape", text="tape from the box to the slab", carries=("air", "vapour")),
    SealingStep(key="plaster-in", kind="work", text="inner plaster brought down over the tape, on mesh",
         carries=("air", "vapour"), covers=("tape-in",)),
    SealingStep(key="splash", kind="lap", text="flashing over the splash zone, its head under the plaster's stop bead",
         carries=("rain",), falls=True),
    SealingStep(key="plaster-out", kind="work", text="outer plaster down to the stop bead", carries=("rain",)),
)  # fmt: skip
_THRESHOLD = (
    SealingStep(
        key="pan",
        kind="lap",
        text="pan on the slab, sloped out, its ends turned up at both jambs",
        carries=("rain",),
        needed=True,
        falls=True,
    ),
    SealingStep(key="upstand", kind="bead", text="bead under the pan's inner upstand", carries=("air", "vapour")),
    SealingStep(key="sill", kind="work", text="threshold set on packers and fastened", covers=("pan", "upstand")),
    SealingStep(key="foam", kind="foam", text="space under the threshold filled", carries=("air",)),
    SealingStep(key="set", kind="work", text="door hung", covers=("foam",)),
    SealingStep(key="gasket", kind="gasket", text="leaf's gasket against the threshold", carries=("air",)),
    SealingStep(
        key="drain", kind="drain", text="front edge of the pan left open, grating before the door", needed=True
    ),
    SealingStep(key="line", kind="work", text="floor finish up to the threshold"),
)
_BASE_WALL = (
    SealingStep(key="waterproof", kind="lap", text="below-ground membrane up over the ground line", carries=("rain",)),
    SealingStep(key="drainage", kind="drain", text="drain at the footing, led to daylight", needed=True),
    SealingStep(key="bead", kind="bead", text="bead between slab and wall", carries=("air", "vapour")),
    SealingStep(key="cover", kind="work", text="parge or board over foam above ground", covers=("waterproof",)),
)
_OPENING_FIN = (
    SealingStep(key="pan", kind="lap", text="sill pan, sloped out, its ends turned up", carries=("rain",), needed=True,
         falls=True),
    SealingStep(key="wrap-sill", kind="lap", text="membrane below the sill, the pan laps over it"),
    SealingStep(key="jamb-bead", kind="bead", text="bead behind the fin at jambs and head only", carries=("air",)),
    SealingStep(key="set", kind="work", text="unit set, plumbed and fastened through its fin", covers=("jamb-bead",)),
    SealingStep(key="drain", kind="drain", text="sill fin left unsealed so that the pan drains", needed=True),
    SealingStep(key="jamb-tape", kind="tape", text="tape over the jamb fins", carries=("rain",)),
    SealingStep(key="head-tape", kind="tape", text="tape over the head fin, over the jamb tapes", carries=("rain",)),
    SealingStep(key="head-lap", kind="lap", text="membrane above folded down over the head tape", over="head-tape",
         carries=("rain",)),
    SealingStep(key="inner", kind="bead", text="backer rod and bead round the inside of the frame",
         carries=("air", "vapour")),
    SealingStep(key="trim", kind="work", text="trim and lining", covers=("inner",)),
)  # fmt: skip
_OPENING_BUCK = (
    SealingStep(
        key="pan",
        kind="lap",
        text="sill pan over the buck, sloped out, ends turned up",
        carries=("rain",),
        needed=True,
        falls=True,
    ),
    SealingStep(
        key="jamb-membrane",
        kind="lap",
        text="membrane from the wall's face into the buck at the jambs",
        carries=("rain",),
        over="pan",
    ),
    SealingStep(
        key="head-membrane",
        kind="lap",
        text="the same at the head, over the jambs",
        carries=("rain",),
        over="jamb-membrane",
    ),
    SealingStep(key="set", kind="work", text="unit set on shims and clipped"),
    SealingStep(key="foam", kind="foam", text="shim space foamed, low-expansion"),
    SealingStep(key="outer", kind="bead", text="outer bead at jambs and head; the sill stays open", carries=("rain",)),
    SealingStep(key="drain", kind="drain", text="sill left unsealed outside so that the pan drains", needed=True),
    SealingStep(
        key="inner", kind="bead", text="inner bead all round, joined to the pan's upstand", carries=("air", "vapour")
    ),
    SealingStep(key="trim", kind="work", text="trim and lining", covers=("inner", "foam")),
)
#: Of a form: the buck is cast in and the membrane brought over it, or the membrane goes in first and the buck onto it.
_FORM_ORDER: dict[str, tuple[SealingStep, ...]] = {
    "buck first": (
        SealingStep(key="buck", kind="work", text="buck set in the form and braced before the pour"),
        SealingStep(
            key="wall-membrane", kind="lap", text="membrane over the foam and onto the buck's face", carries=("rain",)
        ),
    ),
    "membrane first": (
        SealingStep(
            key="wall-membrane", kind="lap", text="membrane over the foam and into the bare opening", carries=("rain",)
        ),
        SealingStep(key="buck-bead", kind="bead", text="bead on the membrane, all round", carries=("air",)),
        SealingStep(
            key="buck", kind="work", text="buck set into the bead and anchored", covers=("wall-membrane", "buck-bead")
        ),
        SealingStep(
            key="buck-strip",
            kind="lap",
            text="strip from the buck's face onto the membrane",
            over="wall-membrane",
            carries=("rain",),
        ),
    ),
}
_RIDGE = (
    SealingStep(
        key="bead-in", kind="bead", text="bead between the inner skins, or on the beam", carries=("air", "vapour")
    ),
    SealingStep(key="foam", kind="foam", text="wedge between the cores foamed in passes", carries=("air",)),
    SealingStep(key="tape-in", kind="tape", text="tape under the ridge, along both skins", carries=("air", "vapour")),
    SealingStep(key="membrane", kind="lap", text="roof membrane over the ridge", carries=("rain",)),
    SealingStep(key="vent", kind="drain", text="ventilated gap led over the ridge", needed=True),
    SealingStep(key="roofing", kind="work", text="roofing and ridge cap", covers=("membrane", "foam")),
    SealingStep(key="line", kind="work", text="lining below", covers=("tape-in", "bead-in")),
)
_EAVE = (
    SealingStep(key="bead-plate", kind="bead", text="two beads on the bevelled plate", carries=("air",), beads=2),
    SealingStep(key="set", kind="work", text="roof panel set and screwed", covers=("bead-plate",)),
    SealingStep(key="tape-in", kind="tape", text="tape in the inner corner, skin to skin", carries=("air", "vapour")),
    SealingStep(key="wrap", kind="lap", text="wall membrane up to the roof's underside, taped", carries=("rain",)),
    SealingStep(key="drip", kind="lap", text="eave flashing", falls=True),
    SealingStep(
        key="membrane", kind="lap", text="roof membrane over the eave flashing", carries=("rain",), over="drip"
    ),
    SealingStep(key="vent", kind="drain", text="inlet of the ventilated gap left open", needed=True),
    SealingStep(key="line", kind="work", text="lining", covers=("tape-in",)),
)
_VERGE = tuple(one for one in _EAVE if one.key != "vent")
_UPSTAND = (
    SealingStep(
        key="bead-in", kind="bead", text="beads between roof and wall, at ledger or plate", carries=("air",), beads=2
    ),
    SealingStep(key="set", kind="work", text="roof panel set and screwed", covers=("bead-in",)),
    SealingStep(key="tape-in", kind="tape", text="tape in the inner corner, skin to skin", carries=("air", "vapour")),
    SealingStep(
        key="turn-up",
        kind="lap",
        text="roof membrane turned up the wall, as high as the local rule asks",
        carries=("rain",),
    ),
    SealingStep(key="flashing", kind="lap", text="flashing over the turned-up edge", over="turn-up", falls=True),
    SealingStep(key="line", kind="work", text="lining", covers=("tape-in",)),
)
_VALLEY = tuple(
    SealingStep(key="membrane", kind="lap", text="valley sheet, roof membranes over it from both sides",
                carries=("rain",)) if one.key == "membrane" else one
    for one in _RIDGE if one.key != "vent"
)  # fmt: skip
_FLOOR = (
    SealingStep(key="bead", kind="bead", text="beads at ledger or plates", carries=("air",), beads=2),
    SealingStep(key="membrane", kind="lap", text="air membrane wrapped round the floor's edge before it is set",
         carries=("air", "vapour")),
    SealingStep(key="set", kind="work", text="floor set", covers=("bead", "membrane")),
    SealingStep(key="wrap", kind="lap", text="outer membrane past the floor", carries=("rain",)),
)  # fmt: skip
_SILL = (
    SealingStep(key="gasket", kind="gasket", text="sill gasket on the core", carries=("air",)),
    SealingStep(key="plate", kind="work", text="plate bolted to the core", covers=("gasket",)),
    SealingStep(
        key="lower", kind="lap", text="flashing from the plate out over the foam below", carries=("rain",), falls=True
    ),
    SealingStep(
        key="tape-in", kind="tape", text="tape from plate to core, and to the upper air line", carries=("air", "vapour")
    ),
    SealingStep(
        key="wrap", kind="lap", text="upper membrane lapped over the flashing", over="lower", carries=("rain",)
    ),
    SealingStep(key="drain", kind="drain", text="foot of the upper cladding left open", needed=True),
)
_PIPE = (
    SealingStep(key="grommet", kind="gasket", text="grommet on the air line", carries=("air", "vapour")),
    SealingStep(key="lag", kind="foam", text="lagging through the wall and into the room, its joints taped"),
    SealingStep(key="collar", kind="tape", text="collar to the outer membrane, lapped from above", carries=("rain",)),
    SealingStep(key="fall", kind="drain", text="pipe falls outwards", needed=True, falls=True),
)
_PARTY = (
    SealingStep(
        key="bead",
        kind="bead",
        text="beads where the party wall meets the inner skin",
        carries=("air", "vapour"),
        beads=2,
    ),
    SealingStep(key="stop", kind="work", text="fire stop in the cavity, as the local rule asks"),
    _WRAP,
)


def schedule(family: str, variant: str, *, system: str, fin: bool = False, order: str = "") -> tuple[SealingStep, ...]:
    """The seals of a joint in the order of work; the ordinary beads and tapes of panels where nothing else is known.

    Parameters
    ----------
    family, variant : str
    system : str
        Of the first build-up.
    fin : bool
        Whether an opening's unit is fastened by a fin.
    order : {"", "buck first", "membrane first"}
        Of buck and membrane at an opening in a form.
    """
    mortar, concrete = system.startswith("mesh"), system.startswith("icf") or system == "masonry"
    match family:
        case "seam" | "roof seam" | "corner" | "inner corner":
            special = _POUR_STOP if variant in _STOPS else _SEAM.get(variant)
            return special or (_MORTAR if mortar else _CONCRETE if concrete else _ORDINARY)
        case "base":
            if variant.endswith("footing"):
                return _BASE_WALL
            return _BOX_PLATE if variant == "box plate" else _BASE_MORTAR if mortar else _BASE_PLATE
        case "opening":
            return (*_FORM_ORDER.get(order, ()), *(_OPENING_FIN if fin else _OPENING_BUCK))
        case "floor line":
            return _CONCRETE if variant in ("deck on core", "foam broken") else _FLOOR
    return {"ridge": _RIDGE, "hip": _RIDGE, "valley": _VALLEY, "eave": _EAVE, "high eave": _VERGE, "verge": _VERGE,
            "parapet": _UPSTAND, "abutment": _UPSTAND, "change": _SILL, "sill": _SILL, "pipe": _PIPE, "party": _PARTY,
            "threshold": _THRESHOLD}.get(family, _ORDINARY)  # fmt: skip
