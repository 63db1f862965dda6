"""The kinds of test that people do, one file each, registered here."""

from vadrin.core.planning.test_kinds.cine import Cine
from vadrin.core.planning.test_kinds.clip import Clip
from vadrin.core.planning.test_kinds.colour_push import ColourPush
from vadrin.core.planning.test_kinds.compare import Compare
from vadrin.core.planning.test_kinds.data_sheet import DataSheet
from vadrin.core.planning.test_kinds.development_time import DevelopmentTime
from vadrin.core.planning.test_kinds.kind import (
    Asks,
    Foretold,
    Metering,
    TestKind,
    kind_of,
    register_kind,
    registered_kinds,
)
from vadrin.core.planning.test_kinds.long_exposures import LongExposures
from vadrin.core.planning.test_kinds.misrated_roll import WrongSetting
from vadrin.core.planning.test_kinds.mixed_roll import MixedRoll
from vadrin.core.planning.test_kinds.paper import PaperTest
from vadrin.core.planning.test_kinds.process_control import ProcessControl
from vadrin.core.planning.test_kinds.push_test import PushTest
from vadrin.core.planning.test_kinds.rescue import Rescue
from vadrin.core.planning.test_kinds.reversal import Reversal
from vadrin.core.planning.test_kinds.speed import Speed
from vadrin.core.planning.test_kinds.two_developers import TwoDevelopers

for _kind in (
    DevelopmentTime(),
    Speed(),
    PushTest(),
    MixedRoll(),
    Rescue(),
    Compare(),
    TwoDevelopers(),
    Clip(),
    LongExposures(),
    ColourPush(),
    Reversal(),
    PaperTest(),
    Cine(),
    ProcessControl(),
    WrongSetting(),
    DataSheet(),
):
    register_kind(_kind)

__all__ = [
    "Asks",
    "Foretold",
    "Metering",
    "TestKind",
    "kind_of",
    "register_kind",
    "registered_kinds",
]
