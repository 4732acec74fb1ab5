"""Torsion of a rectangle by Prandtl's membrane on a grid."""

import numpy as np
from scipy.sparse import diags, eye, kron
from scipy.sparse.linalg import spsolve


def membrane_shear(width, height, cells=120):
    """Shear per torque in the middle of both sides of a rectangle: Prandtl's membrane on a grid."""
    n, m = cells, round(cells * height / width)
    hx, hy = width / n, height / m

    def second(count, step):
        return diags([1.0, -2.0, 1.0], [-1, 0, 1], shape=(count - 1, count - 1)) / step**2

    grid = kron(eye(m - 1), second(n, hx)) + kron(second(m, hy), eye(n - 1))
    inner = spsolve(grid.tocsc(), np.full((n - 1) * (m - 1), -2.0)).reshape(m - 1, n - 1)
    whole = np.zeros((m + 1, n + 1))
    whole[1:-1, 1:-1] = inner
    torque = 2.0 * whole.sum() * hx * hy
    slope_top = (4.0 * whole[1, n // 2] - whole[2, n // 2]) / (2.0 * hy)
    slope_side = (4.0 * whole[m // 2, 1] - whole[m // 2, 2]) / (2.0 * hx)
    return slope_top / torque, slope_side / torque
