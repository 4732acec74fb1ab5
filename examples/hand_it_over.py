"""What a colleague gets: all places beside each other, a page to look around in, a report with a title block.

python examples/hand_it_over.py [folder for the files]
"""

import datetime
import sys
import tempfile
from pathlib import Path

import vivid_anvil as va
from vivid_anvil.demo import write_demo

folder = Path(sys.argv[1]) if len(sys.argv) > 1 else Path(tempfile.mkdtemp())
folder.mkdir(parents=True, exist_ok=True)
result = va.run_study(va.read_study(write_demo(folder / "demo")))

# What each place uses of what it may, and what a tenth more of each value makes of the worst life.
places = va.all_places(result)
for place in places.places:
    print(f"{place.name} ({place.kind}): {100.0 * place.used:.3g} % used, {place.verdict}; {place.governed_by}")
life = result.worst
for lever in places.levers_of(life.hot_spot.name, "life"):
    print(f"  {lever.lever} 10% more: {100.0 * lever.used_high:.4g} % used")
va.save_figure(va.plot(places), folder / "places.png")

# One file that opens offline: zoom into the worst lap, point at classes, slide the initial size of the crack.
worst = life.damage_over_time(life.worst_history)
page = va.write_page(
    {"worst lap": worst, "life": life, "crack": result.growths[0], "places": places},
    folder / "larkfell.html",
    title="Larkfell chairlift, hanger arm",
    units="metric",
)
print(f"{page.name}: {page.stat().st_size / 1e6:.1f} MB")

# The same content as a document, with the hashes of the files that it rests on.
settings = va.ReportSettings(
    project="Larkfell chairlift",
    number="LF-7-031",
    author="M. Quill",
    checker="T. Fenn",
    date=datetime.date(2026, 10, 5),
)
document = va.build_report(
    result, settings, inputs=[folder / "demo" / "larkfell.toml", folder / "demo" / "loaded_lap.csv"]
)
for ending in ("pdf", "docx"):
    print(va.write_report(document, folder / f"larkfell.{ending}").name)
print(f"{len(list(document.every()))} sections, the first: {document.sections[0].title}")
