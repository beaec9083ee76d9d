"""What the page about Python says can be done is done, example after example."""

import re
from pathlib import Path

PAGE = Path(__file__).parent.parent / "docs" / "api.md"


def test_every_example_of_the_page_runs_in_its_order() -> None:
    examples = re.findall(r"```python\n(.*?)```", PAGE.read_text(encoding="utf-8"), re.S)
    assert len(examples) >= 5
    names: dict[str, object] = {}
    for number, example in enumerate(examples, 1):
        exec(compile(example, f"docs/api.md, example {number}", "exec"), names)
    assert names["missing"], "a panel that nobody built lacks everything"
