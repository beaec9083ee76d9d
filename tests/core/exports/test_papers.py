"""Papers: schedules with stable keys, files whole or not at all, no box in place of a letter."""

import csv
import io
import json
from pathlib import Path
from xml.etree import ElementTree

import pytest
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.door import DOOR_DRAWING
from riktig.core.errors import InputFault, RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import (
    LISTS,
    Issue,
    as_csv,
    as_json,
    as_svg,
    build_record,
    export_all,
    file_stem,
    fitting_scale,
    missing_glyphs,
    schedule,
)
from riktig.core.exports import test_record as record_of_tests
from riktig.core.exports.arcs import arc_ends
from riktig.core.exports.tables import RUN
from riktig.core.geometry import Arc, Drawing, Text
from riktig.core.handover import missing_words
from riktig.core.imports import job_from_loads, read_loads
from riktig.core.job import Job, UpstreamDevice, add_load, new_job, set_supply
from riktig.core.keys import Key, PartKey, read_key
from riktig.core.labels import LABELS, Medium, draw_medium
from riktig.core.schematic import with_names_recorded
from riktig.core.views import STATIONS, Stamp, details_of, statuses
from riktig.core.wiring import PLATE_DRAWING
from riktig.core.work import Cancelled, Progress

KEYS = {
    "loads": "load kind kw hp nameplate_a phases on start command access isolation place cable_m laying "
    "cables_together maintained current_a "
    "rail_mm heat_w fitting reason",
    "signals": "signal place direction form fed_by watts load",
    "sources": "source voltage_v from protected_a cut_off_by",
    "practice": "field group question answer default argument",
    "reasons": "thing what reason who",
    "proposal": "key of what value amount unit proposed own_reason short reason formula source confidence",
    "nets": "number class pins joins id",
    "tally": "number plate door field pulled links id",
    "batches": "batch stage size colour from_area to_area wires longest_mm metres trimmed_m minutes price numbers",
    "cutting": "way minutes trimmed_m price",
    "colours": "colour means wires",
    "work": "stage task how minutes by id",
    "operation": "circuit do then id",
    "lamps": "cause lit dark skilled reset id",
    "maintenance": "of what often by done",
    "declaration": "field says",
    "drums": "conductor wires cut_m with_spare_m stock_m short_m trimmed_m from_ends saved_m",
    "loom": "door part number plate_end door_end size colour leaves_mm past_hinge_mm cut_mm key",
    "neutrals": "bar trunk trunk_mm number to size at_mm tail_mm key",
    "network": "order from to where way_mm cable_mm ducts",
    "returns": "tag for return number comes_back_to fed_from state key",
    "routes": "to conductors earths numbers sizes spare fitting",
    "cables": "cable make_up to place length_m cores spare laying diameter fitting hole lands tag key",
    "live": "off source number volts pins dead id",
    "restart": "load tag ran runs after_power after_reset accept circuit",
    "places": "tag part rail offset x y width height depth key",
    "ducts": "duct wide share limit from to needs families shared key",
    "openings": "duct side x wires fingers key",
    "bars": "stock bar bar_length piece length cut_at left",
    "losses": "tag what rated_w loss_w why key",
    "transfers": "load tag selector way field before after note circuit",
    "market": "code title here source_here there source_there change",
    "rating": "tag part where ka before basis sets why key",
    "ways": "target_ka way reaches_ka parts room_mm held_by",
    "box": "place tag circuit what by terminals rest volts key",
    "io": "address card clamp for number joins kind key",
    "renumber": "old new wires labels sheets tests printed key",
    "retag": "old new wires labels sheets tests printed key",
    "rungs": "circuit name rung for band from path to",
    "behaviour": "circuit step done expected result otherwise",
    "faults": "kind text where remedy",
    "wires": "order number from to mm2 size type colour length_mm cut_mm from_end to_end from_strip_mm to_strip_mm "
    "from_torque_n_m to_torque_n_m ducts stage batch key",
    "terminals": "strip position mark kind colour number inside cable core field max_mm2",
    "labels": "medium text copies where width_mm height_mm code",
    "cuts": "piece stock length_mm place screws_mm",
    "holes": "hole face x_mm y_mm drill_mm tap for note tool width_mm height_mm class",
    "operators": "tag legend means part blocks places depth wiring_room moved_by let_go door x y key",
    "entries": "cable diameter fitting hole_mm in hole x y class",
    "site": "n what why who when",
    "orders": "supplier order_number part description needed stock order unit price sum lead_days note",
    "bom": "part description quantity unit tags kit order_number supplier price sum stock short lead_days",
    "picks": "kit part description quantity unit tags ready short",
    "sizing": "what value title reason formula source confidence",
    "findings": "code verdict message clause remedy where",
    "clauses": "code group title verdict clause evidence",
    "tests": "order stage title black red expected switches key",
}


@pytest.mark.parametrize("name", LISTS)
def test_the_keys_of_a_schedule_are_those_documented(evaluation: Evaluation[Job], name: str) -> None:
    found = schedule(name, evaluation)
    assert [key for key, _ in found.columns] == KEYS[name].split()
    assert all(len(row) == len(found.columns) for row in found.rows)
    assert found.rows or name in (
        "neutrals",
        "network",
        "orders",
        "signals",
        "ways",
        "faults",
        "renumber",
        "retag",
        "transfers",
        "io",
        "reasons",
    )  # nothing to rename and no reason given on a fresh job


@pytest.mark.parametrize("name", LISTS)
def test_csv_and_json_say_the_same_rows(evaluation: Evaluation[Job], name: str) -> None:
    found = schedule(name, evaluation)
    rows = list(csv.DictReader(io.StringIO(as_csv(found))))
    objects = json.loads(as_json(found))
    assert len(rows) == len(objects) == len(found.rows)
    for row, one in zip(rows, objects, strict=True):
        assert list(row) == list(one)
        plain = [value.removeprefix("'") if value[1:2] in RUN else value for value in row.values()]
        assert [str("" if v is None else v) for v in one.values()] == plain


def test_the_keys_are_written_down_for_those_who_build_on_them() -> None:
    text = (Path(__file__).parents[3] / "docs" / "schedules.md").read_text(encoding="utf-8")
    for name, keys in some(KEYS.items()):
        assert f"`{name}`" in text
        assert all(f"`{key}`" in text for key in keys.split())


def test_the_parts_list_counts_shared_ferrules_once(evaluation: Evaluation[Job]) -> None:
    rows = {row["description"]: row["quantity"] for row in schedule("bom", evaluation).as_dicts()}
    # By hand: eight clamps hold two wires: F1:1 with two of 4 mm2, and seven of the control side.
    twins = {name: count for name, count in rows.items() if str(name).startswith("ferrule 2 ×")}
    assert twins == {"ferrule 2 × 4 / 12 grey": 1, "ferrule 2 × 1 / 8 red": 6}
    assert rows["end stop"] == 4


def texts_of(evaluation: Evaluation[Job]) -> list[str]:
    sheets = evaluation.get(SHEET_DRAWINGS)
    drawings = [*sheets, evaluation.get(PLATE_DRAWING), evaluation.get(DOOR_DRAWING)]
    drawings += [draw_medium(evaluation.get(LABELS), medium) for medium in Medium]
    said = [m.text for d in drawings for m in d.shapes if isinstance(m, Text)]
    return said + [str(v) for name in LISTS for row in schedule(name, evaluation).rows for v in row]


def test_no_paper_of_the_demonstration_shows_a_box_for_a_letter(evaluation: Evaluation[Job]) -> None:
    assert [t for t in texts_of(evaluation) if missing_glyphs(t)] == []
    assert missing_glyphs("Łódź, İzmir, Ω Δ √ ≤ ² ×") == ""
    assert missing_glyphs("\u23da") == "\u23da", "the earth sign is drawn, never written"


@pytest.mark.parametrize(
    ("size", "to_scale", "scale"),
    [((100, 100), True, 1.0), ((376, 576), True, 0.4), ((2000, 1000), True, 0.1), ((246, 166), False, 1.024)],
)
def test_scales_are_the_usual_ones_when_a_drawing_is_to_scale(
    size: tuple[float, float], to_scale: bool, scale: float
) -> None:
    assert fitting_scale(Drawing(*size, ()), to_scale=to_scale) == pytest.approx(scale, abs=0.01)


def test_an_arc_ends_where_its_angles_say() -> None:
    (x1, y1), (x2, y2) = arc_ends(Arc(0, 0, 2, 90, -180))
    assert (x1, y1, x2, y2) == pytest.approx((0, 2, 0, -2), abs=1e-9)


def test_svg_is_well_formed_in_mm_with_its_layers(evaluation: Evaluation[Job]) -> None:
    drawing = evaluation.get(PLATE_DRAWING)
    root = ElementTree.fromstring(as_svg(drawing))
    assert root.attrib["width"] == f"{drawing.width:g}mm"
    groups = {g.attrib["id"] for g in root if "id" in g.attrib}
    assert {"plate", "duct", "rail", "device", "text"} <= groups


def test_the_hand_over_writes_every_paper_and_the_same_job_gives_the_same_files(demo: Job, tmp_path: Path) -> None:
    first = export_all(Evaluation(demo), (), tmp_path / "a", issue=Issue("2026-11-23"))
    second = export_all(Evaluation(demo), (), tmp_path / "b", issue=Issue("2026-11-23"))
    names = [p.relative_to(tmp_path / "a").as_posix() for p in first]
    assert {Path(n).suffix for n in names} == {".pdf", ".xlsx", ".csv", ".dxf", ".svg", ".json"}
    assert not list((tmp_path / "a").rglob("*.part"))
    for a, b in zip(first, second, strict=True):
        if a.suffix in (".pdf", ".csv", ".svg", ".json"):
            assert a.read_bytes() == b.read_bytes(), a.name


def test_a_stopped_hand_over_leaves_only_whole_files(demo: Job, tmp_path: Path) -> None:
    steps: list[str] = []

    def stop() -> bool:
        return len(steps) > 3

    with pytest.raises(Cancelled):
        export_all(plan_for(demo), (), tmp_path, progress=Progress(lambda s, t: steps.append(t), stop))
    assert [p for p in tmp_path.rglob("*") if p.is_file() and not p.name.startswith(".")] == []


def test_a_folder_that_cannot_be_written_is_said(demo: Job, tmp_path: Path) -> None:
    (tmp_path / "taken").write_text("a file")
    with pytest.raises(RiktigError, match="could not be written") as caught:
        export_all(plan_for(demo), (), tmp_path / "taken")
    assert caught.value.hint


@pytest.mark.parametrize(
    ("number", "stem"),
    [("KS-0417", "KS-0417_rev_A"), ("../../etc", "etc_74ccf3_rev_A"), ("a b/c", "a_b_c_539138_rev_A")],
)
def test_a_job_number_makes_a_safe_file_name(number: str, stem: str) -> None:
    assert file_stem(new_job(number)) == stem


GOOD = "load,kw,start,command,place,nameplate_a,cable_m\nwash drum,4,,,bay,8.1,14\n"


@pytest.mark.parametrize(
    ("raw", "note"),
    [
        (GOOD.encode(), ""),
        (b"\xef\xbb\xbf" + GOOD.encode(), ""),
        (GOOD.encode("utf-16"), "UTF-16"),
        (GOOD.replace(",", ";").replace("8.1", "8,1").encode(), "semicolons"),
        (("\n" + GOOD + "\n\n").encode(), ""),
    ],
    ids=["plain", "with a mark", "UTF-16", "semicolons and decimal commas", "blank lines"],
)
def test_loads_are_read_and_what_was_unusual_is_said(tmp_path: Path, raw: bytes, note: str) -> None:
    path = tmp_path / "loads.csv"
    path.write_bytes(raw)
    rows, notes = read_loads(path)
    assert [(r.name, dict(r.fields)) for r in rows] == [
        ("wash drum", {"kw": 4.0, "place": "bay", "nameplate_a": 8.1, "cable_m": 14.0})
    ]
    assert note in " ".join(notes)
    assert bool(notes) is bool(note)


@pytest.mark.parametrize(
    ("text", "where", "words"),
    [
        ("load,power\nfan,4\n", "line 2, power", "has no unit"),
        ("name\nfan\n", "line 1", "columns load and kw"),
        ("", "line 1", "missing"),
        ("load,kw\n", "loads.csv", "no loads"),
        ("load,kw\nfan,5 hp\n", "line 2, kw", "stands in a column of kw"),
        ("load,kw\nfan,0\n", "line 2, kw", "cannot be a motor power"),
        ("load,kw\nfan,-3\npump,1e9\n", "line 3, kw", "cannot be a motor power"),
        ("load,kw,start\nfan,4,by rope\n", "line 2, start", "not an answer for start"),
        ("load,kw,command\nfan,4,by shouting\n", "line 2, command", "not an answer for command"),
        ("load,kw,cable_m\nfan,4,far\n", "line 2, cable_m", "cable length"),
        ("load,kw\n,4\n", "line 2", "no name"),
        ("load,kw,colour\nfan,4,red\n", "heading", "not known"),
    ],
)
def test_a_wrong_list_of_loads_says_the_place_and_the_remedy(tmp_path: Path, text: str, where: str, words: str) -> None:
    path = tmp_path / "loads.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(RiktigError) as caught:
        read_loads(path)
    said: list[RiktigError | InputFault] = [caught.value, *caught.value.faults]
    assert any(where in one.where and words in one.message for one in said), str(caught.value)
    assert any(one.hint for one in said)


@pytest.mark.parametrize("raw", [b"\xff\xfe\x00", b"load,kw\nf\xff,4\n", bytes(range(256))])
def test_what_is_no_text_is_said(tmp_path: Path, raw: bytes) -> None:
    path = tmp_path / "loads.csv"
    path.write_bytes(raw)
    with pytest.raises(RiktigError):
        read_loads(path)


def test_the_shipped_example_makes_a_job() -> None:
    rows, notes = read_loads(Path(__file__).parents[3] / "examples" / "loads.csv")
    job = with_names_recorded(job_from_loads(rows, "E-1"))
    assert notes == ()
    assert [load.name for load in job.loads] == ["wash drum", "rinse pump"]


def test_records_show_what_counts_and_papers_say_what_is_missing(evaluation: Evaluation[Job]) -> None:
    assert all(not any(row[3:]) for row in build_record(evaluation, ()).rows)
    assert {row[6] for row in record_of_tests(evaluation, ()).rows} == {"to do"}
    missing = missing_words(evaluation, ())
    assert "31 of 31 wires are not finished" in missing
    assert "56 of 56 dead tests outstanding" in missing
    assert any(
        "maker" in text for text in missing_words(plan_for(with_names_recorded(add_load(new_job(), "fan", 1))), ())
    )


@pytest.mark.parametrize(
    ("key", "title", "says"),
    [
        (read_key("device:c1.K"), "K1", "9 A AC-3"),
        (read_key("pin:c1.K:A1"), "K1", "Rail R2"),
        (read_key("device:c1.X.U"), "X2:U", "Sheet"),
        (read_key("element:c1.S.stop/1-2"), "S1", "Door"),
        (read_key("wire:c1.FO:96~c1.S.stop:1"), "Wire 8", "S1:1"),
        (read_key("net:c1.FO:96"), "Net 8", "2 pins, 1 wire."),
        (read_key("duct:D4"), "D4", "Fill"),
        (read_key("rail:R1"), "R1", "270 mm"),
        (read_key("hole:P1"), "Hole P1", "From the datum"),
        (read_key("piece:D1 lid"), "D1 lid", "lid 30"),
        (read_key("device:c1.M"), "M1", "Field"),
    ],
)
def test_the_details_say_what_a_thing_is_and_where(
    evaluation: Evaluation[Job], key: Key | None, title: str, says: str
) -> None:
    found = details_of(evaluation, key, ())
    assert found
    assert found.title == title
    said = " ".join([found.text, *(f"{s.title} {r.name} {r.value}" for s in found.sections for r in s.rows)])
    assert says in said
    for section in found.sections:
        for row in section.rows:
            if row.link and not str(row.link).startswith("batch:"):
                assert details_of(evaluation, row.link, ()), f"the link {row.link} leads somewhere"


@pytest.mark.parametrize(
    "key",
    [
        None,
        read_key("device:c9.K"),
        read_key("wire:none"),
        read_key("net:none"),
        read_key("duct:D99"),
        read_key("hole:P99"),
        PartKey("nonsense"),
    ],
)
def test_a_key_that_leads_nowhere_has_no_details(evaluation: Evaluation[Job], key: Key | None) -> None:
    assert details_of(evaluation, key, ()) is None


def test_the_route_card_begins_with_the_brief_and_counts_what_is_to_do(evaluation: Evaluation[Job]) -> None:
    empty = statuses(plan_for(new_job()), ())
    assert [s.station for s in empty] == list(STATIONS)
    assert empty[0].line == "start here: say what turns"
    full = {s.station: s for s in statuses(evaluation, ())}
    assert full["Wires"].line.startswith("31 wires")
    assert full["Rules"].line == "5 need judgement", "emergency stop, risks, height, marks, papers"
    unknown = plan_for(with_names_recorded(set_supply(evaluation.document, upstream_device=UpstreamDevice.UNKNOWN)))
    assert {s.station: s for s in statuses(unknown, ())}["Rules"].line == "6 need judgement"
    assert full["Build"].line == "0 of 31 in"
    assert full["Prove"].stamp is Stamp.BLANK
