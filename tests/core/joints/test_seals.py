"""Seal schedules: every joint has one, lines follow the seals, laps and materials are judged."""

from __future__ import annotations

from typing import Any

import pytest

from nimble_shell.core.joints.families import FAMILIES
from nimble_shell.core.joints.sealing.schedules import schedule
from nimble_shell.core.joints.sealing.seals import Sealed, Sealing, SealingStep, graded, judge

EVERY = [
    pytest.param(family.key, variant.key, system, id=f"{family.key}-{variant.key}-{system}")
    for family in FAMILIES.values()
    for variant in family.variants
    for system in variant.suits[:2]
]


_MET = ("heat", "surfaces", "leakages")


def judged(steps: tuple[SealingStep, ...], **change: Any) -> Sealing:
    met = {"heat": True, "surfaces": ("wood",), **{key: change.pop(key) for key in _MET if key in change}}
    return judge(steps, Sealed(**{"decided": True, **change}), **met)


@pytest.mark.parametrize(("family", "variant", "system"), EVERY)
def test_every_joint_has_a_schedule_that_keeps_the_air_out_and_can_be_looked_at(
    family: str, variant: str, system: str
) -> None:
    steps = schedule(family, variant, system=system)
    keys = [step.key for step in steps]
    assert len(set(keys)) == len(keys)
    assert all(set(step.covers) <= set(keys) for step in steps)
    assert all(step.over in ("", *keys) for step in steps)
    found = judged(steps)
    assert dict(found.lines)["air"] == "continuous"
    assert not [one for one in found.findings if one.weight == "decision"]
    opened = judged(steps, omitted=[step.key for step in steps if "air" in step.carries])
    assert dict(opened.lines)["air"] == "broken"
    assert (opened.grade, *opened.leakage) == graded()[0]
    assert any("air line" in one.text for one in opened.findings if one.weight == "decision")


def test_more_lines_of_seal_leak_less() -> None:
    steps = schedule("seam", "block", system="sip")
    air = [step.key for step in steps if "air" in step.carries]
    leaks = [judged(steps, omitted=air[count:]).leakage[1] for count in range(4)]
    assert leaks == sorted(leaks, reverse=True)
    assert len(set(leaks)) == 4


def test_what_must_stay_open_is_missed_and_nothing_is_whole_until_somebody_says_so() -> None:
    steps = schedule("opening", "framed", system="sip", fin=True)
    assert any("has to stay open" in one.text for one in judged(steps, omitted=["drain"]).findings)
    assert set(dict(judged(steps, decided=False).lines).values()) == {"undecided", "continuous"}
    assert dict(judged(steps, decided=False).lines)["rain"] == "undecided"
    assert dict(judged(steps, heat=False).lines)["heat"] == "broken"


def test_fin_and_non_fin_openings_have_their_own_order_and_an_unsealed_sill() -> None:
    fin, other = (schedule("opening", "framed", system="sip", fin=one) for one in (True, False))
    assert {step.key for step in fin} != {step.key for step in other}
    for steps in (fin, other):
        assert any(step.kind == "drain" and "sill" in step.text and step.needed for step in steps)
        order = [step.key for step in steps]
        assert all(order.index(step.over) < order.index(step.key) for step in steps if step.over)


def test_a_reversed_lap_is_found() -> None:
    upper = SealingStep(key="upper", kind="lap", text="upper sheet", over="lower")
    lower = SealingStep(key="lower", kind="lap", text="lower sheet")
    assert any("Reversed lap" in one.text for one in judged((upper, lower)).findings)
    assert not any("Reversed lap" in one.text for one in judged((lower, upper)).findings)


@pytest.mark.parametrize(
    ("sealant", "tape", "surface", "weight", "said"),
    [
        ("solvent-borne", "butyl tape", "foam", "decision", "dissolves"),
        ("silicone", "butyl tape", "membrane", "decision", "does not hold"),
        ("polyurethane", "acrylic tape", "concrete", "caution", "primer"),
        ("polyurethane", "bitumen tape", "foam", "caution", "plasticisers"),
    ],
)
def test_sealant_tape_and_surface_have_to_agree(sealant: str, tape: str, surface: str, weight: str, said: str) -> None:
    steps = schedule("eave", "flush", system="sip")
    found = judged(steps, sealant=sealant, tape=tape, surfaces=(surface,)).findings
    assert [one.weight for one in found if said in one.text] == [weight]
    assert not any(said in one.text for one in judged(steps, surfaces=()).findings)


def test_what_will_be_hidden_is_named_before_it_is() -> None:
    found = judged(schedule("base", "edge foam", system="sip")).findings
    assert any(one.weight == "caution" and "sill gasket under the plate" in one.text for one in found)


def test_a_sill_that_does_not_fall_outwards_or_drains_inside_breaks_the_rain_line() -> None:
    steps = schedule("opening", "framed", system="sip", fin=True)

    def said(**change: Any) -> tuple[str, set[str]]:
        found = judged(steps, **change)
        assert found.falls
        return dict(found.lines)["rain"], {one.weight for one in found.findings if one.weight != "caution"}

    assert said() == ("continuous", {"note"})
    assert said(fall=0.08, drains_to="outside") == ("continuous", set())
    assert said(fall=0.0, drains_to="outside") == ("broken", {"decision"})
    assert said(fall=-0.02, drains_to="outside") == ("broken", {"decision"})
    assert said(fall=0.08, drains_to="inside") == ("broken", {"decision"})
    little = judged(steps, fall=0.02, drains_to="outside")
    assert any("2.0 %" in one.text for one in little.findings if one.weight == "caution")
    without = judged(steps, omitted=["pan"], fall=-1.0, drains_to="inside")
    assert not any("does not fall" in one.text for one in without.findings)


def test_where_no_water_runs_off_nobody_asks_for_a_fall() -> None:
    found = judged(schedule("seam", "block", system="sip"), fall=None)
    assert not found.falls
    assert not any("falls" in one.text for one in found.findings)


@pytest.mark.parametrize("fin", [True, False])
@pytest.mark.parametrize("order", ["buck first", "membrane first"])
def test_a_form_s_opening_is_built_in_either_order_with_either_unit(order: str, fin: bool) -> None:
    steps = schedule("opening", "timber buck", system="icf", fin=fin, order=order)
    keys = [step.key for step in steps]
    assert len(set(keys)) == len(keys)
    assert (keys.index("buck") < keys.index("wall-membrane")) == (order == "buck first")
    assert ("head-tape" in keys) == fin
    assert [step.key for step in steps if step.kind == "drain"] == ["drain"]
    found = judged(steps, fall=0.08, drains_to="outside")
    assert dict(found.lines)["rain"] == dict(found.lines)["air"] == "continuous"
    assert not [one for one in found.findings if one.weight == "decision"]
    if order == "membrane first":
        assert any("hides" in one.text and "bead on the membrane" in one.text for one in found.findings)
