"""Show working of what a solved joint says: ψ, temperature factor, heat from the room; errors and unknowns with it."""

from __future__ import annotations

from nimble_shell.core.joints.drawing import SYSTEMS, Drawing, System
from nimble_shell.core.joints.solved import JointFigures
from nimble_shell.core.working import Derivation, Num, derive, named, traced

_SOLVED = "ISO 10211:2017, 9, solved"


def joint_working(drawing: Drawing, solved: JointFigures, system: System) -> dict[str, Derivation]:
    """The working of "psi", "heat" and, where there is one, "f_rsi".

    Parameters
    ----------
    drawing : Drawing
    solved : JointFigures
        Of it.
    system : {"internal", "overall", "external"}
        Dimension system of ψ.
    """
    found = {"psi": _psi(drawing, solved, system), "heat": _heat(solved)}
    factor = _factor(solved)
    if factor is not None:
        found["f_rsi"] = factor
    return {key: derive(number) for key, number in found.items()}


def _psi(drawing: Drawing, solved: JointFigures, system: System) -> Num:
    point = drawing.kind == "axisymmetric"
    unit, symbol = ("W/K", "chi") if point else ("W/(m·K)", "psi")
    T = solved.temperatures
    total: Num | None = None
    for number, ((a, b), value) in enumerate(solved.coupling.items(), 1):
        if "inside" not in (a, b):
            continue
        other = b if a == "inside" else a
        tag = "" if len(solved.coupling) == 1 else f"_{number}"
        beyond = traced(value, f"L{tag}", f"coupling, room to {other}", unit, _of_the_grid(solved, unit))
        own = [one for one in drawing.references if set(one.envs) == {a, b}]
        for at, one in enumerate(own, 1):
            U = traced(one.U, f"U{tag}_{at}", f"{one.name}: U of the plane part beside it, no members", "W/(m²·K)",
                       "the same plies as drawn, or as entered")  # fmt: skip
            length = traced(one.lengths[SYSTEMS.index(system)], f"l{tag}_{at}", f"{one.name}, {system} dimension",
                            "m²" if point else "m", "drawn")  # fmt: skip
            beyond = beyond - U * length
        psi = named(beyond, f"{symbol}{tag}", f"beyond the plane elements, to {other}", unit,
                    "ISO 10211:2017, 12.4, ψ = L2D − Σ U·l")  # fmt: skip
        if len(solved.coupling) > 1:
            share = (T["inside"] - T[other]) / (T["inside"] - T["outside"]) if T["inside"] != T["outside"] else 0.0
            psi = psi * traced(share, f"b{tag}", f"share of the temperature difference to {other}", "",
                               "ISO 13789:2017, b")  # fmt: skip
        total = psi if total is None else total + psi
    assert total is not None  # every joint has a room
    return named(total, f"{symbol}_out", f"of what goes outside, {system} dimensions", unit, "Σ b·ψ")


def _of_the_grid(solved: JointFigures, unit: str) -> str:
    certain = ""
    if solved.certain is not None:
        certain = f"; certainly between {solved.certain[0]:.5g} and {solved.certain[1]:.5g}"
    return (f"{_SOLVED}: {solved.unknowns:,} unknowns, error estimated ±{max(solved.error, 1e-5):.1g} {unit}{certain}; "
            f"heat missing from the balance {solved.balance:.0e} of the whole")  # fmt: skip


def _factor(solved: JointFigures) -> Num | None:
    if solved.f_rsi is None:
        return None
    T = solved.temperatures
    inside, outside = (traced(T[env], f"theta_{env[0]}", f"{env} air", "°C", "the moment that is looked at")
                       for env in ("inside", "outside"))  # fmt: skip
    error = "" if solved.f_error is None else f", its error estimated ±{solved.f_error:.3f} of f"
    theta = solved.f_rsi * (T["inside"] - T["outside"]) + T["outside"]
    surface = traced(theta, "theta_si", "critical inner surface", "°C", f"{_SOLVED}{error}")
    return named((surface - outside) / (inside - outside), "f_Rsi", "surface factor", "",
                 "ISO 10211:2017, 13.2, (θ_si − θ_e)/(θ_i − θ_e)")  # fmt: skip


def _heat(solved: JointFigures) -> Num:
    T = solved.temperatures
    total: Num | None = None
    for number, ((a, b), value) in enumerate(solved.coupling.items(), 1):
        if "inside" in (a, b):
            other = b if a == "inside" else a
            L = traced(value, f"L_{number}", f"coupling, room to {other}", "W/(m·K)", _SOLVED)
            difference = traced(T["inside"] - T[other], f"dT_{number}", f"room less {other}", "K", "the moment")
            total = L * difference if total is None else total + L * difference
    assert total is not None
    return named(total, "Phi_i", "heat from the room, whole section", "W/m", "ISO 10211:2017, 9, Σ L·Δθ")
