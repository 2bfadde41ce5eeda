"""The obedient cook: does exactly what the bar says, on a hidden pot of its own physics.

What is hidden is drawn wider than the app assumes: stoves, thickeners, pulp, tools, spoon and tongue. The pot below
knows nothing of the core: its masses, its body, its steam and its fat are its own few lines. A sauce is good within
0.15 points of the salt that is liked, half a step of the body wanted, with 95 % of the amount and less than 3 g of fat
in 100 mL; and where it was told how far to boil, it was boiled so. It tastes of what it was made of where it has 0.85
of the strength that was reachable: the least of twice that of the strained liquid, what the salt that is liked allows,
what the amount, or what was told, allows, and what its own body allows: nobody boils a milled pot past what is wanted.
"""

from __future__ import annotations

import argparse
import copy
import json
import math
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict, dataclass, field, replace
from datetime import UTC, datetime, timedelta
from importlib import import_module
from itertools import chain, repeat
from multiprocessing import get_context
from pathlib import Path
from typing import Any
from uuid import UUID

import numpy as np
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.measuring.vessels import Pan
from spissus_core.pantry.ways import WAYS
from spissus_core.phenomena.heating import Burner
from spissus_core.planning.acts import Act
from spissus_core.planning.finishing import finishes
from spissus_core.planning.judgement import JUDGEMENT, Judgement
from spissus_core.planning.proposing import solve_routes
from spissus_core.pot import Pot
from spissus_core.wish import Wish
from words import plain

#: A cook who has not finished after so many acts never will.
MOST_ACTS = 60

#: Good: points of salt, steps of body, share of the amount, g of fat in 100 mL.
GOOD_SALT, GOOD_BODY, GOOD_AMOUNT, GOOD_FAT = 0.15, 0.5, 0.95, 3.0

#: Of the strength that was reachable, and the most that is asked for, times that of what was strained.
GOOD_STRENGTH, MOST_STRENGTH = 0.85, 2.0

#: Ends of the steps of body, mPa·s (handbook of the trade).
STEPS = np.log([1.0, 5.0, 20.0, 60.0, 200.0, 600.0, 2000.0])

#: What a kind of liquid truly holds, g in 100 g: gelatin, pulp, everything else.
LIQUIDS = {"thin": (0.8, 0.05, 1.7), "gelatin_rich": (2.3, 0.2, 3.3), "milled": (1.2, 0.6, 5.2)}

#: What a gram of each school does the work of, g of flour; roasting and the like aside.
STRENGTHS = {
    "white_roux": 1.0,
    "blond_roux": 0.9,
    "brown_roux": 0.7,
    "dark_roux": 0.35,
    "own_fat_roux": 1.0,
    "kneaded_butter": 1.0,
    "instant_flour": 1.0,
    "granules": 0.7,
    "corn_starch": 2.0,
    "corn_starch_own": 2.0,
    "potato_own": 2.3,
    "arrowroot_own": 2.2,
    "tapioca_own": 1.6,
    "rice_own": 1.2,
    "waxy_own": 2.2,
    "roux_gelatin": 1.0,
    "starch_xanthan": 2.0,
    "bean_puree": 0.15,
}


@dataclass(frozen=True)
class Senses:
    """Errors of tools and senses, and how careless the cook is."""

    jug: float = 0.025
    dip_mm: float = 1.5
    scale_g: float = 2.0
    spoon: float = 0.5
    tongue: float = 0.12
    raw_tongue: float = 0.25
    late: float = 0.15
    doubled: float = 0.02
    forgotten: float = 0.02
    open_lid: float = 0.3
    power: tuple[float, float] = (0.5, 2.0)
    thickener: tuple[float, float] = (0.5, 1.4)
    pulp: float = 2.0


ERRING = Senses()
PERFECT = Senses(
    jug=0.0,
    dip_mm=0.0,
    scale_g=0.0,
    spoon=0.0,
    tongue=0.0,
    raw_tongue=0.0,
    late=0.0,
    doubled=0.0,
    forgotten=0.0,
    open_lid=0.0,
)


#: What a tongue calls so many points of salt more than is liked: of a sauce, and of raw strained liquid.
WORDS = {"flat": -0.25, "nearly": -0.12, "right": 0.0, "salty": 0.15, "too_salty": 0.35}
RAW_WORDS = {"flat": -0.55, "nearly": -0.25, "right": -0.05, "salty": 0.25, "too_salty": 0.55}

#: So many tell how far to boil it: the share that is left, the minutes, or the salt in times of what is liked.
TOLD, TOLD_SHARES, TOLD_MINUTES, TOLD_SALTS = 0.34, (0.35, 0.85), (8.0, 25.0), (0.75, 1.1)

#: Nobody tells more minutes than would boil so much of it away on the burner as it is called.
MOST_BOILED = 0.5

#: As told: within this share of it, and of minutes within so many; a salt content as near as salt is good.
AS_TOLD, AS_TOLD_MIN = 0.1, 1.5

#: A nose smells raw wine from so much alcohol on, % vol, and a spoonful sets on a cold plate from so much gelatin, %.
RAW_PERCENT_VOL, SETS_PERCENT = 0.7, 1.5

#: So many cooks have a salt meter at the start, and it is off by such a share; so many of all have nothing else, and
#: judge the amount by eye, which is off by such a share.
METERS, METER, METER_ALONE, EYE = 0.2, 0.05, 0.06, 0.15

#: So many want a glaze on the meat: so much for each, mL, at such a body.
GLAZES, GLAZE_ML, GLAZE_BODY = 0.07, 25.0, 4

#: So many end with a finish: something sour, cream, butter, or meat that is warmed in it from the fridge.
FINISHED, FINISHES = 0.5, ("lemon", "cream", "butter", "meat")

#: Water and fat in a gram of each, and the juice that a gram of cold slices gives back.
FINISH_WATER = {"lemon": 0.92, "cream": 0.58, "butter": 0.16}
FINISH_FAT = {"lemon": 0.0, "cream": 0.36, "butter": 0.81}
JUICE = 0.045

#: What a pot is made of.
_MASSES = ("water", "salt", "gelatin", "pulp", "other", "alcohol", "fat", "starch", "bound_fat", "gum")


@dataclass
class TruePot:
    """What is truly in the pot, g, and how the stove and the thickener truly are."""

    water: float
    salt: float
    gelatin: float
    pulp: float
    other: float
    alcohol: float
    fat: float
    kw: float
    thickener: float
    pulp_factor: float
    starch: float = 0.0
    bound_fat: float = 0.0
    gum: float = 0.0
    pending_kj: float = 0.0

    @property
    def liquid_g(self) -> float:
        return (
            self.water + self.salt + self.gelatin + self.pulp + self.other + self.alcohol + self.starch + self.bound_fat
        )

    @property
    def ml(self) -> float:
        solids = self.gelatin + self.pulp + self.other + self.starch
        return self.water + 0.33 * self.salt + 0.64 * solids + 1.17 * self.alcohol + 1.1 * self.bound_fat

    @property
    def salt_percent(self) -> float:
        return 100.0 * self.salt / self.liquid_g

    @property
    def strength(self) -> float:
        """Own solids without salt, starch, pulp and fat, g in 100 g."""
        return 100.0 * (self.gelatin + self.other) / self.liquid_g

    @property
    def step(self) -> float:
        """Where its body stands: 3.5 is the middle of a nappe.

        The form of the law is another than the app's, and not only its factors: starch and pulp do not lie on one
        curve, starch is a power law, gelatin goes by a polynomial, and a gum and what it is stirred into are more than
        the sum of both.
        """
        phase = self.liquid_g - self.bound_fat
        flour = 100.0 * self.starch * self.thickener / phase
        fibre = self.pulp_factor * 100.0 * self.pulp / phase
        x = 0.028 * 1000.0 * self.gelatin / self.ml
        phi = 0.806 * self.other / phase
        log10 = 1.723 * math.log10(1.0 + (flour / 1.4) ** 2)
        log10 += 1.69 * (fibre / 0.58) ** 1.5 if fibre < 0.58 else 5.0 * fibre / (1.0 + 1.23 * fibre)
        log10 += math.log10(1.0 + x + 0.5 * x**2 + 0.12 * x**3)
        log10 += 2.5 * phi / (1.0 - 1.43 * phi) / math.log(10.0)
        log10 -= 1.85 * math.log10(1.0 - min(1.1 * self.bound_fat / self.ml, 0.7) / 0.74)
        viscosity = 0.466 * 10.0**log10
        if self.gum > 0.0:
            alone = 300.0 * (100.0 * self.gum * self.thickener / phase) ** 1.3
            viscosity = (viscosity**0.6 + alone**0.6) ** (1.0 / 0.6)
        return float(np.interp(math.log(viscosity), STEPS, np.arange(7.0)))

    def boil(self, minutes: float, share: float = 1.0) -> None:
        kj = self.kw * share * 60.0 * minutes
        warming = min(kj, self.pending_kj)
        self.pending_kj -= warming
        self.steam((kj - warming) / 2.2565)

    def steam(self, grams: float) -> None:
        grams = min(grams, 0.95 * self.water)
        if self.alcohol > 0.0:
            # Leaves eight or so times as fast as the water, and takes less than half its heat.
            before, left = self.alcohol, self.water - grams
            self.alcohol = before * (left / self.water) ** 8.0
            grams = max(grams - (before - self.alcohol) * 0.38, 0.0)
        self.water -= grams

    def scale(self, share: float) -> None:
        for name in _MASSES:
            setattr(self, name, getattr(self, name) * share)

    def pour(self, other: TruePot, ml: float) -> None:
        """So much of another pot goes in."""
        for name in _MASSES:
            setattr(self, name, getattr(self, name) + getattr(other, name) * ml / other.ml)


@dataclass
class Evening:
    """One evening: the hidden pot, the tools, what is wanted, and how it went."""

    seed: int
    senses: Senses
    judgement: Judgement = JUDGEMENT
    pot: TruePot = field(init=False)
    pan: Pan = field(init=False)
    log: list[ev.Event] = field(default_factory=list)
    acts: list[tuple[Act | None, str]] = field(default_factory=list)
    said: list[str] = field(default_factory=list)
    spoons: int = 0
    tastes: int = 0
    parts: int = 0
    verdict: str = "never finished"
    way: str = "none"
    rest: TruePot = field(init=False)
    wished_ml: float = 0.0
    boiled_min: float = 0.0
    boiled_to: TruePot | None = None
    finish: str = ""

    def __post_init__(self) -> None:
        rng = self.rng = np.random.default_rng(self.seed)
        s = self.senses
        ml = math.exp(rng.uniform(math.log(250.0), math.log(5000.0)))
        self.character = str(rng.choice(list(LIQUIDS)))
        gelatin, pulp, other = LIQUIDS[self.character]
        wine = rng.random() < 0.4
        self.start_salt = rng.uniform(0.2, 1.5)
        self.pot = TruePot(
            water=ml * (1.0 - (gelatin + pulp + other) / 150.0),
            salt=ml * self.start_salt / 100.0,
            gelatin=ml * gelatin / 100.0 * math.exp(rng.normal(0.0, 0.15)),
            pulp=ml * pulp / 100.0,
            other=ml * other / 100.0,
            alcohol=ml * rng.uniform(0.003, 0.02) if wine else 0.0,
            fat=ml * rng.uniform(0.0, 0.08),
            kw=0.0,
            thickener=math.exp(rng.uniform(*map(math.log, s.thickener))),
            pulp_factor=math.exp(rng.uniform(-math.log(s.pulp), math.log(s.pulp))),
            # Strained and skimmed it has cooled a little.
            pending_kj=ml / 1000.0 * 4.0 * rng.uniform(0.0, 8.0),
        )
        # A pan twice as big as what is in it, as wide as high would be half.
        width = round((8.0 * 2.2e3 * (ml + self.pot.fat * 1.1) / math.pi) ** (1.0 / 3.0))
        self.pan = Pan.round("pan", width, round(width / 2.0), empty_g=1200.0 + ml / 3.0)
        told_kw = 1.0 if ml < 2500.0 else 2.0
        self.pot.kw = told_kw * math.exp(rng.uniform(*map(math.log, s.power)))
        self.burner = Burner(name="burner", net_kw=told_kw)
        self.method = str(rng.choice(["jug", "dip", "scale"], p=[0.45, 0.3, 0.25]))
        usual = float(rng.choice([0.8, 0.9, 1.0]))
        # What this kitchen is like is drawn apart, so that its pots are those of the other studies.
        self.kitchen = np.random.default_rng([self.seed, 1])
        self.liking = round(20.0 * (usual + self.kitchen.uniform(-0.1, 0.2))) / 20.0
        self.has_meter = bool(self.kitchen.random() < METERS)
        self.body = int(rng.choice([1, 2, 3, 3, 4]))
        helping = {1: 40.0, 2: 60.0, 3: 80.0, 4: 100.0}[self.body]
        # Drawn apart again: what is left of the evenings is what it was.
        rarely = np.random.default_rng([self.seed, 2])
        self.glaze = bool(rarely.random() < GLAZES)
        if self.glaze:
            self.body, helping = GLAZE_BODY, GLAZE_ML
        if rarely.random() < METER_ALONE:
            self.method, self.has_meter = "eye", True
        if rarely.random() < FINISHED:
            self.finish = str(rarely.choice(FINISHES))
        people = round(math.exp(rng.uniform(math.log(2.0), math.log(30.0))))
        while people > 2 and people * helping > 1.3 * ml:
            people -= 1
        self.amount = max(people * helping, 60.0)
        self.tells = self._tells()
        self.now = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)
        self.told_amount = self.amount
        self.strained = self.pot.strength
        self.reachable = min(MOST_STRENGTH, self.liking / self.pot.salt_percent, self.pot.ml / self.amount)
        self.reachable = min(self.reachable, self._by_its_body())
        self.began = self.now

    def _by_its_body(self) -> float:
        """Times its strength at which it is half a step thicker than is wanted with nothing added; let down, if need
        be, and nowhere past twice."""

        def too_thick(times: float) -> bool:
            pot = copy.copy(self.pot)
            pot.fat = 0.0
            pot.water += pot.liquid_g * (1.0 / times - 1.0)
            return pot.step > self.body + 0.5 + GOOD_BODY

        low, high = 0.1, MOST_STRENGTH
        if not too_thick(high):
            return high
        for _ in range(20):
            middle = 0.5 * (low + high)
            low, high = (low, middle) if too_thick(middle) else (middle, high)
        return low

    def _tells(self) -> tuple[str, float] | None:
        """How far it is boiled down, where the cook says so: a third do."""
        rng = self.kitchen
        told = (
            ("share", float(rng.uniform(*TOLD_SHARES))),
            ("minutes", float(round(rng.uniform(*TOLD_MINUTES)))),
            ("at_salt_percent", float(round(self.liking * rng.uniform(*TOLD_SALTS), 2))),
        )[int(rng.integers(3))]
        salted = told[0] == "at_salt_percent" and told[1] < 1.1 * self.start_salt
        # Nobody boils a cup for half an hour.
        dry = told[0] == "minutes" and told[1] * self.burner.net_kw * 60.0 / 2.2565 > MOST_BOILED * self.pot.ml
        return told if rng.random() < TOLD and not salted and not dry else None

    # -- the cook's hands ---------------------------------------------------------------------------

    def record(self, said: dict[str, Any] | ev.Kind) -> bool:
        """Whether the entry was taken."""
        payload = said if isinstance(said, ev.Kind) else ev.recorded(said)
        if isinstance(payload, ev.Unread):
            raise AssertionError(payload.why)
        seq = len(self.log) + 1
        event = ev.Event(id=UUID(int=(self.seed << 20) + seq), seq=seq, at=self.now, payload=payload)
        board = Board([*self.log, event], self.now)
        problem = board.timeline.moments[-1].problem
        if problem is not None:
            self.refused = problem
            return False
        self.log.append(event)
        self.said.append(plain(payload.said(), "metric"))
        return True

    def measured(self, method: str) -> dict[str, Any]:
        rng, pot, s = self.rng, self.pot, self.senses
        volume = (pot.ml + 1.1 * pot.fat) * 1.038
        if method in ("jug", "eye"):
            error = s.jug if method == "jug" else EYE if s.jug else 0.0
            value = volume * (1.0 + rng.normal(0.0, error))
        elif method == "scale":
            value = pot.liquid_g + pot.fat + (self.pan.empty_g or 0.0) + rng.normal(0.0, s.scale_g)
        else:
            value = self.pan.depth_mm(min(volume, 0.99 * self.pan.capacity_ml)) + rng.normal(0.0, s.dip_mm)
        return {"method": method, "value": float(max(value, 2.0)), "hot": True}

    def read(self, method: str) -> None:
        if method == "eye":
            # Where it boils the meter tells how far better than any eye.
            if not self.record({"kind": "metered", "percent": self.metered()}):
                self.record({"kind": "metered", "percent": self.metered(), "because": "boiled"})
            return
        said = {"kind": "read", "measured": self.measured(method)}
        if not self.record(said) and isinstance(self.refused, ev.GainError):
            self.record(said | {"gain": "misread"})

    def metered(self) -> float:
        """What a meter shows, % by weight."""
        error = METER if self.senses.tongue else 0.0
        return round(self.pot.salt_percent * (1.0 + float(self.kitchen.normal(0.0, error))), 2)

    def spoon(self) -> str:
        self.spoons += 1
        gap = self.pot.step - (self.body + 0.5) + self.rng.normal(0.0, self.senses.spoon)
        return "low" if gap < -0.5 else "high" if gap > 0.5 else "right"

    def tongue(self, raw: bool = False, times: int = 1) -> str:
        """A word for the salt; ``raw`` out of the boil, where it is judged hot, unbound and against a memory."""
        self.tastes += times
        error = (self.senses.raw_tongue if raw else self.senses.tongue) / math.sqrt(times)
        gap = self.pot.salt_percent - self.liking + self.rng.normal(0.0, error)
        words = RAW_WORDS if raw else WORDS
        return min(words, key=lambda word: abs(words[word] - gap))

    def wait(self, minutes: float) -> None:
        self.now += timedelta(minutes=minutes)

    # -- an evening ---------------------------------------------------------------------------------

    def begin(self) -> None:
        salt = self.tongue(raw=True)
        self.tastes = 0
        fat_ml = 1.1 * self.pot.fat * (1.0 + self.rng.normal(0.0, 0.1))
        liquid = {
            "measured": self.measured(self.method),
            "salt": {"by": "taste", "verdict": salt},
            "character": self.character,
            "fat_ml": max(round(fat_ml), 0),
        }
        if self.senses.tongue == 0.0:
            liquid["salt"] = {"by": "meter", "percent": self.pot.salt_percent}
        elif self.has_meter:
            liquid["salt"] = {"by": "meter", "percent": self.metered()}
        self.record(ev.Started(pan=self.pan, burner=self.burner, liquid=StrainedLiquid.model_validate(liquid)))

    def run(self) -> Evening:
        self.begin()
        for _ in range(MOST_ACTS):
            board = Board(self.log, self.now, self.judgement)
            act = board.act
            self.acts.append((act, self.state()))
            if act.kind == "finish" and self.finish and self._finishes(board):
                continue
            if act.kind == "finish":
                self.record({"kind": "finished"})
                self.verdict = self.judged()
                break
            self.obey(act, board)
            if self.verdict == "no way":
                break
        return self

    def _finishes(self, board: Board) -> bool:
        """The sauce gets its finish, once; whether it did."""
        finish, self.finish, before_ml = self.finish, "", self.pot.ml
        self.wait(2.0)
        if finish == "meat":
            mass_g = 1.2 * self.pot.ml
            if not self.record({"kind": "meat_in", "mass_g": mass_g, "cut": "slices", "cold": True}):
                return False
            self.pot.water += JUICE * mass_g * self._about(0.3)
            self.pot.salt += JUICE * mass_g * 0.006
        else:
            timeline = board.timeline
            assert timeline.pot is not None
            offers = finishes(timeline.pot, timeline.asked.wanted)
            offer = next((one for one in offers if one.finish.key == finish), None)
            if offer is None or not self.record(offer.entry):
                return False
            grams = offer.added.grams * (1.0 + self.rng.normal(0.0, 0.05))
            self.pot.water += FINISH_WATER[finish] * grams
            self.pot.bound_fat += FINISH_FAT[finish] * grams
        # What dilutes it was asked for: it is as strong as it can be with that in it.
        self.reachable *= before_ml / self.pot.ml
        return True

    def do_taste(self, act: Act, board: Board) -> None:
        if act.of == "salt":
            self.wait(1.0)
            self.record({"kind": "tested", "of": "salt", "verdict": self.tongue(False, 2), "twice": True})
            return
        # What is sour in it is as the cook likes it: this study knows nothing of it.
        self.record({"kind": "tested", "of": act.of, "verdict": "right"})

    def do_warm_meat(self, act: Act, board: Board) -> None:
        assert act.look_at is not None
        self.wait(max((act.look_at - self.now).total_seconds() / 60.0, 0.0))
        self.record({"kind": "meat_probed", "celsius": 74.0})

    def state(self) -> str:
        p = self.pot
        return f"{p.ml:.0f} mL {p.salt_percent:.2f} % step {p.step:.2f} fat {100 * p.fat / p.ml:.1f}"

    def obey(self, act: Act, board: Board) -> None:
        """Does what an act orders, as its kind is done: ``do_<kind>``."""
        do = getattr(self, f"do_{act.kind}", None)
        if do is None:
            raise AssertionError(f"nobody knows how to obey “{act.kind}”")
        self.twice = 2.0 if self.rng.random() < self.senses.doubled else 1.0
        self.forgets = self.rng.random() < self.senses.forgotten
        self.wait(1.0)
        do(act, board)

    def do_want(self, act: Act, board: Board) -> None:
        self.wished_ml = self.pot.ml
        while not self.record({"kind": "wanted", **self.wish()}):
            self.amount *= 0.9

    def do_choose(self, act: Act, board: Board) -> None:
        timeline = board.timeline
        assert timeline.pot is not None
        assert timeline.asked.wanted is not None
        best = solve_routes(timeline.pot, timeline.asked.wanted, judgement=self.judgement)[0]
        if not best.feasible:
            self.verdict = "no way"
            return
        # Where it is told how far to boil, that is the amount, and is judged as such.
        self.told_amount = 0.0 if self.tells else min(best.volume_ml, self.amount)
        self.way = self.way_of(best.kind, timeline.pot, timeline.asked.wanted)
        self.record({"kind": "chosen", "route": self.way})

    def way_of(self, proposed: str, pot: Pot, wanted: Wish) -> str:
        """The way that is taken: the one that is proposed first."""
        return proposed

    def _about(self, error: float) -> float:
        """A factor by which a sense is off; none for perfect ones."""
        return math.exp(self.rng.normal(0.0, error if self.senses.spoon else 0.0))

    def do_smell(self, act: Act, board: Board) -> None:
        raw = 100.0 * self.pot.alcohol / 0.789 / self.pot.ml > RAW_PERCENT_VOL * self._about(0.3)
        self.record({"kind": "seen", "sign": "raw_wine" if raw else "raw_gone"})

    def do_cold_plate(self, act: Act, board: Board) -> None:
        sets = 100.0 * self.pot.gelatin / self.pot.liquid_g > SETS_PERCENT * self._about(0.25)
        self.wait(3.0)
        self.record({"kind": "seen", "sign": "sets_cold" if sets else "stays_runny"})

    def do_skim(self, act: Act, board: Board) -> None:
        shares = {"spoon": (0.7, 0.8), "separator": (0.9, 0.95), "paper": (0.6, 0.95)}
        self.pot.fat *= 1.0 - self.rng.uniform(*shares[str(act.way)])
        self.wait(6.0)
        self.record({"kind": "skimmed", "way": act.way})

    def do_take(self, act: Act, board: Board) -> None:
        # Ordered as the jug shows it, hot, and drawn from under the fat: a little of that comes along.
        ordered = act.volume_ml * 1.038
        taken = ordered * (1.0 + self.rng.normal(0.0, self.senses.jug))
        fat = min(0.02 * taken, 1.1 * self.pot.fat) if self.senses.jug else 0.0
        self.rest = replace(self.pot, fat=0.0)
        self.pot.scale(min((taken - fat) / 1.038 / self.pot.ml, 1.0))
        self.pot.fat = fat / 1.1
        self.record({"kind": "taken", "volume_ml": ordered, "how": "under"})

    def do_pour_back(self, act: Act, board: Board) -> None:
        self.pot.pour(self.rest, act.volume_ml * (1.0 + self.rng.normal(0.0, self.senses.jug)))
        if not self.forgets:
            self.record({"kind": "returned", "volume_ml": act.volume_ml})

    def do_look_fat(self, act: Act, board: Board) -> None:
        # An eye tells 1 from 3 g in 100 mL, within a third.
        seen = 100.0 * self.pot.fat / self.pot.ml * self._about(0.3)
        self.wait(2.0)
        self.record({"kind": "fat_seen", "look": "eyes" if seen < 1 else "touching" if seen < 3 else "film"})

    def do_heat(self, act: Act, board: Board) -> None:
        self.record({"kind": "heated", "heat": "boil"})

    def do_boil(self, act: Act, board: Board) -> None:
        assert act.look_at is not None
        minutes = max((act.look_at - self.now).total_seconds() / 60.0, 0.0)
        if self.rng.random() < self.senses.late:
            minutes *= self.rng.uniform(1.2, 2.0)
        self.pot.boil(minutes + 1.0)
        self.boiled_min += minutes + 1.0
        self.boiled_to = copy.copy(self.pot)
        self.wait(minutes)
        finer = act.measure in ("jug", "scale", "dip") and self.method != "eye"
        self.read(str(act.measure if finer else self.method))

    def do_let_down(self, act: Act, board: Board) -> None:
        self.pot.water += act.volume_ml * self.twice * (1.0 + self.rng.normal(0.0, 0.02))
        if not self.forgets:
            self.record({"kind": "added", "ingredient": "water", "volume_ml": act.volume_ml})

    def do_thicken(self, act: Act, board: Board) -> None:
        school = act.thickener
        grams = act.dry_g * self.twice * (1.0 + self.rng.normal(0.0, 0.03))
        self.pot.starch += STRENGTHS.get(school.key, 0.0) * grams
        self.pot.pulp += school.per_gram.pulp * grams
        self.pot.gelatin += school.per_gram.gelatin * grams
        self.pot.gum += school.per_gram.gum * grams
        if school.holds:
            self.pot.other += (school.per_gram.other + school.per_gram.sugar) * grams
        self.pot.bound_fat += school.fat_g * grams
        self.pot.salt += school.salt_g * grams
        self.pot.water += school.water_g * grams
        self.parts += 1
        # A ladle of it cools until it is lukewarm.
        self.wait(2.0 if school.own_parts else 0.0)
        if not self.forgets:
            self.record({"kind": "thickened", "thickener": school.key, "dry_g": act.dry_g})
        minutes = 0.5 * (school.wait_low_min + school.wait_high_min)
        lidded = self.rng.random() >= self.senses.open_lid
        area = self.pan.area_mm2(20.0) / 1e6
        self.pot.steam(minutes * 220.0 * area * (0.07 if lidded else 0.6))
        self.wait(minutes)

    def do_test_body(self, act: Act, board: Board) -> None:
        one = self.spoon()
        self.wait(1.0)
        other: str | None = self.spoon()
        told = {"kind": "tested", "of": "body", "verdict": one}
        if {one, other} == {"low", "high"}:
            # No button says that: they are told one by one.
            self.record(told)
            told["verdict"], other = other, None
        self.record(told | ({} if other is None else {"again": other}))

    def do_measure(self, act: Act, board: Board) -> None:
        if self.method != "eye":
            self.read(str(act.measure))
        else:
            said = {"kind": "read", "measured": self.measured("eye")}
            self.record(said) or self.record(said | {"gain": "misread"})

    def do_salt(self, act: Act, board: Board) -> None:
        self.pot.salt += act.salt_g * self.twice * (1.0 + self.rng.normal(0.0, 0.03))
        if not self.forgets:
            self.record({"kind": "salted", "salt_g": act.salt_g})

    def do_bigger_pan(self, act: Act, board: Board) -> None:
        width = 1.3 * self.pan.base_width_mm
        self.pan = Pan.round("bigger pan", width, width / 2.0, empty_g=self.pan.empty_g)
        self.record(ev.Moved(pan=self.pan, burner=self.burner))

    def do_slip(self, act: Act, board: Board) -> None:
        assert act.slip is not None
        self.record({"kind": "meant", "event": str(act.slip.event)})

    def do_test_salt(self, act: Act, board: Board) -> None:
        raw = act.why == "on_the_way"
        said = self.tongue(raw, 1 if raw else 2)
        self.wait(0.0 if raw else 1.0)
        self.record({"kind": "tested", "of": "salt", "verdict": said, "twice": not raw})

    def wish(self) -> dict[str, Any]:
        field, value = self.tells or ("volume_ml", self.amount)
        return {
            field: value,
            "body": self.body,
            "salt_percent": self.liking,
            "ceiling_percent": max(1.3, self.liking + 0.2),
        }

    @property
    def kind(self) -> dict[str, str]:
        """Which way, size and kind of pot it was."""
        return {
            "way": self.way,
            "liquid": self.character,
            "measured by": self.method,
            "body": "glaze" if self.glaze else str(self.body),
            "told": self.tells[0] if self.tells else "nothing",
            "amount": "under 200 mL" if self.amount < 200.0 else "to 800 mL" if self.amount < 800.0 else "more",
        }

    @property
    def strong(self) -> bool:
        """Whether it tastes of what it was made of."""
        told = self.boiled_to.strength / self.strained if self.tells and self.boiled_to else MOST_STRENGTH
        return self.pot.strength >= GOOD_STRENGTH * min(self.reachable, told) * self.strained

    @property
    def multiple(self) -> float:
        """Its strength, in multiples of what was strained."""
        return self.pot.strength / self.strained

    @property
    def minutes(self) -> float:
        """From the strained liquid to the sauce, min."""
        return (self.now - self.began).total_seconds() / 60.0

    @property
    def as_told(self) -> bool:
        """Whether it was boiled as far as it was told, where it was told."""
        if self.tells is None:
            return True
        field, value = self.tells
        there = self.boiled_to or self.pot
        if field == "minutes":
            return abs(self.boiled_min - value) <= max(AS_TOLD * value, AS_TOLD_MIN)
        if field == "share":
            return abs(there.ml / self.wished_ml / value - 1.0) <= AS_TOLD
        return abs(there.salt_percent - value) <= GOOD_SALT

    def judged(self) -> str:
        pot = self.pot
        found = []
        # What was told may be saltier than is liked: that was said before it was done.
        liked = max(self.liking, self.boiled_to.salt_percent) if self.tells and self.boiled_to else self.liking
        if pot.salt_percent > liked + GOOD_SALT or pot.salt_percent < self.liking - GOOD_SALT:
            found.append("salty" if pot.salt_percent > self.liking else "flat")
        if not self.as_told:
            found.append("not as told")
        gap = pot.step - (self.body + 0.5)
        bare = self.way in WAYS and WAYS[self.way].school is None and WAYS[self.way].stop != "body"
        if abs(gap) > GOOD_BODY and not bare:
            found.append("thick" if gap > 0.0 else "thin")
        if pot.ml < GOOD_AMOUNT * self.told_amount:
            found.append("too little")
        if 100.0 * pot.fat / pot.ml >= GOOD_FAT:
            found.append("fat")
        return " and ".join(found) or "good"


def evenings(count: int, senses: Senses = ERRING, seed: int = 10) -> Iterator[Evening]:
    """So many evenings, each from its own seed."""
    for i in range(count):
        yield Evening(seed * 100_000 + i, senses).run()


#: What the study asks for: share of good sauces with errors and with perfect senses, share that never ends, acts.
LEAST_GOOD, LEAST_GOOD_PERFECT, MOST_NEVER, MOST_MEDIAN_ACTS = 0.84, 0.96, 0.01, 22
#: And share that is good and strong: more than the plain cook's with errors, and less than his with perfect senses.
LEAST_TASTY, LEAST_TASTY_PERFECT = 0.68, 0.88


@dataclass(frozen=True)
class Result:
    """What came of so many evenings; ``tasty`` are good and strong, ``strength`` is in multiples of what was strained,
    ``minutes`` the median and the ninth of ten."""

    evenings: int
    good: float
    tasty: float
    strength: float
    minutes: tuple[float, float]
    never: float
    acts: float
    spoons: float
    tastes: float
    parts: float
    verdicts: Mapping[str, int]
    good_by: Mapping[str, Mapping[str, tuple[float, int]]]


def came_of(ran: Sequence[Evening]) -> Result:
    """What came of these evenings, and of each way, size and kind of pot among them."""
    good = [e.verdict == "good" for e in ran]
    groups: dict[str, dict[str, list[bool]]] = {}
    for evening, fine in zip(ran, good, strict=True):
        for group, member in evening.kind.items():
            groups.setdefault(group, {}).setdefault(member, []).append(fine)
    return Result(
        evenings=len(ran),
        good=float(np.mean(good)),
        tasty=float(np.mean([fine and e.strong for e, fine in zip(ran, good, strict=True)])),
        strength=round(float(np.median([e.multiple for e in ran])), 2),
        minutes=(float(np.median([e.minutes for e in ran])), float(np.quantile([e.minutes for e in ran], 0.9))),
        acts=float(np.median([len(e.acts) for e in ran])),
        never=float(np.mean([e.verdict == "never finished" for e in ran])),
        spoons=float(np.mean([e.spoons for e in ran])),
        tastes=float(np.mean([e.tastes for e in ran])),
        parts=float(np.mean([e.parts for e in ran])),
        verdicts=dict(Counter(e.verdict for e in ran).most_common()),
        good_by={
            group: {one: (round(float(np.mean(fine)), 3), len(fine)) for one, fine in sorted(members.items())}
            for group, members in groups.items()
        },
    )


RESULTS = Path(__file__).with_suffix(".json")

#: The tests run so many, from a seed of their own, and compare them with what they were.
THINNED, THINNED_SEED = 200, 77


def main() -> None:
    """Run the study, say what came of it, and keep it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=1000)
    parser.add_argument("--seed", type=int, default=10)
    parser.add_argument("--worst", type=int, default=0, help="tell so many evenings that went wrong")
    asked = parser.parse_args()
    found = {}
    for name in ("erring", "perfect", "plain erring", "plain perfect"):
        with get_context("spawn").Pool() as pool:
            told = pool.starmap(told_of, [(asked.seed, i, name) for i in range(asked.count)], chunksize=10)
        result = came_of([one for one, _ in told])
        found[name] = asdict(result)
        print(f"{name}: {100 * result.tasty:.1f} % good and strong, {result.strength} times, {result.minutes} min")
        print(f"{name}: {100 * result.good:.1f} % good, {100 * result.never:.1f} % never end, {result.acts:.0f} acts")
        print("  " + ", ".join(f"{what} {count}" for what, count in Counter(result.verdicts).most_common()))
        for group, members in result.good_by.items():
            print(f"  {group}: " + ", ".join(f"{one} {100 * good:.0f} % of {n}" for one, (good, n) in members.items()))
        for text in [text for one, text in told if one.verdict != "good"][: asked.worst]:
            print(text)
    if asked.count >= 1000:
        found["thinned"] = asdict(came_of(list(evenings(THINNED, ERRING, seed=THINNED_SEED))))
        RESULTS.write_text(json.dumps({"seed": asked.seed, **found}, indent=1, ensure_ascii=False) + "\n", "utf-8")


@dataclass(frozen=True)
class Told:
    """An evening as it is sent from one process to another."""

    verdict: str
    strong: bool
    multiple: float
    minutes: float
    acts: Sequence[None]
    spoons: int
    tastes: int
    parts: int
    kind: Mapping[str, str]


def _how_much(act: Act) -> str:
    """What an act orders, in the unit of its field."""
    ordered = (getattr(act, name, None) for name in ("volume_ml", "dry_g", "salt_g", "fat_ml"))
    return next((f"{one:.1f}" for one in ordered if one is not None), f"{act.mark.ml:.1f}" if act.mark else "")


def told_of(seed: int, i: int, name: str, judgement: Judgement = JUDGEMENT) -> tuple[Told, str]:
    """An evening of one who obeys, or of the plain cook who is to be beaten; and its story."""
    cook, senses = Evening, ERRING if name.endswith("erring") else PERFECT
    if name.startswith("plain"):
        cook = import_module("tests.study.plain").Plain
    evening = cook(seed * 100_000 + i, senses, judgement).run()
    text = f"--- {evening.seed}: {evening.verdict}, {evening.kind}\n" + "\n".join(
        f"    {act.kind} {act.why or ''} {_how_much(act)} | {state} | {said}" if act else f"    {state}"
        for (act, state), said in zip(evening.acts, chain(evening.said, repeat("")), strict=False)
    )
    told = Told(
        verdict=evening.verdict,
        strong=evening.strong,
        multiple=evening.multiple,
        minutes=evening.minutes,
        acts=[None] * len(evening.acts),
        spoons=evening.spoons,
        tastes=evening.tastes,
        parts=evening.parts,
        kind=evening.kind,
    )
    return told, text


if __name__ == "__main__":
    main()
