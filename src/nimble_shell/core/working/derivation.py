"""From a traced number to the steps a person can follow, and a machine can evaluate again."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.working.traced import FUNCTIONS, Num, Traced

#: Binding strength of an operator; a weaker operand is bracketed.
_STRENGTH = {"+": 1, "-": 1, "*": 2, "/": 2, "**": 3}


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One line of the working: an input with its origin, or a formula with its clause."""

    symbol: str
    text: str
    unit: str
    value: float  #: in SI, unrounded
    formula: str  #: in symbols, a Python expression; empty for an input
    numbers: str  #: the same with numbers at full precision; empty for an input
    source: str  #: the origin of an input, the clause of a formula


@dataclass(frozen=True, slots=True, kw_only=True)
class Derivation:
    """The working of one figure: every named step in the order of evaluation, the figure last."""

    steps: tuple[Step, ...]

    @property
    def value(self) -> float:
        """The figure itself, in SI."""
        return self.steps[-1].value


def derive(figure: Num) -> Derivation:
    """The working of a traced, named figure.

    Raises
    ------
    TypeError
        If the figure was not computed with traced inputs, or has no name.
    ValueError
        If two different quantities carry the same symbol: the working would be ambiguous.
    """
    if not isinstance(figure, Traced) or figure.label is None:
        raise TypeError("only a named figure computed from traced inputs has a derivation")
    order: list[Traced] = []
    seen: set[int] = set()
    _visit(figure, order, seen)
    by_symbol: dict[str, tuple[float, str]] = {}
    written: set[str] = set()
    steps: list[Step] = []
    for node in order:
        label = node.label
        if label is None:
            continue
        is_input = node.op == "input"
        formula = "" if is_input else _write(node, top=node, numbers=False)
        known = by_symbol.setdefault(label.symbol, (node.value, formula))
        if known != (node.value, formula):
            raise ValueError(f"two quantities are called {label.symbol}")
        if label.symbol in written:
            continue  # the same quantity, computed twice
        written.add(label.symbol)
        steps.append(
            Step(
                symbol=label.symbol,
                text=label.text,
                unit=label.unit,
                value=node.value,
                formula=formula,
                numbers="" if is_input else _write(node, top=node, numbers=True),
                source=label.source,
            )
        )
    return Derivation(steps=tuple(steps))


def derive_one(figures: Mapping[str, Num], figure: str) -> Derivation:
    """The working of one of several traced figures.

    Raises
    ------
    DomainError
        If there is no such figure.
    """
    if figure not in figures:
        raise DomainError(
            Issue(
                path=("figure",),
                code="unknown_figure",
                message=f"there is no figure “{figure}”",
                hint=f"one of {', '.join(figures)}",
            )
        )
    return derive(figures[figure])


def _visit(node: Traced, order: list[Traced], seen: set[int]) -> None:
    stack = [(node, False)]
    while stack:
        current, done = stack.pop()
        if done:
            order.append(current)
        elif id(current) not in seen:
            seen.add(id(current))
            stack.append((current, True))
            stack.extend((argument, False) for argument in reversed(current.args))


def _write(node: Traced, *, top: Traced, numbers: bool) -> str:
    if node is not top and node.label is not None:
        return _number(node.value) if numbers else node.label.symbol
    if node.op in ("constant", "input"):
        return _number(node.value)
    if node.op == "=":
        return _write(node.args[0], top=top, numbers=numbers)
    if node.op in FUNCTIONS:
        return f"{node.op}({', '.join(_write(one, top=top, numbers=numbers) for one in node.args)})"
    left, right = node.args
    strength = _STRENGTH[node.op]
    a = _bracket(left, strength, top, numbers, tight=node.op == "**")
    b = _bracket(right, strength, top, numbers, tight=node.op in ("-", "/", "**"))
    return f"{a} {node.op} {b}"


def _bracket(node: Traced, strength: int, top: Traced, numbers: bool, *, tight: bool) -> str:
    text = _write(node, top=top, numbers=numbers)
    if node.label is not None or node.op not in _STRENGTH:
        return f"({text})" if numbers and node.value < 0 else text
    inner = _STRENGTH[node.op]
    return f"({text})" if inner < strength or (tight and inner == strength) else text


def _number(value: float) -> str:
    return repr(float(value))
