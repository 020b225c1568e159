"""The common interface of the shell systems."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from itertools import count

from nimble_shell.core.assemblies.assembly import (
    AirGap,
    Assembly,
    Control,
    Fitted,
    Layer,
    Member,
    Outside,
)
from nimble_shell.core.assemblies.fixing import Fixing, FixingKind, Plate
from nimble_shell.core.basis.stations import ShellPart
from nimble_shell.core.errors import Collector
from nimble_shell.core.parameters import Choice, Parameter, Value, chosen_values

FOAM_CORES = ("eps-035", "eps-graphite", "xps-033", "pur-core", "pir-core", "phenolic-board", "mineral-core", "eps-038")
FIBRE_CORES = ("mineral-wool-032", "mineral-wool-035", "wood-fibre-flex", "cellulose-blown", "hemp-batt", "sheep-wool",
               "glass-wool-blown", "spray-open")  # fmt: skip
BOARD_CORES = ("eps-form", "eps-form-graphite", "eps-graphite", "xps-033", "pir-board-open", "phenolic-board",
               "stone-wool-board", "wood-fibre-board")  # fmt: skip
BEAD_CORES = ("eps-bonded-beads", "eps-loose-beads", "cellulose-blown", "glass-wool-blown")


@dataclass(frozen=True, slots=True, kw_only=True)
class System:
    """A shell system as a kind of the product, for one place of the shell."""

    key: str
    kind: int  #: number of the system kind, 1…12
    place: ShellPart
    name: str
    anatomy: str  #: outside → inside, in words
    parameters: tuple[Parameter | Choice, ...]
    build: Callable[[Mapping[str, Value]], LayerStack]
    cautions: tuple[str, ...]
    cores: tuple[str, ...] = ()  #: materials worth studying as its core

    def assembly(self, assembly_id: str, name: str, values: Mapping[str, Value] | None = None) -> Assembly:
        """A build-up of this system.

        Parameters
        ----------
        assembly_id, name : str
        values : mapping, optional
            Parameters that differ from their start values; SI.

        Raises
        ------
        DomainError
            If a parameter is unknown or out of its range.
        """
        check = Collector()
        chosen = chosen_values(self.name, self.parameters, values, check)
        check.refuse()
        stack = self.build(chosen)
        return Assembly(
            id=assembly_id,
            name=name,
            system=self.key,
            layers=tuple(stack.layers),
            fixings=tuple(stack.fixings),
            outside=stack.outside,
        )


class LayerStack:
    """Collects layers inside → outside, numbers them, and fixes points through them."""

    def __init__(self, outside: Outside = "air") -> None:
        self.layers: list[Layer] = []
        self.fixings: list[Fixing] = []
        self.outside = outside
        self._ids: Iterator[int] = count(1)

    def add(
        self,
        material: str,
        d: float,
        *,
        core: bool = False,
        goes_with_core: bool = False,
        members: tuple[Member, ...] = (),
        control: tuple[Control, ...] = (),
        fitted: Fitted = "site",
        rib: float = 0.0,
        services: bool = False,
        passes: int = 1,
    ) -> str:
        """A layer of material [m]; its id."""
        layer = Layer(id=f"l{next(self._ids)}", material=material, d=d, studied=core, goes_with_core=goes_with_core, members=members,
                      control=control, fitted=fitted, rib=rib, services=services, passes=passes)  # fmt: skip
        self.layers.append(layer)
        return layer.id

    def air(
        self,
        d: float,
        gap: AirGap | None = None,
        *,
        members: tuple[Member, ...] = (),
        services: bool = False,
        fitted: Fitted = "site",
    ) -> str:
        """An air layer [m], unventilated unless said; its id."""
        layer = Layer(id=f"l{next(self._ids)}", d=d, air=gap or AirGap(), members=members, services=services,
                      fitted=fitted)  # fmt: skip
        self.layers.append(layer)
        return layer.id

    def gap(self, d: float, *, members: tuple[Member, ...] = ()) -> str:
        """A well-ventilated gap [m]; its id."""
        return self.air(d, AirGap(ventilation="well"), members=members)

    def void(self, d: float, *, fill: str = "", centres: float = 0.6) -> None:
        """A service void on horizontal battens [m], empty or filled; nothing where it has no depth."""
        if d <= 0:
            return
        batten = Member(name="batten", material="softwood-battens", run="horizontal", width=0.045, centres=centres)
        if fill:
            self.add(fill, d, members=(batten,), services=True, fitted="late")
        else:
            self.air(d, members=(batten,), services=True, fitted="late")

    def fix(
        self,
        name: str,
        material: str,
        *,
        n: float,
        diameter: float,
        layer: str,
        kind: FixingKind = "screw",
        inner: float = 0.0,
        outer: float = 0.0,
        sleeve: float | None = None,
        head: Plate | None = None,
        mesh: float = 0.0,
    ) -> None:
        """A group of points through a layer [1/m², m], and into its neighbours; none where n is 0."""
        if n > 0:
            self.fixings.append(
                Fixing(id=f"f{len(self.fixings) + 1}", name=name, material=material, n=n, diameter=diameter,
                       layer=layer, kind=kind, inner=inner, outer=outer, sleeve=sleeve,
                       sleeve_material="polypropylene" if sleeve else "", head=head, mesh=mesh)
            )  # fmt: skip
