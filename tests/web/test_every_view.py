"""Every view of an inch-pound project whose every text holds markup: no SI unit stands on it, no place for a value was
left open, no text is taken for markup, axe finds nothing, and nothing runs over the edge."""

from __future__ import annotations

import json
import re
from functools import cache
from typing import Any

import pytest
from planted import planted
from playwright.sync_api import Page, expect
from web.board import Board
from web.copies import brought_in, file_of
from web.looks import good_for_everybody, read_in_inch_pound

from tools.window import Server, quiet

LONG = 90_000  # a loaded machine cuts boards slowly [ms]
#: Rooms, each walked through in one window; a view with * is looked at on every size of screen.
ROOMS = {
    "basis": (
        *(f"main-laboratory/1{view}" for view in ("*", "?view=materials*", "?view=shape*", "?view=units*")),
        "main-laboratory/1?view=register*",
        "boat-workshop/1?view=shape",
    ),
    "build-ups": (
        "main-laboratory/D2*",
        *(f"main-laboratory/D2?view={view}" for view in ("study*", "compare*", "standard")),
        "main-laboratory/E2",
        "boat-workshop/D2?element=e3&view=day",
        "boat-workshop/D2?element=e3",
        "pump-house/D2?element=e3*",
    ),
    "joints and fixings": (
        "main-laboratory/A3",
        *(f"main-laboratory/D3{view}" for view in ("", "?view=standard", "?view=walk", "?view=add")),
        "main-laboratory/B4",
        "boat-workshop/H4?view=add",
    ),
    "moisture": (
        "main-laboratory/D5",
        "pump-house/D5",
        "bunkhouse/D5?view=plane*",
        "bunkhouse/D5?view=hours",
        "main-laboratory/A5?view=joints",
        "sample-cold-store/D5?view=fan",
    ),
    "set-out": tuple(
        f"main-laboratory/D6{view}" for view in ("", "?view=panels", "?view=timber", "?view=fittings", "?view=compared")
    ),
    "forms and wet trades": (
        *(f"boat-workshop/D6?view={view}" for view in ("courses", "drift", "pour", "lining")),
        *(f"seed-barn/D8?view={view}" for view in ("wet", "work", "lifts", "bill")),
        "pump-house/D8?view=wet",
    ),
    "shop": (
        *(f"main-laboratory/D8{view}" for view in ("", "?view=bars", "?view=boards", "?view=laydown", "?view=trucks")),
        *(f"main-laboratory/D8{view}" for view in ("?view=handling", "?view=papers")),
        "bunkhouse/D8?view=filling",
    ),
    "whole shell": tuple(
        f"main-laboratory/D7{view}"
        for view in ("", "?view=measures", "?view=air", "?view=windows", "?view=fresh", "?view=loads", "?view=year")
    ),
}


@cache
def _file(server: Server) -> str:
    whole = file_of(server, solved=("main-laboratory",), units="IP")
    laboratory = whole["project"]["buildings"][0]  # what is shown of one joint is shown of another
    laboratory["joints"] = [one for one in laboratory["joints"] if one["family"] in ("ridge", "seam")]
    return json.dumps(planted(whole)[0])


def _there(page: Page, view: str) -> None:
    """What is computed for as long as it takes is there."""
    quiet(page)
    if view == "main-laboratory/D3":
        expect(page.get_by_test_id("psi-A")).to_be_visible(timeout=LONG)
    if view.endswith("boards"):
        expect(page.get_by_role("img", name=re.compile("^Board 1,"))).to_be_visible(timeout=LONG)
    if view in ROOMS["forms and wet trades"]:
        expect(page.get_by_role("status").filter(has_text="Being")).to_have_count(0, timeout=LONG)


def _opened(page: Page, view: str) -> None:
    """What is looked at by axe, too, but is not read: a working is in SI, and says so."""
    if view.endswith("study"):
        page.get_by_label("what passes only").check()  # its rows are alike
    if view == "main-laboratory/D2":
        page.get_by_test_id("R-combined").click()
        page.wait_for_selector("[data-testid=working] ol")


@pytest.mark.parametrize("room", ROOMS)
def test_a_view_can_be_read_in_inch_pound_by_everybody_on_every_screen(page: Page, server: Server, room: str) -> None:
    file: Any = json.loads(_file(server))
    board = Board(page, server.address, brought_in(server, file))
    page.add_init_script("window.planted = () => { window.ran = true }")
    board.open(ROOMS[room][0].removesuffix("*"), anew=True)
    found: dict[str, str] = {}
    for each in ROOMS[room]:
        view = each.removesuffix("*")
        board.go(view)
        _there(page, view)
        found |= read_in_inch_pound(page, view)
        _opened(page, view)
        good_for_everybody(page, view, sizes=each.endswith("*"))
        page.keyboard.press("Escape")
    assert not found
