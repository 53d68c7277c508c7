"""The handbook's first heat scenario by SciPy's stiff solver, for comparison with `--bench heat`.

Needs numpy and scipy. Prints the temperature of the bond's middle at 30, 120 and 600 s and the time a solve takes.
"""
import time

import numpy as np
from scipy.integrate import solve_ivp

CELLS = 10
LAYERS = [  # k, rho, cp, mm
    (1.0, 2480, 800, 0.7), (0.12, 700, 1800, 0.2), (138, 2680, 900, 1.0), (0.026, 1.2, 1006, 0.3), (0.8, 2400, 1000, 4.0),
]
dx = np.concatenate([np.full(CELLS, mm / 1000 / CELLS) for _, _, _, mm in LAYERS])
k = np.concatenate([np.full(CELLS, l[0]) for l in LAYERS])
c = np.concatenate([np.full(CELLS, l[1] * l[2]) for l in LAYERS]) * dx
half = dx / (2 * k)
g = 1 / (half[:-1] + half[1:])
n = len(dx)
A = np.zeros((n, n))
b = np.zeros(n)
for i in range(n - 1):
    A[i, i] -= g[i]; A[i, i + 1] += g[i]; A[i + 1, i + 1] -= g[i]; A[i + 1, i] += g[i]
front, rear = 1 / (3e-4 + half[0]), 1 / (1 / 5 + half[-1])
A[0, 0] -= front; b[0] += front * 85
A[-1, -1] -= rear; b[-1] += rear * 23
A /= c[:, None]; b /= c

def solve():
    return solve_ivp(lambda t, y: A @ y + b, (0, 600), np.full(n, 23.0), method="BDF", jac=A, rtol=1e-4, atol=1e-3,
                     t_eval=[30, 120, 600])

best = min((lambda t0: (solve(), time.perf_counter() - t0)[1])(time.perf_counter()) for _ in range(5))
found = solve()
print("bond, °C at 30, 120, 600 s:", np.round((found.y[CELLS + 4] + found.y[CELLS + 5]) / 2, 2))
print(f"a solve: {best * 1000:.2f} ms")
