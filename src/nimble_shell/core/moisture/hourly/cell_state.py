"""What cells of the hourly calculation are made of, compiled: their constants, and what a state makes of them."""

from __future__ import annotations

import math

import numpy as np
from numba import njit

#: Sums may be reordered; what is not a number stays one.
_FREE = {"contract", "arcp", "nsz", "reassoc"}
compiled = njit(cache=True, fastmath=_FREE, error_model="numpy")
#: A call that passes arrays costs more than what these do.
inlined = njit(cache=True, fastmath=_FREE, error_model="numpy", inline="always")

RV = 461.5  #: gas constant of water vapour [J/(kg·K)]
LATENT = 2.5e6  #: of vaporisation [J/kg]
CW = 4180.0  #: heat capacity of water [J/(kg·K)]
RHO_W = 1000.0  #: [kg/m³]
OVER = 2e4  #: water a cell takes up per unit of φ above 1 [kg/m³]
TABLE, BENCHMARK = 0, 1  #: kinds of material

#: Columns of a material's constants.
RHO_C, LAMBDA, LAMBDA_W, LAMBDA_THETA, KIND, STORES, FLOWS = range(7)
SORPTION, RESISTANCE, LIQUID = range(3)  #: pairs of rows in a material's tables: φ and w, φ and μ, w and ln D_w
FLOWN = 6  #: the row after them: ∫ D_w dw up to each w of the last pair
#: Columns of a cell's properties: vapour pressure, water and what liquid follows, each with its slopes by θ and φ;
#: ρc with its water; φ and θ; and λ, δ and K of liquid. COLUMNS is how many they are.
(PRESSURE, PRESSURE_THETA, PRESSURE_PHI, WATER, WATER_THETA, WATER_PHI, DRIVER, DRIVER_THETA, DRIVER_PHI, CAPACITY,
 PHI, THETA, CONDUCTIVITY, PERMEABILITY, LIQUID_K, COLUMNS) = range(16)  # fmt: skip


@inlined
def saturation(theta):
    """p_sat and its slope."""
    if theta >= 0:
        a, b = 17.269, 237.3
    else:
        a, b = 21.875, 265.5
    p = 610.5 * math.exp(a * theta / (b + theta))
    return p, p * a * b / (b + theta) ** 2


@inlined
def air_permeability(theta):
    """δ of still air after Schirmer. [kg/(m·s·Pa)]"""
    warmth = theta / 273.15 + 1
    return 2.306e-5 / (RV * 273.15) * math.exp(0.81 * math.log(warmth))


@inlined
def lookup(tables, m, pair, count, x):
    """In a material's rows of a pair, linear between and held at the ends; value and slope."""
    ys = 2 * pair + 1
    xs = ys - 1
    if x <= tables[m, xs, 0]:
        return tables[m, ys, 0], 0.0
    if x >= tables[m, xs, count - 1]:
        return tables[m, ys, count - 1], 0.0
    low, high = 0, count - 1
    while high - low > 1:
        middle = (low + high) >> 1
        if tables[m, xs, middle] <= x:
            low = middle
        else:
            high = middle
    slope = (tables[m, ys, high] - tables[m, ys, low]) / (tables[m, xs, high] - tables[m, xs, low])
    return tables[m, ys, low] + slope * (x - tables[m, xs, low]), slope


@inlined
def liquid(tables, m, count, w):
    """∫ D_w dw up to w, and D_w: between rows ln D_w is straight, so the integral is exact; held at the ends."""
    xs, ys = 2 * LIQUID, 2 * LIQUID + 1
    if w <= tables[m, xs, 0]:
        D = math.exp(tables[m, ys, 0])
        return D * (w - tables[m, xs, 0]), D
    if w >= tables[m, xs, count - 1]:
        D = math.exp(tables[m, ys, count - 1])
        return tables[m, FLOWN, count - 1] + D * (w - tables[m, xs, count - 1]), D
    low, high = 0, count - 1
    while high - low > 1:
        middle = (low + high) >> 1
        if tables[m, xs, middle] <= w:
            low = middle
        else:
            high = middle
    rise = (tables[m, ys, high] - tables[m, ys, low]) / (tables[m, xs, high] - tables[m, xs, low])
    x = w - tables[m, xs, low]
    D = math.exp(tables[m, ys, low] + rise * x)
    if abs(rise * x) < 1e-6:
        return tables[m, FLOWN, low] + D * x, D
    return tables[m, FLOWN, low] + (D - math.exp(tables[m, ys, low])) / rise, D


@inlined
def state(theta, phi, m, stuff, P, j):
    """Of cell j into the columns of P up to θ; liquid follows ∫ D_w dw, or in the benchmark's material the suction."""
    consts, tables, counts = stuff
    ps, slope = saturation(theta)
    P[j, PRESSURE], P[j, PRESSURE_THETA], P[j, PRESSURE_PHI] = phi * ps, phi * slope, ps
    if consts[m, KIND] == BENCHMARK:
        T = theta + 273.15
        f = min(phi, 0.9999999)
        s = -RHO_W * RV * T * math.log(f)
        s_phi = -RHO_W * RV * T / f
        s_theta = s / T
        base = 1 + (8e-8 * s) ** 1.6
        w = 146 * base**-0.375
        w_s = -146 * 0.375 * base**-1.375 * 1.6 * 8e-8 * (8e-8 * s) ** 0.6
        w_theta, w_phi = w_s * s_theta, w_s * s_phi
        if phi > f:
            w, w_phi, w_theta = w + OVER * (phi - f), OVER, 0.0
        P[j, DRIVER], P[j, DRIVER_THETA], P[j, DRIVER_PHI] = s, s_theta, s_phi
    else:
        w, w_phi, w_theta = 0.0, 0.0, 0.0
        if consts[m, STORES] > 0:
            w, w_phi = lookup(tables, m, SORPTION, counts[m, SORPTION], phi)
        if phi > 1:
            w, w_phi = w + OVER * (phi - 1), OVER
        flown, D = 0.0, 0.0
        if consts[m, FLOWS] > 0:
            flown, D = liquid(tables, m, counts[m, LIQUID], w)
        P[j, DRIVER], P[j, DRIVER_THETA], P[j, DRIVER_PHI] = flown, 0.0, D * w_phi
    P[j, WATER], P[j, WATER_THETA], P[j, WATER_PHI] = w, w_theta, w_phi
    P[j, CAPACITY], P[j, PHI], P[j, THETA] = consts[m, RHO_C] + CW * w, phi, theta


@inlined
def transport(m, stuff, P, j):
    """Of cell j, whose state is known, into P: λ, δ, and K of liquid: 1 where any flows, or by suction."""
    consts, tables, counts = stuff
    w, phi, theta = P[j, WATER], P[j, PHI], P[j, THETA]
    if consts[m, KIND] == BENCHMARK:
        u = min(w, 146.0) - 73
        K = -39.2619 + u * (0.0704 + u * (-1.7420e-4 + u * (-2.7953e-6 + u * (-1.1566e-7 + u * 2.5969e-9))))
        dry = 1 - min(w, 146.0) / 146
        P[j, PERMEABILITY] = 26.1e-6 / (200 * RV * (theta + 273.15)) * dry / (0.503 * dry**2 + 0.497)
        P[j, LIQUID_K] = math.exp(K)
    else:
        mu, _ = lookup(tables, m, RESISTANCE, counts[m, RESISTANCE], phi)
        P[j, PERMEABILITY] = air_permeability(theta) / mu
        P[j, LIQUID_K] = 1.0 if consts[m, FLOWS] > 0 else 0.0
    P[j, CONDUCTIVITY] = max(consts[m, LAMBDA] + consts[m, LAMBDA_W] * w + consts[m, LAMBDA_THETA] * (theta - 10), 1e-4)


@compiled
def waters(theta, phi, mat, stuff):
    """w of states, shape (states, n). [kg/m³]"""
    found = np.zeros(theta.shape)
    P = np.zeros((1, COLUMNS))
    for at in range(theta.shape[0]):
        for j in range(theta.shape[1]):
            state(theta[at, j], phi[at, j], mat[j], stuff, P, 0)
            found[at, j] = P[0, WATER]
    return found
