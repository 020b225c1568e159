"""Every view of an inch-pound project whose every text holds markup: no SI unit stands on it, no place for a value was
left open, and no text is taken for markup."""

from __future__ import annotations

import re

from planted import planted
from playwright.sync_api import Page
from si_units import left_in
from web.board import Board
from web.copies import brought_in, file_of

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
    "main-laboratory/1?view=shape",
    "main-laboratory/1?view=units",
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
    "sample-cold-store/D5?view=fan",
    *(f"main-laboratory/D6{view}" for view in ("", "?view=panels", "?view=timber", "?view=fittings", "?view=compared")),
    *(f"main-laboratory/D8{view}" for view in ("", "?view=bars", "?view=boards", "?view=laydown", "?view=trucks")),
    *(f"main-laboratory/D8{view}" for view in ("?view=handling", "?view=papers")),
    "bunkhouse/D8?view=filling",
    *(f"boat-workshop/D6?view={view}" for view in ("courses", "drift", "pour", "lining")),
    *(f"seed-barn/D8?view={view}" for view in ("wet", "work", "lifts", "bill")),
    "pump-house/D8?view=wet",
    *(f"main-laboratory/D7{view}" for view in ("", "?view=measures", "?view=air", "?view=windows", "?view=fresh")),
    *(f"main-laboratory/D7{view}" for view in ("?view=loads", "?view=year")),
]


def test_no_view_has_an_si_unit_an_open_place_or_takes_a_text_for_markup(page: Page, server: Server) -> None:
    whole = file_of(server, solved=("main-laboratory",), units="IP")
    laboratory = whole["project"]["buildings"][0]  # what is shown of one joint is shown of another
    laboratory["joints"] = [one for one in laboratory["joints"] if one["family"] in ("ridge", "seam")]
    file, _ = planted(whole)
    project = brought_in(server, file)
    page.add_init_script("window.planted = () => { window.ran = true }")
    found: dict[str, str] = {}
    board = Board(page, server.address, project).open(VIEWS[0])
    for view in VIEWS:
        board.go(view)
        quiet(page)
        texts = [re.sub(r'"><script>|id="planted"', "", one) for one in page.evaluate(_TOLD)]
        assert len(texts[0]) > 400, view
        assert any(unit in " ".join(texts) for unit in ("°F", "ft", "Btu", '"')), view
        found |= {one: view for text in texts for one in left_in(text)}
        assert page.evaluate("[!!window.ran, document.querySelectorAll('#planted').length]") == [False, 0], view
        assert "planted" in page.content(), view
    assert not found
