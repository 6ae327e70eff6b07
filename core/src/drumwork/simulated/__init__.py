"""Stand-ins for a real drum, for the demo, practice, tests and benchmarks. Models, not measurements."""

from drumwork.simulated.head import SimulatedHead

__all__ = ["SimulatedHead"]
