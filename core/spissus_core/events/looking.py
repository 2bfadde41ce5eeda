"""What is read of the pot: by jug, dip, scale or eye, and by a salt meter."""

from __future__ import annotations

import math
from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, model_validator

from ..amounts.fields import Percent, on_the_shelf
from ..amounts.quantities import LONGEST_AMOUNT, show_mass, show_percent, show_volume
from ..amounts.shares import remaining
from ..errors import AskedError, MeasurementError, QuantityError, SpissusError
from ..estimation.window import (
    WATER_KJ_G,
    Concentration,
    Window,
    boiled_by,
    found_by,
    kj_of,
    known_by,
    ml_of,
    still,
)
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import HOT_EXPANSION
from ..measuring.measurement import Measured, Method
from ..messages import Message, Shown, clauses, say
from ..phenomena.seasoning import CONTRADICTS_SD, meter_error
from ..pot import Pot, implied_mass_g
from .base import ActsOnPot, Kind, Kitchen
from .state import State

#: A reading that shows more than there was by this many standard errors is no chance. Modelling choice.
GAIN_SD = 3.0

#: No stove takes away more than so many times what its burner was said to give. Modelling choice.
MOST_TIMES = 4.0


def most_ml_min(pot: Pot) -> float:
    """More than any stove takes away of this pot in a minute, mL."""
    burners = pot.burner.net_kw + (pot.beside.burner.net_kw if pot.beside else 0.0)
    return ml_of(MOST_TIMES * burners * 60.0)


def no_chance_ml(error_ml: float) -> float:
    """Two readings of such an error that are further apart, mL, are so by no chance."""
    return GAIN_SD * math.sqrt(2.0) * error_ml


#: Less than a spoonful is no pot, mL. Modelling choice.
LEAST_LEFT_ML = 5.0


class Read(ActsOnPot):
    """A reading of the pot while it reduces: measured, or the share of it that is ``left`` to the eye ("half is gone"),
    which is kept as the volume that it comes to.

    ``gain`` answers for a reading that cannot be: liquid was added, some was poured off, it was misread, or it is right
    all the same.
    """

    stage = "reduce"
    looks = True
    leaves_plan = True
    called = say("entries.read")

    kind: Literal["read"] = "read"
    measured: Measured | None = None
    left: Annotated[float, Field(gt=0, le=1)] | None = None
    gain: Literal["added", "misread", "right", "poured"] | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_share(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict):
            return data
        given = data.get("measured")
        if not isinstance(given, dict) or not isinstance(given.get("value"), str):
            return data
        try:
            rests = remaining(given["value"][:LONGEST_AMOUNT])
        except QuantityError:
            return data
        if rests is None or rests.share is None:
            return data
        return {**data, "measured": None, "left": rests.left(given["value"], "value")}

    @model_validator(mode="after")
    def _something_was_read(self) -> Read:
        if self.measured is None and self.left is None:
            raise QuantityError("value", say("measuring.how_much_is_left"))
        return self

    @property
    def how_much(self) -> Shown | None:
        """What was read."""
        return None if self.measured is None else self.measured.shown

    def with_amount(self, text: str) -> Kind:
        """Read with the same, or with whatever the unit belongs to."""
        if self.measured is None:
            return super().with_amount(text)
        return self.said_otherwise({"measured": self.measured.model_dump() | {"value": text}})

    def written_out(self, kitchen: Kitchen) -> Kind:
        """A share of the pot as the volume that it comes to, by eye."""
        if self.measured is not None or self.left is None:
            return self
        value = self.left * kitchen.unboiled_ml() * HOT_EXPANSION
        if value < LEAST_LEFT_ML:
            raise QuantityError("value", say("measuring.how_much_is_left"))
        return self.kept_with(measured=Measured(method="eye", value=value, hot=True))

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with what the reading says of it, each by its precision, where nothing is known of its heat."""
        found = self._found(pot, 0.0)
        if found is None:
            return pot
        gained_ml, error = found
        if self.gain == "added":
            more = Contents(water=gained_ml / SPECIFIC_VOLUME_ML_G["water"])
            return self._held(pot.measured_over(error), pot.contents + more)
        if self.gain == "poured":
            share = min(max(1.0 + gained_ml / pot.contents.volume_ml, 0.0), 1.0)
            part = pot.but(
                contents=pot.contents.scaled(share), salt_minus=pot.salt_minus * share, salt_plus=pot.salt_plus * share
            ).measured_anew(error)
            return self._held(part, part.contents)
        if self.gain == "right" and gained_ml > GAIN_SD * math.hypot(error, pot.error_ml):
            # It boiled for less long than was said: that water is still there.
            still_there = Contents(water=gained_ml / SPECIFIC_VOLUME_ML_G["water"])
            return self._held(pot.measured_over(error), pot.contents + still_there)
        if -gained_ml > GAIN_SD * math.hypot(error, pot.error_ml):
            # Clearly less than there was: it boiled, and nobody said so.
            return self._held(pot.measured_over(error), boiled_by(pot.contents, -kj_of(gained_ml)))
        before = still(pot)
        after = before.known(-kj_of(gained_ml), 1.0, 0.0, kj_of(error))
        return self._held(known_by(pot, after), found_by(pot, before, after))

    def _found(self, pot: Pot, unseen_ml: float) -> tuple[float, float] | None:
        """How much more there is than was thought, mL, and the error of the reading; None where it is misread.

        What was only thought to have boiled away since anyone looked, ``unseen_ml``, may still be there.

        Raises
        ------
        MeasurementError : it does not fit the pan, or shows less than the solids alone.
        GainError : it shows more than there can be.
        """
        measured, contents = self.measured, pot.contents
        if self.gain == "misread" or measured is None:
            return None
        try:
            mass_g = implied_mass_g(pot, measured)
        except SpissusError as misfit:
            raise MeasurementError(f"measured.{misfit.field}", misfit.message) from None
        gained_ml = (mass_g - contents.mass_g) * SPECIFIC_VOLUME_ML_G["water"]
        error = pot.known_to_ml(measured.method)
        if self.gain is None and gained_ml - unseen_ml > GAIN_SD * math.hypot(error, pot.error_ml):
            raise GainError(gained_ml - unseen_ml, measured.method == "scale")
        if contents.water * SPECIFIC_VOLUME_ML_G["water"] + gained_ml <= 0.0:
            raise MeasurementError("measured.value", say("events.less_than_solids"))
        return gained_ml, error

    def _can_be(self, pot: Pot, lost_ml: float, error_ml: float, minutes: float) -> None:
        """Raises LossError where more is gone since the last look than any stove like that takes."""
        if lost_ml - no_chance_ml(error_ml) > minutes * most_ml_min(pot):
            raise LossError(pot.contents.liquid_ml)

    def check(self, after: State) -> None:
        """What contradicts the readings before it is asked about, not left out."""
        super().check(after)
        window = after.stove.window
        if self.gain is None and window is not None and window.track.contradicting and after.pot is not None:
            raise LossError(after.pot.contents.liquid_ml)

    def _held(self, pot: Pot, contents: Contents) -> Pot:
        assert self.measured is not None
        return pot.boiled_to(contents).but(hot=self.measured.hot, measured_by=self.measured.method)

    def apply(self, state: State, at: datetime) -> State:
        """The ledger takes what all readings say together; a pot found too thin may be thick enough now.

        Read hot it does not cool.
        """
        pot, window = state.pot, state.stove.window
        if pot is None or self.measured is None:
            return state
        if window is None or self.gain in ("added", "misread", "poured") or not window.heating:
            after = state.but(pot=self.on_pot(pot))
            if window is not None and after.pot is not None and self.gain == "added":
                after = after.but(stove=state.stove.but(window=window.joined(pot, after.pot)))
            elif window is not None and after.pot is not None and self.gain == "poured":
                begun = Window.begun(after.pot, window.setting, at, warm=False, assumed=window.assumed)
                after = after.but(stove=state.stove.but(window=begun))
        else:
            found = self._found(pot, ml_of(window.unseen_kj))
            assert found is not None
            gained_ml, error = found
            # How long the start had stood before it was told nobody knows; of what was read since, one does.
            if self.gain is None and state.stove.last_look is not None and window.measured:
                minutes = (at - state.stove.last_look).total_seconds() / 60.0
                self._can_be(pot, ml_of(window.unseen_kj) - gained_ml, error, minutes)
            moved = window.seen(-kj_of(gained_ml), kj_of(error), believed=self.gain == "right")
            found_there = found_by(pot, window.track, moved.track)
            stove = state.stove.but(window=moved)
            after = state.but(pot=self._held(known_by(pot, moved.track), found_there), stove=stove)
        judged, binding = state.judged, state.binding
        too_thin = judged.body[-1:] == ("low",) and not binding.in_it
        return after.but(
            judged=judged.but(body=()) if too_thin else judged,
            binding=binding.but(waited_min=0.0, measured=binding.in_it),
            cooling=None if self.measured.hot else state.cooling,
        )

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """As the reading left it."""
        return after.stove.window

    def said(self) -> Message:
        """What was read, and what became of it."""
        if self.measured is None:
            return say("events.read_share", left=show_percent(100.0 * (self.left or 0.0), 0))
        read = say("events.read", by=BY[self.measured.method], amount=self.measured.shown)
        if self.gain is None:
            return read
        return clauses(read, _GAINS[self.gain])


_GAINS = {
    "added": say("events.liquid_added"),
    "misread": say("events.misread"),
    "right": say("events.right_all_the_same"),
    "poured": say("events.poured_off"),
}

#: What a reading was taken by.
BY: dict[Method, Message] = {
    "jug": say("events.by_jug"),
    "dip": say("events.by_dip"),
    "scale": say("events.by_scale"),
    "eye": say("events.by_eye"),
}


class GainError(AskedError):
    """A reading that shows more in the pot than there can be; ``gained_ml`` is how much, mL."""

    answers = (
        (say("answers.i_added_liquid"), {"gain": "added"}),
        (say("answers.it_boiled_less"), {"gain": "right"}),
        (say("answers.it_was_misread"), {"gain": "misread"}),
    )

    def __init__(self, gained_ml: float, weighed: bool) -> None:
        more = show_mass(gained_ml) if weighed else show_volume(gained_ml)
        super().__init__("measured.value", say("events.more_than_before", more=more))
        self.gained_ml = gained_ml


class LossError(AskedError):
    """A reading of less than any stove could have left, or that contradicts those before it; ``expected_ml`` is what
    should be there, mL."""

    answers = (
        (say("answers.it_is_right"), {"gain": "right"}),
        (say("answers.some_was_poured_off"), {"gain": "poured"}),
        (say("answers.it_was_misread"), {"gain": "misread"}),
    )

    def __init__(self, expected_ml: float) -> None:
        super().__init__("measured.value", say("events.less_than_could_boil", expected=show_volume(expected_ml)))
        self.expected_ml = expected_ml


class SaltError(AskedError):
    """A salt content that the ledger cannot hold, nor the steam account for; ``left_ml`` is what would be left if it
    had boiled down to it, mL."""

    answers = (
        (say("answers.the_salt_is_so"), {"because": "salted"}),
        (say("answers.the_liquid_is_so"), {"because": "boiled"}),
        (say("answers.it_was_misread"), {"because": "misread"}),
    )

    def __init__(self, percent: float, pot: Pot, left_ml: float) -> None:
        less = left_ml < pot.contents.liquid_ml
        what = "events.salt_not_so_high" if less else "events.salt_not_so_low"
        salt, known = show_percent(percent), show_percent(pot.salt_percent.best)
        super().__init__("percent", say(what, salt=salt, known=known, volume=show_volume(left_ml)))
        self.left_ml = left_ml


class Metered(Kind):
    """A salt meter was held into the pot: it says how much salt there is to how much liquid, and both are learned.

    ``because`` answers for one that contradicts them: somebody salted, or it has boiled down, or got more liquid,
    unseen; or it was misread.
    """

    looks = True
    versions = (1, 3)
    # A meter was believed before it could be asked about.
    upcasts = {2: lambda said: said | {"because": "salted"}}
    tells = ("percent",)
    called = say("entries.metered")

    kind: Literal["metered"] = "metered"
    percent: Percent
    because: Literal["salted", "boiled", "misread"] | None = None

    def apply(self, state: State, at: datetime) -> State:
        """Liquid and salt, and the stove with them, each as far as it is unsure. Raises SaltError."""
        pot, window = state.pot, state.stove.window
        if pot is None:
            return state
        state = state.but(judged=state.judged.but(metered=True))
        percent = max(self.percent, LEAST_METERED)
        boils = window is not None and window.heating
        known = window.track if window is not None and boils else still(pot)
        found = Concentration.of(pot, percent, meter_error(percent))
        if known.apart(found.more_g, found.g_kj, 1.0, found.error_g) <= CONTRADICTS_SD:
            return with_concentration(state, found)
        left_g = 100.0 * pot.contents.salt / percent
        if self.because == "boiled" and left_g <= pot.contents.liquid_g - pot.contents.water:
            raise SpissusError("percent", say("events.less_than_solids"))
        if self.because is None:
            raise SaltError(self.percent, pot, left_g * pot.contents.liquid_ml / pot.contents.liquid_g)
        if self.because == "misread":
            return state
        if self.because == "salted":
            salt = percent / 100.0 * (pot.contents.liquid_g - pot.contents.salt) / (1.0 - percent / 100.0)
            salted = pot.but(contents=pot.contents.with_masses(salt=salt))
            after = salted.salt_known_to(found.error_g, percent / 100.0)
            moved = window.joined(pot, after) if window is not None and boils else window
            return state.but(pot=after, stove=state.stove.but(window=moved))
        return self._boiled(state, pot, left_g, meter_error(percent) / percent)

    def _boiled(self, state: State, pot: Pot, left_g: float, error: float) -> State:
        """The salt is what it was, so the liquid is another."""
        gone_kj = (pot.contents.liquid_g - left_g) * WATER_KJ_G
        error_kj = left_g * math.hypot(error, pot.salt_error_g / pot.contents.salt) * WATER_KJ_G
        window = state.stove.window
        if window is None or not window.heating:
            after = pot.measured_over(ml_of(error_kj))
            return state.but(pot=after.boiled_to(boiled_by(pot.contents, gone_kj)))
        moved = window.seen(gone_kj, error_kj)
        after = known_by(pot, moved.track)
        pot = after.boiled_to(found_by(pot, window.track, moved.track))
        return state.but(pot=pot, stove=state.stove.but(window=moved))

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """As the meter left it."""
        return after.stove.window

    def said(self) -> Message:
        """What it showed, and what became of it."""
        showed = say("events.metered", salt=show_percent(self.percent))
        return showed if self.because is None else clauses(showed, _BECAUSE[self.because])


_BECAUSE = {
    "salted": say("events.metered_salted"),
    "boiled": say("events.metered_boiled"),
    "misread": say("events.metered_misread"),
}

#: A meter that shows nothing at all has seen less than this, %. Modelling choice.
LEAST_METERED = 0.01


def with_concentration(state: State, found: Concentration) -> State:
    """The batch once its salt content was found: liquid, salt and stove, each moved as far as it is unsure."""
    pot, window = state.pot, state.stove.window
    assert pot is not None
    if window is not None and window.heating:
        moved = window.told_salt(found)
        before, after = window.track, moved.track
        state = state.but(stove=state.stove.but(window=moved))
    else:
        before = still(pot)
        after = before.known(found.more_g, found.g_kj, 1.0, found.error_g)
    return state.but(pot=known_by(pot, after).boiled_to(found_by(pot, before, after)))
