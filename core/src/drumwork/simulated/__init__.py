"""Stand-ins for a real drum, for the demo, practice, tests and benchmarks. Models, not measurements."""

from drumwork.simulated.drum import SimulatedDrum
from drumwork.simulated.head import SimulatedHead
from drumwork.simulated.microphone import Microphone
from drumwork.simulated.ring import Ringing, Tap
from drumwork.simulated.shell import Shell
from drumwork.simulated.sound import SoundingHead
from drumwork.simulated.sounding_drum import SoundingDrum

__all__ = [
    "Microphone",
    "Ringing",
    "Shell",
    "SimulatedDrum",
    "SimulatedHead",
    "SoundingDrum",
    "SoundingHead",
    "Tap",
]
