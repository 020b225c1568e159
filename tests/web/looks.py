"""What is looked at in a view, whatever it shows: by a reader in inch-pound, by axe, and at the edges of the screen."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
from si_units import left_in
from web.board import axe

from tools.window import SMALLEST

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
#: What the sheet shows, and cannot be scrolled into view: nothing is cut at an edge that does not scroll.
_CUT = """() => {
  const cut = [];
  if (document.documentElement.scrollWidth > innerWidth || document.documentElement.scrollHeight > innerHeight)
    cut.push('the page itself scrolls');
  for (const one of document.querySelectorAll('.sheet *')) {
    const text = [...one.childNodes].some((node) => node.nodeType === 3 && node.textContent.trim());
    if (!(text || one.matches('button, select, a')) || one.closest('svg, .visually-hidden')) continue;
    const box = one.getBoundingClientRect();
    if (!box.width || box.right <= innerWidth + 1) continue;
    if (!one.closest('.scroll, .drawn')) cut.push(one.textContent.trim().slice(0, 60));
  }
  return cut;
}"""
#: Until a new size is drawn.
_DRAWN = "() => new Promise((done) => setTimeout(() => requestAnimationFrame(() => requestAnimationFrame(done)), 100))"
SIZES = ((640, 400), (768, 1024), (1024, 700), (1280, 800), (1920, 1080))


def read_in_inch_pound(page: Page, view: str) -> dict[str, str]:
    """Texts with an SI unit or an open place, each with its view; no text was taken for markup."""
    texts = [re.sub(r'"><script>|id="planted"', "", one) for one in page.evaluate(_TOLD)]
    assert len(texts[0]) > 400, view
    assert any(unit in " ".join(texts) for unit in ("°F", "ft", "Btu", '"')), view
    assert page.evaluate("[!!window.ran, document.querySelectorAll('#planted').length]") == [False, 0], view
    assert "planted" in page.content(), view
    return {one: view for text in texts for one in left_in(text)}


def good_for_everybody(page: Page, view: str, *, sizes: bool) -> None:
    """Axe finds nothing; nothing runs over the edge, on small and large screens neither where they are looked at."""
    assert axe(page) == [], view
    cut = page.evaluate(_CUT)
    assert not cut, (view, cut)
    for width, height in SIZES if sizes else ():
        page.set_viewport_size({"width": width, "height": height})
        page.evaluate(_DRAWN)
        cut = page.evaluate(_CUT)
        assert not cut, (view, width, cut)
        ledger = page.locator(".ledger").bounding_box()
        assert ledger
        assert ledger["y"] + ledger["height"] <= height + 0.5
        for adopt in page.get_by_role("button", name=re.compile("^Adopt")).all()[:1]:
            adopt.scroll_into_view_if_needed()
            expect(adopt).to_be_in_viewport(ratio=1)
    page.set_viewport_size(SMALLEST)
