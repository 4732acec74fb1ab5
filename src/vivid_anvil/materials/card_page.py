"""What is told of material cards: a row among others, or everything that one holds."""

from __future__ import annotations

from collections.abc import Sequence

from vivid_anvil.materials.card import MaterialCard
from vivid_anvil.materials.curves.page import curve_page
from vivid_anvil.materials.plies.ply import LIVES, STIFFNESS_DECAYS_OF, STRENGTH_DECAYS_OF, STRENGTHS, Ply
from vivid_anvil.materials.rubber.fit_hyperelastic import constants_of
from vivid_anvil.materials.rubber.rubber import Rubber
from vivid_anvil.units import UnitSystem, in_unit
from vivid_anvil.writing.result import Page
from vivid_anvil.writing.table import Column, Table


def cards_table(cards: Sequence[MaterialCard]) -> Table:
    """A row a card; in files all its values, on a page its strengths and how many curves and laws it has."""
    dimensions = {one.name: one.dimension for card in cards for one in card.values.values()}
    on_page = {"ultimate_strength": "R_m\n", "yield_strength": "R_e\n"}
    columns = [
        Column("card", [card.key for card in cards]),
        Column("name", [card.name for card in cards], head="Material"),
        Column("group", [card.group for card in cards], only="file"),
    ]
    for name, head in on_page.items():
        values = [card.values[name].value if name in card.values else None for card in cards]
        columns.append(Column(name, values, of="stress", head=head, only="page", digits=3))
    columns += [
        Column("S-N curves", [len(card.curves) for card in cards], head="S-N"),
        Column("strain-life curves", [len(card.strain_lives) for card in cards], head="ε-N"),
        Column("growth laws", [len(card.laws) for card in cards], head="Growth"),
        Column("basis", [card.basis for card in cards]),
        Column("source", [card.source for card in cards], only="file"),
    ]
    for name, dimension in dimensions.items():
        values = [card.values[name].value if name in card.values else None for card in cards]
        columns.append(Column(name.replace("_", " "), values, of=dimension, only="file"))
    return Table("", tuple(columns), "cards")


def rubber_words(rubber: Rubber, units: UnitSystem = "metric") -> list[tuple[str, str]]:
    """Laws and flaws of a rubber, a sentence each."""
    constants = ", ".join(f"{key} {value}" for key, value in constants_of(rubber.law))
    words = [("", f"Law of stress and strain: {rubber.law.kind}, {constants}.")]
    for law in rubber.laws:
        at = "" if law.temperature is None else f" at {law.temperature:g} °C"
        middle, slope = law.anchor
        rate = in_unit(float(law.growth(middle)), "growth rate", units)
        told = f"{rate} at {in_unit(middle, 'energy release rate', units)}, slope {slope:g}, {law.r_effect}"
        words.append(("", f"Tearing law{at}, {law.kind}: {told}."))
    sizes = f"{in_unit(rubber.initial_flaw, 'length', units)} to {in_unit(rubber.end_flaw, 'length', units)}"
    words.append(("", f"Flaws: {sizes}, T = 2 k W c with k = {rubber.shape_factor:.4g}."))
    return words


def ply_words(ply: Ply, units: UnitSystem = "metric") -> list[tuple[str, str]]:
    """Constants, strengths, lives and decays of a ply, a sentence each."""

    def stress(value: float | None) -> str:
        return "not stated" if value is None else in_unit(value, "stress", units)

    moduli = ", ".join(stress(one) for one in (ply.modulus_along, ply.modulus_across, ply.shear_modulus))
    words = [("", f"Ply: E1, E2, G12 {moduli}, ν12 {ply.poissons_ratio:g}.")]
    strengths = ", ".join(stress(getattr(ply, key)) for key in STRENGTHS)
    words.append(("", f"Strengths X_t, X_c, Y_t, Y_c, S: {strengths}."))
    for key in (*LIVES, *STRENGTH_DECAYS_OF, *STIFFNESS_DECAYS_OF):
        own = getattr(ply, key)
        if own is not None:
            told = getattr(own, "words", repr(own).strip("<>"))
            words.append(("", f"{key.replace('_', ' ').capitalize()}, {own.kind}: {told}."))
    return words


def card_pages(card: MaterialCard, units: UnitSystem = "metric") -> tuple[Page, ...]:
    """Everything a card holds: its values with scatter and source, its laws; then a page for each curve."""
    of = list(card.values.values())
    columns = (
        Column("value", [one.name.replace("_", " ") for one in of]),
        Column("is", [in_unit(one.value, one.dimension, units) for one in of], head=""),
        Column("scatter", [one.scatter for one in of], left=True),
        Column("source", ["of the card" if one.source == card.source else one.source for one in of], left=True),
    )
    words = [("", f"Group: {card.group}. Basis: {card.basis}. Source: {card.source}.")]
    words += [("", f"Note: {card.note}.")] if card.note else []
    for name, law in card.laws.items():
        ratio = "R not stated" if law.r_ratio is None else f"R = {law.r_ratio:g}"
        told = f"Growth law {name}, {law.kind}: {law.words}, threshold {law.threshold.words_in(units)}, {ratio}"
        words.append(("", f"{told}, {law.scatter}; {law.source}"))
    for name, strain_life in card.strain_lives.items():
        words.append(
            ("", f"Strain-life curve {name}: {strain_life.told(units)}; {strain_life.basis}, {strain_life.source}")
        )
    words += rubber_words(card.rubber, units) if card.rubber is not None else []
    words += ply_words(card.ply, units) if card.ply is not None else []
    words += (
        [] if card.curves or card.rubber is not None or card.ply is not None else [("", "No S-N curve on this card.")]
    )
    first = Page(f"{card.key}: {card.name}", tuple(words), (Table("", columns, "values"),) if of else ())
    return (first, *(curve_page(curve, units) for curve in card.curves.values()))
