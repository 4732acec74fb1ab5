"""Workers on other machines: a local cluster of two processes stands for them."""

import os
import signal

import pytest

from tests.fields.models import LOADS, duty_of, field_of, spot
from vivid_anvil.fields import assess_model

distributed = pytest.importorskip("distributed")
pytestmark = pytest.mark.filterwarnings("ignore")
NAMES = ("damage", "worst_event", "lowest", "highest", "counted")


@pytest.fixture(scope="module")
def cluster():
    settings = {"n_workers": 2, "threads_per_worker": 1, "processes": True, "dashboard_address": None}
    with distributed.LocalCluster(**settings) as workers, distributed.Client(workers) as client:
        yield client


def same(one, other):
    return all((getattr(one.values, name) == getattr(other.values, name)).all() for name in NAMES)


@pytest.mark.slow
def test_a_cluster_gives_the_same_and_a_killed_worker_loses_nothing(cluster):
    field, duty = field_of(600), duty_of(2000)
    alone = assess_model(field, LOADS, duty, spot())
    before = cluster.run(os.getpid)
    killed = []

    def kill_one(_label, done, _of):
        if not killed and done >= 50:
            killed.append(next(iter(before.values())))
            os.kill(killed[0], signal.SIGKILL)

    found = assess_model(field, LOADS, duty, spot(), executor=cluster.get_executor(), chunk=10, watch=kill_one)
    assert same(alone, found)
    assert len(killed) == 1
    cluster.wait_for_workers(2, timeout=60)
    assert killed[0] not in cluster.run(os.getpid).values()


@pytest.mark.slow
def test_the_command_takes_a_running_scheduler(cluster, run, demo_file, tmp_path):
    asked = ("model", demo_file.parent / "hanger_head.toml", "--most", 3)
    code, out, err = run(*asked, "--cluster", cluster.scheduler_info()["address"], "--keep", tmp_path / "kept")
    assert code == 0, err
    assert out == run(*asked, "--keep", tmp_path / "kept")[1]  # the second from what was kept
    assert len(list((tmp_path / "kept").iterdir())) == 4
