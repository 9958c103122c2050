"""Work that a crash left behind: offered, opened, and deleted only once it is safe elsewhere."""

from functools import partial

from PyQt6.QtCore import QObject

from unterbau.files.recovery import Kept, throw_away
from unterbau.ui.document import Document
from unterbau.ui.shell.file_actions import FileActions
from unterbau.ui.shell.keeping import Keeper
from unterbau.ui.shell.notice import Notice


class LeftBehind(QObject):
    """Offers the newest work that a crash left."""

    def __init__(self, document: Document, keeper: Keeper, files: FileActions, notice: Notice, parent: QObject) -> None:
        super().__init__(parent)
        self._document, self._keeper, self._files, self._notice = document, keeper, files, notice
        keeper.kept.connect(self._on_kept)
        document.file_changed.connect(self._on_file_changed)

    def use_notice(self, notice: Notice) -> None:
        """Offer in another place: the window was built anew."""
        self._notice = notice

    def offer(self) -> None:
        """Offer the newest work; nothing is asked when there is none."""
        left = self._keeper.left_behind()
        if not left:
            return
        newest = left[0]
        when = newest.when.replace("T", " ")[:16]
        text = f"“{newest.project.name}” was not saved when the program ended unexpectedly; kept aside {when}."
        offers = (("open it", partial(self._open, newest)), ("throw it away", partial(self._throw_away, newest)))
        self._notice.say(text, "", offers, "later")

    def _open(self, kept: Kept) -> None:
        self._files.restore(kept)
        self._keeper.keep_now()  # what it was read from goes once this is set aside

    def _throw_away(self, kept: Kept) -> None:
        throw_away(kept)
        self.offer()

    def _on_kept(self, when: str) -> None:
        del when
        self._files.forget_restored()

    def _on_file_changed(self) -> None:
        if not self._document.modified:
            self._files.forget_restored()
