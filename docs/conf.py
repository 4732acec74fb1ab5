"""The documents as a site: `python -m sphinx -W -b html docs build/site` writes it, with all pages that come from the code."""

import os
import sys
from pathlib import Path

HERE = Path(__file__).parent
sys.path.insert(0, str(HERE))
os.environ.setdefault("COLUMNS", "80")

from writers import write_pages

from vivid_anvil import __version__

project = "Vivid Anvil"
author = "The Vivid Anvil developers"
copyright = author
version = release = __version__

extensions = ["myst_nb", "numpydoc", "sphinx.ext.autodoc"]
exclude_patterns = ["conf.py", "make_screenshots.py", "writers/**", "**/__pycache__"]
nitpicky = True
default_role = "code"

html_theme = "furo"
html_title = f"Vivid Anvil {version}"
html_static_path = ["style"]
html_css_files = ["site.css"]
html_show_sphinx = False
html_copy_source = False

myst_enable_extensions = ["colon_fence", "deflist", "attrs_inline"]
myst_heading_anchors = 3
nb_custom_formats = {".py": ["jupytext.reads", {"fmt": "py:percent"}]}
nb_execution_mode = "force"
nb_execution_in_temp = True
nb_execution_raise_on_error = True
nb_execution_timeout = 600

autodoc_typehints = "none"
autodoc_member_order = "bysource"
numpydoc_show_class_members = False
numpydoc_class_members_toctree = False


def setup(app):
    """Pages that come from the code are written before anything is read."""
    app.connect("config-inited", lambda *_: write_pages(HERE / "made"))
