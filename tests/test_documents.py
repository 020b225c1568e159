"""What the documents name is there: a newcomer who follows a reference finds a file."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
ROOMS = ROOT / "src" / "nimble_shell"
PAGES = [
    ROOT / "docs" / "method.md",
    ROOT / "docs" / "architecture.md",
    *sorted((ROOT / "docs" / "decisions").glob("*.md")),
]


@pytest.mark.parametrize("page", PAGES, ids=lambda page: page.name)
def test_every_room_that_a_page_names_exists(page: Path) -> None:
    named = set(re.findall(r"`((?:[a-z_]+/)+[a-z_]+)`", page.read_text()))
    places = (ROOMS, ROOMS / "core", ROOT / "web" / "src", ROOT / "web" / "src" / "lib", ROOT)
    gone = [
        name
        for name in sorted(named)
        if not any((place / f"{name}{end}").exists() for place in places for end in ("", ".py", ".ts", ".svelte.ts"))
    ]
    assert not gone


@pytest.mark.parametrize("page", [ROOT / "README.md", *PAGES], ids=lambda page: page.name)
def test_every_link_of_a_page_leads_somewhere(page: Path) -> None:
    links = re.findall(r"\]\((?!http|#)([^)#]+)", page.read_text())
    assert not [link for link in links if not (page.parent / link).exists()]
