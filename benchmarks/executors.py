"""What it costs to share the nodes of a model: the same run on one thread, threads, processes and a cluster of this machine.

python benchmarks/executors.py [nodes] [samples]

Needs the extra "cluster". Starting the workers is not counted; sending stresses and results is.
"""

from __future__ import annotations

import sys
import time
from concurrent.futures import Executor, ProcessPoolExecutor, ThreadPoolExecutor

from distributed import Client, LocalCluster
from whole_model import SPOT, model

from vivid_anvil.fields import assess_model

WORKERS = 2


def main(nodes: int, samples: int) -> None:
    field, loads, duty = model(nodes, samples)

    def seconds(executor: Executor | None) -> float:
        took = []
        for _ in range(4):  # in the first the workers start
            start = time.perf_counter()
            assess_model(field, loads, duty, SPOT, executor=executor, skip_harmless="no")
            took.append(time.perf_counter() - start)
        return min(took)

    alone = seconds(None)
    print(f"{nodes} nodes, {samples} samples, {WORKERS} workers")
    print(f"{'one after the other':<24}{alone:8.2f} s")
    with ThreadPoolExecutor(WORKERS) as threads:
        shared = {"threads": seconds(threads)}
    with ProcessPoolExecutor(WORKERS) as processes:
        shared["processes"] = seconds(processes)
    settings = {"n_workers": WORKERS, "threads_per_worker": 1, "dashboard_address": None}
    with LocalCluster(**settings) as cluster, Client(cluster) as client:  # type: ignore[no-untyped-call]
        shared["cluster"] = seconds(client.get_executor())
    for name, took in shared.items():
        print(f"{name:<24}{took:8.2f} s{alone / took:8.2f} times as fast")


if __name__ == "__main__":
    main(*(int(float(one)) for one in (sys.argv[1:] or (20_000, 5_000))))
