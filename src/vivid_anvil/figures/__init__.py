"""What people look at: figures of any result, by matplotlib."""

from vivid_anvil.ground.extras import needed

needed("matplotlib", "a figure")

from vivid_anvil.figures.plot import plot  # noqa: E402
from vivid_anvil.figures.style import draw_into, save_figure  # noqa: E402

__all__ = ["draw_into", "plot", "save_figure"]
