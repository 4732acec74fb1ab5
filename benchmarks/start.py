"""How fast it answers: help against what it is made with, and the import of the package against that of NumPy, in turn.

python benchmarks/start.py [runs]
"""

from __future__ import annotations

import statistics
import subprocess
import sys
import time

PAIRS = {
    "help over typer alone": (["-m", "vivid_anvil", "--help"], ["-c", "import typer, typer.rich_utils"]),
    "numpy and the package over numpy alone": (["-c", "import numpy, vivid_anvil"], ["-c", "import numpy"]),
}


def seconds(arguments: list[str]) -> float:
    """Wall time of a whole process."""
    start = time.perf_counter()
    subprocess.run([sys.executable, *arguments], check=True, stdout=subprocess.DEVNULL)
    return time.perf_counter() - start


def main() -> None:
    """Medians of both, their ratio and difference."""
    runs = int(sys.argv[1]) if len(sys.argv) > 1 else 15
    for words, (ours, theirs) in PAIRS.items():
        times = [(seconds(ours), seconds(theirs)) for _ in range(runs + 1)][1:]  # the first fills caches
        a, b = (statistics.median(column) for column in zip(*times, strict=True))
        print(f"{words}: {a:.3f} s over {b:.3f} s, {a / b:.2f} times, {a - b:+.3f} s")


if __name__ == "__main__":
    main()
