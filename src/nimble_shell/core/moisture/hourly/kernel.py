"""The compiled heart of the hourly calculation: coupled heat and moisture on a row of cells (EN 15026).

Every cell has a temperature θ and a relative humidity φ in its middle. A step is two implicit stages of the second
order (γ = 1 − 1/√2, L-stable), each solved by Newton's method on 2 × 2 blocks; what is stored is w(φ) itself, so that
mass is kept to the rounding of the solution. The step's error is the difference of the stages, seen through the
matrix of the last one, so that what follows the boundary at once does not count as error.
"""

from __future__ import annotations

import math

import numpy as np

from nimble_shell.core.moisture.hourly.cell_state import (
    BENCHMARK,
    CAPACITY,
    COLUMNS,
    CONDUCTIVITY,
    CW,
    DRIVER,
    DRIVER_PHI,
    DRIVER_THETA,
    KIND,
    LATENT,
    LIQUID_K,
    PERMEABILITY,
    PHI,
    PRESSURE,
    PRESSURE_PHI,
    PRESSURE_THETA,
    RV,
    TABLE,
    THETA,
    WATER,
    WATER_PHI,
    WATER_THETA,
    compiled,
    inlined,
    saturation,
    state,
    transport,
)  # fmt: skip

RHO_C_AIR = 1.2 * 1006.0  #: of air [J/(m³·K)]
ROOM = 0.01  #: below φ = 1, over which the uptake of rain ends
LEAST_PHI = 1e-4
GAMMA = 1 - 1 / math.sqrt(2)
MOST_NEWTON = 14
NEAR = 1e-5  #: change of φ, and of θ in tens of kelvin, that a solved stage may still be from its answer
STEEP = 200.0  #: ∂w/∂φ over which a change of w counts by itself [kg/m³]

#: Columns of a face's conductances: vapour, heat, liquid by its driver, liquid by φ.
BY_VAPOUR, BY_HEAT, BY_DRIVER, BY_PHI = range(4)
#: Places of what entered: moisture and heat from inside, from outside, and otherwise.
MOISTURE_IN, HEAT_IN, MOISTURE_OUT, HEAT_OUT, MOISTURE_ELSE, HEAT_ELSE = range(6)
#: Columns of the boundaries of an hour.
TH_E, P_E, TH_I, P_I, TH_AIR, LEAK_G, LEAK_P, RAIN = range(8)
#: Columns of films: heat [W/(m²·K)], vapour [kg/(m²·s·Pa)]; 0 where values of the surface are prescribed.
H_I, B_I, H_E, B_E = range(4)


@compiled
def conduct(row, stuff, P, C):
    """Conductances of faces into C, shape (n + 1, 4): vapour, heat, liquid by s, liquid by φ.

    Face j lies before cell j. Liquid follows s in one material and φ from one to the next.
    """
    dx, mat, _, films, _ = row
    n = len(dx)
    for j in range(n):
        transport(mat[j], stuff, P, j)
    for j in range(1, n):
        i, da, db = j - 1, dx[j - 1], dx[j]
        C[j, BY_VAPOUR] = (
            2 * P[i, PERMEABILITY] * P[j, PERMEABILITY] / (da * P[j, PERMEABILITY] + db * P[i, PERMEABILITY])
        )
        C[j, BY_HEAT] = (
            2 * P[i, CONDUCTIVITY] * P[j, CONDUCTIVITY] / (da * P[j, CONDUCTIVITY] + db * P[i, CONDUCTIVITY])
        )
        C[j, BY_DRIVER], C[j, BY_PHI] = 0.0, 0.0
        if P[i, LIQUID_K] > 0 and P[j, LIQUID_K] > 0:
            if mat[i] == mat[j]:
                C[j, BY_DRIVER] = (P[i, LIQUID_K] + P[j, LIQUID_K]) / (da + db)
                if stuff[0][mat[j], KIND] == BENCHMARK:
                    C[j, BY_DRIVER] *= -1.0  # suction draws towards where it is higher
            elif stuff[0][mat[i], KIND] == TABLE and stuff[0][mat[j], KIND] == TABLE:
                Ka, Kb = P[i, LIQUID_K] * P[i, DRIVER_PHI], P[j, LIQUID_K] * P[j, DRIVER_PHI]
                if Ka > 0 and Kb > 0:
                    C[j, BY_PHI] = 2 * Ka * Kb / (da * Kb + db * Ka)
    for edge in range(2):
        j = 0 if edge == 0 else n - 1
        h, beta = (films[H_I], films[B_I]) if edge == 0 else (films[H_E], films[B_E])
        Gv, Gh = 2 * P[j, PERMEABILITY] / dx[j], 2 * P[j, CONDUCTIVITY] / dx[j]
        face = 0 if edge == 0 else n
        C[face, BY_VAPOUR] = Gv if h == 0 else Gv * beta / (Gv + beta)
        C[face, BY_HEAT] = Gh if h == 0 else Gh * h / (Gh + h)
        C[face, BY_DRIVER], C[face, BY_PHI] = 0.0, 0.0


@inlined
def between(j, P, C, F, L, D, U):
    """What flows between cells j − 1 and j, and its slopes by both."""
    i = j - 1
    Gv, Gh, Ks, Kf = C[j, BY_VAPOUR], C[j, BY_HEAT], C[j, BY_DRIVER], C[j, BY_PHI]
    gv = Gv * (P[i, PRESSURE] - P[j, PRESSURE])
    g = gv + Ks * (P[i, DRIVER] - P[j, DRIVER]) + Kf * (P[i, PHI] - P[j, PHI])
    q = LATENT * gv + Gh * (P[i, THETA] - P[j, THETA])
    F[i, 0] -= g
    F[j, 0] += g
    F[i, 1] -= q
    F[j, 1] += q
    by_theta, by_phi = Gv * P[i, PRESSURE_THETA], Gv * P[i, PRESSURE_PHI]
    L[j, 0, 0], L[j, 0, 1] = by_theta + Ks * P[i, DRIVER_THETA], by_phi + Ks * P[i, DRIVER_PHI] + Kf
    L[j, 1, 0], L[j, 1, 1] = LATENT * by_theta + Gh, LATENT * by_phi
    by_theta, by_phi = Gv * P[j, PRESSURE_THETA], Gv * P[j, PRESSURE_PHI]
    U[i, 0, 0], U[i, 0, 1] = by_theta + Ks * P[j, DRIVER_THETA], by_phi + Ks * P[j, DRIVER_PHI] + Kf
    U[i, 1, 0], U[i, 1, 1] = LATENT * by_theta + Gh, LATENT * by_phi
    for m in range(2):
        for k in range(2):
            D[i, m, k] -= L[j, m, k]
            D[j, m, k] -= U[i, m, k]


@inlined
def yields(j, Gv, Gh, P, D):
    """Slopes of what cell j gives to a boundary of its own by vapour and heat."""
    for k in range(2):
        D[j, 0, k] -= Gv * P[j, PRESSURE_THETA + k]
        D[j, 1, k] -= LATENT * Gv * P[j, PRESSURE_THETA + k]
    D[j, 1, 0] -= Gh


@inlined
def takes(j, g, q, F, entered):
    """Moisture and heat that come into cell j otherwise than through the faces."""
    F[j, 0] += g
    F[j, 1] += q
    entered[MOISTURE_ELSE] += g
    entered[HEAT_ELSE] += q


@compiled
def fluxes(phi, row, stuff, bounds, work):
    """What flows into every cell, and the blocks of its slopes, into `work`.

    Parameters
    ----------
    row : tuple
        Of the cells: dx [m], material, air exchanged with outside [m³/(m²·s)]; films; cell that a leak reaches, or −1.
    stuff : tuple
        Constants, tables and their lengths.
    bounds : array
        Boundaries of the hour.
    work : tuple
        Properties P (n, 15); conductances C; flows F (n, 2), moisture and heat; blocks L, D, U (n, 2, 2) by θ and φ.

    Returns
    -------
    array
        Moisture and heat from inside, from outside, and by exchange, leak and rain together.
    """
    dx, mat, vent, films, leak_cell = row
    P, C, F, L, D, U = work
    n = len(dx)
    entered = np.zeros(6)
    D[:], F[:] = 0.0, 0.0
    for j in range(1, n):
        between(j, P, C, F, L, D, U)
    for edge in range(2):
        j, face = (0, 0) if edge == 0 else (n - 1, n)
        theta_a, p_a = (bounds[TH_I], bounds[P_I]) if edge == 0 else (bounds[TH_E], bounds[P_E])
        Gv, Gh = C[face, BY_VAPOUR], C[face, BY_HEAT]
        g = Gv * (p_a - P[j, PRESSURE])
        q = LATENT * g + Gh * (theta_a - P[j, THETA])
        yields(j, Gv, Gh, P, D)
        if (films[H_I] if edge == 0 else films[H_E]) == 0:
            g += liquid_from_surface(P[j], dx[j], theta_a, p_a, mat[j], stuff, D[j])
        F[j, 0] += g
        F[j, 1] += q
        entered[2 * edge], entered[2 * edge + 1] = g, q
    for j in range(n):
        if vent[j] > 0:
            Gv = vent[j] / (RV * (bounds[TH_AIR] + 273.15))
            Gh = vent[j] * RHO_C_AIR
            g = Gv * (bounds[P_E] - P[j, PRESSURE])
            q = Gh * (bounds[TH_AIR] - P[j, THETA]) + LATENT * g
            takes(j, g, q, F, entered)
            yields(j, Gv, Gh, P, D)
    if leak_cell >= 0:
        g = bounds[LEAK_G] * (bounds[LEAK_P] - P[leak_cell, PRESSURE])
        takes(leak_cell, g, LATENT * g, F, entered)
        yields(leak_cell, bounds[LEAK_G], 0.0, P, D)
    if bounds[RAIN] > 0:  # a surface takes up less as it fills, and lets the rest run off
        room = (1 - phi[n - 1]) / ROOM
        takes(n - 1, bounds[RAIN] * min(max(room, 0.0), 1.0), 0.0, F, entered)
        if 0 < room < 1:
            D[n - 1, 0, 1] -= bounds[RAIN] / ROOM
    return entered


@compiled
def liquid_from_surface(cell, d, theta_a, p_a, m, stuff, D):
    """Liquid from a surface of prescribed state into its cell; what it changes by the cell is added to D."""
    if cell[LIQUID_K] <= 0:
        return 0.0
    S = np.zeros((1, COLUMNS))
    ps, _ = saturation(theta_a)
    state(theta_a, min(p_a / ps, 1.0), m, stuff, S, 0)
    transport(m, stuff, S, 0)
    K = (S[0, LIQUID_K] + cell[LIQUID_K]) / d
    if stuff[0][m, KIND] == BENCHMARK:
        K = -K
    D[0, 0] -= K * cell[DRIVER_THETA]
    D[0, 1] -= K * cell[DRIVER_PHI]
    return K * (S[0, DRIVER] - cell[DRIVER])


@compiled
def solve_blocks(L, D, U, r, x, solved):
    """Block tridiagonal system with blocks of two; `solved` has room for D⁻¹U and D⁻¹r of every row."""
    DU, Dr = solved
    n = len(r)
    for j in range(n):
        d00, d01, d10, d11 = D[j, 0, 0], D[j, 0, 1], D[j, 1, 0], D[j, 1, 1]
        r0, r1 = r[j, 0], r[j, 1]
        if j > 0:
            l00, l01, l10, l11 = L[j, 0, 0], L[j, 0, 1], L[j, 1, 0], L[j, 1, 1]
            d00 -= l00 * DU[j - 1, 0, 0] + l01 * DU[j - 1, 1, 0]
            d01 -= l00 * DU[j - 1, 0, 1] + l01 * DU[j - 1, 1, 1]
            d10 -= l10 * DU[j - 1, 0, 0] + l11 * DU[j - 1, 1, 0]
            d11 -= l10 * DU[j - 1, 0, 1] + l11 * DU[j - 1, 1, 1]
            r0 -= l00 * Dr[j - 1, 0] + l01 * Dr[j - 1, 1]
            r1 -= l10 * Dr[j - 1, 0] + l11 * Dr[j - 1, 1]
        det = d00 * d11 - d01 * d10
        for b in range(2):
            u0, u1 = U[j, 0, b], U[j, 1, b]
            DU[j, 0, b] = (d11 * u0 - d01 * u1) / det
            DU[j, 1, b] = (d00 * u1 - d10 * u0) / det
        Dr[j, 0] = (d11 * r0 - d01 * r1) / det
        Dr[j, 1] = (d00 * r1 - d10 * r0) / det
    x[n - 1, 0], x[n - 1, 1] = Dr[n - 1, 0], Dr[n - 1, 1]
    for j in range(n - 2, -1, -1):
        for a in range(2):
            x[j, a] = Dr[j, a] - DU[j, a, 0] * x[j + 1, 0] - DU[j, a, 1] * x[j + 1, 1]


@compiled
def stage(theta, phi, warm, stock, gone, gain, row, stuff, bounds, work, used, A, r, x, solved):
    """Solve one implicit stage in place: w·dx = stock·dx + gone + gain·F(θ, φ), the same for heat.

    `gone` are shares of the flows of the stage before, shape (n, 2); A, shape (n, 2, 2), is left as the last matrix.
    `used` tells whether `work` has conductances from a stage before. Returns whether it converged, and what enters.
    """
    dx, mat = row[0], row[1]
    P, C, F, L, D, U = work
    entered = np.zeros(6)
    before = 1e300
    for step in range(MOST_NEWTON):
        for j in range(len(dx)):
            state(theta[j], phi[j], mat[j], stuff, P, j)
        if step == 1 or not used:  # else those of the stage before, and from the second iteration on they stand still
            conduct(row, stuff, P, C)
            used = True
        entered = fluxes(phi, row, stuff, bounds, work)
        for j in range(len(dx)):
            r[j, 0] = -((P[j, WATER] - stock[j]) * dx[j] - gone[j, 0] - gain * F[j, 0])
            r[j, 1] = -(P[j, CAPACITY] * (theta[j] - warm[j]) * dx[j] - gone[j, 1] - gain * F[j, 1])
            for a in range(2):
                for b in range(2):
                    A[j, a, b] = -gain * D[j, a, b]
                    L[j, a, b] *= -gain
                    U[j, a, b] *= -gain
            A[j, 0, 0] += P[j, WATER_THETA] * dx[j]
            A[j, 0, 1] += P[j, WATER_PHI] * dx[j]
            A[j, 1, 0] += P[j, CAPACITY] * dx[j]
            A[j, 1, 1] += CW * P[j, WATER_PHI] * (theta[j] - warm[j]) * dx[j]
        solve_blocks(L, A, U, r, x, solved)
        largest, crossed = 0.0, False
        for j in range(len(dx)):
            dt, df = x[j, 0], x[j, 1]
            if not (math.isfinite(dt) and math.isfinite(df)):
                return False, entered
            now = phi[j] + df
            if (phi[j] < 1 and now > 1) or (phi[j] > 1 and now < 1):
                now = 1.0 + (1e-9 if phi[j] < 1 else -1e-9)  # the kink is not jumped over
                crossed = True
            theta[j] += min(max(dt, -20.0), 20.0)
            now = min(max(now, LEAST_PHI, phi[j] * 0.2), 1.5)
            df, phi[j] = now - phi[j], now
            largest = max(largest, abs(dt) / 10, abs(df), abs(P[j, WATER_PHI] * df) / STEEP)
        # what further iterations would still change, by the ratio of the last two
        if step > 0 and not crossed and (largest < 0.1 * NEAR or largest * largest < NEAR * (before - largest)):
            return True, entered
        if step > 8 and largest > before:
            return False, entered
        before = largest
    return False, entered


@compiled
def error_of(phi, L, A, U, F, F_1, gain, r, x, solved):
    """Error of a step by the difference of its stages, in kelvin and in 0.05 of φ."""
    for j in range(len(phi)):
        for a in range(2):
            r[j, a] = gain * (F[j, a] - F_1[j, a])
    solve_blocks(L, A, U, r, x, solved)
    error = 0.0
    for j in range(len(phi)):
        wet = 0.02 if phi[j] > 0.999 else 1.0  # at saturation the stock moves, not φ
        error = max(error, abs(x[j, 0]), wet * abs(x[j, 1]) / 0.05)
    return error


@inlined
def put(here, values):
    """A copy in place; to assign to a slice compiles what a refusal of other shapes would say, for seconds."""
    for j in range(len(here)):
        here[j] = values[j]


@compiled
def advance(theta, phi, warm, stock, row, stuff, hours, first, tolerance, dt, layer, totals, sums, keep, kept):
    """Go through hours from `first` in place, one for each row of `totals`; `hours` are repeated as they end.

    Parameters
    ----------
    warm, stock : array, shape (n,)
        Temperature [°C] and water [kg/m³] by the sums of flows, from which every step begins; θ and φ follow them to
        the accuracy of a stage.
    row, stuff : tuple
        As in `fluxes`.
    hours : array, shape (hours, 8)
        Boundaries.
    dt : float
        Step to begin with. [s]
    layer : array of int, shape (n,)
        Layer of each cell.
    totals : array, shape (count, layers)
        Filled with the moisture of each layer at the end of each hour. [kg/m²]
    sums : array, shape (7,)
        What came in is added here: from inside, outside, and otherwise, moisture [kg/m²] and heat [J/m²] each; and
        what the cells gained in heat [J/m²].
    keep : array of bool, shape (count,)
        Hours at whose end the state is kept.
    kept : array, shape (kept hours, 2, n)

    Returns
    -------
    dt, steps, hours done
        Fewer hours than asked for if a step of a second fails.
    """
    dx = row[0]
    n = len(dx)
    L, D, U, A = np.zeros((n, 2, 2)), np.zeros((n, 2, 2)), np.zeros((n, 2, 2)), np.zeros((n, 2, 2))
    F, F_1, r, x, gone = np.zeros((n, 2)), np.zeros((n, 2)), np.zeros((n, 2)), np.zeros((n, 2)), np.zeros((n, 2))
    work = (np.zeros((n, COLUMNS)), np.zeros((n + 1, 4)), F, L, D, U)
    solved = (np.zeros((n, 2, 2)), np.zeros((n, 2)))
    theta_0, phi_0 = theta.copy(), phi.copy()
    steps, place, used = 0, 0, np.bool_(False)  # a plain False is a type of its own, and `stage` compiled twice
    for done in range(len(totals)):
        bounds = hours[(first + done) % len(hours)]
        left = 3600.0
        while left > 1e-9:
            step = min(dt, left)
            if left - step < 0.1 * step:
                step = left
            put(theta_0, theta)
            put(phi_0, phi)
            gone[:] = 0.0
            gain = GAMMA * step
            good, in_1 = stage(theta, phi, warm, stock, gone, gain, row, stuff, bounds, work, used, A, r, x, solved)
            error, in_2 = 0.0, in_1
            used = good
            if good:
                for j in range(n):
                    for a in range(2):
                        F_1[j, a] = F[j, a]
                        gone[j, a] = (1 - GAMMA) * step * F[j, a]
                good, in_2 = stage(theta, phi, warm, stock, gone, gain, row, stuff, bounds, work, used, A, r, x, solved)
            if good:
                error = error_of(phi, L, A, U, F, F_1, gain, r, x, solved) / tolerance
            if not good or (not error <= 1 and step > 60):
                put(theta, theta_0)
                put(phi, phi_0)
                dt = step * (0.25 if not good else max(0.2, 0.9 / math.sqrt(error)))
                if not dt >= 1:
                    return dt, steps, done
                continue
            for j in range(n):
                stock[j] += (gone[j, 0] + gain * F[j, 0]) / dx[j]
                rise = (gone[j, 1] + gain * F[j, 1]) / (work[0][j, CAPACITY] * dx[j])
                warm[j] += rise
                sums[6] += work[0][j, CAPACITY] * rise * dx[j]
            for a in range(6):
                sums[a] += step * ((1 - GAMMA) * in_1[a] + GAMMA * in_2[a])
            steps += 1
            left -= step
            grown = step * min(5.0, 0.9 / math.sqrt(max(error, 1e-6)))
            dt = max(grown, dt) if step < dt and error <= 1 else grown
        for j in range(n):
            totals[done, layer[j]] += stock[j] * dx[j]
        if keep[done]:
            put(kept[place, 0], theta)
            put(kept[place, 1], phi)
            place += 1
    return dt, steps, len(totals)
