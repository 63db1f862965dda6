"""Cards: the darkroom card as it will print, and the file it goes to."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QPixmap, QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy

from vadrin.app.decisions.cards_offered import WHOLE_FINDING, card_named, card_names
from vadrin.app.decisions.darkroom_card import CARD_SIZES, card_document, card_file_name, write_card
from vadrin.app.decisions.decision import write_answer
from vadrin.app.decisions.estimated_beside import estimated_report
from vadrin.app.descriptions import own_answer
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.pictures.exposed import exposed_of
from vadrin.app.pictures.looking import Looking, paper_used
from vadrin.app.pictures.saved_pictures import CardPictures, card_pictures
from vadrin.ui.actions import Action, hint
from vadrin.ui.kept import OfProgram, OfTest
from vadrin.ui.stations.cards.card_pages import CardPages
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.line_field import Field
from vadrin.ui.widgets.sentence import sentence


def _no_card(scene: ViewState) -> str:
    """Why there is no card yet."""
    if scene.state is None or scene.analysis is None:
        return "it is still being worked out"
    own = own_answer(scene.state)
    return own.words.rstrip(".") if own is not None else scene.analysis.finding.time_min.why


class CardsStation(Station):
    """See the card and save it."""

    _size: OfProgram[str] = OfProgram(lambda: "A6")
    _card: OfTest[str] = OfTest(lambda: WHOLE_FINDING)
    _path: OfTest[str] = OfTest(str)
    _said: OfTest[str] = OfTest(str)
    _side: OfTest[int] = OfTest(int)
    _pictured: OfTest[bool] = OfTest(bool)

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._scene: ViewState | None = None
        self._pdf = b""
        self._pages: CardPages | None = None
        self._red_only = False
        self._size_field = WordField("paper size", self._set_size, chooser(list(CARD_SIZES)))
        self._size_field.refused.connect(self.refuse)
        self.card = WordField("what the card is of", self._set_card, chooser(self._cards))
        self.card.refused.connect(self.refuse)
        self.column.addWidget(
            sentence("One card for the wall, of", self.card, ", on", self._size_field, ".")
        )
        self._picture = text("", Role.LEAD, wrap=True)
        self._picture.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self._picture.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        self._picture.setMinimumHeight(px(220))
        self.column.addWidget(self._picture, 1)
        self.column.addWidget(self.refusal)
        self._save = button("Save the card", self.save)
        self.offer(
            hint("↑ ↓", "another paper size, at its underlined word"),
            Action("cards.save", "save the card where the line says", self.save, ("Ctrl+S",)),
            Action("cards.print", "print the card at true size", self.print_card, ("Ctrl+P",)),
            Action("cards.pictures", "small pictures on the card", self.add_pictures, ("Alt+P",)),
            Action("cards.turn", "turn the card over", self.turn_over, ("PgDown",)),
        )
        self._turn = button("Turn the card over", self.turn_over)
        self._print = button("Print the card", self.print_card)
        over = QHBoxLayout()
        over.addWidget(self._turn)
        over.addWidget(self._print)
        self._with = button("Add pictures", self.add_pictures)
        over.addWidget(self._with)
        over.addStretch(1)
        self.column.addLayout(over)
        row = QHBoxLayout()
        row.addWidget(text("Save as (.pdf, or .json for data)", Role.NOTE))
        self.path = Field()
        self.path.setFont(role_font(Role.BODY))
        self.path.setAccessibleName("file to save the card to")
        self.path.returnPressed.connect(self.save)
        self.path.textEdited.connect(self._name_file)
        row.addWidget(self.path, 1)
        row.addWidget(self._save)
        self.column.addLayout(row)
        self._saved = text("", Role.DONE)
        self.column.addWidget(self._saved)

    def show_state(self, scene: ViewState) -> None:
        """Draw the card as it will print."""
        loaded = scene.loaded
        if loaded is None:
            return
        self._scene = scene
        self._size_field.show_value(self._size)
        self._red_only = scene.look.red_only
        self._card = self._card if self._card in self._cards() else WHOLE_FINDING
        self.card.show_value(self._card)
        card = None
        if scene.state is not None and scene.analysis is not None:
            card = card_named(self.bench.notebook, scene.state, self._card)
        for ready in (self._save, self._print):
            ready.setEnabled(card is not None)
        if card is None:
            why = _no_card(scene)
            self._pdf, self._pages = b"", None
            self._turn.hide()
            self._picture.setPixmap(QPixmap())
            self._picture.setText(f"No card yet: {why}.")
            return
        self._pdf = card_document(card, self._size, self._pictures_of(scene))
        self._pages = CardPages(self._pdf)
        self._turn.setVisible(self._pages.count > 1)
        self._picture.setPixmap(self._render(self._pages))
        of = "" if self._card == WHOLE_FINDING else self._card
        usual = str(self.bench.notebook.path.parent / card_file_name(loaded, of))
        self.path.setText(self._path or usual)
        self._saved.setText(self._said)

    def _pictures_of(self, scene: ViewState) -> CardPictures:
        """Small pictures of the whole finding, where they were asked for and are made."""
        state = scene.state
        offered = state is not None and self._card == WHOLE_FINDING and bool(exposed_of(state))
        self._with.setVisible(offered)
        self._with.setText("Leave pictures out" if self._pictured else "Add pictures")
        if not offered or state is None or not self._pictured:
            return ()
        return card_pictures(state, Looking(), paper_used(self.bench.notebook, state))

    def add_pictures(self) -> None:
        """Small pictures of normal and pushes on the card, or none."""
        self._pictured = not self._pictured
        if self._scene is not None:
            self.show_state(self._scene)

    def _name_file(self, words: str) -> None:
        self._path = words

    def _cards(self) -> list[str]:
        scene = self._scene
        return card_names(scene.state if scene else None)

    def _set_card(self, words: str) -> None:
        self._card = choice_typed(words, self._cards(), anywhere=True)
        self._path = self._said = ""
        if self._scene is not None:
            self.show_state(self._scene)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit the picture to the room there is."""
        super().resizeEvent(event)
        if self._pages is not None:
            self._picture.setPixmap(self._render(self._pages))

    def turn_over(self) -> None:
        """Show the next side of the card; the first again after the last."""
        if self._pages is not None and self._pages.count > 1:
            self._side = (self._side + 1) % self._pages.count
            self._picture.setPixmap(self._render(self._pages))

    def print_card(self) -> None:
        """Ask for a printer, and print every side."""
        if self._pages is not None:
            self._pages.ask_and_print(self, lambda: self._say("Sent to the printer at true size."))

    def _say(self, words: str) -> None:
        self._said = words
        self._saved.setText(words)

    def _render(self, pages: CardPages) -> QPixmap:
        width, height = CARD_SIZES[self._size]
        wide = max(px(300), min(px(720), self._picture.width() - px(4)))
        high = max(px(200), self._picture.height() - px(4))
        wide = min(wide, round(high * width / height))
        size = QSize(wide, round(wide * height / width))
        picture = pages.picture(min(self._side, pages.count - 1), size, self._red_only)
        self._picture.setAccessibleName(f"the card, side {self._side + 1} of {pages.count}")
        return picture

    def _set_size(self, words: str) -> None:
        self._size = choice_typed(words, CARD_SIZES, anywhere=True)
        if self._scene is not None:
            self.show_state(self._scene)

    def save(self) -> None:
        """Write the PDF where the line says."""
        if not self._pdf:
            return
        self._path = self.path.text()
        target = Path(self._path.strip()).expanduser()
        data = target.suffix.lower() == ".json"
        scene = self._scene if data else None
        if target.suffix.lower() not in (".pdf", ".json"):
            target = target.with_name(target.name + ".pdf")
        try:
            if scene is not None and scene.state is not None:
                write_answer(
                    target, scene.state, estimated_report(self.bench.notebook, scene.state)
                )
            else:
                write_card(target, self._pdf)
        except OSError as error:
            reason = (error.strerror or "cannot be written").lower()
            self.refuse(f"{target}: {reason}. Choose another folder.")
            return
        self.refuse("")
        how = "" if data else " Print it at 100 %, not fitted to the page."
        self._say(f"Saved {target.name}.{how}")

    def take_focus(self) -> None:
        """Begin at the file name."""
        self.path.setFocus()
