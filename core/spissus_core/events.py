"""What can happen to a batch: the one schema, for the page, the server, the database and the core.

Payloads are validated here and nowhere else. Amounts may arrive as a cook writes them ("1.4 l"); the
models keep the number, in the unit of the field's name.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import (
    AwareDatetime,
    BaseModel,
    ConfigDict,
    Field,
    TypeAdapter,
    ValidationError,
    ValidationInfo,
    model_validator,
)

from .amounts.fields import SHELF, Celsius, MassG, Name, Percent, Remark, VolumeMl, on_the_shelf
from .amounts.quantities import parse_mass_or_volume
from .errors import QuantityError, SpissusError
from .intake.liquid import StrainedLiquid
from .measuring.measurement import Measured
from .measuring.vessels import Pan
from .pantry.ingredients import Ingredient, ingredient
from .pantry.schools import ThickenerKind
from .phenomena import heating
from .phenomena.cooling import FRIDGE_C
from .phenomena.fat import USUAL_REST_G_PER_100_ML, SkimWay
from .phenomena.heating import HeatSetting
from .phenomena.seasoning import USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT, SaltKind

RouteKind = Literal["reduction", "roux", "corn_starch", "salt_limit"]


#: A heat source belongs to the start of a batch and to every change of pan.
Burner = heating.Burner


class _Payload(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Started(_Payload):
    """The strained liquid stands in a pan. A later one corrects the start."""

    kind: Literal["started"] = "started"
    pan: Pan
    burner: Burner
    liquid: StrainedLiquid


#: A ceiling below this is a slip of the finger, % by weight; so is less sauce than this, mL. Modelling choices.
LEAST_CEILING_PERCENT, LEAST_SAUCE_ML = 0.05, 1.0


class Wanted(_Payload):
    """What the sauce is to be.

    Volume or portions of a size, body on the ladder, salt and its ceiling, and the fat that may float
    on it, g per 100 mL.
    """

    kind: Literal["wanted"] = "wanted"
    volume_ml: VolumeMl | None = None
    portions: Annotated[int, Field(ge=1, le=2000)] | None = None
    portion_ml: VolumeMl | None = None
    body: Annotated[int, Field(ge=0, le=5)] = 3
    salt_percent: Percent = USUAL_SALT_PERCENT
    ceiling_percent: Percent = USUAL_CEILING_PERCENT
    fat_g_per_100_ml: Annotated[float, Field(ge=0, le=30)] = USUAL_REST_G_PER_100_ML

    @model_validator(mode="after")
    def _an_amount(self, info: ValidationInfo) -> Wanted:
        if self.volume_ml is None and (self.portions is None or self.portion_ml is None):
            raise QuantityError("volume_ml", "Say how much sauce: a volume, or portions and their size.")
        if self.volume_ml is not None and self.portions is not None and self.portion_ml is not None:
            raise QuantityError("volume_ml", "Give a volume, or portions and their size, not both.")
        if on_the_shelf(info):
            return self
        if self.amount_ml < LEAST_SAUCE_ML:
            field = "volume_ml" if self.volume_ml is not None else "portion_ml"
            raise QuantityError(field, "The amount of sauce must be more than nothing.")
        if self.ceiling_percent < LEAST_CEILING_PERCENT:
            raise QuantityError("ceiling_percent", "No sauce is that bland: most kitchens call 1.3 % too salty.")
        if self.ceiling_percent < self.salt_percent:
            raise QuantityError("ceiling_percent", "The ceiling cannot be below the salt content you want.")
        return self

    @property
    def amount_ml(self) -> float:
        """The finished sauce, mL."""
        if self.volume_ml is not None:
            return self.volume_ml
        return (self.portions or 0) * (self.portion_ml or 0.0)

    def portions_in(self, volume_ml: float) -> int | None:
        """Whole portions in a volume; one that lacks a twentieth still counts. None without a portion size."""
        return int(volume_ml / self.portion_ml + 0.05) if self.portion_ml else None


class Chosen(_Payload):
    """The way the cook takes."""

    kind: Literal["chosen"] = "chosen"
    route: RouteKind


class Skimmed(_Payload):
    """Fat taken off: all that a way usually takes, or a measured amount. Nothing at all means it stays.

    ``ice_g`` is the ice that melted into the pot; ``dissolved_ml`` the water that took the stuck juices
    up after boiling dry. ``kept`` says whether the fat was put by, for roux or another day.
    """

    kind: Literal["skimmed"] = "skimmed"
    way: SkimWay = "spoon"
    fat_ml: VolumeMl | None = None
    ice_g: MassG | None = None
    dissolved_ml: VolumeMl | None = None
    kept: bool = True

    @model_validator(mode="after")
    def _way_fits(self) -> Skimmed:
        if self.ice_g and self.way != "ice":
            raise QuantityError("ice_g", "Ice belongs to skimming with ice.")
        if self.way == "boil_dry" and not self.dissolved_ml:
            raise QuantityError("dissolved_ml", "Say in how much water or stock you dissolve what is stuck: 300 ml.")
        return self


class Read(_Payload):
    """A reading of the pot while it reduces.

    ``gain`` answers for a reading that shows more than there can be: liquid was added, or it was misread.
    """

    kind: Literal["read"] = "read"
    measured: Measured
    gain: Literal["added", "misread"] | None = None


class Solids(_Payload):
    """Meat or vegetables now in the pan with the liquid, by their weight; nothing when they were lifted out."""

    kind: Literal["solids"] = "solids"
    mass_g: MassG


class Drawn(_Payload):
    """Part of the liquid is taken for the sauce, into a pan of its own; the rest stays on the meat."""

    kind: Literal["drawn"] = "drawn"
    volume_ml: VolumeMl
    pan: Pan
    burner: Burner


class Returned(_Payload):
    """Liquid that stayed on the meat joins the sauce after all; all of it unless a volume is given."""

    kind: Literal["returned"] = "returned"
    volume_ml: VolumeMl | None = None


class Cooling(_Payload):
    """The pot is set to cool: the clock starts."""

    kind: Literal["cooling"] = "cooling"
    celsius: Celsius
    surroundings_c: Celsius = FRIDGE_C


class Probed(_Payload):
    """A temperature taken in the thickest part while it cools."""

    kind: Literal["probed"] = "probed"
    celsius: Celsius


class Heated(HeatSetting):
    """The heat is set, or turned off."""

    kind: Literal["heated"] = "heated"

    @property
    def setting(self) -> HeatSetting:
        """The setting alone."""
        return HeatSetting.model_construct(heat=self.heat, share=self.share, cover=self.cover, oven_c=self.oven_c)


class Moved(_Payload):
    """All of it is poured into another pan, or set on another burner."""

    kind: Literal["moved"] = "moved"
    pan: Pan
    burner: Burner


class Split(_Payload):
    """Part of it boils in a second pan beside the first. Both are taken to fall alike."""

    kind: Literal["split"] = "split"
    volume_ml: VolumeMl
    pan: Pan
    burner: Burner


class Rejoined(_Payload):
    """The two pans are poured together again, into the first."""

    kind: Literal["rejoined"] = "rejoined"


class Metered(_Payload):
    """A salt meter was held into the pot."""

    kind: Literal["metered"] = "metered"
    percent: Percent


#: What cooks see, hear and smell on the way down (common practice).
Sign = Literal["fizzing", "calm", "slow_bubbles", "raw_gone", "dark", "trail", "film", "line", "frying"]


class Seen(_Payload):
    """A sign, noted beside the numbers."""

    kind: Literal["seen"] = "seen"
    sign: Sign


class Thickened(_Payload):
    """Thickener whisked in, by its dry weight."""

    kind: Literal["thickened"] = "thickened"
    thickener: ThickenerKind
    dry_g: MassG


class Salted(_Payload):
    """Salt stirred in."""

    kind: Literal["salted"] = "salted"
    salt_g: MassG
    salt: SaltKind = "table"


class Added(_Payload):
    """An ingredient of the catalogue poured or stirred in, by weight or by volume.

    ``amount`` is the way to say either in words ("30 g", "1/2 cup"); what is kept is the number. An
    ingredient of the kitchen's own is kept whole, as it was when it went in.
    """

    kind: Literal["added"] = "added"
    ingredient: Name
    own: Ingredient | None = None
    amount: Annotated[str | None, Field(max_length=60, exclude=True)] = None
    mass_g: MassG | None = None
    volume_ml: VolumeMl | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_amount(cls, data: object) -> object:
        if not isinstance(data, dict) or not isinstance(data.get("amount"), str):
            return data
        dimension, value = parse_mass_or_volume(data["amount"])
        rest = {key: given for key, given in data.items() if key != "amount"}
        return rest | {"mass_g" if dimension == "mass" else "volume_ml": value}

    @model_validator(mode="after")
    def _one_amount(self) -> Added:
        if (self.mass_g is None) == (self.volume_ml is None):
            raise QuantityError("volume_ml", "Say how much, by volume or by weight.")
        return self

    @property
    def what(self) -> Ingredient:
        """The ingredient. Raises QuantityError where the catalogue has none of that key."""
        return self.own or ingredient(self.ingredient)


class Tested(_Payload):
    """A spoonful on a warm plate, or a taste: is body, or salt, where it should be?"""

    kind: Literal["tested"] = "tested"
    of: Literal["body", "salt"]
    verdict: Literal["low", "right", "high"]


class Noted(_Payload):
    """A remark."""

    kind: Literal["noted"] = "noted"
    text: Remark


class Finished(_Payload):
    """The sauce is done; its yield was measured or is taken from the ledger."""

    kind: Literal["finished"] = "finished"
    yield_ml: VolumeMl | None = None


class Dated(_Payload):
    """When another event happened after all: its clock was wrong, or it was recorded later."""

    kind: Literal["dated"] = "dated"
    event: UUID
    at: AwareDatetime


class Struck(_Payload):
    """Another event is taken back. Striking a strike brings the event back."""

    kind: Literal["struck"] = "struck"
    event: UUID


Payload = Annotated[
    Started
    | Wanted
    | Chosen
    | Skimmed
    | Solids
    | Drawn
    | Returned
    | Cooling
    | Probed
    | Read
    | Heated
    | Moved
    | Split
    | Rejoined
    | Metered
    | Seen
    | Thickened
    | Salted
    | Added
    | Tested
    | Noted
    | Finished
    | Dated
    | Struck,
    Field(discriminator="kind"),
]

payload_adapter: TypeAdapter[Payload] = TypeAdapter(Payload)


class Unread(BaseModel):
    """What was recorded and cannot be read: it stands in the log with the reason, and changes nothing."""

    model_config = ConfigDict(frozen=True)

    kind: str
    why: str


def recorded(payload: object) -> Payload | Unread:
    """A payload as it was recorded, however long ago; never an error.

    Fields that are not known any more are passed over, and amounts that today's rules would not take
    are kept. What cannot be read all the same is :class:`Unread`.
    """
    try:
        return payload_adapter.validate_python(payload, extra="ignore", context=dict(SHELF))
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        where = ".".join(str(part) for part in first["loc"][1:])
        said = first["msg"].removeprefix("Value error, ")
        why = f"“{where}” is missing" if first["type"] == "missing" else f"{where}: {said}" if where else said
    except (SpissusError, RecursionError, ArithmeticError) as error:
        why = str(error) or type(error).__name__
    kind = payload.get("kind") if isinstance(payload, dict) else None
    return Unread(kind=str(kind)[:40] if isinstance(kind, str) else "unknown", why=why[:300])


class Event(BaseModel):
    """A payload with its identity, place in the log and time.

    ``device`` is what read it by itself. ``told`` is the time it came with, where that cannot be (a dead
    clock) and ``at`` is when it arrived.
    """

    model_config = ConfigDict(frozen=True)

    id: UUID
    seq: int
    at: datetime
    payload: Payload | Unread
    device: str | None = None
    told: datetime | None = None
