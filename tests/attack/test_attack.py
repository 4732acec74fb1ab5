"""Hostile input ends in one sentence and exit code 2, or is done: never in a traceback, a hang or half a file."""

import pytest

from tests.attack.hostile import attack

pytestmark = pytest.mark.slow


@pytest.mark.parametrize("first", range(0, 120, 10))
def test_mutated_input_is_told_in_a_sentence(first, tmp_path):
    for seed in range(first, first + 10):
        folder = tmp_path / str(seed)
        folder.mkdir()
        assert attack(seed, folder) == [], f"seed {seed}"
