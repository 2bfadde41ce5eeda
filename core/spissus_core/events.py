"""What can happen to a batch: the one schema, for the page, the server, the database and the core.

Payloads are validated here and nowhere else. Amounts may arrive as a cook writes them ("1.4 l"); the
models keep the number, in the unit of the field's name.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter, model_validator

from .errors import QuantityError
from .fat import SkimWay
from .fields import DepthMm, MassG, Name, Percent, Remark, VolumeMl
from .intake import Character
from .measurement import Measured
from .quantities import parse_mass_or_volume
from .seasoning import USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT, SaltKind, SaltStart
from .thickeners import ThickenerKind
from .vessels import Pan

RouteKind = Literal["reduction", "roux", "corn_starch", "salt_limit"]


class _Payload(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Burner(_Payload):
    """A heat source: net power into the liquid at the setting used for reducing, kW."""

    name: Name
    net_kw: float = Field(ge=0.05, le=20)


class StrainedLiquid(_Payload):
    """What the cook knows of the strained liquid.

    The fat layer is given by thickness in the pan or by volume, not both.
    """

    measured: Measured
    fat_mm: DepthMm | None = None
    fat_ml: VolumeMl | None = None
    salt: SaltStart
    character: Character = "gelatin_rich"

    @model_validator(mode="after")
    def _one_fat(self) -> StrainedLiquid:
        if self.fat_mm and self.fat_ml:
            raise QuantityError("fat_ml", "Give the fat layer by its depth or by its volume, not both.")
        return self


class Started(_Payload):
    """The strained liquid stands in a pan. A later one corrects the start."""

    kind: Literal["started"] = "started"
    pan: Pan
    burner: Burner
    liquid: StrainedLiquid


#: A ceiling below this is a slip of the finger, % by weight. Modelling choice.
LEAST_CEILING_PERCENT = 0.05


class Wanted(_Payload):
    """What the sauce is to be: volume or portions of a size, body on the ladder, salt and its ceiling."""

    kind: Literal["wanted"] = "wanted"
    volume_ml: VolumeMl | None = None
    portions: Annotated[int, Field(ge=1, le=2000)] | None = None
    portion_ml: VolumeMl | None = None
    body: Annotated[int, Field(ge=0, le=5)] = 3
    salt_percent: Percent = USUAL_SALT_PERCENT
    ceiling_percent: Percent = USUAL_CEILING_PERCENT

    @model_validator(mode="after")
    def _an_amount(self) -> Wanted:
        if self.volume_ml is None and (self.portions is None or self.portion_ml is None):
            raise QuantityError("volume_ml", "Say how much sauce: a volume, or portions and their size.")
        if self.volume_ml is not None and self.portions is not None and self.portion_ml is not None:
            raise QuantityError("volume_ml", "Give a volume, or portions and their size, not both.")
        if self.amount_ml <= 0.0:
            raise QuantityError("volume_ml", "The amount of sauce must be more than nothing.")
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
    """Fat taken off: all that a way usually takes, or a measured amount. Nothing at all means it stays."""

    kind: Literal["skimmed"] = "skimmed"
    way: SkimWay = "spoon"
    fat_ml: VolumeMl | None = None


class Read(_Payload):
    """A reading of the pot while it reduces.

    ``gain`` answers for a reading that shows more than there can be: liquid was added, or it was misread.
    """

    kind: Literal["read"] = "read"
    measured: Measured
    gain: Literal["added", "misread"] | None = None


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

    ``amount`` is the way to say either in words ("30 g", "1/2 cup"); what is kept is the number.
    """

    kind: Literal["added"] = "added"
    ingredient: Name
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


class Struck(_Payload):
    """Another event is taken back. Striking a strike brings the event back."""

    kind: Literal["struck"] = "struck"
    event: UUID


Payload = Annotated[
    Started | Wanted | Chosen | Skimmed | Read | Thickened | Salted | Added | Tested | Noted | Finished | Struck,
    Field(discriminator="kind"),
]

payload_adapter: TypeAdapter[Payload] = TypeAdapter(Payload)


class Event(BaseModel):
    """A payload with its identity, place in the log and time."""

    model_config = ConfigDict(frozen=True)

    id: UUID
    seq: int
    at: datetime
    payload: Payload
