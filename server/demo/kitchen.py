"""The demo: the kitchen of a guest house on a small island. All of it is made up, anew for each who looks around."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID, uuid4

from batches.services import tell
from django.db import transaction
from django.utils.crypto import get_random_string
from house_dishes.services import keep
from kitchens.services import Member, forget_tasted, look_around
from people.services import newcomer
from spissus_core import events as ev
from spissus_core.intake.braise import Braise, line_of
from spissus_core.intake.lines import read_list
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.heating import Burner
from spissus_core.phenomena.seasoning import SaltByMeter, SaltByStock, SaltByTaste

NAME = "Skerry House kitchen"
COOK = "early-shift"

SAUCEPAN = Pan.round("18 cm straight pan", 180, 105, empty_g=1060)
BRAISER = Pan.round("24 cm braising pan", 240, 120, empty_g=2140)
TAPERED = Pan.round("22 cm tapered pan", 160, 95, rim_mm=220, empty_g=890)
OVAL = Pan(
    name="oval cast-iron pot",
    shape="oval",
    base_length_mm=290,
    base_width_mm=215,
    rim_length_mm=300,
    rim_width_mm=225,
    height_mm=115,
    empty_g=3950,
)
TRAY = Pan(
    name="deep roasting tray",
    shape="rectangular",
    base_length_mm=400,
    base_width_mm=270,
    rim_length_mm=420,
    rim_width_mm=290,
    height_mm=65,
    empty_g=1720,
)

BACK_LEFT = Burner(name="back left burner on 6", net_kw=1.0)
FRONT = Burner(name="front burner, full", net_kw=1.6)
SOLID = Burner(name="solid top, middle", net_kw=0.7)


#: How long the made-up pots ring for nobody.
QUIET_FOR = timedelta(minutes=30)


@dataclass(frozen=True, slots=True)
class Story:
    """A batch of the demo: when it began, minutes before now, and what happened, minutes after that."""

    name: str
    ago_min: float
    started: ev.Started
    events: tuple[tuple[float, ev.Kind], ...] = ()
    keeps_dish: bool = False


def _liquid(method: str, value: str, *, hot: bool = True, **more: object) -> StrainedLiquid:
    return StrainedLiquid.model_validate({"measured": {"method": method, "value": value, "hot": hot}, **more})


def _braise(text: str, **cooked: object) -> Braise:
    """A braise from the list of what went in, as a cook would paste it."""
    return Braise.model_validate({"lines": [line_of(line) for line in read_list(text).lines], **cooked})


def _read(method: str, value: str) -> ev.Read:
    return ev.Read.model_validate({"measured": {"method": method, "value": value}})


#: What is kept of one of them.
KEPT = UUID("4b0f9f5e-7a55-4c3e-9d0c-2f6f3b1c7d10")

#: What was noted of another.
NOTE = UUID("b2f7c1de-52c5-4f8e-8b51-0d3a4a8e9c44")

#: For how many it cooks its house dish.
HOUSE_DISH_PEOPLE = 6

STORIES = (
    Story(
        "Hogget neck in brown ale",
        60 * 24 * 6,
        ev.Started(
            pan=BRAISER,
            burner=FRONT,
            liquid=_liquid(
                "dip",
                "44 mm",
                fat_mm="3 mm",
                salt=SaltByMeter(percent=0.5),
                braise=_braise(
                    """
                    1.8 kg lamb neck
                    12 g salt, rubbed on the meat
                    500 ml brown ale
                    1.2 l unsalted beef stock
                    2 onions
                    300 g carrots
                    1 tbsp tomato paste
                    2 bay leaves
                    """,
                    hours=3,
                    level="nearly",
                    strain="fine",
                ),
            ),
        ),
        (
            (2, ev.Wanted(people=6, body=3, salt_percent=0.9, ceiling_percent=1.3)),
            (3, ev.Chosen(route="all-taste-corn_starch_own")),
            (8, ev.Skimmed(way="spoon")),
            (24, _read("dip", "31 mm")),
            (39, _read("dip", "22 mm")),
            (42, ev.Heated(heat="off")),
            (44, ev.Thickened(thickener="corn_starch", dry_g=6)),
            (47, ev.Tested(of="body", verdict="right")),
            (50, ev.Salted(salt_g=1.5)),
            (52, ev.Added(ingredient="butter", mass_g=20)),
            (54, ev.Tested(of="salt", verdict="right")),
            (58, ev.Finished(yield_ml=800)),
            (70, ev.Rated(points=4, ate=6)),
            (71, ev.NextTime(note=NOTE, moment="stop", text="A finger lower: it was a little thin for potatoes.")),
        ),
        keeps_dish=True,
    ),
    Story(
        "Goat shoulder with orange",
        60 * 50,
        ev.Started(
            pan=BRAISER,
            burner=FRONT,
            liquid=_liquid("dip", "45 mm", fat_mm="3 mm", salt=SaltByMeter(percent=0.48), character="gelatin_rich"),
        ),
        (
            (2, ev.Wanted(portions=14, portion_ml=75, body=3, salt_percent=0.9, ceiling_percent=1.3)),
            (2.5, ev.Chosen(route="all-volume-white_roux")),
            (9, ev.Skimmed(way="spoon")),
            (20, _read("dip", "33 mm")),
            (34, _read("dip", "24 mm")),
            (38, ev.Thickened(thickener="white_roux", dry_g=22)),
            (46, ev.Tested(of="body", verdict="low")),
            (48, ev.Thickened(thickener="white_roux", dry_g=10)),
            (54, ev.Tested(of="body", verdict="right")),
            (56, ev.Tested(of="salt", verdict="right")),
            (57, ev.Noted(text="A strip of orange peel for the last five minutes was enough.")),
            (60, ev.Finished(yield_ml=1040)),
        ),
    ),
    Story(
        "Venison neck with Madeira and juniper",
        60 * 26,
        ev.Started(
            pan=SAUCEPAN,
            burner=BACK_LEFT,
            liquid=_liquid("scale", "2620 g", fat_mm="2 mm", salt=SaltByMeter(percent=0.55), character="gelatin_rich"),
        ),
        (
            (1, ev.Wanted(portions=12, portion_ml=60, body=2, salt_percent=0.95, ceiling_percent=1.35)),
            (2, ev.Skimmed(way="separator")),
            (3, ev.Chosen(route="all-volume-corn_starch_own")),
            (15, _read("scale", "2270 g")),
            (27, _read("scale", "1945 g")),
            (33, _read("scale", "1780 g")),
            (37, ev.Thickened(thickener="corn_starch", dry_g=4)),
            (40, ev.Tested(of="body", verdict="right")),
            (42, ev.Tested(of="salt", verdict="right")),
            (44, ev.Finished(yield_ml=700)),
            (90, ev.PutBy(jar=KEPT, what="sauce", place="freezer", name="venison sauce", volume_ml=280, containers=2)),
            (300, ev.JarMoved(jar=KEPT, place="freezer")),
        ),
    ),
    Story(
        "Duck leg in perry with prunes",
        40,
        ev.Started(
            pan=OVAL,
            burner=FRONT,
            liquid=_liquid(
                "jug",
                "2.1 l",
                fat_ml="260 ml",
                salt=SaltByTaste(verdict="nearly"),
                braise=_braise(
                    """
                    8 duck legs
                    18 g salt, rubbed on the meat
                    1 bottle perry (750 ml), reduced by half
                    1.6 l chicken stock
                    2 onions
                    2 sticks celery
                    200 g prunes
                    2 tbsp cider vinegar
                    3 bay leaves
                    """,
                    hours=2.5,
                    level="nearly",
                    strain="fine",
                ),
            ),
        ),
    ),
    Story(
        "Mutton shoulder with barley and bay",
        150,
        ev.Started(
            pan=BRAISER,
            burner=FRONT,
            liquid=_liquid("dip", "71 mm", fat_mm="6 mm", salt=SaltByMeter(percent=0.52), character="thin"),
        ),
        (
            (1, ev.Wanted(portions=16, portion_ml=80, body=2, salt_percent=0.9, ceiling_percent=1.3)),
            (3, ev.Noted(text="Strained and split over two trays, ice underneath.")),
            (6, ev.Cooling(celsius=88, surroundings_c=4)),
            (41, ev.Probed(celsius=60)),
            (92, ev.Probed(celsius=33)),
            (140, ev.Probed(celsius=20)),
        ),
    ),
    Story(
        "Oyster mushrooms and barley in fino sherry",
        12,
        ev.Started(
            pan=TAPERED,
            burner=SOLID,
            liquid=_liquid("jug", "900 ml", salt=SaltByStock(stock="low_salt"), character="thin"),
        ),
        (
            (2, ev.Wanted(volume_ml=600, body=2, salt_percent=0.8, ceiling_percent=1.2)),
            (3, ev.Chosen(route="all-volume-corn_starch_own")),
            (10, _read("jug", "850 ml")),
        ),
    ),
    Story(
        "Pork cheek in dry cider",
        22,
        ev.Started(
            pan=SAUCEPAN,
            burner=BACK_LEFT,
            liquid=_liquid("jug", "1.64 l", fat_ml="120 ml", salt=SaltByMeter(percent=0.60), character="gelatin_rich"),
        ),
        (
            (2, ev.Wanted(portions=10, portion_ml=90, body=3, salt_percent=0.95, ceiling_percent=1.3)),
            (3, ev.Chosen(route="all-volume-white_roux")),
            (8, ev.Skimmed(way="separator")),
            (14, _read("scale", "2415 g")),
            (20, _read("scale", "2248 g")),
        ),
    ),
)


@transaction.atomic
def step_into(now: datetime) -> Member:
    """A demo kitchen of somebody's own, with its batches timed back from ``now``, and its cook."""
    cook = newcomer(f"{COOK}-{get_random_string(6).lower()}")
    pans, burners = (SAUCEPAN, BRAISER, TAPERED, OVAL, TRAY), (BACK_LEFT, FRONT, SOLID)
    member = look_around(NAME, cook, pans, burners)
    for story in STORIES:
        batch = tell(member, story.name, _happened(story, now))
        if story.keeps_dish:
            keep(member, uuid4(), story.name, HOUSE_DISH_PEOPLE, batch)
    # What a made-up cook likes is nothing of whoever looks around.
    forget_tasted(member.kitchen)
    return member


def _happened(story: Story, now: datetime) -> list[tuple[datetime, ev.Kind]]:
    """What is told of a batch. One that goes on does not ring while somebody only looks around."""
    begun = now - timedelta(minutes=story.ago_min)
    told = [(begun, story.started), *((begun + timedelta(minutes=after), said) for after, said in story.events)]
    over = any(isinstance(said, ev.Finished) for _, said in told)
    return told if over else [*told, (now, ev.Hushed(due=now + QUIET_FOR))]
