"""Pictures of every kind are read; hostile ones refused in one line."""

import struct
import zlib
from contextlib import suppress

import numpy as np
import pytest
import tifffile
from PIL import Image

from oracles.raw_camera import write_raw
from vadrin.app.pictures.own_scene import own_scene
from vadrin.core.pictures.scene import CODES_A_STOP
from vadrin.errors import FormatError
from vadrin.formats.pictures.picture_reader import checksum, read_picture

GREY = (np.arange(60 * 90).reshape(60, 90) * 12).astype(np.uint16)


@pytest.fixture
def path(tmp_path):
    return lambda name: tmp_path / name


@pytest.mark.parametrize(
    ("name", "write"),
    [
        ("plain.tif", lambda p: tifffile.imwrite(p, GREY)),
        ("tiled.tif", lambda p: tifffile.imwrite(p, GREY, tile=(16, 16))),
        ("rgb.tif", lambda p: tifffile.imwrite(p, np.stack([GREY] * 3, -1), photometric="rgb")),
        (
            "rgba.tif",
            lambda p: tifffile.imwrite(
                p, np.stack([GREY] * 4, -1), photometric="rgb", extrasamples=["unassalpha"]
            ),
        ),
        ("eight.tif", lambda p: tifffile.imwrite(p, (GREY >> 8).astype(np.uint8))),
        ("real.tif", lambda p: tifffile.imwrite(p, GREY.astype(np.float32))),
        ("sixteen.png", lambda p: Image.fromarray(GREY).save(p)),
        ("eight.png", lambda p: Image.fromarray((GREY >> 8).astype(np.uint8)).save(p)),
        (
            "colour.jpg",
            lambda p: Image.fromarray(np.stack([(GREY >> 8).astype(np.uint8)] * 3, -1)).save(p),
        ),
    ],
)
def test_a_picture_is_read_as_it_is(path, name, write):
    write(path(name))
    picture = read_picture(path(name))
    assert picture.plane().shape == (60, 90)
    scale = GREY.max() / float(np.max(picture.plane()))
    assert np.corrcoef(np.asarray(picture.plane(), float).ravel(), GREY.ravel())[0, 1] > 0.99
    assert scale == pytest.approx(1.0, abs=0.01) or scale > 200
    assert picture.reduced(30).shape == (20, 30)
    assert len(checksum(path(name))) == 64


def bomb(path):
    """A small PNG that claims 40,000 by 40,000 pixels."""
    Image.new("L", (32, 32)).save(path)
    data = bytearray(path.read_bytes())
    data[16:24] = struct.pack(">II", 40_000, 40_000)
    data[29:33] = struct.pack(">I", zlib.crc32(bytes(data[12:29])))
    path.write_bytes(bytes(data))
    return path


def broken(path, name):
    """A hostile picture of a name."""
    tifffile.imwrite(path, GREY)
    data = path.read_bytes()
    if name == "cut":
        path.write_bytes(data[: len(data) // 3])
    elif name == "one pixel":
        tifffile.imwrite(path, GREY[:1, :1])
    elif name == "nan":
        tifffile.imwrite(path, np.full((60, 90), np.nan, np.float32))
    elif name == "inks":
        tifffile.imwrite(path, np.zeros((60, 90, 4), np.uint8), photometric="separated")
    elif name == "huge header":
        head = bytearray(data)
        for tag in (256, 257):
            at = head.find(struct.pack("<HH", tag, 3))
            head[at + 2 : at + 12] = struct.pack("<HII", 4, 1, 1_000_000)
        path.write_bytes(bytes(head))
    elif name == "bomb":
        return bomb(path.with_suffix(".png"))
    elif name == "words":
        path.write_text("no picture at all")
    elif name == "twelve bits":
        tifffile.imwrite(path, np.zeros((60, 90), np.complex64))
    elif name == "nothing":
        path.write_bytes(b"")
    return path


@pytest.mark.parametrize(
    "name",
    ["cut", "one pixel", "nan", "inks", "huge header", "bomb", "words", "twelve bits", "nothing"],
)
def test_a_hostile_picture_is_refused_in_one_line(path, name):
    hostile = broken(path("x.tif"), name)
    with pytest.raises(FormatError) as refused:
        read_picture(hostile)
    assert "\n" not in str(refused.value)
    assert hostile.name in str(refused.value)


def test_no_bit_that_is_flipped_makes_it_stumble(path):
    rng = np.random.default_rng(4)
    tifffile.imwrite(path("whole.tif"), GREY, compression=None)
    data = path("whole.tif").read_bytes()
    read = 0
    for turn in range(150):
        hurt = bytearray(data)
        for at in rng.integers(0, 400 if turn % 2 else len(data), 3):
            hurt[at] ^= int(rng.integers(1, 256))
        path("hurt.tif").write_bytes(bytes(hurt))
        # Anything else that is raised fails the test.
        with suppress(FormatError):
            read_picture(path("hurt.tif")).reduced()
            read += 1
    assert read


def test_a_cameras_raw_file_is_a_scene_of_true_light(tmp_path):
    light = np.zeros((240, 420, 3))
    light[:] = (0.01 * 2.0 ** (np.arange(420) // 60))[None, :, None]
    light[:, 400:] = 3.0
    scene = own_scene(write_raw(tmp_path / "shed.dng", light))
    across = scene.luminance.shape[1]
    middles = [round(across * (60 * n + 30) / 420) for n in range(7)]
    codes = scene.luminance[scene.luminance.shape[0] // 2, middles].astype(int)
    assert np.diff(codes) == pytest.approx(np.full(6, CODES_A_STOP), abs=1), "a stop each"
    unknown = [scene.names[n] for n in np.unique(scene.things[:, round(across * 405 / 420) :])]
    assert unknown == ["too bright for the sensor"]
    assert set(np.unique(scene.things[:, : round(across * 395 / 420)])) == {0}
