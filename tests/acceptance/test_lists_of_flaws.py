"""Lists of indications: read with row and column, assessed in one go, sorted by urgency, the same as one by one."""

import math

import pandas as pd
import pytest

from tests.acceptance.flaws import loads, metal
from vivid_anvil import (
    Indication,
    InputError,
    ParisLaw,
    Part,
    PlaceOfFlaws,
    RangesPerYear,
    Stage,
    assess_flaw,
    assess_indications,
    characterised,
    grow_flaw,
    read_indications,
)

AIR = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
STAGES = [Stage("service", AIR, RangesPerYear([("60 MPa", "10 MPa", 1e5)]))]
PLATE = Part(form="plate", wall="25 mm", width="300 mm")
PIPE = Part(form="cylinder, around", wall=20.0, radius=300.0)
HEAD = "name,kind,length [mm],height [in],ligament [mm],angle [deg],position [mm],place,stress,weld\n"
ROWS = (
    "A1,surface,24,0.2,,,,plate,storm,\n"
    "A2,embedded,20,0.24,5,60,,plate,storm,none\n"
    "A3,through,30,,,90,,pipe,storm,\n"
    "A4,surface,80,0.55,,,400,plate,proof,as welded\n"
    "A5,surface,10,0.1,,,,plate,proof,\n"
)
PLACES = {
    "plate": PlaceOfFlaws(part=PLATE, metal=metal(), stages=STAGES),
    "pipe": PlaceOfFlaws(part=PIPE, metal=metal()),
}
STRESSES = {"storm": loads(150.0), "proof": loads(240.0, 20.0)}


def listed(tmp_path, text=HEAD + ROWS, name="found.csv"):
    path = tmp_path / name
    path.write_text(text)
    return read_indications(path)


def test_a_list_is_that_of_its_flaws_one_by_one(tmp_path):
    rows = listed(tmp_path)
    found = assess_indications(rows, PLACES, STRESSES, name="tower base", inspection_factor=3.0)
    assert [one.assessment.acceptable for one in found.flaws] == sorted(
        one.assessment.acceptable for one in found.flaws
    )
    lives = [one.life for one in found.flaws if one.assessment.acceptable and one.life is not None]
    assert lives == sorted(lives)
    for row in rows:
        (made,) = characterised(PLACES[row.place].part, [row])
        own = assess_flaw(made.flaw, STRESSES[row.stress], PLACES[row.place].metal)
        listed_flaw = found.flaw(row.name)
        assert listed_flaw.assessment.point == own.point
        if row.place == "plate":
            grown = grow_flaw(own, STAGES, inspection_factor=3.0)
            assert listed_flaw.life == pytest.approx(grown.life, rel=2e-3)
            assert listed_flaw.next_look == pytest.approx(grown.life / 3.0, rel=2e-3)
        else:
            assert listed_flaw.life is None
    table = found.tables()[0].rows()
    assert len(table) == 5
    assert table[0]["verdict"] == "not acceptable"
    assert {"no-residual-stress", "flaw-not-acceptable"} <= {one.code for one in found.findings}
    record = found.to_dict()
    assert record["not acceptable"] == len(found.rejected) == 1
    assert "A2 projected across the stress" in " ".join(text for _, text in found.words("metric"))
    with pytest.raises(InputError, match="Did you mean 'A1'"):
        found.flaw("A11")


def test_workbooks_and_other_headings_are_read(tmp_path):
    frame = pd.DataFrame(
        {
            "No": ["1"],
            "kind": ["embedded"],
            "length [cm]": [2.0],
            "depth [mm]": [6.0],
            "depth below surface [mm]": [5.0],
        }
    )
    frame.to_excel(tmp_path / "found.xlsx", index=False)
    (one,) = read_indications(tmp_path / "found.xlsx")
    assert (one.name, one.length, one.height, one.ligament) == ("1", 20.0, 6.0, 5.0)


def test_neighbours_on_one_line_are_joined_within_their_place_and_stress():
    two = [
        Indication(name="A", kind="surface", length=20.0, height=4.0, position=0.0, place="plate", stress="storm"),
        Indication(name="B", kind="surface", length=10.0, height=3.0, position=20.0, place="plate", stress="storm"),
    ]
    assert [one.name for one in assess_indications(two, PLACES, STRESSES).flaws] == ["A + B"]
    assert assess_indications(two, PLACES, STRESSES).flaw("B").name == "A + B"
    apart = [
        two[0],
        Indication(name="B", kind="surface", length=10.0, height=3.0, position=20.0, place="plate", stress="proof"),
    ]
    assert len(assess_indications(apart, PLACES, STRESSES).flaws) == 2


@pytest.mark.parametrize(
    ("text", "words"),
    [
        (HEAD.replace("kind", "sort") + ROWS, "column 'sort'"),
        (HEAD.replace("length [mm]", "length") + ROWS, "column 'length': found no unit"),
        (HEAD.replace("angle [deg]", "angle") + ROWS, "angle"),
        (HEAD.replace("stress", "stress [MPa]") + ROWS, "words without unit"),
        (HEAD.replace("length [mm]", "length [MPa]") + ROWS, "MPa"),
        (
            HEAD + ROWS.replace("A3,through", "A3,throuhg"),
            "row 4, column 'kind': found 'throuhg'.*Did you mean 'through'",
        ),
        (HEAD + ROWS.replace("surface,24", "surface,wide"), "row 2, column 'length .mm.': found 'wide'"),
        (HEAD + ROWS.replace("A5,surface,10", "A5,surface,"), "row 6, column 'length .mm.': found an empty cell"),
        (HEAD + ROWS.replace("A1,surface,24,0.2", "A1,surface,24,"), "row 2, height"),
        (HEAD + ROWS.replace("none", "maybe"), "row 3, weld"),
        ("name,kind,height [mm]\nA,surface,3\n", "no column 'length'"),
        ("name,kind,length [mm],Length [in]\nA,through,3,4\n", "a second column of length"),
    ],
)
def test_a_fault_of_a_list_is_told_by_row_and_column(tmp_path, text, words):
    with pytest.raises(InputError, match=words):
        listed(tmp_path, text)


def test_faults_of_the_whole_list():
    row = Indication(name="A", kind="surface", length=20.0, height=4.0)
    with pytest.raises(InputError, match=r"place.*one of 'plate', 'pipe'"):
        assess_indications([row], PLACES, STRESSES)
    named = Indication(name="A", kind="surface", length=20.0, height=4.0, place="plat", stress="storm")
    with pytest.raises(InputError, match="Did you mean 'plate'"):
        assess_indications([named], PLACES, STRESSES)
    with pytest.raises(InputError, match="at least"):
        assess_indications([row], {}, STRESSES)
    high = Indication(name="A", kind="surface", length=20.0, height=26.0, place="plate", stress="storm")
    with pytest.raises(InputError, match=r"indication A.*less than the wall"):
        assess_indications([high], PLACES, STRESSES)
    only = assess_indications([row], {"plate": PLACES["plate"]}, {"storm": loads(150.0)})
    assert only.flaws[0].place == "plate"
    assert math.isfinite(only.flaws[0].life)
