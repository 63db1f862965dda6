"""Each quantity as people write it: read right, or asked about; and shown, it is read back."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vadrin.app.display.marks import aperture_mark, shutter_name
from vadrin.app.display.units import METRIC
from vadrin.app.entry.densities import density_typed, temperature_typed
from vadrin.app.entry.exposures import (
    aperture_typed,
    exposure_index_typed,
    exposure_indexes_typed,
    stops_typed,
)
from vadrin.app.entry.numbers import numbers_typed
from vadrin.app.entry.times import minutes_typed, seconds_typed, times_typed
from vadrin.app.entry.volumes import volume_typed
from vadrin.core.exposure.arithmetic import exact_aperture, stops_text
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.errors import EntryError


def _stops(words):
    return stops_typed(words, -15, 15, "a bracket stays within 15 stops")


def _volume(words):
    return volume_typed(words, 20000, "a tank holds up to 20 l")


WAYS = {
    minutes_typed: {
        "8": 8,
        "8.0": 8,
        "8,0": 8,
        "8:00": 8,
        "08:00": 8,
        "8:30": 8.5,
        "8.5": 8.5,
        "8,5": 8.5,
        "8½": 8.5,
        "8 1/2": 8.5,
        "8 min": 8,
        "8min": 8,
        "8 minutes": 8,
        "8 m": 8,
        "8'": 8,
        "8'30": 8.5,
        "8'30\"": 8.5,
        "8 min 30": 8.5,
        "8 min 30 s": 8.5,
        "8min30s": 8.5,
        "8m30s": 8.5,
        "8 m 30 s": 8.5,
        "510 s": 8.5,
        "510s": 8.5,
        "510 sec": 8.5,
        "1:02:00": 62,
        "1 h": 60,
        "1h": 60,
        "1 h 5 min": 65,
        "1h05": 65,
        " 8 ": 8,
        "½": 0.5,
        "0:30": 0.5,
        "90 seconds": 1.5,
        "7¾": 7.75,
        "8.25 min": 8.25,
    },
    temperature_typed: {
        "20": 20,
        "20.0": 20,
        "20,5": 20.5,
        "20 °C": 20,
        "20°C": 20,
        "20 C": 20,
        "20C": 20,
        "20°": 20,
        "20 degrees": 20,
        "68 °F": 20,
        "68°F": 20,
        "68 F": 20,
        "68F": 20,
        "+20": 20,
        "20½": 20.5,
        " 21.5 ": 21.5,
        "37,8": 37.8,
        "37.8 °C": 37.8,
        "100 °F": 37.78,
    },
    density_typed: {
        "0.49": 0.49,
        "0,49": 0.49,
        ".49": 0.49,
        ",49": 0.49,
        "1": 1,
        "1.2": 1.2,
        "1,2": 1.2,
        "D 0.49": 0.49,
        "0.49 D": 0.49,
        "2.05": 2.05,
        "+0.10": 0.1,
    },
    exposure_index_typed: {
        "400": 400,
        "EI 400": 400,
        "ei400": 400,
        "ISO 400": 400,
        "ISO400": 400,
        "1,600": 1600,
        "1 600": 1600,
        "1600": 1600,
        "12,800": 12800,
        "EI 1,250": 1250,
        "0.8": 0.8,
        "0,8": 0.8,
        "1.6": 1.6,
        "400.0": 400,
        "E.I. 400": 400,
        "400 ISO": 400,
        "ISO 400/27°": 400,
        "1’600": 1600,
    },
    _stops: {
        "2": 2,
        "+2": 2,
        "-2": -2,
        "−2": -2,
        "–2": -2,
        "½": 0.5,
        "-½": -0.5,
        "+½": 0.5,
        "1½": 1.5,
        "1 1/2": 1.5,
        "-1 1/2": -1.5,
        "1/3": 0.333333,
        "-1/3": -0.333333,
        "⅓": 0.333333,
        "−1⅓": -1.333333,
        "-1 1/3": -1.333333,
        "2 stops": 2,
        "+2 stops": 2,
        "1 stop": 1,
        "0.5": 0.5,
        "0,5": 0.5,
        "-0,7": -0.7,
        "2 EV": 2,
        "+2EV": 2,
        "⅔": 0.666667,
        "-2⅔": -2.666667,
        "0": 0,
    },
    aperture_typed: {
        "5.6": 5.6,
        "5,6": 5.6,
        "f/5.6": 5.6,
        "f5.6": 5.6,
        "F5.6": 5.6,
        "f/8": 8,
        "f 8": 8,
        "f:8": 8,
        "8": 8,
        "1:2.8": 2.8,
        "f/2,8": 2.8,
        "11": 11,
        "22": 22,
    },
    seconds_typed: {
        "1/125": 0.008,
        "1/125 s": 0.008,
        "1/125s": 0.008,
        "1/60": 0.016667,
        "2": 2,
        "2 s": 2,
        "2s": 2,
        "2 sec": 2,
        '2"': 2,
        "0.5": 0.5,
        "0.5 s": 0.5,
        "0,5 s": 0.5,
        "1/2": 0.5,
        "1 1/2 s": 1.5,
        "1½ s": 1.5,
        "30 s": 30,
        "1 min": 60,
        "2 min": 120,
        "1:30": 90,
        "1 min 30 s": 90,
        "½ s": 0.5,
        "1/4": 0.25,
        "1/8 sec": 0.125,
        "1/1,000": 0.001,
        "1/1000": 0.001,
        "4 m": 240,
    },
    _volume: {
        "500": 500,
        "500 ml": 500,
        "500ml": 500,
        "0.5 l": 500,
        "0,5 l": 500,
        "1 l": 1000,
        "1l": 1000,
        "1 L": 1000,
        "1 litre": 1000,
        "1.5 liters": 1500,
        "1,000 ml": 1000,
        "1 000 ml": 1000,
        "½ l": 500,
        "600 cc": 600,
        "600 cm3": 600,
        "60 cl": 600,
        "6 dl": 600,
    },
}
ASKED_ABOUT = {
    minutes_typed: ("", "eight", "8:75", "-8", "8:3O", "8::30", "0", "1e9", "8 h 90", "nan", "inf"),
    temperature_typed: ("", "warm", "-5", "200", "20..5", "20 K", "nan"),
    density_typed: ("", "-1", "7", "0.4.9", "four", "49", "nan"),
    exposure_index_typed: ("", "0", "-100", "fast", "1e9", "nan", "4OO"),
    _stops: ("", "a lot", "+400", "1//2", "--2", "1/0", "nan"),
    aperture_typed: ("", "wide", "0", "-8", "f/", "nan"),
    seconds_typed: ("", "later", "0", "-1", "1/0", "1/", "/125", "nan"),
    _volume: ("", "much", "-5", "0", "30 l", "nan"),
}


@pytest.mark.parametrize(
    ("read", "words"), [(read, words) for read, ways in WAYS.items() for words in ways]
)
def test_a_quantity_is_read_as_it_is_meant(read, words):
    assert read(words) == pytest.approx(WAYS[read][words], rel=2e-3)


@pytest.mark.parametrize(
    ("read", "words"), [(read, words) for read, all_ in ASKED_ABOUT.items() for words in all_]
)
def test_what_is_no_such_quantity_is_refused_with_the_form_named(read, words):
    with pytest.raises(EntryError) as refused:
        read(words)
    said = str(refused.value)
    assert any(letter.isdigit() for letter in said), "an example, or the bounds"


@given(st.integers(-45, 45))
def test_stops_shown_are_read_back(thirds):
    assert _stops(stops_text(thirds / 3, signed=True)) == pytest.approx(thirds / 3, abs=0.01)


@given(st.sampled_from([exact_aperture(2.0 ** (n / 6)) for n in range(1, 40)]))
def test_apertures_shown_are_read_back(f_number):
    shown = aperture_mark(f_number)
    assert exact_aperture(aperture_typed(shown)) == pytest.approx(f_number, rel=0.06)
    assert aperture_typed(f"f/{shown.removeprefix('f/')}") == aperture_typed(shown)


@given(st.sampled_from([2.0 ** (n / 3) for n in range(-39, 20)]))
def test_shutter_marks_shown_are_read_back(seconds):
    shown = shutter_name(seconds)
    assert exact_shutter(seconds_typed(shown)) == pytest.approx(exact_shutter(seconds), rel=0.13)


@given(st.integers(50, 600), st.booleans())
def test_temperatures_and_volumes_shown_are_read_back(tenths, comma):
    shown = f"{tenths / 10:g} °C"
    assert temperature_typed(shown.replace(".", ",") if comma else shown) == tenths / 10
    poured = METRIC.volume_text(float(tenths))
    assert _volume(poured) == pytest.approx(tenths, abs=2.6)


@given(st.integers(0, 400))
def test_densities_shown_are_read_back_with_point_and_comma(hundredths):
    shown = f"{hundredths / 100:.2f}"
    assert density_typed(shown) == density_typed(shown.replace(".", ",")) == hundredths / 100


LISTS = {
    times_typed: {
        (6, 8, 11): [
            "6 8 11",
            "6, 8, 11",
            "6; 8; 11",
            "6,8,11",
            "6 , 8 , 11",
            "6, 8 and 11",
            "6, 8, and 11",
            "6 / 8 / 11",
            "6 | 8 | 11",
            "6, 8, 11 min",
            "6 8 11 min",
            "6 min 8 min 11 min",
            "6 min, 8 min, 11 min",
            "6:00 8:00 11:00",
            "6\t8\t11",
            "360 s, 480 s, 660 s",
            "6.0, 8.0, 11.0",
            "6,0 8,0 11,0",
        ],
        (6.5, 8): [
            "6,5, 8",
            "6,5; 8",
            "6,5 8",
            "6½, 8",
            "6 1/2, 8",
            "6 1/2 8",
            "6:30, 8",
            "6:30 8:00",
            "6'30, 8'",
            "6 min 30, 8",
            "6 min 30 s, 8 min",
            "6m30s, 8m",
            "390 s; 480 s",
        ],
    },
    numbers_typed: {
        (0, 1, 2): ["0 1 2", "0, 1, 2", "0; 1; 2", "0,1,2", "0, 1 and 2", "0 + 1 + 2", "0\n1\n2"],
        (-1, 0, 1.5): ["-1 0 1.5", "−1, 0, +1,5", "–1; 0; 1½", "-1 0 1 1/2", "-1, 0, 1 1/2"],
    },
    exposure_indexes_typed: {
        (100, 200): ["100 200", "100, 200", "EI 100, EI 200", "EI 100 and 200", "ISO 100; ISO 200"],
        (100, 1600): ["100, 1,600", "100; 1.600", "100 and 1600", "100, 1 600", "100 1,600"],
    },
}
LISTS_ASKED_ABOUT = {
    times_typed: [
        "6,8",
        "6,5,8,5",
        "6 min 30",
        "6 min 30 s 8 min",
        "6, 8 11",
        "6-8",
        "6, soon",
        "",
    ],
    numbers_typed: ["0,5", "1,5,2,5", "0, 1 2", "0/1/2", "0, one", ""],
    exposure_indexes_typed: ["1,600", "1 600", "100,200", "100/200", "100 - ", ""],
}


@pytest.mark.parametrize(
    ("read", "values", "words"),
    [(r, v, w) for r, known in LISTS.items() for v, ways in known.items() for w in ways],
)
def test_a_list_is_read_as_it_is_meant(read, values, words):
    assert read(words) == pytest.approx(values, rel=2e-3)


@pytest.mark.parametrize(
    ("read", "words"), [(read, w) for read, asked in LISTS_ASKED_ABOUT.items() for w in asked]
)
def test_a_list_that_may_be_another_is_asked_about(read, words):
    with pytest.raises(EntryError, match=r"\w{3}"):
        read(words)
