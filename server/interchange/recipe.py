"""A batch as a recipe that other programs read, JSON-LD by the terms of schema.org; and what went in out of such a one.

What is read is a JSON-LD document, or a saved page that has one in it.
"""

from __future__ import annotations

import html
import json
import re
from collections import deque
from collections.abc import Iterator
from typing import Any, NamedTuple

from pydantic_core import from_json
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_volume
from spissus_core.errors import SpissusError
from spissus_core.house_dish import cooked_said, in_short, way_said
from spissus_core.messages import say
from spissus_core.planning.account import account
from words import plain

from . import DishTold, Told, dish_written, written

JSON_LD = "application/ld+json"
SCHEMA = "https://schema.org"

#: No saved page is longer than this, bytes, no recipe has more lines, and none of them more characters. Modelling
#: choices.
MOST_BYTES, MOST_LINES, LONGEST = 8 * 1024 * 1024, 400, 2000

#: What goes into the sauce after it was strained.
GOES_IN = (ev.Thickened, ev.Added, ev.Salted, ev.PouredIn)


@written("recipe.jsonld", JSON_LD)
def _recipe_of(told: Told) -> bytes:
    """The braise's list where it was told, what went in after, and every step."""
    timeline, units = told.board.timeline, told.units
    stood = [moment for moment in timeline.moments if moment.stands]
    start, pot = timeline.start, timeline.first_pot
    braise = start.liquid.braise if start is not None else None
    held = [] if pot is None else [plain(say("recipe.strained", volume=show_volume(pot.contents.liquid_ml)), units)]
    went_in = [moment.event.payload for moment in stood if isinstance(moment.event.payload, GOES_IN)]
    done = account(timeline)
    begun, ended = (stood[0].event.at, stood[-1].event.at) if stood else (None, None)
    recipe: dict[str, Any] = {
        "@context": SCHEMA,
        "@type": "Recipe",
        "name": told.name,
        "description": None if done is None else plain(done, units),
        "dateCreated": None if begun is None else begun.date().isoformat(),
        "recipeYield": None if timeline.pot is None else plain(show_volume(timeline.made_ml), units),
        "totalTime": None if begun is None or ended is None else f"PT{round((ended - begun).total_seconds() / 60.0)}M",
        "recipeIngredient": [
            *([] if braise is None else [line.text for line in braise.lines]),
            *held,
            *(plain(one.said(), units) for one in went_in),
        ],
        "recipeInstructions": [
            {"@type": "HowToStep", "text": plain(moment.event.payload.said(), units)} for moment in stood
        ],
    }
    return _document(recipe)


@dish_written("recipe.jsonld", JSON_LD)
def _recipe_of_dish(told: DishTold) -> bytes:
    """What goes in for so many people, and how it is cooked and finished."""
    dish, units = told.dish, told.units
    braise, way = dish.started.liquid.braise, way_said(dish)
    steps = [None if braise is None else cooked_said(braise), way, *(one.said() for one in dish.added)]
    return _document(
        {
            "@context": SCHEMA,
            "@type": "Recipe",
            "name": told.name,
            "description": plain(in_short(dish), units),
            "recipeYield": str(dish.people),
            "cookTime": None if braise is None else f"PT{round(braise.hours * 60.0)}M",
            "recipeIngredient": [line.text for line in dish.lines],
            "recipeInstructions": [
                {"@type": "HowToStep", "text": plain(step, units)} for step in steps if step is not None
            ],
        }
    )


def _document(said: dict[str, Any]) -> bytes:
    kept = {name: value for name, value in said.items() if value is not None}
    return json.dumps(kept, ensure_ascii=False, indent=1).encode()


class Recipe(NamedTuple):
    """What a recipe is called, and its ingredients, a line each."""

    name: str
    lines: tuple[str, ...]


def recipe_in(text: bytes) -> Recipe:
    """The first recipe of a document or of a saved page.

    >>> recipe_in(b'{"@type": "Recipe", "name": "Shin", "recipeIngredient": ["1 l stock", "2&frac12; dl wine"]}')
    Recipe(name='Shin', lines=('1 l stock', '2½ dl wine'))

    Raises
    ------
    SpissusError : there is none in it, or it names no ingredients.
    """
    if len(text) > MOST_BYTES:
        raise SpissusError("text", say("recipe.too_large"))
    found = next((one for document in _documents(text) for one in _recipes(document)), None)
    if found is None:
        raise SpissusError("text", say("recipe.none"))
    told = found.get("recipeIngredient", found.get("ingredients"))
    lines = [line for one in (told if isinstance(told, list) else [told]) if (line := _said(one))]
    if not lines:
        raise SpissusError("text", say("recipe.no_ingredients"))
    return Recipe(_said(found.get("name")), tuple(lines[:MOST_LINES]))


def _documents(text: bytes) -> Iterator[object]:
    """The documents that are in it: itself, or those within a page."""
    try:
        yield from_json(text)
    except ValueError:
        for script in _scripts(text.decode("utf-8", "replace")):
            try:
                yield from_json(script)
            except ValueError:
                continue


_OPENS, _CLOSES = re.compile(r"<script\b", re.IGNORECASE), re.compile(r"</script", re.IGNORECASE)


def _scripts(page: str) -> Iterator[str]:
    """The JSON-LD that a page has in it. Each sign is gone over once, however the page is broken."""
    at = 0
    while (opens := _OPENS.search(page, at)) is not None:
        begins = page.find(">", opens.end())
        closes = None if begins < 0 else _CLOSES.search(page, begins)
        if closes is None:
            return
        if JSON_LD in page[opens.end() : begins].lower():
            yield page[begins + 1 : closes.start()]
        at = closes.end()


def _recipes(document: object) -> Iterator[dict[str, Any]]:
    """Every recipe of a document, wherever it stands in it."""
    waiting = deque([document])
    while waiting:
        one = waiting.popleft()
        if isinstance(one, list):
            waiting.extendleft(reversed(one))
        elif isinstance(one, dict):
            kinds = one.get("@type")
            if any(_is_recipe(kind) for kind in (kinds if isinstance(kinds, list) else [kinds])):
                yield one
            waiting.extend(inside for inside in one.values() if isinstance(inside, dict | list))


def _is_recipe(kind: object) -> bool:
    return isinstance(kind, str) and re.split(r"[/:#]", kind)[-1] == "Recipe"


def _said(one: object) -> str:
    """A text of a recipe in one line: pages write signs and tags into it."""
    text = html.unescape(re.sub(r"<[^>]*>", " ", one[:LONGEST])) if isinstance(one, str) else ""
    return " ".join("".join(c for c in text if c.isprintable() or c.isspace()).split())[:300]
