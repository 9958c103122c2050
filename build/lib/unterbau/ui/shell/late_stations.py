"""Stations that are made when they are first wanted: the window stands before they do."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QWidget

from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.selection import Selection
from unterbau.ui.shell.station_bar import STATIONS
from unterbau.ui.view_settings import ViewSettings

if TYPE_CHECKING:
    from unterbau.ui.stations.brief.station import BriefStation
    from unterbau.ui.stations.build.station import BuildStation
    from unterbau.ui.stations.compare.station import CompareStation
    from unterbau.ui.stations.pour.station import PourStation
    from unterbau.ui.stations.workshop.station import WorkshopStation

BRIEF, COMPARE = STATIONS.index("Brief"), STATIONS.index("Compare")
POUR, WORKSHOP, BUILD = STATIONS.index("Pour"), STATIONS.index("Workshop"), STATIONS.index("Build")
LATE = (BRIEF, COMPARE, POUR, WORKSHOP, BUILD)


class LateStations:
    """Makes each once, and puts it on its page."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, window: QWidget,
        fill: Callable[[int, QWidget], None],
    ) -> None:  # fmt: skip
        """Take what stations need, and what puts one on its page."""
        self._document, self._selection, self._view, self._feed = document, selection, view, feed
        self._window, self._fill = window, fill
        self._brief: BriefStation | None = None
        self._compare: CompareStation | None = None
        self._pour: PourStation | None = None
        self._workshop: WorkshopStation | None = None
        self._build: BuildStation | None = None
        self.say: Callable[[str], None] = lambda _: None
        self.wrote: Callable[[Path], None] = lambda _: None
        self.link_wanted: Callable[[str], None] = lambda _: None
        self.over_wanted: Callable[[str], None] = lambda _: None
        self.kind_wanted: Callable[[str], None] = lambda _: None
        self.cure_wanted: Callable[..., None] = lambda *_: None

    @property
    def compare(self) -> "CompareStation":
        """The Compare station."""
        if self._compare is None:
            from unterbau.ui.stations.compare.station import CompareStation

            self._compare = CompareStation(self._document, self._selection, self._view, self._feed, self._window)
            self._compare.trouble.connect(self.say)
            self._compare.wrote.connect(self.wrote)
            self._compare.link_wanted.connect(self.link_wanted)
            self._compare.over_wanted.connect(self.over_wanted)
            self._fill(COMPARE, self._compare)
        return self._compare

    @property
    def brief(self) -> "BriefStation":
        """The Brief station."""
        if self._brief is None:
            from unterbau.ui.stations.brief.station import BriefStation

            self._brief = BriefStation(self._document, self._selection, self._view, self._feed, self._window)
            self._brief.trouble.connect(self.say)
            self._brief.kind_wanted.connect(self.kind_wanted)
            self._brief.cure_wanted.connect(self.cure_wanted)
            self._fill(BRIEF, self._brief)
        return self._brief

    @property
    def pour(self) -> "PourStation":
        """The Pour station."""
        if self._pour is None:
            from unterbau.ui.stations.pour.station import PourStation

            self._pour = PourStation(self._document, self._selection, self._view, self._window)
            self._pour.trouble.connect(self.say)
            self._pour.wrote.connect(self.wrote)
            self._fill(POUR, self._pour)
        return self._pour

    @property
    def workshop(self) -> "WorkshopStation":
        """The Workshop station."""
        if self._workshop is None:
            from unterbau.ui.stations.workshop.station import WorkshopStation

            self._workshop = WorkshopStation(self._document, self._selection, self._view, self._window)
            self._workshop.trouble.connect(self.say)
            self._workshop.wrote.connect(self.wrote)
            self._fill(WORKSHOP, self._workshop)
        return self._workshop

    @property
    def build(self) -> "BuildStation":
        """The Build station."""
        if self._build is None:
            from unterbau.ui.stations.build.station import BuildStation

            self._build = BuildStation(self._document, self._selection, self._view, self._window)
            self._build.trouble.connect(self.say)
            self._build.wrote.connect(self.wrote)
            self._fill(BUILD, self._build)
        return self._build

    def wanted(self, place: int) -> None:
        """Make the station of a place, where it is one of these."""
        made: dict[int, Callable[[], QWidget]] = {
            BRIEF: lambda: self.brief, COMPARE: lambda: self.compare, POUR: lambda: self.pour,
            WORKSHOP: lambda: self.workshop, BUILD: lambda: self.build,
        }  # fmt: skip
        if place in made:
            made[place]()

    def close(self) -> None:
        """Stop what they compute behind."""
        for station in (self._brief, self._compare, self._pour, self._workshop, self._build):
            if station is not None:
                station.close_station()
