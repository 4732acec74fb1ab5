"""Sets of nodes and elements from beside the stresses: out of the solver's input deck, or a table of numbers and names."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator, Mapping
from pathlib import Path

import numpy as np

from vivid_anvil.ground.checks import IntArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.ground.files import existing
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.units import opened
from vivid_anvil.writing.read_table import column_numbers, read_frame

Members = dict[str, list[int]]
SUPPORTS = "supports"  # the nodes that a deck holds, as a set


@opened()
def with_sets(field: StressField, path: str | Path) -> StressField:
    r"""The field with the sets of a CalculiX input deck (`.inp`), or of a table with columns `node` or `element`, and `set`.

    Names of a deck count in capitals and small letters alike and are kept as written. A set of elements also gives the set of
    their nodes; nodes under `*BOUNDARY` are the set "supports". Nodes without stress are left out.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    path : str or path
        The file.

    Returns
    -------
    StressField
        The field with more sets.

    Raises
    ------
    InputError
        For a set that the field has already, and for one that is left without nodes.

    Examples
    --------
    >>> from pathlib import Path
    >>> _ = Path("sets.csv").write_text("node,set\n1,bore\n2,bore\n")
    >>> sorted(with_sets(field, "sets.csv").node_sets)  # field of the demo
    ['bore']
    """
    file = existing(path, "a file of sets")
    of_deck = file.suffix.lower() == ".inp"
    nodes, elements = _deck(file) if of_deck else _table(file)
    corners = _corners(file) if of_deck and elements and not field.elements else {}
    node_sets, element_sets = dict(field.node_sets), dict(field.element_sets)
    for name, ids in elements.items():
        if name in element_sets:
            raise InputError(f"{file.name}, set {name}", "a set of elements that is there already", "another name")
        element_sets[name] = np.unique(np.array(ids, dtype=np.int64))
    added = {name: np.flatnonzero(np.isin(field.node_ids, ids)) for name, ids in nodes.items()}
    for name in elements:
        added.setdefault(name, _nodes_there(field, element_sets[name], corners))
    for name, places in added.items():
        if name in node_sets:
            raise InputError(f"{file.name}, set {name}", "a set of nodes that is there already", "another name")
        if not places.size:
            raise InputError(f"{file.name}, set {name}", f"no node of {field.source}", "numbers of nodes with stress")
        node_sets[name] = places
    return dataclasses.replace(field, node_sets=node_sets, element_sets=element_sets)


def _nodes_there(field: StressField, ids: IntArray, corners: Members) -> IntArray:
    """Places of the nodes of elements: by the field's own elements or stresses, else by the `corners` of the deck."""
    if field.elements:
        return nodes_of_elements(field, ids)
    if field.rows is not None and field.rows.elements is not None:
        return np.unique(field.rows.nodes[np.isin(field.rows.elements, ids)])
    numbers = [node for element in ids.tolist() for node in corners.get(str(element), [])]
    return np.flatnonzero(np.isin(field.node_ids, numbers))


def _corners(path: Path) -> Members:
    """The nodes of each element of a deck, by the number of the element as text."""
    corners: Members = {}
    card, element = "", ""
    for line in path.read_text(encoding="utf-8", errors="replace").splitlines():
        text = line.strip()
        if not text or text.startswith("**"):
            continue
        if text.startswith("*"):
            card, element = text[1:].partition(",")[0].strip().upper(), ""
            continue
        if card != "ELEMENT":
            continue
        words = [word.strip() for word in text.split(",") if word.strip().isdigit()]
        if not element and words:
            element, words = words[0], words[1:]
            corners[element] = []
        corners.setdefault(element, []).extend(int(word) for word in words)
        element = element if text.endswith(",") else ""
    return corners


def nodes_of_elements(field: StressField, ids: IntArray) -> IntArray:
    """Places of the nodes of elements, by their numbers."""
    parts = [np.asarray(element.nodes)[np.isin(element.ids, ids)].ravel() for element in field.elements]
    return np.unique(np.concatenate(parts)) if parts else np.empty(0, dtype=np.int64)


def _table(path: Path) -> tuple[Members, Members]:
    frame, where = read_frame(path, what="a table of sets")
    headings = {str(cell).strip().lower(): str(cell) for cell in frame.columns}
    kinds = [kind for kind in ("node", "element") if kind in headings]
    if len(kinds) != 1 or "set" not in headings:
        raise InputError(where, f"the columns {list(frame.columns)}", "node or element, and set")
    numbers = column_numbers(frame[headings[kinds[0]]], inside(where, f"column {kinds[0]!r}")).astype(np.int64)
    found: Members = {}
    for number, name in zip(numbers.tolist(), frame[headings["set"]], strict=True):
        found.setdefault(str(name).strip(), []).append(number)
    return (found, {}) if kinds[0] == "node" else ({}, found)


def _deck(path: Path) -> tuple[Members, Members]:
    """Sets of nodes and of elements: cards of sets, and sets named on the cards of nodes and elements."""
    nodes: Members = {}
    elements: Members = {}
    held: list[int] = []
    for card, options, line, words in _cards(path):
        if card == "BOUNDARY":
            held += [int(words[0])] if words[0].isdigit() else nodes.get(_same(nodes, words[0]), [])
            continue
        sets, key = (nodes, "NSET") if card in ("NSET", "NODE") else (elements, "ELSET")
        if card not in ("NSET", "ELSET", "NODE", "ELEMENT") or key not in options:
            continue
        members = sets.setdefault(_same(sets, options[key]), [])
        try:
            members += _members(card, options, words, sets)
        except (ValueError, KeyError, IndexError) as error:
            raise InputError(f"{path.name}, line {line}", str(error), "numbers or names of sets") from None
    if held:
        nodes.setdefault(SUPPORTS, held)
    if not nodes and not elements:
        raise InputError(path.name, "no sets", "cards *NSET or *ELSET")
    return nodes, elements


def _members(card: str, options: Mapping[str, str], words: list[str], sets: Members) -> list[int]:
    """What a line of data puts into a set."""
    if card in ("NODE", "ELEMENT"):
        return [int(words[0])]
    if "GENERATE" in options:
        first, last, *step = (int(word) for word in words if word)
        return list(range(first, last + 1, step[0] if step else 1))
    members: list[int] = []
    for word in filter(None, words):
        members += [int(word)] if word.isdigit() else sets[_same(sets, word)]
    return members


def _cards(path: Path) -> Iterator[tuple[str, Mapping[str, str], int, list[str]]]:
    """Every line of data with the card that it stands under; lines that go on from one that ends with a comma are left out."""
    card, options, goes_on = "", {}, False
    for number, line in enumerate(path.read_text(encoding="utf-8", errors="replace").splitlines(), 1):
        text = line.strip()
        if not text or text.startswith("**"):
            continue
        words = [word.strip() for word in text.split(",")]
        if text.startswith("*"):
            card, goes_on = words[0][1:].upper(), False
            pairs = [word.partition("=") for word in words[1:]]
            options = {key.strip().upper(): value.strip() for key, _, value in pairs}
            continue
        if not (goes_on and card == "ELEMENT"):
            yield card, options, number, words
        goes_on = text.endswith(",")


def _same(sets: Members, name: str) -> str:
    """The name as it was written first."""
    return next((known for known in sets if known.upper() == name.upper()), name)
