"""What text goes on what, in how many copies, on which medium, at its true size."""

from collections.abc import Sequence
from dataclasses import replace

from riktig.core.catalogue import Can
from riktig.core.job import CodesOn, LabelText
from riktig.core.keys import PartKey
from riktig.core.labels.fit import LetterLimits
from riktig.core.labels.inputs import LabelInputs
from riktig.core.labels.model import Label, Labels, Medium, label_names
from riktig.core.labels.of_parts import part_labels
from riktig.core.labels.plates import notice_labels, plate_labels
from riktig.core.labels.wording import untranslated_texts, with_own_words

__all__ = ["make_labels"]


def make_labels(inputs: LabelInputs) -> Labels:
    """Every label of the panel. Wire markers come in pairs, in the order of the batches.

    Texts are put into the language of the job by the house's table, then those that the builder wrote himself stand in
    their place.
    """
    labels = [*part_labels(inputs), *plate_labels(inputs), *_of_sources(inputs), *notice_labels(inputs)]
    lines = tuple(f"{field.name}: {field.value}" for field in inputs.fields if field.value)
    whole = inputs.number if inputs.practice.codes is CodesOn.LABELS else ""
    labels.append(Label(Medium.NAMEPLATE, lines, 1, "door, outside", PartKey("nameplate"), whole, place="door"))
    missing = untranslated_texts(labels, inputs.practice)
    labels, strays = _with_own_texts(with_own_words(labels, inputs.practice), inputs.texts)
    sheets = {sheet.medium: sheet for sheet in inputs.sheets}
    if sheets:
        labels = [
            replace(label, on_sheet=(sheet.width, sheet.height), limits=LetterLimits(sheet.least, sheet.characters))
            if (sheet := sheets.get(label.medium.value))
            else label
            for label in labels
        ]
    return Labels(tuple(labels), inputs.fields, missing, strays)


def _of_sources(inputs: LabelInputs) -> list[Label]:
    """A plate on the door for every supply from elsewhere."""
    mains = [inputs.names.tag[d.id] for d in inputs.circuits.devices if d.kind.can(Can.MAIN_SWITCH)]
    main = mains[0] if mains else "the main switch"
    labels = []
    for source in inputs.sources:
        words = f"{source.volts} from {source.comes_from or 'elsewhere'} stay live inside when {main} is off."
        lines = (source.name.upper(), words)
        labels.append(Label(Medium.WARNING, lines, 1, "door and where it enters", PartKey("sources"), place="door"))
    return labels


def _with_own_texts(labels: Sequence[Label], texts: Sequence[LabelText]) -> tuple[list[Label], tuple[str, ...]]:
    """Labels with the builder's own words; and the names of those whose label is gone or says something else now."""
    if not texts:
        return list(labels), ()
    own_texts, strays = {text.label: text for text in texts}, []
    worded = []
    for name, label in zip(label_names(labels), labels, strict=True):
        text = own_texts.pop(name, None)
        if text and label.lines != text.was:
            strays.append(name)
        worded.append(replace(label, lines=text.lines, short=(), own=text.reason) if text else label)
    return worded, (*strays, *own_texts)
