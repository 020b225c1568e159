"""The register of open decisions: every place shows the same, and a way out is one click."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
from web.board import Board

from tools.window import Server, quiet


def test_strip_mast_and_key_read_the_register(page: Page, server: Server, campus: str) -> None:
    Board(page, server.address, campus).open("main-laboratory/D2")
    count = page.get_by_test_id("open-count")
    expect(count).to_contain_text("open")
    open_ = [one for one in server.call("GET", f"/projects/{campus}/buildings/main-laboratory/decisions")["decisions"]
             if one["state"] == "open"]  # fmt: skip
    expect(count).to_contain_text(f"{len(open_)} open")
    marked = {one["step"] for one in open_} | {5 for one in open_ if one["matter"] == "surface"}
    for step in range(1, 6):
        tab = page.get_by_role("navigation", name="Steps of the job").locator("a").nth(step - 1)
        expect(tab.locator(".decision")).to_have_count(1 if step in marked else 0)
    page.keyboard.press("n")
    first = open_[0]
    expect(page).to_have_url(
        re.compile(rf"/{first['station']}{first['step']}(\?|$)" if first["station"] else r"/1(\?|$)")
    )


def test_a_way_out_is_one_click_and_one_edit(page: Page, server: Server, campus: str) -> None:
    Board(page, server.address, campus).open("main-laboratory/D2")
    page.get_by_test_id("open-count").click()
    register = page.get_by_test_id("register")
    item = register.locator("li", has_text="Wall W-A has a clear R")
    item.get_by_role("button", name=re.compile("in stock")).click()
    expect(item).to_have_count(0)
    quiet(page)
    expect(page.locator(".ledger .last")).to_contain_text("A core of")
    page.keyboard.press("Escape")
    expect(register).to_have_count(0)
    page.get_by_role("button", name=re.compile("undo")).click()
    page.get_by_test_id("open-count").click()
    expect(item).to_have_count(1)


def test_what_would_settle_a_damp_wall_is_searched_where_it_stands(page: Page, server: Server, campus: str) -> None:
    stored = server.call("GET", f"/projects/{campus}")
    wall = next(one for one in stored["project"]["assemblies"] if one["id"] == "wall-w-a")
    # Timber frame with nothing tight inside, and a dense skin outside: water gathers behind it.
    wall["layers"] = [
        {"id": "l1", "material": "gypsum-board", "d": 0.0125},
        {"id": "l2", "material": "mineral-wool-035", "d": 0.2, "studied": True},
        {"id": "l4", "material": "osb", "d": 0.022},
        {"id": "l5", "material": "thin-render", "d": 0.02},
    ]
    board = Board(page, server.address, campus)
    board.open("main-laboratory/D2")
    item = {"kind": "assembly", "id": "wall-w-a", "read": stored["revision"], "document": wall}
    server.call("POST", f"/projects/{campus}/edit", {"text": "damp on purpose", "items": [item]})
    quiet(page)
    page.get_by_test_id("open-count").click()
    item = page.get_by_test_id("register").locator("li", has_text="of room humidity")
    item.get_by_role("button", name="Search what would settle it").click()
    item.get_by_role("button", name=re.compile("vapour layer")).click()
    expect(item).to_have_count(0)
    expect(page.locator(".ledger .last p")).to_contain_text("vapour")
