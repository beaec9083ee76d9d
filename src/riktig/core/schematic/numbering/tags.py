"""Tags of devices: class letters and a running number, or the place on the sheets; kept once given."""

import re
from collections import defaultdict
from collections.abc import Container, Mapping

from riktig.core.catalogue import Behaviour, Can, letters_of
from riktig.core.evaluation import Memory
from riktig.core.job import DeviceId, GivenTag, Practice, TagStyle
from riktig.core.schematic.layout.sheet_model import SheetPlace
from riktig.core.schematic.layout.sheets import lay_out
from riktig.core.schematic.model.elements import Circuits, Device, elements_of

__all__ = ["LEFT_OUT", "by_tags", "device_places", "tag_all"]

LEFT_OUT = "abcdefghjkmnpqrstuvwxyz"
"""Letters that tell two of a kind apart; i, l and o are left out, they read as figures."""
_BRACED = re.compile(r"\{([^{}]*)\}")


def tag_all(
    circuits: Circuits, given: tuple[GivenTag, ...], practice: Practice, memory: Memory | None = None
) -> tuple[dict[DeviceId, str], tuple[GivenTag, ...]]:
    """The tag of every device, and all of them as given for the next time.

    Method:
        What has a tag keeps it. Others get the letters of their class and the next free number, in the
        order of the circuits; or, by practice, the sheet and the column (one figure: 0 to 9) where the
        device is drawn, and a letter from the second of a kind in one column on. What is not drawn is
        counted. The terminals of one strip share a tag, and no two strips have the same.
    """
    own_tags = {given_tag.device for given_tag in given if given_tag.own}
    known = {given_tag.device: given_tag.tag for given_tag in given}
    used = set(known.values())
    strips = _known_strips(circuits, known, own_tags)
    for device in circuits.devices:
        if device.strip and strips.get(device.strip) != known.get(device.id):
            known.pop(device.id, "")
    missing = [d for d in circuits.devices if d.id not in known and d.strip not in strips]
    placed = practice.tags is not TagStyle.COUNTED and bool(missing)
    places = device_places(circuits, memory, ladder=practice.rulebook.north_american) if placed else {}
    counter = _Counter(used, practice, places)
    result: dict[DeviceId, str] = {}
    for device in circuits.devices:
        if device.id in known:
            result[device.id] = known[device.id]
        elif device.strip in strips:
            result[device.id] = strips[device.strip]
        else:
            result[device.id] = counter.next(device)
        if device.strip:
            strips[device.strip] = result[device.id]
    return result, tuple(GivenTag(d.id, result[d.id], d.id in own_tags) for d in circuits.devices)


def _known_strips(circuits: Circuits, known: Mapping[DeviceId, str], own: Container[DeviceId]) -> dict[str, str]:
    """The tag of every strip that has one: that of its first terminal, unless another strip has it already.

    So a terminal that practice puts into another strip takes that strip's tag; the builder's own stay as they are.
    """
    strips: dict[str, str] = {}
    taken: dict[str, str] = {}
    for device in circuits.devices:
        tag = known.get(device.id, "")
        if not tag or not device.strip or device.strip in strips:
            continue
        if taken.setdefault(tag, device.strip) == device.strip or device.id in own:
            strips[device.strip] = tag
    return strips


class _Counter:
    def __init__(self, used: set[str], practice: Practice, places: dict[DeviceId, SheetPlace]) -> None:
        self._used, self._practice, self._places = used, practice, places
        self._next_of: dict[str, int] = defaultdict(lambda: 1)

    def next(self, device: Device) -> str:
        """A free tag for a device."""
        letters = letters_of(device.kind_id, self._practice.letters, self._practice.house_letters)
        tag = self._free(letters, device)
        self._used.add(tag)
        return tag

    def _free(self, letters: str, device: Device) -> str:
        if device.kind.can(Can.EARTH_BAR) and letters not in self._used:
            return letters
        place = None if device.strip else self._places.get(device.id)
        if place is not None:
            sheet = f"{place.sheet:02}" if self._practice.tags is TagStyle.PLACED_TWO else f"{place.sheet}"
            place_text = f"{letters}{sheet}{place.column}"
            tries = (place_text, *(place_text + letter for letter in LEFT_OUT[1:]))
            candidate = next((candidate for candidate in tries if candidate not in self._used), "")
            if candidate:
                return candidate
        while (tag := f"{letters}{self._next_of[letters]}") in self._used:
            self._next_of[letters] += 1
        return tag


def device_places(
    circuits: Circuits, memory: Memory | None = None, *, ladder: bool = False
) -> dict[DeviceId, SheetPlace]:
    """Where each device is drawn: at its coil if it has one, else where it is met first.

    Args:
        circuits: All devices and rungs of the job.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
        ladder: Whether control paths are drawn as a ladder, whose lines are the places.
    """
    sheets = lay_out(circuits, memory, ladder=ladder)
    devices = circuits.by_id
    places: dict[DeviceId, SheetPlace] = {}
    for rung in circuits.rungs:
        for element in elements_of(rung.path):
            place = sheets.places.get(element.id)
            if place is None:
                continue
            for pole in element.poles:
                coil = devices[pole.device].kind.unit(pole.unit).behaviour is Behaviour.COIL
                if coil or pole.device not in places:
                    places[pole.device] = place
    return {**sheets.touched, **places}


def by_tags(text: str, tags: Mapping[DeviceId, str]) -> str:
    """A text with device ids in braces, each called by its tag; what is no device as it stands there.

    Args:
        text: The text.
        tags: The tag of every device.
    """
    return _BRACED.sub(lambda matched: tags.get(DeviceId(matched[1]), matched[1]), text)
