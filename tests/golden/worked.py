"""Worked cases of the core, and every figure of each: ``python -m tests.golden.worked`` writes them anew.

They hold the core still: a figure that moves is meant to, or a fault. That a figure is right is shown elsewhere, in
the examples of ``tests/core`` and against the outside in ``tests/reference``.
"""

from __future__ import annotations

import json
from collections.abc import Iterator, Mapping
from dataclasses import fields, is_dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

from pydantic import BaseModel
from spissus_core import events as ev
from spissus_core.amounts.quantities import parse
from spissus_core.amounts.rows import rows
from spissus_core.board import Board
from spissus_core.intake.braise import Braise
from spissus_core.intake.estimated import estimate
from spissus_core.intake.lines import read_line
from spissus_core.intake.terms import brings, reduced_note
from spissus_core.learning.rates import combined
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.measurement import error_ml
from spissus_core.measuring.vessels import Pan, calibrated, volume_marks
from spissus_core.messages import Message
from spissus_core.pantry.schools import SCHOOLS, School
from spissus_core.phenomena.alcohol import retained, strength_percent
from spissus_core.phenomena.body import Body
from spissus_core.phenomena.cooling import Reading, forecast, judge, time_constant
from spissus_core.phenomena.fat import DROPLETS_UM, ice_price, settling_minutes
from spissus_core.phenomena.heating import Burner, HeatSetting, LearnedRate, power
from spissus_core.phenomena.seasoning import RAW, STOCK_PERCENT, SaltByTaste, starting_salt_percent
from spissus_core.planning.ceiling import salt_ceiling_ml
from spissus_core.planning.pans import compared
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.skimming import advised, fat_for_roux, options, rest_ml, settling
from spissus_core.planning.trade import trade
from words import plain

from tests.makers import BURNER, EVENING, PAN, event, fold, listed, read, started, wanted

KEPT = Path(__file__).with_name("worked.json")

SMALL = Pan.round("18 cm pan", 180, 105, rim_mm=205, empty_g=1060)
OVAL = Pan(
    name="oval pot",
    shape="oval",
    base_length_mm=290,
    base_width_mm=215,
    rim_length_mm=330,
    rim_width_mm=235,
    height_mm=95,
)

STRONG = Burner(name="strong burner", net_kw=2.0, boils_c=98.0)

TAUGHT = STRONG.model_copy(
    update={
        "learned": (
            LearnedRate(heat="boil", net_kw=1.7, spread=0.1, batches=2),
            LearnedRate(heat="simmer", net_kw=0.3, spread=0.2, batches=1),
        )
    }
)

#: The ways whose figures are kept, by their keys: that another way is offered changes none of them.
WATCHED = ("all-volume-white_roux", "all-body-alone", "all-taste-corn_starch_own", "part-volume-corn_starch_own")

LISTS = {
    "pork cheek": "1.2 kg pork cheek\n2 carrots\n1 onion\n750 ml dry cider, boiled down to a third\n1.2 l beef stock\n"
    "2 tbsp flour, dredged\n10 g salt, rubbed\n2 tbsp olive oil for frying\n1 tbsp tomato paste\n",
    "duck": "4 duck legs\n500 ml red wine\n1.5 l low sodium chicken stock\n100 ml brandy, set alight\n200 g prunes\n"
    "1 tsp salt\n30 ml port at the end\n",
    "beans": "500 g dry white beans\n5 l water\n3 carrots\n2 celery sticks\n300 g bacon\n400 g tomatoes\n",
}
COOKED: list[dict[str, Any]] = [
    {},
    {"cover": "open", "heat": "stove", "hours": 1.5, "strain": "pressed", "pieces": "small"},
    {"cover": "ajar", "oven_c": 130, "hours": 4, "strain": "milled", "level": "half_way", "trimmed": True},
    {"cover": "paper", "strain": "colander", "level": "submerged", "overnight": True},
]


def _log(*happened: tuple[float, ev.Kind]) -> list[ev.Event]:
    return [event(seq, payload, minute=minute) for seq, (minute, payload) in enumerate(happened, 1)]


def _jug(value: str, **more: Any) -> ev.Read:
    return read("jug", value, **more)


def logs() -> dict[str, list[ev.Event]]:
    """Small batches, each of which does something else."""
    start = started("1.6 l", fat_ml="80 ml")
    plan = [(1.0, wanted(900)), (2.0, ev.Chosen(route="all-volume-white_roux"))]
    boiling: list[tuple[float, ev.Kind]] = [(0.0, start), *plan, (4.0, ev.Skimmed(way="separator"))]
    cider = Braise(**listed(LISTS["pork cheek"]).model_dump())
    by_list = ev.Started.model_validate(
        {"pan": PAN, "burner": STRONG, "liquid": {"salt": {"by": "list"}, "braise": cider.model_dump(), "fat_mm": 4}}
    )
    return {
        "from start to plate": _log(
            *boiling,
            (14, _jug("1.35 l")),
            (24, _jug("1.15 l")),
            (33, _jug("960 ml")),
            (36, ev.Thickened(thickener="white_roux", dry_g=15)),
            (42, ev.Tested(of="body", verdict="low")),
            (44, ev.Thickened(thickener="corn_starch", dry_g=3)),
            (46, ev.Tested(of="body", verdict="right")),
            (47, ev.Salted(salt_g=1.5)),
            (48, ev.Tested(of="salt", verdict="high")),
        ),
        "by scale, with a pause and half the heat": _log(
            *boiling,
            (9, read("scale", 2900)),
            (13, read("scale", 2800)),
            (14, ev.Heated(heat="off")),
            (20, ev.Heated(heat="boil", share=0.5)),
            (30, read("scale", 2650)),
            (34, ev.Added(ingredient="cream_heavy", mass_g=60)),
            (40, read("scale", 2600)),
        ),
        "a simmer under paper, then the oven": _log(
            (0, started("1.9 l", "jug", hot=False)),
            (1, ev.Heated(heat="simmer", cover="paper")),
            (1, wanted(1200, body=1)),
            (2, ev.Chosen(route="all-salt-white_roux")),
            (40, _jug("1.7 l")),
            (45, ev.Heated(heat="oven", oven_c=180)),
            (80, _jug("1.5 l")),
        ),
        "two pans, then together, then a smaller one": _log(
            *boiling,
            (10, ev.Split(volume_ml=500, pan=SMALL, burner=STRONG)),
            (20, read("dip", 21)),
            (24, ev.Rejoined()),
            (25, ev.Moved(pan=SMALL, burner=STRONG)),
            (30, read("dip", 34)),
        ),
        "with meat in it, drawn off and poured back": _log(
            (0, started("2 l", solids_g=600, fat_mm=3, fat_in="pan")),
            (2, ev.Drawn(volume_ml=900, pan=SMALL, burner=STRONG)),
            (3, wanted(600)),
            (4, ev.Chosen(route="all-volume-corn_starch_own")),
            (12, read("scale", 1850)),
            (14, ev.Returned(volume_ml=200)),
            (15, ev.Solids(mass_g=150)),
            (22, read("dip", 40)),
            (23, ev.Metered(percent=0.9)),
        ),
        "ice, and what it adds": _log(
            (0, started("1.8 l", fat_ml="120 ml")),
            (3, ev.Skimmed(way="ice", ice_g=400)),
            (4, wanted(1000, body=2)),
            (5, ev.Chosen(route="all-body-alone")),
            (12, _jug("1.7 l")),
            (15, _jug("1.75 l", gain="added")),
        ),
        "weighed, with its fat and some meat": _log(
            (0, started("3.4 kg", "scale", fat_mm=4, solids_g=300)),
            (1, wanted(900)),
            (2, ev.Chosen(route="all-volume-white_roux")),
        ),
        "boiled dry": _log(
            (0, started("400 ml", fat_ml="60 ml")),
            (15, ev.Skimmed(way="boil_dry", dissolved_ml="300 ml")),
        ),
        "by the list": _log(
            (0, by_list),
            (1, wanted(900, body=3)),
            (2, ev.Chosen(route="all-volume-corn_starch_own")),
            (15, read("scale", 2600)),
        ),
        "tongues that differ": _log(
            (0, started("1.5 l", salt={"by": "taste", "verdict": "salty"}, fat_ml=0)),
            (1, wanted(1100)),
            (2, ev.Chosen(route="all-volume-corn_starch_own")),
            (4, ev.Tested(of="salt", verdict="flat")),
            (5, ev.Tested(of="salt", verdict="salty")),
            (6, ev.Salted(salt_g=2)),
            (7, ev.Metered(percent=0.7)),
            (8, ev.Tested(of="salt", verdict="low")),
            (9, ev.Tested(of="salt", verdict="low")),
        ),
        "slips of the finger": _log(
            *boiling,
            (5, ev.Salted(salt_g=1.2)),
            (5.2, ev.Salted(salt_g=1.2)),
            (7, ev.Salted(salt_g=40)),
        ),
        "a lid, a part of the heat, a jug that gains": _log(
            *boiling,
            (5, ev.Heated(heat="boil", share=0.6, cover="ajar")),
            (15, _jug("1.45 l")),
            (16, _jug("1.52 l")),
            (25, ev.FatSeen(look="film")),
            (26, ev.Seen(sign="film")),
            (30, _jug("1.2 l")),
            (31, ev.Finished()),
        ),
        "a ladle from under the fat": _log(
            (0, started("2.4 l", fat_ml="140 ml")),
            (1, wanted(500, body=4)),
            (2, ev.Chosen(route="part-volume-white_roux")),
            (5, ev.Taken(volume_ml="620 ml", how="under")),
            (8, ev.Skimmed(way="spoon", fat_ml="4 ml")),
            (12, ev.Thickened(thickener="white_roux", dry_g=12)),
            (22, ev.Tested(of="body", verdict="right")),
            (23, ev.Tested(of="body", verdict="high")),
        ),
        "cooling": _log(
            (0, started("2.5 l", fat_ml="150 ml")),
            (5, ev.Cooling(celsius=88, surroundings_c=4)),
            (35, ev.Probed(celsius=60)),
            (95, ev.Probed(celsius=31)),
        ),
    }


def cases() -> dict[str, Any]:
    """Every worked case, by name, with what comes of it."""
    out: dict[str, Any] = {}
    for name, log in logs().items():
        board, timeline = Board(log), fold(log)
        pot, wish = timeline.pot, timeline.asked.wanted
        assert pot is not None
        found: dict[str, Any] = {
            "pot": pot,
            "body": (pot.body, pot.body.estimate),
            "salt": pot.salt_percent,
            "depths": (pot.depth_mm, pot.fat_mm, pot.gross_g),
            "state": {
                "kept_fat_g": timeline.skimming.kept_g,
                "fat_settled": timeline.skimming.settled,
                "thickener_added": timeline.binding.in_it,
                "cooling": timeline.cooling,
            },
            "act": board.act,
            "doing": board.act.kind,
            "ribbon": board.ribbon,
            "taught": board.taught,
            "strained": board.strained,
            "settling": settling(pot),
            "rest": rest_ml(pot, wish),
        }
        if board.strained is not None:
            ways = options(pot, board.strained)
            found["skim"] = (ways, advised(ways, rest_ml(pot, wish)))
        if wish is not None:
            routes = [r for r in solve_routes(pot, wish, agreed=wish) if r.feasible]
            watched = {route.kind: route for route in routes if route.kind in WATCHED}
            found["first"], found["routes"] = routes[0].kind, watched
            found["trade"] = trade(pot, wish)[::4]
            found["ceiling"] = salt_ceiling_ml(pot, wish)
            found["roux"] = fat_for_roux(timeline.skimming.kept_g, pot.contents.fat_free, 20.0, SCHOOLS["white_roux"])
            pans = [(PAN, BURNER), (SMALL, STRONG), (OVAL, STRONG)]
            found["pans"] = compared(pot, min(700.0, pot.contents.liquid_ml), pans, HeatSetting())
        if board.ahead is not None:
            later = [board.ahead.last + timedelta(minutes=m) for m in (0, 3, 10, 25)]
            found["course"] = board.ahead.course(later)
            found["window"] = board.ahead.window
        out[name] = found
    for name, text in LISTS.items():
        for number, cooked in enumerate(COOKED):
            braise = listed(text, **cooked)
            out[f"{name}, cooked {number}"] = estimate(braise, PAN, None if number % 2 else 1700.0)
        out[f"{name}, line by line"] = [
            (", ".join(plain(said, "metric") for _, said in brings(line)), reduced_note(line)) for line in braise.lines
        ]
    out |= {
        "marks": [volume_marks(pan, units) for pan in (PAN, SMALL, OVAL) for units in ("metric", "us")],  # type: ignore[arg-type]
        "errors": [error_ml(pan, by, 900.0, 1.02) for pan in (PAN, SMALL) for by in ("jug", "dip", "scale", "eye")],  # type: ignore[arg-type]
        "calibrated": calibrated(SMALL, [(500.0, 17.5), (1000.0, 34.0), (1500.0, 49.0)]),
        "cooling judged": [judge(_readings(step), 4.0) for step in (3.0, 1.4, 0.5)],
        "cooling ahead": forecast(_readings(1.4), 4.0, 300.0, 4),
        "ice": ice_price(1200.0, 80.0, 30.0, 1.5),
        "settling": [settling_minutes(60.0, size, thick) for size in (100.0, 5.0) for thick in (1.0, 8.0)],
        "powers": [
            power(pan, STRONG, HeatSetting(heat=heat, share=0.7, cover=cover, oven_c=170), 45.0)
            for pan in (PAN, SMALL)
            for heat in ("boil", "simmer", "oven")
            for cover in ("open", "tight")
        ],
        "powers learned": [
            power(PAN, TAUGHT, HeatSetting(heat=heat, share=0.5, cover="ajar", oven_c=170), 45.0)
            for heat in ("boil", "simmer", "oven")
        ],
        "left by the table": [retained(minutes) for minutes in (0.0, 10.0, 45.0, 200.0)],
        "strength": strength_percent(10.0, 100.0),
        "droplets": {name: settling_minutes(50.0, size) for name, size in DROPLETS_UM.items()},
        "salt at the start": {
            **{word: starting_salt_percent(SaltByTaste(verdict=word)) for word in RAW.stands},
            **STOCK_PERCENT,
        },
        "hedges": {word: _read(f"{word} 100 ml beef stock") for word in (row["words"] for row in rows("hedges"))},
        "measures": {text: _read(text) for text in MEASURES},
        "units": {text: parse(text, "time") for text in ("90 min", "2 h", "1 1/2 hours")},
        "pace of cooling": [time_constant(_readings(step), 4.0) for step in (3.0, 1.4)],
        "rates together": combined("boil", [(1.0, 0.2), (1.2, 0.1), (0.9, 0.3)]),
    }
    return out


#: Amounts in the measures that kitchens have.
MEASURES = (
    "1 knob butter",
    "1 glass red wine",
    "1 wineglass red wine",
    "1 mug chicken stock",
    "1 bottle red wine",
    "1 carton apple juice",
    "1 tin tomatoes",
    "1 heaped tbsp flour",
    "1 handful flour",
    "a pinch of salt",
    "2 large carrots",
    "3 cloves garlic",
    "1 dash soy sauce",
    "1 splash brandy",
    "2 tbsp tomato paste",
)


def _read(text: str) -> list[Any]:
    return [(line.name, line.amount, line.use, line.left, line.poured_off) for line in read_line(text)]


def _readings(step: float) -> list[Reading]:
    return [Reading(20.0 * i, 4.0 + 84.0 * 0.99 ** (step * 20.0 * i / 2.0)) for i in range(7)]


def figures(thing: Any, where: str = "") -> Iterator[tuple[str, Any]]:
    """Every number, word and yes or no in a thing, by where it stands; of sentences, which stand in ``told.json``,
    only what they are of."""
    match thing:
        case Message():
            if where.endswith(".what"):
                yield where, plain(thing, "metric")
        case Pan() | Burner() | ev.Kind() | School() | None:
            return
        case bool() | str():
            yield where, thing
        case int() | float():
            yield where, float(f"{thing:.7g}")
        case datetime():
            yield where, round((thing - EVENING).total_seconds(), 3)
        case Body():
            yield from figures(thing._asdict() | {"viscosity": thing.viscosity}, where)
        case list() | tuple():
            for i, value in enumerate(thing):
                yield from figures(value, f"{where}[{i}]")
        case _:
            for name, value in _parts(thing).items():
                yield from figures(value, f"{where}.{name}")


def _parts(thing: Any) -> Mapping[str, Any]:
    """What a thing is made of, by name; of a pot's contents, those that are in it."""
    if isinstance(thing, Contents):
        return {name: grams for name, grams in vars(thing).items() if grams}
    if isinstance(thing, BaseModel):
        return {name: getattr(thing, name) for name in type(thing).model_fields}
    if is_dataclass(thing):
        return {f.name: getattr(thing, f.name) for f in fields(thing)}
    return thing if isinstance(thing, Mapping) else {}


def worked() -> dict[str, dict[str, Any]]:
    """All figures of all cases."""
    return {name: dict(figures(case)) for name, case in cases().items()}


if __name__ == "__main__":
    rows = (
        f"{json.dumps(name)}: {json.dumps(case, ensure_ascii=False, separators=(chr(44), chr(58)))}"
        for name, case in worked().items()
    )
    KEPT.write_text("{\n" + ",\n".join(rows) + "\n}\n", encoding="utf-8")
