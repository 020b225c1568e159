"""Files of others are read apart: whatever they do to a reader, the server answers in words and goes on."""

from __future__ import annotations

import pytest
from services import readers

from nimble_shell.core.errors import DomainError
from nimble_shell.services.reading import Limits, read_apart

SHORT = Limits(cpu=1, patience=20.0)


def refusal(reader: object, limits: Limits = SHORT) -> tuple[str, str]:
    with pytest.raises(DomainError) as caught:
        read_apart(reader, b"x", limits=limits)  # type: ignore[arg-type]
    (issue,) = caught.value.issues
    return issue.code, issue.message


def test_what_a_reader_makes_of_a_file_comes_back() -> None:
    assert read_apart(readers.whole, b"12345", "wall.csv") == ("wall.csv", 5)


def test_what_a_reader_refuses_is_refused_at_its_place() -> None:
    with pytest.raises(DomainError) as caught:
        read_apart(readers.refusing, "line 3 has no λ".encode())
    (issue,) = caught.value.issues
    assert (issue.path, issue.code, issue.message) == (("content", "lines", 3), "bad_line", "line 3 has no λ")


@pytest.mark.parametrize("reader", [readers.crashing, readers.leaving])
def test_a_file_that_ends_the_reader_is_told_so(reader: object) -> None:
    assert refusal(reader) == ("file_ends_reader", "it brings the reader down")


def test_a_file_that_needs_too_much_memory_is_told_so() -> None:
    code, message = refusal(readers.growing)
    assert code == "file_takes_too_much"
    assert "1536 MB" in message


def test_a_file_that_computes_for_ever_is_stopped() -> None:
    assert refusal(readers.turning) == ("file_takes_too_long", "reading it takes more than 1 s of computing")


def test_a_file_that_waits_for_ever_is_stopped_by_the_clock() -> None:
    assert refusal(readers.waiting, Limits(patience=2.0)) == ("file_takes_too_long", "reading it takes longer than 2 s")


def test_a_fault_of_the_program_stays_one() -> None:
    with pytest.raises(KeyError, match="fault of ours"):
        read_apart(readers.stumbling, b"x")


def test_one_bad_file_takes_no_other_along() -> None:
    refusal(readers.crashing)
    assert read_apart(readers.whole, b"", "next") == ("next", 0)
