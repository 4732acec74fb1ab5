"""What people look at: figures of any result, by matplotlib."""

from vivid_anvil.figures.plot import plot
from vivid_anvil.figures.style import save_figure

__all__ = ["plot", "save_figure"]
