"""Mutated studies, tables, result files and options, from a seed: what an attack is made of.

By hand, for longer: python -m tests.attack.hostile 2000
"""

from __future__ import annotations

import contextlib
import io
import random
import sys
import tempfile
import time
from pathlib import Path

import h5py
import numpy as np
import pandas as pd

from tests.cli.events import EVENTS, HEAD, REST
from tests.study.texts import few_nodes
from vivid_anvil.cli import main
from vivid_anvil.models import write_field_hdf5, write_field_table

FIELDS = Path(__file__).parents[1] / "models" / "data"
SLOWEST = 60.0  # s for one command on these small files
# Values that are put in the place of another, as TOML.
VALUES = (
    '""', '"x"', '"nan MPa"',
    '"1e999 MPa"', '"-5 MPa"', '"5 furlong"', '"MPa"', '"MPa**9**9**9"', "[]", "[[]]", "{}", "true", "nan",
    "inf", "-inf", "-1", "0", "1e308", "9" * 5000, '"' + "a" * 70_000 + '"', '"\\u0000"', '"../../etc/passwd"', '"/dev/zero"',
    "1979-05-27", '"[/b]"', '"$x^2$"', "[1, 2]", '["5 MPa"]', '"=1+1"', '"5 kN"', '"0 Hz"', "3.5", '"lap.csv"', '"few_nodes.csv"',
    "[" * 400 + "]" * 400, '{ unit = "kN", maximum = 3, minimum = "x", cycles = [[1]] }', '"any"', '"toe"', '"steel"',
)  # fmt: skip
OPTIONS = (
    ("--spot", "[left]"), ("--units", "us"), ("--json", "out.json"), ("--csv", "out.csv"), ("--figures", "figures"),
    ("--json", "study.toml"), ("--csv", "lap.csv"), ("--json", "."), ("--csv", "no/such/folder.csv"), ("--spot", ""),
    ("--nonsense",),
    ("--json", "a.json", "--csv", "a.json"), ("--json", "a\udcff.json"),
)  # fmt: skip
COMMANDS = (
    ("check",), ("life",), ("rules",), ("what-if", "load scale", "0.9"), ("solve",), ("grow",), ("inspections",), ("explain",),
    ("model",), ("what-if", "hot_spots/toe/notch_factor", "1..3/3"), ("curve",), ("model", "--node", "2"),
)  # fmt: skip


def prepare(folder: Path) -> None:
    """The files that the commands read."""
    t = np.arange(300) / 20.0
    frame = pd.DataFrame({"time [s]": t, "force [kN]": (5.0 + 4.0 * np.sin(2.0 * t) * np.cos(0.31 * t)).round(4)})
    frame.to_csv(folder / "lap.csv", index=False)
    frame.to_excel(folder / "lap.xlsx", index=False)
    frame.to_parquet(folder / "lap.parquet", index=False)
    np.save(folder / "lap.npy", frame["force [kN]"].to_numpy())
    with h5py.File(folder / "lap.h5", "w") as file:
        file.create_dataset("force", data=frame["force [kN]"].to_numpy()).attrs["unit"] = "kN"
        file.attrs["sample_rate"] = "20 Hz"
    write_field_table(few_nodes(), folder / "few_nodes.csv")
    write_field_table(few_nodes(), folder / "few_nodes.parquet")
    write_field_hdf5(few_nodes(), folder / "few_nodes.h5")
    for name in ("static.frd", "static.inp"):
        (folder / name).write_bytes((FIELDS / name).read_bytes())
    (folder / "study.toml").write_text(HEAD + EVENTS["history"] + REST)


def mutated_text(text: str, rng: random.Random) -> str:
    """A study with one to three lines changed."""
    lines = text.splitlines()
    for _ in range(rng.randint(1, 3)):
        at = rng.randrange(len(lines))
        key, sign, _ = lines[at].partition(" = ")
        kind = rng.random()
        if kind < 0.6 and sign:
            lines[at] = f"{key} = {rng.choice(VALUES)}"
        elif kind < 0.75:
            del lines[at]
        elif kind < 0.85:
            lines.insert(at, rng.choice(lines))
        elif sign:
            lines[at] = f"{key}{rng.choice('xs_')} = 1"
    return "\n".join(lines) + "\n"


def mutated_bytes(data: bytes, rng: random.Random) -> bytes:
    """A file cut short, with bytes changed, put in, or taken out."""
    found = bytearray(data)
    for _ in range(rng.randint(1, 4)):
        at = rng.randrange(max(len(found), 1))
        kind = rng.random()
        if kind < 0.2:
            del found[at:]
        elif kind < 0.6 and found:
            found[at] = rng.randrange(256)
        elif kind < 0.8:
            found[at:at] = rng.choice((b"\x00", b"9" * 400, b",", b"\n", b"nan", b"-1 ", b"1e999", bytes([255] * 8)))
        else:
            del found[at : at + rng.randint(1, 40)]
    return bytes(found)


def attack(seed: int, folder: Path) -> list[str]:
    """One command on mutated input: what is wrong with the way it ended, nothing where it is right."""
    rng = random.Random(seed)
    prepare(folder)
    if rng.random() < 0.6:
        text = HEAD + rng.choice(list(EVENTS.values())) + REST
        (folder / "study.toml").write_text(mutated_text(text, rng), errors="surrogateescape")
        arguments = [*rng.choice(COMMANDS)]
        arguments.insert(1, "study.toml")
        for _ in range(rng.randint(0, 2)):
            arguments += rng.choice(OPTIONS)
    else:
        name = rng.choice(
            ["lap.csv", "lap.xlsx", "lap.parquet", "lap.npy", "lap.h5", "few_nodes.csv", "few_nodes.parquet", "few_nodes.h5",
             "static.frd", "static.inp"]
        )  # fmt: skip
        (folder / name).write_bytes(mutated_bytes((folder / name).read_bytes(), rng))
        if name.startswith("lap"):
            arguments = ["count", name, *(["--read", "unit=kN", "--rate", "20 Hz"] if name.endswith("npy") else [])]
            arguments += rng.choice(
                ((), ("--json", name), ("--matrix", "from-to", "--classes", "5"), ("--chunked", "--channel", "force"))
            )
        else:
            keys = f'stresses = "{"static.frd" if name.startswith("static") else name}"'
            if name.startswith("static"):
                keys += '\nstress_unit = "MPa"\nlength_unit = "mm"\ncases = ["pull"]\nsets_from = "static.inp"'
            text = (folder / "study.toml").read_text().replace('stresses = "few_nodes.csv"', keys)
            (folder / "study.toml").write_text(text)
            arguments = ["model", "study.toml"]
    return ended_badly(arguments, folder)


def ended_badly(arguments: list[str], folder: Path) -> list[str]:
    """Run a command there: a traceback, an exit code but 0 and 2, bad input without a sentence, or a long wait."""
    before, was = Path.cwd(), sys.argv
    out, err = io.StringIO(), io.StringIO()
    start = time.monotonic()
    faults = []
    code: object = 0
    import os

    os.chdir(folder)
    sys.argv = ["vivid-anvil", *arguments]
    try:
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            main()
    except SystemExit as ended:
        code = ended.code or 0
    except BaseException as error:
        faults.append(f"{type(error).__name__}: {str(error)[:300]}")
    finally:
        os.chdir(before)
        sys.argv = was
    if code not in (0, 2):
        faults.append(f"exit code {code}")
    if code == 2 and not err.getvalue().strip():
        faults.append("exit code 2 without a sentence")
    if len(err.getvalue()) > 6000:
        faults.append(f"a message of {len(err.getvalue())} characters")
    if time.monotonic() - start > SLOWEST:
        faults.append("longer than the work needs")
    left = [path.name for path in folder.iterdir() if path.name.startswith(".")]
    if left:
        faults.append(f"left behind: {left}")
    return [f"{' '.join(arguments)[:200]}: {fault}" for fault in faults]


if __name__ == "__main__":
    first, many = (int(one) for one in (*sys.argv[1:], "0", "300")[:2]) if len(sys.argv) > 2 else (0, int(sys.argv[1]))
    for seed in range(first, first + many):
        with tempfile.TemporaryDirectory() as place:
            for fault in attack(seed, Path(place)):
                print(seed, fault, flush=True)
