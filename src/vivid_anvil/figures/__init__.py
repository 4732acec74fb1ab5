"""What people look at: figures of any result, by matplotlib."""

from vivid_anvil.figures.plot import plot
from vivid_anvil.figures.style import draw_into, save_figure

__all__ = ["draw_into", "plot", "save_figure"]
