"""What an operator is made up of: every item once, blocks in their ways, the limit and the depth."""

import pytest

from riktig.core.catalogue import Behaviour, Unit, kind, parts_of
from riktig.core.door import Stack, diagonal, may_move, stack_of


def stack(kind_id: str, legend: str = "PUMP") -> Stack:
    return stack_of(kind(kind_id), parts_of(kind_id)[0], legend)


def test_a_button_is_legend_head_seal_nut_and_its_block() -> None:
    made = stack("start_button")
    assert [item.what for item in made.items] == [
        "legend plate “PUMP”",
        "flush push-button head",
        "seal",
        "fixing nut, from behind",
        "NO block",
    ]
    assert made.said == "NO block 3-4 left"
    assert (made.taken, made.limit) == (1, 6)


def test_a_lit_button_keeps_the_middle_for_its_lamp() -> None:
    made = stack("lit_button")
    assert {(block.what, block.way) for block in made.blocks} == {("lamp block", "middle"), ("NO block", "left")}
    assert made.limit == 4, "two ways beside the lamp, two layers"


def test_an_emergency_stop_has_two_opening_blocks() -> None:
    assert [b.what for b in stack("emergency_stop").blocks] == ["NC block", "NC block"]


@pytest.mark.parametrize(("contacts", "layers", "too_many"), [(3, 1, 0), (4, 2, 0), (6, 2, 0), (7, 3, 1)])
def test_a_fourth_contact_goes_behind_the_first_and_a_seventh_has_no_place(
    contacts: int, layers: int, too_many: int
) -> None:
    from dataclasses import replace

    # Common practice, no source: three side by side, two behind each other; 28 mm a further layer.
    units = tuple(Unit(f"{n}3-{n}4", (f"{n}3", f"{n}4"), Behaviour.NO) for n in range(1, contacts + 1))
    part = parts_of("start_button")[0]
    made = stack_of(replace(kind("start_button"), units=units), part, "")
    assert made.too_many == too_many
    assert made.depth == part.depth + (layers - 1) * 28.0
    assert len({(b.way, b.layer) for b in made.blocks}) == contacts, "no two in one place"


def test_who_may_move_it() -> None:
    assert may_move(kind("key_hoa")) == "who holds the key"
    assert may_move(kind("selector_hoa")) == "anyone"
    assert may_move(kind("lamp")) == ""


def test_a_screen_is_no_stack_of_blocks() -> None:
    made = stack("screen", "")
    assert made.blocks == ()
    assert made.depth == parts_of("screen")[0].depth


def test_the_diagonal_of_a_cut_out() -> None:
    assert diagonal(30.0, 40.0) == 50.0
