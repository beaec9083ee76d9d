"""Layouts that the sets of one folder share: made once, and a set is the same file as if it were written alone."""

from pathlib import Path

from tests.shared_plan import plan_for

from riktig.core.exports import Issue, Reader, export_all, schedule, write_document
from riktig.core.exports.lists import WRITTEN
from riktig.core.exports.paper_sets import cover_of, drawings_of, head_of, paper_of, texts_for
from riktig.core.exports.shared_layouts import SharedLayouts
from riktig.demo_job import wash_drum


def test_what_is_asked_for_again_is_not_made_again() -> None:
    shared, made = SharedLayouts(), []

    def make() -> int:
        made.append(1)
        return len(made)

    one, equal = ["a list"], ["a list"]
    assert [shared.once(one, ("table", 9.0), make) for _ in range(3)] == [1, 1, 1]
    assert shared.once(one, ("table", 11.0), make) == 2, "at another size"
    assert shared.once(equal, ("table", 9.0), make) == 3, "equal is not the same"


def test_each_set_is_as_if_it_were_written_alone(tmp_path: Path) -> None:
    """The fifth reader's tables were laid out for the first: they must not remember him."""
    plan = plan_for(wash_drum())
    export_all(plan, (), tmp_path, issue=Issue("2026-12-02", "Ida"))
    head = head_of(plan.document, "2026-12-02", "Ida")
    tables, drawings = [schedule(name, plan) for name in WRITTEN], drawings_of(plan)
    for reader in (Reader.INSPECTOR, Reader.BUILDER):
        alone = tmp_path / "alone.pdf"
        write_document(
            alone, head, texts_for(reader, drawings, tables), cover_of(plan, reader), paper_of(plan.document)
        )
        (together,) = tmp_path.glob(f"*_for_the_{reader.value}.pdf")
        assert together.read_bytes() == alone.read_bytes()
