"""Sets of targets of the practice: kept, versions on top, withdrawn without a trace in projects."""

from __future__ import annotations

import pytest
from sqlalchemy import text

from nimble_shell.core.basis.targets import TARGET_SETS, Targets, TargetSet
from nimble_shell.core.errors import DomainError
from nimble_shell.services.targets import TargetService
from nimble_shell.store import Database, NotFound


@pytest.fixture
def sets(database: Database) -> TargetService:
    return TargetService(database)


def test_a_set_is_kept_replaced_by_its_next_version_and_withdrawn(sets: TargetService, database: Database) -> None:
    first, second = Targets(R_wall=6.0), Targets(R_wall=6.5, f_rsi=0.8)
    sets.keep(" ours ", first)
    assert sets.own() == [TargetSet("ours", first)]
    sets.keep("ours", second)
    sets.keep("another", first)
    assert sets.own() == [TargetSet("another", first), TargetSet("ours", second)]
    sets.withdraw("ours")
    assert sets.own() == [TargetSet("another", first)]
    with database.read() as session:
        assert session.execute(text("SELECT count(*) FROM target_set WHERE name = 'ours'")).scalar() == 2
    sets.keep("ours", first)
    assert TargetSet("ours", first) in sets.own()


@pytest.mark.parametrize("name", ["", "   ", "x" * 81, TARGET_SETS[0].name])
def test_a_name_that_cannot_be_used_is_refused(sets: TargetService, name: str) -> None:
    with pytest.raises(DomainError) as refused:
        sets.keep(name, Targets(R_wall=5))
    assert refused.value.issues[0].code == "name_not_usable"
    assert sets.own() == []


def test_targets_that_ask_nothing_and_unknown_sets_are_refused(sets: TargetService) -> None:
    with pytest.raises(DomainError, match="ask nothing"):
        sets.keep("ours", Targets())
    with pytest.raises(NotFound):
        sets.withdraw("ours")
