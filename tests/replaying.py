"""A working evaluated again from its inputs and formulas, with nothing of the product in it."""

from __future__ import annotations

import ast
import math
import operator
from collections.abc import Callable
from functools import lru_cache

from nimble_shell.core.working import Derivation

_OPERATORS: dict[type[ast.operator], Callable[[float, float], float]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
}


def evaluate(text: str, values: dict[str, float]) -> float:
    """An evaluator of its own, with nothing of the product in it."""

    def walk(node: ast.expr) -> float:
        match node:
            case ast.Constant(value=int() | float() as number):
                return float(number)
            case ast.Name(id=name):
                return values[name]
            case ast.BinOp(left=left, op=op, right=right):
                return _OPERATORS[type(op)](walk(left), walk(right))
            case ast.UnaryOp(op=ast.USub(), operand=operand):
                return -walk(operand)
            case ast.Call(func=ast.Name(id=name), args=arguments) if name in FUNCTIONS:
                return float(getattr(math, name)(*map(walk, arguments)))
        raise AssertionError(ast.dump(node))

    return walk(_parsed(text))


@lru_cache(maxsize=65536)
def _parsed(text: str) -> ast.expr:
    """Once for all figures of a wall: each repeats the steps of those before it."""
    return ast.parse(text, mode="eval").body


FUNCTIONS = {"exp", "log", "sqrt", "sin", "cos", "sinh", "cosh", "atan2"}


def replay(derivation: Derivation) -> float:
    """The figure, from nothing but the inputs and the formulas."""
    values: dict[str, float] = {}
    for step in derivation.steps:
        values[step.symbol] = evaluate(step.formula, values) if step.formula else step.value
        if step.numbers:
            assert abs(evaluate(step.numbers, {}) - step.value) <= max(1e-9 * abs(step.value), 1e-12), step
    return values[derivation.steps[-1].symbol]
