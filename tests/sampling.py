"""Many cases alike: one in so many is run, unless every one is asked for with `./nimble test --every`."""

from __future__ import annotations

from collections import Counter

import pytest
from hypothesis import settings

_EXAMPLES = 30  #: of a property
_ALL = 100


def pytest_addoption(parser: pytest.Parser) -> None:
    parser.addoption("--every", action="store_true", help="run every case of what is sampled, and more examples")


def pytest_configure(config: pytest.Config) -> None:
    config.addinivalue_line("markers", "sampled(n): one in n of its cases is run, unless --every is given")
    # Shared machines are slow and noisy: no deadline per example, and the same examples on every run.
    most = _ALL if config.getoption("--every") else _EXAMPLES
    settings.register_profile("nimble", deadline=None, max_examples=most, derandomize=True)
    settings.load_profile("nimble")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    if config.getoption("--every"):
        return
    seen: Counter[str] = Counter()
    kept: list[pytest.Item] = []
    left: list[pytest.Item] = []
    for item in items:
        marker = item.get_closest_marker("sampled")
        at = item.nodeid.partition("[")[0]
        (left if marker and seen[at] % marker.args[0] else kept).append(item)
        seen[at] += 1
    config.hook.pytest_deselected(items=left)
    items[:] = kept
