"""What every kind of event has: its fields, its stage, what it does to the pot, and what the log says of it."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable, Mapping, Sequence
from datetime import datetime
from typing import TYPE_CHECKING, Any, ClassVar, Literal, Protocol
from uuid import UUID

from pydantic import BaseModel, ConfigDict, ValidationError, create_model
from pydantic.json_schema import SkipJsonSchema

from ..amounts.fields import SHELF
from ..amounts.quantities import show_mass, show_percent, show_temperature, show_volume
from ..errors import SpissusError
from ..measuring.vessels import Pan
from ..messages import Message, Shown, say
from ..pantry.ingredients import Ingredient
from ..pantry.schools import LearnedStrength, School
from ..pantry.things import Thing
from ..phenomena.heating import Burner
from ..phenomena.limits import Limits
from ..phenomena.seasoning import LearnedLiking
from ..pot import Pot

if TYPE_CHECKING:
    from ..estimation.window import Window
    from .state import State

Stage = Literal["strain", "skim", "reduce", "thicken", "season", "serve"]

#: The sauce's way from the strainer to the plate.
STAGES: tuple[Stage, ...] = ("strain", "skim", "reduce", "thicken", "season", "serve")

#: How an amount is shown, by the end of the name of its field.
_SHOWN: Mapping[str, Callable[[float], Shown]] = {
    "g": show_mass,
    "ml": show_volume,
    "celsius": show_temperature,
    "percent": show_percent,
}

#: What was said in one version, in the words of the next.
Upcast = Callable[[dict[str, Any]], dict[str, Any]]

#: Every kind there is, by its name; filled as the kinds are defined.
KINDS: dict[str, type[Kind]] = {}


class Kitchen(Protocol):
    """What an event may name by id, to be written out when it is recorded."""

    def pan(self, pan_id: UUID) -> Pan:
        """A pan of the kitchen."""

    def burner(self, burner_id: UUID, pan_id: UUID) -> Burner:
        """A burner of the kitchen, with what was learned of it under that pan."""

    def own_ingredients(self) -> Sequence[Ingredient]:
        """The kitchen's own ingredients."""

    def liking(self) -> LearnedLiking | None:
        """The salt that the kitchen has come to like; None where no batch taught it."""

    def binds(self) -> Mapping[str, LearnedStrength]:
        """How strongly each dry thickener binds there, where batches taught it."""

    def habit(self) -> School | None:
        """What the kitchen is used to thicken with; None where it takes now this, now that."""

    def school(self, key: str) -> School:
        """A school, or a mixture of the kitchen's own. Raises SpissusError where there is none of that key."""

    def binding(self, school: School) -> School:
        """A school as strongly as it binds in the batch."""

    def limits(self) -> Limits | None:
        """The limits of cooling, keeping hot and reheating that the kitchen goes by; None where it never chose."""

    def time_zone(self) -> str | None:
        """The name of its time zone in the tz database; None where nobody said it."""

    def entry(self, event: UUID) -> Kind:
        """An entry of the batch that was made by hand. Raises SpissusError where there is none."""

    def kept(self, batch: UUID, jar: UUID) -> Thing:
        """Something that the kitchen keeps of another batch. Raises SpissusError where there is none."""

    def unboiled_ml(self) -> float:
        """What the pot would hold, fat and all, had nothing of it boiled away, mL at 20 °C."""


class Happened(Protocol):
    """An event: what happened, when, and what read it by itself, if anything did."""

    @property
    def id(self) -> UUID:
        """Its identity."""

    @property
    def at(self) -> datetime:
        """When."""

    @property
    def payload(self) -> Kind:
        """What."""

    @property
    def device(self) -> str | None:
        """The device that read it; None for a cook's entry."""


class Kind(BaseModel):
    """One kind of thing that can happen to a batch, and everything that follows from it.

    A kind is one class in one module of this package, and nothing else has to know of it: the union, the
    input of the API and the schema come from :data:`KINDS`.

    ``called`` is its name, and ``stage`` where it belongs on the way, if anywhere; ``looks`` is whether somebody stood
    at the pot, so that the next look counts from here; ``undoable`` whether it may be taken back; ``beside`` whether
    nothing follows from it for the pot; ``away`` whether nobody did anything at the pot, so that an alarm that was
    heard stays heard, and what simmers under its lid goes on; ``leaves_plan`` whether boiling ends where it was to end;
    ``server_writes`` the fields that are filled when it is recorded, never by a page; ``tells`` those that may hold its
    amount, which can be mended.
    ``versions`` are those in which it was recorded anew; ``upcasts`` put what was said in one version into the words
    of the next, by that version, where more changed than fields that came to it.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    called: ClassVar[Message]
    stage: ClassVar[Stage | None] = None
    looks: ClassVar[bool] = False
    undoable: ClassVar[bool] = True
    beside: ClassVar[bool] = False
    away: ClassVar[bool] = False
    leaves_plan: ClassVar[bool] = False
    server_writes: ClassVar[tuple[str, ...]] = ()
    tells: ClassVar[tuple[str, ...]] = ()
    versions: ClassVar[tuple[int, ...]] = (1,)
    upcasts: ClassVar[Mapping[int, Upcast]] = {}

    kind: str

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        super().__pydantic_init_subclass__(**kwargs)
        name = cls.model_fields["kind"].default
        if isinstance(name, str) and cls.__module__.startswith(__package__ or ""):
            KINDS.setdefault(name, cls)

    # -- what it does ---------------------------------------------------------------------------------

    def apply(self, state: State, at: datetime) -> State:
        """The batch after it. Raises SpissusError where it contradicts what is in the pot."""
        return state

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """The stretch of heating that is under way after it."""
        return before.stove.window

    def check(self, after: State) -> None:
        """Refuse it at the door where it makes no sense in this batch. Raises SpissusError."""
        if after.pot is None:
            raise SpissusError("kind", say("events.what_is_in_it"))

    # -- what is said of it ---------------------------------------------------------------------------

    @abstractmethod
    def said(self) -> Message:
        """What the log says."""

    @property
    def allergens(self) -> tuple[str, ...]:
        """Allergens it brings into the pot."""
        return ()

    # -- what it tells of how much ----------------------------------------------------------------------

    @property
    def how_much(self) -> Shown | None:
        """How much it tells; None where it tells of none."""
        told = next((name for name in self.tells if getattr(self, name) is not None), None)
        return None if told is None else _SHOWN[told.rpartition("_")[2]](getattr(self, told))

    def with_amount(self, text: str) -> Kind:
        """The same with another amount, as a cook writes it.

        Raises
        ------
        SpissusError : it tells of none, or that is no such amount.
        """
        told = next((name for name in self.tells if getattr(self, name) is not None), None)
        if told is None:
            raise SpissusError("amount", say("events.no_amount_to_mend"))
        return self.said_otherwise({told: text})

    def said_otherwise(self, other: dict[str, Any]) -> Kind:
        """The same with something of it said otherwise, judged at the door. Raises SpissusError where that is wrong."""
        try:
            return type(self).model_validate(self.model_dump() | other)
        except ValidationError as error:
            causes = [found.get("ctx", {}).get("error") for found in error.errors()]
            told = next((cause for cause in causes if isinstance(cause, SpissusError)), None)
            raise SpissusError("amount", told.message if told else say("events.no_such_amount")) from None

    # -- how it is kept -------------------------------------------------------------------------------

    def written_out(self, kitchen: Kitchen) -> Kind:
        """The event as it is kept: with everything in it that a fold would otherwise have to look up."""
        return self

    def kept_with(self, **written: object) -> Kind:
        """The event as it is kept, with what the server writes into it; judged as what was recorded is."""
        return KINDS[self.kind].model_validate(dict(self) | written, context=dict(SHELF))


class ActsOnPot(Kind):
    """A kind that changes what is in the pot, or what it stands in."""

    kind: str

    @abstractmethod
    def on_pot(self, pot: Pot) -> Pot:
        """The pot after it. Raises SpissusError where it contradicts the pot."""

    def apply(self, state: State, at: datetime) -> State:
        """The batch with the changed pot."""
        return state if state.pot is None else state.but(pot=self.on_pot(state.pot))

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """What was added takes up heat before it boils too."""
        if before.stove.window is None or before.pot is None or after.pot is None:
            return before.stove.window
        return before.stove.window.joined(before.pot, after.pot)


# -- at the door ----------------------------------------------------------------------------------


class Form(BaseModel):
    """A kind as a page sends it, with a pan and a burner of the kitchen by their ids."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    of: ClassVar[type[Kind]]

    kind: str
    pan_id: UUID
    burner_id: UUID

    def written_out(self, kitchen: Kitchen) -> Kind:
        """The event as it is kept."""
        said = {name: getattr(self, name) for name in type(self).model_fields if name not in ("pan_id", "burner_id")}
        named = {"pan": kitchen.pan(self.pan_id), "burner": kitchen.burner(self.burner_id, self.pan_id)}
        return self.of.model_validate(said | named).written_out(kitchen)


#: Nothing a page may say, and nothing the schema speaks of.
_UNSAID: Any = SkipJsonSchema[None]  # type: ignore[misc]


def form_of(kind: type[Kind]) -> type[Form | Kind]:
    """What a page may send of a kind: ids for pan and burner, and nothing of what the server writes."""
    fields = kind.model_fields
    name = f"{kind.__name__}In"
    if "pan" in fields:
        written = {"pan", "burner", *kind.server_writes}
        rest: dict[str, Any] = {n: (f.annotation, f) for n, f in fields.items() if n not in written}
        form = create_model(name, __base__=Form, __doc__=kind.__doc__, **rest)
        form.of = kind
        return form
    if kind.server_writes:
        unsaid: dict[str, Any] = dict.fromkeys(kind.server_writes, (_UNSAID, None))
        return create_model(name, __base__=kind, __doc__=kind.__doc__, **unsaid)
    return kind
