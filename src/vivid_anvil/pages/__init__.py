"""Pages to look around in: figures that zoom, turn and answer the pointer, in one HTML file that opens offline."""

from vivid_anvil.pages.live import Live
from vivid_anvil.pages.live_of import live
from vivid_anvil.pages.page import checked_place, live_html, page_text, scripts, style, write_page

__all__ = ["Live", "checked_place", "live", "live_html", "page_text", "scripts", "style", "write_page"]
