"""Shared by the tests: the demo, read and run once; hypothesis without deadlines (first calls compile)."""

import sys

import pytest
from hypothesis import HealthCheck, settings

from tests.cli.events import written  # noqa: F401
from tests.study.texts import study  # noqa: F401
from vivid_anvil.cli import main
from vivid_anvil.demo import write_demo
from vivid_anvil.study import read_study, run_study

collect_ignore_glob = ["extending/toy_*.py"]  # what they add stands in the tables while their own tests run only
settings.register_profile("anvil", deadline=None, max_examples=60, suppress_health_check=[HealthCheck.too_slow])
settings.register_profile("quick", settings.get_profile("anvil"), max_examples=15)


def pytest_configure(config):
    """Fewer examples where only the quick tests are asked for."""
    settings.load_profile("quick" if config.option.markexpr == "not slow" else "anvil")


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory):
    """The demo study in a folder of its own; not to be changed."""
    return write_demo(tmp_path_factory.mktemp("larkfell"))


@pytest.fixture(scope="session")
def demo_result(demo_file):
    return run_study(read_study(demo_file))


@pytest.fixture
def run(monkeypatch, capsys):
    """A function: run the command in this process; exit code, output, errors."""

    def call(*arguments):
        monkeypatch.setattr(sys, "argv", ["vivid-anvil", *map(str, arguments)])
        with pytest.raises(SystemExit) as ended:
            main()
        printed = capsys.readouterr()
        return ended.value.code or 0, printed.out, printed.err

    return call
