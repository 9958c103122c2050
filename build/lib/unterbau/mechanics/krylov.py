"""A block Krylov space of K⁻¹M, orthonormal in M; what the operator does inside it is a small symmetric matrix.

The operator's matrix is what each block's image shares with the basis, and what an image leaves outside is
the residual (block Lanczos with full orthogonalisation; Golub and Van Loan, Matrix Computations, ch. 10, from memory).
Vectors are rows.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray
from unterbau.mechanics.mass_matrix import MassMatrix

FIRST = 24
"""Directions there is room for at first."""
NEWS = 1e-20  # share of a direction's size, squared, that is left after the basis is taken off
ONCE = 1e-2  # of the same: where more is left, the basis is taken off once only (twice is enough, Kahan)
CANCELLED = 1e-8  # below this share the rest of a direction is taken off the basis once more


@dataclass(frozen=True, slots=True)
class Rest:
    """What a space does not know of some vectors, those scaled to size one that have a mass."""

    both: FloatArray
    """It, beside M times it, shape (k, 2n)."""
    gram: FloatArray
    """Its products in M, shape (k, k)."""
    share: FloatArray
    """What the basis knows of them, shape (size, k)."""
    massive: BoolArray
    """Which of the vectors have a mass."""
    scale: FloatArray
    """Sizes of these, shape (k,)."""


class Space:
    """A growing basis with M times it."""

    def __init__(self, n: int, M: MassMatrix) -> None:
        self.size = 0
        self._M, self._n = M, n
        self._both, self._inside = np.zeros((FIRST, 2 * n)), np.zeros((FIRST, FIRST))
        self._last: tuple[slice, Rest] | None = None

    def products(self, last: int) -> FloatArray:
        """Return M times the directions added last, shape (last, n)."""
        return self._both[self.size - last : self.size, self._n :]

    def rest(self, vectors: FloatArray) -> Rest:
        """Return what is new in vectors (m, n)."""
        product = self._M.times(vectors)
        size = np.sum(vectors * product, axis=1)
        massive = size > 0.0
        scale = np.sqrt(size[massive])
        both = np.concatenate([vectors[massive], product[massive]], axis=1) / scale[:, None]
        share = self._take_off(both)
        gram = self._gram(both)
        if np.diagonal(gram).min(initial=1.0) < ONCE:
            share += self._take_off(both)
            gram = self._gram(both)
        return Rest(both, gram, share, massive, scale)

    def keep(self, image: Rest) -> None:
        """Keep the image, under K⁻¹M, of the directions added last."""
        columns = slice(self.size - len(image.massive), self.size)
        known = np.zeros((self.size, len(image.massive)))
        known[:, image.massive] = image.share * image.scale
        self._inside[: self.size, columns] = known
        self._last = columns, image

    def take(self, rest: Rest) -> int:
        """Take in what was new; return how many directions that is."""
        size, turn = np.linalg.eigh(rest.gram)
        news = size > NEWS
        both = (turn[:, news] / np.sqrt(size[news])).T @ rest.both
        if np.any(size[news] < CANCELLED):
            self._take_off(both)
            both[:, self._n :] = self._M.times(both[:, : self._n])
            size, turn = np.linalg.eigh(self._gram(both))
            news = size > 1e-6
            both = (turn[:, news] / np.sqrt(size[news])).T @ both
        added = len(both)
        self._grow(added)
        self._both[self.size : self.size + added] = both
        self.size += added
        return added

    def ritz(self, count: int) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Return the largest eigenvalues seen from the space, descending, with mixtures of the basis and residuals.

        Returns:
            Values (m,), mixtures (size, m), sizes in M of K⁻¹M x − λ x, squared, (m,).
        """
        values, mix = np.linalg.eigh(self._inside[: self.size, : self.size], UPLO="U")
        values, mix = values[::-1][:count], mix[:, ::-1][:, :count]
        if self._last is None:
            return values, mix, np.zeros(len(values))
        columns, image = self._last
        outside = image.scale[:, None] * mix[columns][image.massive]
        return values, mix, np.asarray(np.sum(outside * (image.gram @ outside), axis=0))

    def mixed(self, mix: FloatArray) -> FloatArray:
        """Return mixtures of the basis, shape (m, n)."""
        return np.asarray(mix.T @ self._both[: self.size, : self._n])

    def _take_off(self, both: FloatArray) -> FloatArray:
        """Take off vectors, in place, what the basis knows of them; return how much of it that is."""
        known = self._both[: self.size]
        share = known[:, self._n :] @ both[:, : self._n].T
        both -= share.T @ known
        return np.asarray(share)

    def _gram(self, both: FloatArray) -> FloatArray:
        gram = both[:, : self._n] @ both[:, self._n :].T
        return np.asarray(gram + gram.T) / 2

    def _grow(self, added: int) -> None:
        room = len(self._inside)
        if self.size + added > room:
            self._both = np.concatenate([self._both, np.zeros_like(self._both)])
            self._inside = np.pad(self._inside, (0, room))
