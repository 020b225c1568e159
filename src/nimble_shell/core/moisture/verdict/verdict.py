"""One statement on a build-up or joint by month, with its margin, and the smallest changes that turn it, by search."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import count
from typing import Literal

from nimble_shell.core.assemblies.assembly import AirGap, Assembly, Layer
from nimble_shell.core.assemblies.fixing import THICKEST
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.basis.stations import Direction
from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import Material
from nimble_shell.core.moisture.monthly.element import ElementYear, element_planes, element_year, months_of
from nimble_shell.core.moisture.monthly.leak import Leak, LeakYear, largest_safe, leak_year, skin_plane
from nimble_shell.core.moisture.monthly.surface import f_rsi_required
from nimble_shell.core.progress import report
from nimble_shell.core.quantities.sentence import composed, sentence
from nimble_shell.core.search import smallest
from nimble_shell.core.thermal.control import vapour_plane
from nimble_shell.core.working import Given, Num, named, plain

Reason = Literal["surface", "outer surface", "gathers", "too wet", "leak", ""]
AdviceKind = Literal["vapour", "outside", "core", "room", "gap", "seal"]
#: s_d of the sheets that are tried [m].
SHEETS = (0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0, 1500.0)
STEP = 0.010  #: of insulation [m]
MOST_OUTSIDE = 0.300  #: of insulation that is added outside [m]
POINT = 0.01  #: of the room's relative humidity
_MOST_POINTS = 95
_BOARD, _BELOW = "stone-wool-board", "xps-036"  #: what is added outside: in air, in the ground
ADDED = (_BOARD, _BELOW)  #: materials that the search takes from the catalogue
_SHEET = "searched-sheet"
_GAP = 0.030  #: [m]


@dataclass(frozen=True, slots=True, kw_only=True)
class Advice:
    """The smallest change of one kind that turns the verdict; each step was run, and the step before it fails."""

    kind: AdviceKind
    found: bool
    amount: float  #: s_d, added or whole thickness [m], room humidity, or leakage [m³/(h·m)]; the most tried if none
    step: float  #: the last amount that fails
    layer: int | None = None  #: that it is about, in the build-up as it is


@dataclass(frozen=True, slots=True, kw_only=True)
class Verdict:
    """Of a build-up, or of a joint, by the monthly methods."""

    passes: bool
    reason: Reason  #: what decides where it fails
    #: room humidity in the coldest month at which it fails; None if at none up to 95 %, 0 if at any
    phi_fails: float | None
    phi_room: float
    advice: tuple[Advice, ...] = ()

    @property
    def margin(self) -> float | None:
        """Of the room's relative humidity up to where it fails; negative where it fails now."""
        return None if self.phi_fails is None else self.phi_fails - self.phi_room


#: A joint's verdict, its year where its build-up has an outer skin, and its largest safe leakage [m³/(h·m)].
JudgedJoint = tuple[Verdict, LeakYear | None, float | None]


def judged(found: ElementYear) -> Reason:
    """What a build-up fails by, if by anything: its surface first."""
    if not found.surface_passes:
        return "surface"
    if not found.outer_passes:
        return "outer surface"
    return found.verdict if found.verdict == "gathers" or found.verdict == "too wet" else ""


def judge(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, direction: Direction = "horizontal"
) -> Verdict:
    """A build-up, with the smallest changes of each kind that would make it pass.

    Parameters
    ----------
    assembly : Assembly
    catalogue : mapping of key to Material
    basis : Basis
    direction : Direction

    Raises
    ------
    DomainError
        If the build-up cannot be resolved.

    Notes
    -----
    Of each kind the smallest step is searched that passes while the one before it fails; both are run.
    """
    verdict = judge_alone(assembly, catalogue, basis, direction)
    phi = verdict.phi_fails
    if verdict.passes:
        return verdict
    tried: list[Advice] = []
    kinds = changes(assembly, catalogue, inwards=inwards_of(assembly, basis))
    for number, (kind, layer, begin, steps) in enumerate(kinds):
        report(number, len(kinds))
        rungs = [(begin, assembly), *steps]
        at = smallest(len(rungs) - 1, partial(_passes, rungs, kind, catalogue, basis, direction))
        if at is not None:
            tried.append(Advice(kind=kind, found=True, amount=rungs[at][0], step=rungs[at - 1][0], layer=layer))
        elif len(rungs) > 1:
            tried.append(Advice(kind=kind, found=False, amount=rungs[-1][0], step=rungs[-1][0], layer=layer))
    if phi is not None and phi > POINT:
        tried.append(Advice(kind="room", found=True, amount=phi - POINT, step=phi))
    return replace(verdict, advice=tuple(tried))


def _passes(
    rungs: Sequence[tuple[float, Assembly]], kind: AdviceKind, catalogue: Mapping[str, Material], basis: Basis,
    direction: Direction, at: int,
) -> bool:  # fmt: skip
    """Whether a step of a change passes; one that cannot be resolved does not."""
    amount, changed = rungs[at]
    more = {**catalogue, **sheet_of(amount)} if kind == "vapour" else catalogue
    try:
        return not judged(element_year(changed, more, basis, direction))
    except DomainError:
        return False


def judge_alone(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, direction: Direction = "horizontal"
) -> Verdict:
    """A build-up as it is, without a search for changes. Raises DomainError."""
    now = judged(element_year(assembly, catalogue, basis, direction))
    phi = _phi_fails(
        basis, lambda at: bool(judged(element_year(assembly, catalogue, at, direction))), fails=bool(now)
    )  # fmt: skip
    return Verdict(passes=not now, reason=now, phi_fails=phi, phi_room=room(basis))


def judge_joint(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, direction: Direction, leakage: float,
    height: float, f_rsi: float | None,
) -> JudgedJoint:  # fmt: skip
    """A joint in a build-up: its surface, and room air through it; with its year and its largest safe leakage.

    Parameters
    ----------
    assembly : Assembly
        Whose outer skin gets wet.
    leakage : float
        At 50 Pa. [m³/(h·m)]
    height : float
        Above the level where inside and outside press alike. [m]
    f_rsi : float, optional
        Of its coldest inner surface, where it is solved.
    """
    planes, counted = element_planes(assembly, catalogue, basis, direction)
    try:
        plane = skin_plane(assembly, planes, counted)
    except DomainError:
        plane = None

    def leaks(at: Basis) -> LeakYear | None:
        if plane is None:
            return None
        leak = Leak(leakage=leakage, height=height, plane=plane)
        return leak_year(assembly, catalogue, planes, months_of(at), leak, at.air, at.damp)

    def reason(at: Basis) -> Reason:
        asked = [one for month in months_of(at) if (one := f_rsi_required(month)) is not None]
        if f_rsi is not None and any(f_rsi < one for one in asked):
            return "surface"
        found = leaks(at)
        return "leak" if found is not None and not found.safe else ""

    now = reason(basis)
    phi = _phi_fails(basis, lambda at: bool(reason(at)), fails=bool(now))
    verdict = Verdict(passes=not now, reason=now, phi_fails=phi, phi_room=room(basis))
    year, safe = leaks(basis), None
    advice: list[Advice] = []
    if plane is not None:
        leak = Leak(leakage=leakage, height=height, plane=plane)
        safe = largest_safe(assembly, catalogue, planes, months_of(basis), leak, basis.air, basis.damp)
    if now == "leak":
        advice.append(Advice(kind="seal", found=safe is not None, amount=safe or 0.0, step=leakage))
    if now and phi is not None and phi > POINT:
        advice.append(Advice(kind="room", found=True, amount=phi - POINT, step=phi))
    return replace(verdict, advice=tuple(advice)), year, safe


def inwards_of(assembly: Assembly, basis: Basis) -> bool:
    """Whether heat flows inwards through the year, as into a cold room."""
    return sum(month.theta_i - month.theta_e for month in months_of(basis, assembly.outside)) < 0


def margin_working(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, direction: Direction, given: Given = plain
) -> Num | None:
    """Points of room humidity up to where a build-up fails, with what decides on both sides; None if at none.

    Raises
    ------
    DomainError
        If the build-up cannot be resolved.
    """
    found = judge_alone(assembly, catalogue, basis, direction)
    if found.phi_fails is None:
        return None

    def decides(phi: float) -> str:
        year = element_year(assembly, catalogue, at_humidity(basis, phi), direction)
        reason = judged(year)
        if reason in ("surface", "outer surface"):
            inner = reason == "surface"
            asked = max(
                (one for one in (year.required if inner else year.outer_required) if one is not None), default=0.0
            )
            return f"factor of the {reason} {year.f_rsi if inner else year.f_outer:.3f} against {asked:.3f} asked"
        worst = max(year.wet, key=lambda one: one.peak / one.limit, default=None)
        held = (
            "nothing condenses"
            if worst is None
            else sentence("{peak} of {limit} held", peak=(worst.peak, "condensate"), limit=(worst.limit, "condensate"))
        )
        left = sentence("{left} left at the year's end", left=(year.left, "condensate"))
        return composed("{held}, {left}", held=held, left=left)

    before = found.phi_fails - POINT
    sides = composed(f"{100 * found.phi_fails:.0f} % fails: {{why}}", why=decides(found.phi_fails))
    if before > 0:
        sides = composed(f"{{fails}}; {100 * before:.0f} % passes: {{why}}", fails=sides, why=decides(before))
    fails = given(found.phi_fails, "phi_fails", "first whole per cent at which it fails", "", sides)
    now = given(found.phi_room, "phi_i", "room in the coldest month", "", "Basis: indoor regime")
    return named(fails - now, "margin", "margin of room humidity", "", "φ_fails − φ_i, run at both whole per cents")


def room(basis: Basis) -> float:
    """Relative humidity of the room in the coldest month."""
    coldest = basis.climate.coldest
    return basis.indoor.in_month(basis.climate.theta_e[coldest], basis.climate.phi_e[coldest])[1]


def at_humidity(basis: Basis, phi: float) -> Basis:
    """The Basis with a room of this humidity in the coldest month, and as much more or less in every heated one."""
    return replace(basis, indoor=replace(basis.indoor, added=basis.indoor.added + phi - room(basis)))


def _phi_fails(basis: Basis, fails_at: Callable[[Basis], bool], *, fails: bool) -> float | None:
    """The first whole per cent at which it fails: downwards from where it fails, upwards from where it does not."""
    points = round(100 * room(basis))
    if fails:
        good = smallest(points - 1, lambda n: not fails_at(at_humidity(basis, (points - n) * POINT)))
        return 0.0 if good is None else (points - good + 1) * POINT
    bad = smallest(_MOST_POINTS - points, lambda n: fails_at(at_humidity(basis, (points + n) * POINT)))
    return None if bad is None else (points + bad) * POINT


def sheet_of(sd: float) -> dict[str, Material]:
    """The sheet that is tried, as a material of its own."""
    one = Material(key=_SHEET, name="sheet that is tried", family="membrane", hatch="membrane", lambda_=0.33,
                   rho=400.0, c=1800.0, sd=sd, mu=sd / 0.0005)  # fmt: skip
    return {_SHEET: one}


_Steps = Iterator[tuple[float, Assembly]]


def changes(
    assembly: Assembly, catalogue: Mapping[str, Material], *, inwards: bool
) -> list[tuple[AdviceKind, int | None, float, _Steps]]:
    """Kinds of change, the layer each is about, the amount there is now, and the steps from there on.

    The vapour layer goes to the side that is warm through the year: where heat flows inwards, outside of the core.
    What is looked up of a sheet is `sheet_of` its amount.
    """
    layers = assembly.layers
    core, vented = core_of(assembly), _vented(assembly)
    plane = vapour_plane(assembly, vented)
    sheet = plane is not None and catalogue[layers[plane].material].sd is not None if plane is not None else False
    at = plane if sheet and plane is not None else core
    if inwards:
        at = core + 1
        beyond = layers[at].material if at < len(layers) else ""
        sheet = catalogue[beyond].sd is not None if beyond else False
    has = catalogue[layers[at].material].sd or 0.0 if sheet else 0.0
    found: list[tuple[AdviceKind, int | None, float, _Steps]] = [
        ("vapour", at, has, ((sd, _with_sheet(assembly, at, replace_it=sheet)) for sd in SHEETS if sd > has)),
        ("outside", None, 0.0, outside_steps(assembly)),
        ("core", core, layers[core].d, thicker_steps(assembly)),
    ]
    if vented == len(layers) and assembly.outside == "air" and len(layers) > core + 1:
        found.append(("gap", core + 1, 0.0, iter([(_GAP, _with_gap(assembly, core))])))
    return found


def with_advice(
    assembly: Assembly, catalogue: Mapping[str, Material], basis: Basis, direction: Direction, one: Advice, *,
    inwards: bool,
) -> Assembly | None:  # fmt: skip
    """The build-up with a change that was found; None where that is none of its layers.

    A vapour layer becomes the most open sheet of the catalogue that is tight enough, and is run: None if none turns it.
    """
    if not one.found:
        return None
    kinds = changes(assembly, catalogue, inwards=inwards)
    steps = next((steps for kind, _, _, steps in kinds if kind == one.kind), iter(()))
    changed = next((there for amount, there in steps if amount == one.amount), None)
    if changed is None:
        return None
    changed = with_own_ids(assembly, changed)
    return changed if one.kind != "vapour" else _with_known_sheet(changed, catalogue, basis, direction, one.amount)


def _with_known_sheet(
    changed: Assembly, catalogue: Mapping[str, Material], basis: Basis, direction: Direction, sd: float
) -> Assembly | None:
    sheets = [one for one in catalogue.values() if one.family == "membrane" and one.sd is not None and one.sd >= sd]
    for sheet in sorted(sheets, key=lambda one: one.sd or 0.0):
        layers = (replace(one, material=sheet.key) if one.material == _SHEET else one for one in changed.layers)
        with_it = replace(changed, layers=tuple(layers))
        if _passes([(sd, with_it)], "outside", catalogue, basis, direction, 0):  # nothing is left to be put in
            return with_it
    return None


def with_own_ids(before: Assembly, changed: Assembly) -> Assembly:
    """What a search has put in, under an id that no layer has."""
    known = {layer.id for layer in before.layers}
    fresh = next(name for n in count(1) if (name := f"l{n}") not in known)
    return replace(changed, layers=tuple(one if one.id in known else replace(one, id=fresh) for one in changed.layers))


def core_of(assembly: Assembly) -> int:
    """The core, or the thickest layer."""
    if assembly.core_index is not None:
        return assembly.core_index
    return max(range(len(assembly.layers)), key=lambda n: assembly.layers[n].d)


def _vented(assembly: Assembly) -> int:
    """The first well-ventilated layer, or the number of layers."""
    layers = enumerate(assembly.layers)
    return next((n for n, one in layers if one.air and one.air.ventilation == "well"), len(assembly.layers))


def _with_sheet(assembly: Assembly, at: int, *, replace_it: bool) -> Assembly:
    sheet = Layer(id="searched-sheet", material=_SHEET, d=0.0005, control=("vapour",))
    return _layers(assembly, (*assembly.layers[:at], sheet, *assembly.layers[at + replace_it :]))


def outside_steps(assembly: Assembly) -> _Steps:
    """Open insulation outside, before the ventilated gap if there is one, thicker and thicker. [m]"""
    vented = _vented(assembly)
    material = _BELOW if assembly.outside == "ground" else _BOARD
    for n in range(1, round(MOST_OUTSIDE / STEP) + 1):
        board = Layer(id="searched-board", material=material, d=n * STEP)
        yield n * STEP, _layers(assembly, (*assembly.layers[:vented], board, *assembly.layers[vented:]))


def thicker_steps(assembly: Assembly) -> _Steps:
    """The core with its panels, thicker and thicker; of a build-up without one its thickest layer. [m]"""
    at = core_of(assembly)
    own = assembly.layers[at].d
    n = 1
    while own + n * STEP <= THICKEST / 2:
        d = own + n * STEP
        yield d, assembly.with_thickness(at, d) if assembly.core_index is None else assembly.with_core(d)
        n += 1


def _with_gap(assembly: Assembly, core: int) -> Assembly:
    """A ventilated gap before the outermost layer: an air layer that is there is opened, else one is put in."""
    still = next((n for n in range(core + 1, len(assembly.layers)) if not assembly.layers[n].material), None)
    gap = AirGap(ventilation="well")
    if still is not None:
        opened = replace(assembly.layers[still], air=gap)
        return _layers(assembly, (*assembly.layers[:still], opened, *assembly.layers[still + 1 :]))
    return _layers(
        assembly, (*assembly.layers[:-1], Layer(id="searched-gap", d=_GAP, air=gap), assembly.layers[-1])
    )  # fmt: skip


def _layers(assembly: Assembly, layers: tuple[Layer, ...]) -> Assembly:
    """The build-up with other layers; groups of fixings lose what they go through, and are left out of the search."""
    return replace(assembly, layers=layers, fixings=())
