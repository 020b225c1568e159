"""Times of calls that each differ, as percentiles."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable


def percentiles(call: Callable[[int], object], runs: int) -> tuple[float, float]:
    """p50 and p95 in ms of calls that each differ."""
    times = []
    for run in range(runs):
        start = time.perf_counter()
        call(run)
        times.append(1000 * (time.perf_counter() - start))
    cuts = statistics.quantiles(times, n=20)
    return statistics.median(times), cuts[-1]
