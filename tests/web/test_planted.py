"""A project whose every text holds markup is shown as text on every view."""

from __future__ import annotations

from planted import planted
from playwright.sync_api import Page
from web.board import Board
from web.test_inch_pound import VIEWS

from tools.window import Server, quiet


def test_no_view_takes_a_text_for_markup(page: Page, server: Server) -> None:
    file, _ = planted(server.call("GET", "/projects/heron-flats/file"))
    for building in file["project"]["buildings"]:  # little to be solved: what is shown counts
        building["joints"] = building["joints"][:1]
    for assembly in file["project"]["assemblies"]:
        assembly["fixings"] = []
    project = server.call("POST", "/projects/import", file)["project"]["id"]
    page.add_init_script("window.planted = () => { window.ran = true }")
    for view in VIEWS[:-1:3]:
        Board(page, server.address, project).open(view)
        quiet(page)
        assert page.evaluate("[!!window.ran, document.querySelectorAll('#planted').length]") == [False, 0], view
        assert "planted" in page.content(), view
