"""Deleting widgets so that nothing is left of them, in Qt or in Python."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QCoreApplication, QEvent, QObject
from PyQt6.QtWidgets import QWidget

from vadrin.ui.widgets.input_watch import InputWatch


def delete_now(part: QWidget) -> None:
    """Delete a widget before anything else is done: nothing is told to it any more.

    What Qt made inside it by itself, such as the port a scrolled page is seen through, Python may
    have met: as long as something keeps the page's Python half it keeps that of the port, too, and
    nobody tells it that the port is gone. The next widget made in the port's place in memory would
    be taken for it, and the program would end there. So it is told.

    Never from within an event of its own.
    """
    InputWatch.look_away(part)
    made_by_qt = [each for each in part.findChildren(QObject) if not sip.ispycreated(each)]
    part.deleteLater()
    QCoreApplication.sendPostedEvents(part, QEvent.Type.DeferredDelete)
    if sip.isdeleted(part):
        for each in made_by_qt:
            sip.setdeleted(each)
