"""The hours of a mould index, compiled: what grows and declines depends on the index of the hour before."""

from __future__ import annotations

import numpy as np
from numba import njit
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
MOST = 6.0
_SOON, _LATER = 6, 24  #: hours after growth: decline until the one, none until the other, then slower
_FAST, _SLOW = 0.00133, 0.000667  #: of a decline on pine [1/h]


@njit(cache=True)
def follow(rate: FloatArray, most: FloatArray, grows: NDArray[np.bool_], k1: FloatArray, decline: FloatArray,
           M: FloatArray) -> FloatArray:  # fmt: skip
    """The index after every hour, shape (hours, places); M is the one before the first and is changed.

    Parameters
    ----------
    rate : ndarray, shape (hours, places)
        Of growth on pine. [1/h]
    most : ndarray, shape (hours, places)
        Largest index that the hour allows.
    grows : ndarray, shape (hours, places)
    k1 : ndarray, shape (places, 2)
        Rate against pine, below and from index 1.
    decline : ndarray, shape (places,)
        Against pine.
    """
    found = np.empty(rate.shape)
    for place in range(rate.shape[1]):
        idle = 0
        for hour in range(rate.shape[0]):
            if grows[hour, place]:
                idle = 0
                k2 = max(1 - np.exp(2.3 * (M[place] - most[hour, place])), 0.0)
                M[place] += rate[hour, place] * k1[place, 0 if M[place] < 1 else 1] * k2
            else:
                idle += 1
                M[place] -= decline[place] * (_FAST if idle <= _SOON else 0.0 if idle <= _LATER else _SLOW)
            M[place] = min(max(M[place], 0.0), MOST)
            found[hour, place] = M[place]
    return found
