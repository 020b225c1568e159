"""How each system is cut into panels: its rules, from the module of the build-up and what a designer decided."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.assemblies.module import module_of
from nimble_shell.core.setout.choices import SetOutChoices
from nimble_shell.core.setout.rules import Bale, Blank, Rules

_FINE = 48  #: places for joints on a module
_LENGTHS = (2500.0, 2800.0, 3000.0, 3600.0, 4800.0, 6000.0)  #: of sheets [mm]
_POST = 2 * 38.0  #: bearing of a header on the posts beside an opening [mm]
_BALE = Bale(length=900.0, tight=40.0, frame=90.0)  #: a bale laid lengthwise, pressed; and both ends of its frame


@dataclass(frozen=True, slots=True, kw_only=True)
class PanelRules:
    """Of a build-up."""

    rules: Rules
    words: str  #: how it is cut, for the head of a drawing
    spline: str  #: what stands at a joint
    crane: bool = True  #: whether it may need one

    @property
    def module(self) -> float:
        return self.rules.widest


@dataclass(frozen=True, slots=True, kw_only=True)
class _Given:
    """All in mm and kg."""

    module: float
    studs: float  #: centres; the module where there are none
    mass: float  #: [kg/m²]
    choices: SetOutChoices

    @property
    def longest(self) -> float:
        return self.choices.longest * 1000

    def blanks(self, width: float) -> tuple[Blank, ...]:
        """Of one width, in the lengths that sheets come in, up to the longest that can be brought."""
        lengths = [one for one in _LENGTHS if one < self.longest - 1e-6]
        return tuple(Blank(width=width, length=one) for one in (*lengths, self.longest))

    @property
    def clear(self) -> float:
        return self.choices.clear * 1000

    @property
    def least(self) -> float:
        return min(self.choices.least_strip * 1000, self.module)


def panel_rules(
    assembly: Assembly, mass: float, choices: SetOutChoices, module: float | None = None
) -> PanelRules | None:
    """Rules of a build-up; None of one that is poured, laid or framed on site.

    Parameters
    ----------
    mass : float
        Of what is put together in the shop. [kg/m²]
    module : float, optional
        In the place of the build-up's own. [m]
    """
    module = module or module_of(assembly)
    make = _SYSTEMS.get(assembly.system)
    if module is None or make is None:
        return None
    studs = next((one.centres for layer in assembly.layers for one in layer.members
                  if one.joint == "stud" and one.centres is not None), module)  # fmt: skip
    return make(_Given(module=module * 1000, studs=studs * 1000, mass=mass, choices=choices))


def _sheets(given: _Given) -> PanelRules:
    """Skins of whole sheets, or of jumbo ones two modules wide; posts where a joint stands at an opening."""
    module = given.module
    rules = Rules(
        layout="free", step=module / _FINE, joint_at_edge=True, at_opening="either", edge_clear=given.clear,
        min_strip=given.least, min_piece=100.0,
        blanks=(*given.blanks(module), *given.blanks(2 * module)),
        mass_per_m2=given.mass, max_mass=given.choices.heaviest, module_widths=(module, 2 * module),
        header_bearing=_POST,
    )  # fmt: skip
    return PanelRules(rules=rules, words="sheets on the module, jumbo sheets of two", spline="spline")


def _cover(given: _Given) -> PanelRules:
    """Panels of one cover width, cut on site at openings and rakes."""
    cover = given.module
    rules = Rules(
        layout="cover", cover=cover, step=cover / 100, joint_at_edge=False, at_opening="cut",
        edge_clear=min(given.clear, 50.0), min_strip=min(given.least, 100.0),
        blanks=(Blank(width=cover, length=None),), mass_per_m2=given.mass, max_mass=given.choices.heaviest,
    )  # fmt: skip
    return PanelRules(rules=rules, words="panels of one cover width, cut at openings and ends", spline="side joint")


def _framed(given: _Given) -> PanelRules:
    """Cassettes whose width is whole fields of studs."""
    rules = Rules(
        layout="free", step=given.studs / 4, joint_at_edge=True, at_opening="either",
        edge_clear=max(given.clear, 45.0), min_strip=max(given.least, min(given.studs, given.module)), min_piece=100.0,
        blanks=None, max_width=given.module, max_length=given.longest, mass_per_m2=given.mass,
        max_mass=given.choices.heaviest, module_widths=(given.module,), header_bearing=_POST,
    )  # fmt: skip
    return PanelRules(rules=rules, words="cassettes on the stud module", spline="double stud")


def _mesh(given: _Given) -> PanelRules:
    rules = Rules(
        layout="free", step=given.module / _FINE, joint_at_edge=True, at_opening="either", edge_clear=given.clear,
        min_strip=min(given.least, 150.0), blanks=given.blanks(given.module),
        mass_per_m2=given.mass, max_mass=given.choices.heaviest, module_widths=(given.module,),
    )  # fmt: skip
    return PanelRules(
        rules=rules, words="panels of one width to the storey, trims close the rest", spline="splice mesh"
    )


def _bales(given: _Given) -> PanelRules:
    rules = Rules(
        layout="free", step=given.module / _FINE, joint_at_edge=True, at_opening="either", edge_clear=given.clear,
        min_strip=max(given.least, 500.0), blanks=None, max_width=max(given.module, 3 * _BALE.length + _BALE.frame),
        max_length=given.longest, mass_per_m2=given.mass, max_mass=given.choices.heaviest, bale=_BALE,
        header_bearing=_POST,
    )  # fmt: skip
    return PanelRules(rules=rules, words="whole bales, the last one tight", spline="straw roll")


def _boards(given: _Given) -> PanelRules:
    rules = Rules(
        layout="free", step=given.module / 24, joint_at_edge=False, at_opening="cut",
        edge_clear=min(given.clear, 100.0), min_strip=min(given.least, 200.0), blanks=given.blanks(given.module),
        mass_per_m2=given.mass / 2, max_mass=given.choices.heaviest, module_widths=(given.module,), layers=2,
        stagger=given.module / 4,
    )  # fmt: skip
    return PanelRules(rules=rules, words="boards in two layers, joints staggered", spline="board joint", crane=False)


_SYSTEMS: Mapping[str, Callable[[_Given], PanelRules]] = {
    "sip": _sheets, "sip-roof": _sheets, "sip-floor": _sheets,
    "metal-panel": _cover, "metal-panel-roof": _cover,
    "cassette": _framed, "cassette-roof": _framed, "cassette-floor": _framed,
    "bead-cassette": _framed, "bead-roof": _framed, "bead-floor": _framed,
    "mesh-mortar": _mesh, "mesh-mortar-roof": _mesh, "straw-bale": _bales, "straw-board": _boards,
}  # fmt: skip
