"""Links, second names and folders of others: nothing that is not ours is touched."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from vadrin.commands import main
from vadrin.formats.whole_file import safe_name, write_whole
from vadrin.notebook.records import Stock
from vadrin.notebook.store import Notebook

RELEASED = Path(__file__).parent / "released"


@pytest.mark.parametrize("link", [False, True])
def test_a_folder_that_is_no_environment_of_ours_is_never_removed(tmp_path, link):
    precious = tmp_path / "letters"
    precious.mkdir()
    (precious / "to the harbour").write_text("keep me")
    (precious / "pyvenv.cfg").write_text("home = somewhere else")
    env = precious
    if link:
        env = tmp_path / "link"
        env.symlink_to(precious)
    program = Path(__file__).parents[2] / "vadrin"
    run = subprocess.run(
        [str(program), "--version"],
        env={**os.environ, "VADRIN_ENV": str(env)},
        capture_output=True,
        text=True,
        timeout=30,
    )
    assert run.returncode == 2
    assert "is left alone" in run.stderr
    assert sorted(p.name for p in precious.iterdir()) == ["pyvenv.cfg", "to the harbour"]


def test_a_lock_that_is_a_link_is_refused_and_what_it_points_to_untouched(tmp_path, empty_path):
    path = Path(shutil.copy(empty_path, tmp_path / "winter.vadrin"))
    diary = tmp_path / "diary.txt"
    diary.write_text("rain again")
    (tmp_path / ".winter.vadrin.lock").symlink_to(diary)
    book = Notebook(path)
    assert "is a link, not a lock" in book.read_only
    book.close()
    assert diary.read_text() == "rain again"


@pytest.mark.parametrize("other", ["symlink", "hard link"])
def test_one_notebook_under_two_names_has_one_writer(tmp_path, empty_path, other):
    path = Path(shutil.copy(empty_path, tmp_path / "winter.vadrin"))
    second = tmp_path / "elsewhere" / "same.vadrin"
    second.parent.mkdir()
    if other == "symlink":
        second.symlink_to(path)
    else:
        second.hardlink_to(path)
    first, again = Notebook(path), Notebook(second)
    assert not first.read_only
    assert "open" in again.read_only
    again.close()
    first.close()
    later = Notebook(second)
    assert not later.read_only, "and after it is closed the next may write"
    later.close()


def test_a_file_is_written_whole_or_not_at_all(tmp_path, monkeypatch):
    path = tmp_path / "card.pdf"
    write_whole(path, "first")
    path.chmod(0o640)
    link = tmp_path / "link.pdf"
    link.symlink_to(path)
    write_whole(link, b"second")
    assert (link.is_symlink(), path.read_bytes()) == (True, b"second")
    assert path.stat().st_mode & 0o777 == 0o640

    def full(_descriptor):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(OSError, match="No space"):
        write_whole(path, b"third")
    assert path.read_bytes() == b"second"
    assert sorted(p.name for p in tmp_path.iterdir()) == ["card.pdf", "link.pdf"]


@pytest.mark.parametrize(
    ("words", "name"),
    [
        ("card gannet 100/b", "card gannet 100-b.pdf"),
        ("..\\up", "-up.pdf"),
        ("a\nb\x00c", "a-b-c.pdf"),
        ("", "unnamed.pdf"),
    ],
)
def test_any_film_has_a_file_name(tmp_path, words, name):
    assert safe_name(words, ".pdf") == name
    long = safe_name("ö" * 400, ".pdf")
    assert len(long.encode()) <= 255
    for one in (name, long):
        write_whole(tmp_path / one, b"x")


KILLED = """
import os, sqlite3, sys
from pathlib import Path
from vadrin.notebook.store import Notebook
real = sqlite3.connect

def dying(*given, **more):
    # Only the last act, which sets the marks, connects by itself.
    if os.fspath(given[0]).endswith((".making", "empty.vadrin")):
        os._exit(9)
    return real(*given, **more)

import vadrin.notebook.file as file
file.sqlite3 = type("Dying", (), {**vars(sqlite3), "connect": staticmethod(dying)})
Notebook(Path(sys.argv[1]))
"""


def killed_while_making(path):
    """Open a notebook in a program that is killed when its tables are there, its marks not yet."""
    source = Path(__file__).parents[2] / "src"
    environment = {**os.environ, "PYTHONPATH": str(source)}
    run = subprocess.run([sys.executable, "-c", KILLED, str(path)], env=environment, timeout=60)
    return run.returncode


def test_a_kill_while_a_notebook_is_made_leaves_no_ruin(tmp_path):
    path = tmp_path / "winter.vadrin"
    assert killed_while_making(path) == 9
    assert not path.exists()
    book = Notebook(path)
    with book.change("begin"):
        book.add(Stock(name="Gannet"))
    book.close()
    assert [p.name for p in tmp_path.glob(".*making*")] == [], "what was left is cleared away"


OLD = sorted(RELEASED.glob("*.vadrin"))


@pytest.mark.parametrize("old", [OLD[0], OLD[-2], OLD[-1]], ids=lambda p: p.stem)
def test_a_kill_while_an_older_notebook_migrates_leaves_it_as_it_was(tmp_path, old):
    path = Path(shutil.copy(old, tmp_path / "old.vadrin"))
    assert killed_while_making(path) == 9
    assert path.read_bytes() == old.read_bytes()
    book = Notebook(path)
    assert book.all(Stock)
    book.close()


def test_a_link_in_a_circle_and_a_name_that_is_no_text_are_a_line_each(tmp_path, capsys):
    (tmp_path / "one.vadrin").symlink_to(tmp_path / "other.vadrin")
    (tmp_path / "other.vadrin").symlink_to(tmp_path / "one.vadrin")
    for name, said in (("one.vadrin", "leads back to itself"), ("\udcff.vadrin", "is no text")):
        assert main([str(tmp_path / name)]) == 2
        told = capsys.readouterr().err
        assert said in told
        assert told.count("\n") == 1
