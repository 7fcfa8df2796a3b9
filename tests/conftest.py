"""What holds for all tests: how long one takes is for the benchmarks to say, not for a deadline."""

from hypothesis import settings

settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")
