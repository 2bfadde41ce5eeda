"""What the words on the page mean: each in a few sentences, with the drawing that shows it."""

from __future__ import annotations

from typing import Literal, NamedTuple

from django.http import HttpRequest
from ninja import Router
from shared.shapes import SaidOut, Shape
from spissus_core.messages import Message, say
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.strength import STRENGTH_WORDS

router = Router(tags=["explained"])

#: What is drawn beside a word.
Drawing = (
    Literal["spoons", "spoon_of_jus", "spoon_of_nappe", "spoon_of_gravy", "measures", "jug", "dip", "scale", "spread"]
    | Literal["strength", "salt", "ceiling", "tasting", "fat", "mark"]
    | Literal["roux", "slurry", "gelatin", "burner", "looks", "ledger"]
)


class Explained(NamedTuple):
    """A word, what it means, and the drawing that shows it."""

    key: str
    title: Message
    said: Message
    drawing: Drawing


def _from(key: str) -> str:
    """The grams in a hundred from which a sauce tastes so."""
    return f"{STRENGTH_WORDS[key].from_percent:g}"


#: In the order in which they are met.
EXPLAINED = (
    Explained("which", say("explained.which_title"), say("explained.which"), "measures"),
    Explained("jug", say("explained.jug_title"), say("explained.jug"), "jug"),
    Explained("dip", say("explained.dip_title"), say("explained.dip"), "dip"),
    Explained("scale", say("explained.scale_title"), say("explained.scale"), "scale"),
    Explained("spread", say("explained.spread_title"), say("explained.spread"), "spread"),
    Explained("body", say("explained.body_title"), say("explained.body"), "spoons"),
    Explained("jus", say("explained.jus_title"), say("explained.jus"), "spoon_of_jus"),
    Explained("nappe", say("explained.nappe_title"), say("explained.nappe"), "spoon_of_nappe"),
    Explained("gravy", say("explained.gravy_title"), say("explained.gravy"), "spoon_of_gravy"),
    Explained(
        "strength",
        say("explained.strength_title"),
        say("explained.strength", stock=_from("stock"), rich=_from("rich"), demi_glace=_from("demi_glace")),
        "strength",
    ),
    Explained("salt", say("explained.salt_title"), say("explained.salt"), "salt"),
    Explained("ceiling", say("explained.ceiling_title"), say("explained.ceiling"), "ceiling"),
    Explained("tasting", say("explained.tasting_title"), say("explained.tasting"), "tasting"),
    Explained("fat", say("explained.fat_title"), say("explained.fat"), "fat"),
    Explained("mark", say("explained.mark_title"), say("explained.mark"), "mark"),
    Explained("roux", say("explained.roux_title"), say("explained.roux"), "roux"),
    Explained("slurry", say("explained.slurry_title"), say("explained.slurry"), "slurry"),
    Explained("gelatin", say("explained.gelatin_title"), say("explained.gelatin"), "gelatin"),
    Explained(
        "burner",
        say("explained.burner_title"),
        say("explained.burner", grams=f"{boiling_rate_g_min(1.0).best:.0f}"),
        "burner",
    ),
    Explained("looks", say("explained.looks_title"), say("explained.looks"), "looks"),
    Explained("ledger", say("explained.ledger_title"), say("explained.ledger"), "ledger"),
)


class ExplainedOut(Shape):
    """A word that is explained: its key, how it is told, and what is drawn beside it."""

    key: str
    title: SaidOut
    said: SaidOut
    drawing: Drawing


@router.get("/explained", auth=None, response=list[ExplainedOut])
def explained(request: HttpRequest) -> list[ExplainedOut]:
    """What the words on the page mean, in the order in which a cook meets them."""
    return [
        ExplainedOut(key=one.key, title=SaidOut.of(one.title), said=SaidOut.of(one.said), drawing=one.drawing)
        for one in EXPLAINED
    ]
