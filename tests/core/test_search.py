"""The smallest step that passes."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.search import smallest


@given(st.integers(1, 200), st.integers(1, 220), st.integers(1, 8))
def test_where_all_from_one_step_on_pass_that_step_is_found(count: int, first: int, looks: int) -> None:
    asked: list[int] = []

    def passes(at: int) -> bool:
        asked.append(at)
        return at >= first

    found = smallest(count, passes, looks=looks)
    assert found == (first if first <= count else None)
    assert len(asked) == len(set(asked))  # nothing is solved twice
    assert all(1 <= at <= count for at in asked)


@given(st.integers(2, 100), st.integers(1, 100), st.integers(-5, 5))
def test_the_solution_that_counts_has_the_last_word(count: int, first: int, off: int) -> None:
    sure = min(max(first + off, 1), count + 1)
    found = smallest(count, lambda at: at >= first, lambda at: at >= sure)
    assert found == (sure if sure <= count else None)


@given(st.lists(st.booleans(), min_size=1, max_size=60))
def test_whatever_passes_the_answer_passes_and_its_neighbour_fails(passes: list[bool]) -> None:
    found = smallest(len(passes), lambda at: passes[at - 1])
    if found is not None:
        assert passes[found - 1]
        assert found == 1 or not passes[found - 2]
    elif passes:
        assert not passes[-1]


def test_nothing_is_asked_where_there_is_no_step() -> None:
    assert smallest(0, lambda at: True) is None
