"""Write the goldens anew: ``python -m tests.golden.make_golden``.  Look at the difference before you keep it."""

from pathlib import Path

from hardkeel.demo.kettlewick import demo_build
from hardkeel.export.parts import parts_csv
from hardkeel.storage.format import text_of

HERE = Path(__file__).parent
DEMO = HERE.parents[1] / "src" / "hardkeel" / "resources"

if __name__ == "__main__":
    (HERE / "demo-parts.csv").write_text(parts_csv(demo_build()), encoding="utf-8")
    (DEMO / "kettlewick.json").write_text(text_of(demo_build()), encoding="utf-8")
