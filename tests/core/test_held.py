"""Values held by the identity of what they were made of: found again for the very same objects, and for no others."""

from __future__ import annotations

import threading
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import pytest

from nimble_shell.core.held import Held
from nimble_shell.core.progress import Stopped, watched


@dataclass(frozen=True)
class Part:
    n: int


def test_the_same_objects_find_it_and_equal_ones_do_not() -> None:
    held: Held[str] = Held()
    part = Part(1)
    assert held.put((part,), "made") == "made"
    assert held.get((part,)) == "made"
    assert held.get((Part(1),)) is None
    assert held.get((replace(part),)) is None


def test_further_words_make_another_one() -> None:
    held: Held[str] = Held()
    part = Part(1)
    held.put((part,), "winter", "winter")
    assert held.get((part,), "winter") == "winter"
    assert held.get((part,), "summer") is None
    assert held.get((part,)) is None


def test_all_parts_count_and_their_order() -> None:
    held: Held[str] = Held()
    a, b = Part(1), Part(2)
    held.put((a, b), "ab")
    assert held.get((b, a)) is None
    assert held.get((a,)) is None
    assert held.get((a, b)) == "ab"


def test_what_it_was_made_of_lives_as_long_so_that_no_other_object_takes_its_place() -> None:
    held: Held[int] = Held()
    for number in range(500):
        held.put((Part(number),), number)
    fresh = [Part(number) for number in range(500)]
    assert all(held.get((one,)) is None for one in fresh)


def test_the_least_used_goes_first() -> None:
    held: Held[int] = Held(3)
    parts = [Part(number) for number in range(4)]
    for number, part in enumerate(parts[:3]):
        held.put((part,), number)
    held.get((parts[0],))
    held.put((parts[3],), 3)
    assert [held.get((part,)) for part in parts] == [0, None, 2, 3]


def test_a_newer_value_takes_the_place_of_the_older_one() -> None:
    held: Held[str] = Held(2)
    part = Part(1)
    held.put((part,), "old")
    held.put((part,), "new")
    assert held.get((part,)) == "new"


def test_many_threads_do_not_disturb_one_another() -> None:
    held: Held[int] = Held(64)
    parts = [Part(number) for number in range(200)]
    wrong: list[int] = []

    def work() -> None:
        for _ in range(20):
            for number, part in enumerate(parts):
                found = held.get((part,))
                if found is not None and found != number:
                    wrong.append(number)
                held.put((part,), number)

    threads = [threading.Thread(target=work) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert wrong == []


class TestOnce:
    """What takes long is made by one of those who ask for it at the same time."""

    def test_who_asks_meanwhile_waits_and_has_the_same(self) -> None:
        held, part, begun, go = Held[object](), Part(1), threading.Event(), threading.Event()
        made: list[object] = []

        def make() -> object:
            begun.set()
            assert go.wait(30)
            made.append(object())
            return made[-1]

        with ThreadPoolExecutor(4) as threads:
            first = threads.submit(held.once, (part,), make)
            assert begun.wait(30)
            others = [threads.submit(held.once, (part,), make) for _ in range(3)]
            go.set()
            assert [one.result(30) for one in (first, *others)] == made * 4
        assert len(made) == 1

    def test_another_one_is_made_beside_it(self) -> None:
        held, begun, go = Held[int](), threading.Event(), threading.Event()

        def long() -> int:
            begun.set()
            assert go.wait(30)
            return 1

        with ThreadPoolExecutor(1) as threads:
            first = threads.submit(held.once, (Part(1),), long)
            assert begun.wait(30)
            assert held.once((Part(2),), lambda: 2) == 2
            go.set()
            assert first.result(30) == 1

    def test_where_it_cannot_be_made_the_next_one_tries(self) -> None:
        held, part = Held[int](), Part(1)
        with pytest.raises(ZeroDivisionError):
            held.once((part,), lambda: 1 // 0)
        assert held.once((part,), lambda: 3) == 3

    def test_who_waits_may_be_stopped(self) -> None:
        held, part, begun, go = Held[int](), Part(1), threading.Event(), threading.Event()

        def long() -> int:
            begun.set()
            assert go.wait(30)
            return 1

        def stop(_: int, __: int) -> None:
            raise Stopped

        with ThreadPoolExecutor(1) as threads:
            first = threads.submit(held.once, (part,), long)
            assert begun.wait(30)
            with watched(stop), pytest.raises(Stopped):
                held.once((part,), lambda: 2)
            go.set()
            assert first.result(30) == 1
