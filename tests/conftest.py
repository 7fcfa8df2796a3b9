"""What holds for all tests: how long one takes is for the benchmarks to say, not for a deadline."""

import os

from hypothesis import settings

settings.register_profile("untimed", deadline=None)
#: The everyday loop (`make test-quick`): few examples, the same ones every time.
settings.register_profile("quick", deadline=None, max_examples=10, derandomize=True)
settings.load_profile("quick" if os.environ.get("QUICK") else "untimed")
