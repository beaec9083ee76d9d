"""Lists for label machines: one a medium, a column a line, a row a copy, read again with the same texts."""

import csv
import io

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports import as_csv
from riktig.core.exports.schedules import label_files
from riktig.core.job import CodesOn, Job, MarkerText, add_load, new_job, set_practice
from riktig.core.labels import LABELS, Medium
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

STRANGE = ["Ω-Pumpe Größe 3", "насос", "Pompa ısıtıcı", "=1+1", 'a, b; "c"', "-5", "@home"]


@pytest.mark.parametrize("job", [wash_drum(), kelp_shed(), frost_fan()], ids=["drum", "shed", "fan"])
@pytest.mark.parametrize("marked", [False, True])
def test_every_copy_of_every_label_is_a_row_with_its_lines(job: Job, marked: bool) -> None:
    evaluation = plan_for(set_practice(job, codes=CodesOn.LABELS, marker=MarkerText.NUMBER_AND_FAR_END))
    by_name = {table.name: table for table in label_files(evaluation)}
    for medium in Medium:
        labels = evaluation.get(LABELS).on(medium)
        if not labels:
            assert f"labels {medium.value}" not in by_name
            continue
        rows = list(csv.reader(io.StringIO(as_csv(by_name[f"labels {medium.value}"], marked=marked).lstrip("\ufeff"))))
        head, body = rows[0], rows[1:]
        assert len(body) == sum(label.copies for label in labels)
        count = sum(name.lower().startswith("line") for name in head)
        read_lines = [tuple(text for text in row[:count] if text) for row in body]
        wanted = [tuple(text for text in label.lines if text) for label in labels for _ in range(label.copies)]
        plain = [tuple(text.lstrip("'") for text in lines) for lines in read_lines]
        assert plain == wanted


@pytest.mark.parametrize("name", STRANGE)
def test_texts_of_any_script_come_back_and_no_cell_is_a_formula(name: str) -> None:
    job = with_names_recorded(add_load(new_job("X-1", "strange"), name, 1.5))
    for table in label_files(plan_for(job)):
        for row in csv.reader(io.StringIO(as_csv(table))):
            assert not any(cell[:1] in ("=", "@") for cell in row), row
    texts = [row for table in label_files(plan_for(job)) for row in table.rows]
    assert any(name.upper() in str(cell).upper() for row in texts for cell in row)
