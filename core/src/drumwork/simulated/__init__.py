"""Stand-ins for a real drum, for the demo, practice, tests and benchmarks. Models, not measurements."""

from drumwork.simulated.drum import SimulatedDrum
from drumwork.simulated.head import SimulatedHead
from drumwork.simulated.sound import Microphone, SoundingHead, Tap

__all__ = ["Microphone", "SimulatedDrum", "SimulatedHead", "SoundingHead", "Tap"]
