"""The demo: a study of the Larkfell chairlift with its data, ready to be written into a folder."""

from vivid_anvil.demo.write_demo import write_demo

__all__ = ["write_demo"]
