"""Screws along each rail and duct: those of the plate, measured from the piece's own end."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.holes import METAL_HOLES, along_pieces
from riktig.core.job import Job
from riktig.core.plate import LAYOUT
from riktig.demo_job import frost_fan, kelp_shed


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["kelp shed", "frost fan"])
def test_every_screw_of_a_piece_lies_on_it_and_is_where_the_plate_has_it(job: Job) -> None:
    evaluation = plan_for(job)
    layout, holes = evaluation.get(LAYOUT), evaluation.get(METAL_HOLES)
    along = along_pieces(holes, layout)
    rails = {rail.name: (rail.x1, rail.length, False) for rail in layout.rails}
    ducts = {d.name: (d.rect.y if d.upright else d.rect.x, d.length, d.upright) for d in layout.ducts}
    pieces = rails | ducts
    assert set(along) == set(pieces)
    for name, (begin, length, upright) in pieces.items():
        on_plate = sorted((hole.y if upright else hole.x) for hole in holes if hole.purpose == name)
        assert [begin + at for at in along[name]] == pytest.approx(on_plate, abs=0.06)
        assert len(along[name]) >= 2
        assert 0 < along[name][0] < along[name][-1] < length


def test_the_cut_list_has_them_and_lids_have_none() -> None:
    evaluation = plan_for(kelp_shed())
    along = along_pieces(evaluation.get(METAL_HOLES), evaluation.get(LAYOUT))
    rows = {str(row["piece"]): str(row["screws_mm"]) for row in schedule("cuts", evaluation).as_dicts()}
    assert {name: text for name, text in rows.items() if text} == {
        name: ", ".join(f"{at:g}" for at in own) for name, own in along.items()
    }
    assert all(not text for name, text in rows.items() if "lid" in name)
