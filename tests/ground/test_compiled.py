"""Loops compiled once on a machine: whoever waits is told."""

import importlib.util

from vivid_anvil.ground.compiled import told_of_compiling


def test_whoever_waits_is_told_once_that_a_loop_is_compiled(tmp_path):
    file = tmp_path / "loops_of_a_test.py"
    file.write_text(
        "from vivid_anvil.ground.compiled import compiled\n\n\n@compiled\ndef twice(x):\n    return 2.0 * x\n"
    )
    spec = importlib.util.spec_from_file_location("loops_of_a_test", file)
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    told = []
    with told_of_compiling(lambda: told.append("compiling")):
        assert module.twice(3.0) == 6.0
        assert told == ["compiling"]
        assert module.twice(4.0) == 8.0
        assert told == ["compiling"]
    assert module.twice(4) == 8.0  # compiled anew for a whole number, and nobody asked
    assert told == ["compiling"]
