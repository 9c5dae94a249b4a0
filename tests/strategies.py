"""Shared Hypothesis strategies."""

from hypothesis import strategies as st

lengths_mm = st.floats(min_value=-5000, max_value=5000, allow_nan=False).map(lambda x: round(x, 4))
small_angles = st.floats(min_value=-20, max_value=20, allow_nan=False)
seeds = st.integers(min_value=0, max_value=2**32 - 1)
words = st.text(min_size=1, max_size=20).filter(lambda text: bool(text.strip()))
