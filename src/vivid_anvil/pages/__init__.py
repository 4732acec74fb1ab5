"""Pages to look around in: figures that zoom, turn and answer the pointer, in one HTML file that opens offline."""

from vivid_anvil.ground.extras import needed

for _package in ("plotly", "jinja2", "matplotlib"):
    needed(_package, "interactive page", "pages")

from vivid_anvil.pages.live import Live  # noqa: E402
from vivid_anvil.pages.live_of import live  # noqa: E402
from vivid_anvil.pages.page import checked_place, live_html, page_text, scripts, style, write_page  # noqa: E402

__all__ = ["Live", "checked_place", "live", "live_html", "page_text", "scripts", "style", "write_page"]
