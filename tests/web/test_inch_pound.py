"""Every view of an inch-pound project: no SI unit stands on it, and no place for a value was left open."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page
from si_units import left_in
from web.board import Board

from tools.window import Server, quiet

#: Everything a reader or a screen reader is told on a page.
_TOLD = """() => {
  const found = [document.body.innerText];
  for (const one of document.querySelectorAll('svg text, svg title, svg desc')) found.push(one.textContent);
  for (const one of document.querySelectorAll('[aria-label], [title], [placeholder], [aria-valuetext]'))
    for (const name of ['aria-label', 'title', 'placeholder', 'aria-valuetext'])
      if (one.hasAttribute(name)) found.push(one.getAttribute(name));
  for (const one of document.querySelectorAll('option')) found.push(one.textContent);
  return found;
}"""

VIEWS = [
    "main-laboratory/1",
    "main-laboratory/1?view=materials",
    "main-laboratory/D2",
    "main-laboratory/D2?view=study",
    "main-laboratory/D2?view=compare",
    "main-laboratory/D2?view=standard",
    "boat-workshop/D2?element=e3&view=day",
    "boat-workshop/D2?element=e3",
    "pump-house/D2?element=e3",
    "main-laboratory/A3",
    "main-laboratory/A3?view=walk",
    "main-laboratory/D3",
    "main-laboratory/D3?view=standard",
    "main-laboratory/B4",
    "pump-house/D5",
    "bunkhouse/D5?view=plane",
    "bunkhouse/D5?view=hours",
    "main-laboratory/A5?view=joints",
    "main-laboratory/D5?view=fan",
]


@pytest.fixture(scope="module")
def inch_pound(server: Server) -> str:
    """The demo campus in inch-pound, with all of its joints and fixings."""
    file = server.call("GET", "/projects/heron-flats/file")
    file["project"]["basis"]["schools"]["units"] = "IP"
    return str(server.call("POST", "/projects/import", file)["project"]["id"])


@pytest.mark.parametrize("view", VIEWS)
def test_a_view_has_no_si_unit_and_no_open_place(page: Page, server: Server, inch_pound: str, view: str) -> None:
    Board(page, server.address, inch_pound).open(view)
    quiet(page, 120_000)
    texts = page.evaluate(_TOLD)
    assert len(texts[0]) > 400
    assert any(unit in " ".join(texts) for unit in ("°F", "ft", "Btu", "in", '"'))
    found = [one for text in texts for one in left_in(text)]
    assert not found, "\n".join(dict.fromkeys(found))
