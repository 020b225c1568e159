"""Ground of the neutral shell case: ISO 13370."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from nimble_shell.core.errors import Collector, DomainError, Path
from nimble_shell.core.ground.floor import (
    EdgeFoam,
    EdgeKind,
    GroundFloor,
    HeatedBasement,
    Slab,
    Suspended,
    UnheatedBasement,
)
from nimble_shell.core.ground.seasons import GroundYear, ground_swing, monthly_flow
from nimble_shell.core.ground.steady import ground_figures
from nimble_shell.core.takeoff.takeoff import Measured, Takeoff
from nimble_shell.core.working import value_of
from nimble_shell.formats.neutral_shell.values import (
    NotNegative,
    Positive,
    Temperature,
    each,
    missing,
    not_there,
    number,
    numbers,
    one_of,
    only_once,
)
from nimble_shell.formats.strict import Number, Strict


class EdgeCase(Strict):
    kind: EdgeKind
    D: Positive
    d: Positive
    lambda_: Annotated[Positive, Field(alias="lambda")]


class YearCase(Strict):
    theta_i: Temperature
    theta_i_amplitude: NotNegative
    theta_e: Temperature
    theta_e_amplitude: NotNegative
    tau: Annotated[Number, Field(ge=0, le=12)]


class _Floor(Strict):
    id: str
    A: Positive | None = None
    P: Positive | None = None
    geometry: Measured | None = None
    w: NotNegative = 0.0
    lambda_: Annotated[Positive, Field(alias="lambda")]
    rho_c: Positive | None = None
    Rsi: NotNegative = 0.17
    Rse: NotNegative = 0.04
    Rsi_wall: NotNegative = 0.13
    psi: Number = 0.0
    year: YearCase | None = None

    def common(self, A: float, P: float) -> dict[str, Any]:
        return {"A": A, "P": P, "lambda_": self.lambda_, "w": self.w, "rho_c": self.rho_c, "Rsi": self.Rsi,
                "Rse": self.Rse, "Rsi_wall": self.Rsi_wall, "psi": self.psi}  # fmt: skip


class SlabCase(_Floor):
    type: Literal["slab"]
    Rf: NotNegative
    edge: list[EdgeCase] = []

    def floor(self, A: float, P: float) -> Slab:
        edges = tuple(EdgeFoam(kind=one.kind, D=one.D, d=one.d, lambda_=one.lambda_) for one in self.edge)
        return Slab(**self.common(A, P), Rf=self.Rf, edges=edges)


class SuspendedCase(_Floor):
    type: Literal["suspended"]
    Rf: NotNegative = 0.0
    U_f: Positive
    Rg: NotNegative = 0.0
    h: NotNegative
    U_w: Positive
    eps: NotNegative
    f_w: NotNegative
    v: NotNegative

    def floor(self, A: float, P: float) -> Suspended:
        return Suspended(**self.common(A, P), Rf=self.Rf, U_f=self.U_f, Rg=self.Rg, h=self.h, U_w=self.U_w,
                         eps=self.eps, f_w=self.f_w, v=self.v)  # fmt: skip


class HeatedCase(_Floor):
    type: Literal["heated_basement"]
    Rf: NotNegative
    Rw: NotNegative
    z: Positive

    def floor(self, A: float, P: float) -> HeatedBasement:
        return HeatedBasement(**self.common(A, P), Rf=self.Rf, Rw=self.Rw, z=self.z)


class UnheatedCase(_Floor):
    type: Literal["unheated_basement"]
    Rf: NotNegative
    Rw: NotNegative
    z: Positive
    U_f: Positive
    U_w: Positive
    h: NotNegative
    n: NotNegative
    V: NotNegative

    def floor(self, A: float, P: float) -> UnheatedBasement:
        return UnheatedBasement(**self.common(A, P), Rf=self.Rf, Rw=self.Rw, z=self.z, U_f=self.U_f, U_w=self.U_w,
                                h=self.h, n=self.n, V=self.V)  # fmt: skip


def _branch(value: Any) -> str:
    return f"tagged-{value.get('type') if isinstance(value, dict) else ''}"


GroundCase = Annotated[
    Annotated[SlabCase, Tag("tagged-slab")] | Annotated[SuspendedCase, Tag("tagged-suspended")]
    | Annotated[HeatedCase, Tag("tagged-heated_basement")] | Annotated[UnheatedCase, Tag("tagged-unheated_basement")],
    Discriminator(_branch, custom_error_type="unknown_type",
                  custom_error_message="a ground floor is of type “slab”, “suspended”, “heated_basement” or "
                                       "“unheated_basement”"),
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class AnsweredGround:
    """A floor: what others ask of it, and its answer."""

    H_g: float  #: [W/K]
    flow: tuple[float, ...] | None  #: of twelve months [W]
    answer: dict[str, Any]


def grounds_of(cases: Sequence[GroundCase], takeoff: Takeoff | None) -> dict[str, AnsweredGround]:
    """Figures of each floor by its id.

    Raises
    ------
    DomainError
        With the path of what is wrong in the case file.
    """
    check = Collector()
    only_once(check, (one.id for one in cases), "ground")
    check.refuse()
    return dict(each(cases, lambda one, path: (one.id, _answer(one, path, takeoff)), "ground"))


def _answer(case: GroundCase, path: Path, takeoff: Takeoff | None) -> AnsweredGround:
    floor: GroundFloor = case.floor(*_size(case, path, takeoff))
    try:
        found = ground_figures(floor)
    except DomainError as error:
        raise error.under(*path) from None
    answer = numbers(found, "B", "U", "H_g") | {"dt": number(found.d_t)}
    if isinstance(case, SlabCase):
        answer |= {"U0": number(found.U_0), "psi_ge": number(found.psi_ge)}
    elif isinstance(case, SuspendedCase):
        answer |= numbers(found, "U_g", "U_x")
    else:
        answer |= {"dw": number(found.d_w)} | numbers(found, "U_bf", "U_bw")
    flow = None
    if case.rho_c is not None:
        swing = ground_swing(floor, found)
        answer |= numbers(swing, "delta", "H_pi", "H_pe", "alpha", "beta")
        if case.year is not None:
            year = GroundYear(**case.year.model_dump())
            flow = tuple(value_of(one) for one in monthly_flow(found, swing, year))
    elif case.year is not None:
        raise missing(*path, "rho_c")
    return AnsweredGround(value_of(found.H_g), flow, answer | ({} if flow is None else {"flow": list(flow)}))


def _size(case: GroundCase, path: Path, takeoff: Takeoff | None) -> tuple[float, float]:
    """Area and exposed perimeter, told or of the geometry."""
    if case.geometry is None:
        if case.A is None or case.P is None:
            raise missing(*path, "A" if case.A is None else "P")
        return case.A, case.P
    one_of(case, ("geometry", "A"), *path)
    one_of(case, ("geometry", "P"), *path)
    if takeoff is None or takeoff.ground is None:
        raise not_there("floor to the ground in", "geometry", *path, "geometry")
    A, P = (getattr(one, case.geometry) for one in (takeoff.ground.A, takeoff.ground.P))
    if P <= 0:
        raise not_there("exposed perimeter in", "geometry", *path, "geometry")
    return A, P
