"""Finding out how much there is: jug, dip, scale or eye, each with its own error."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal, NamedTuple

from pydantic import BaseModel, ConfigDict, ValidationInfo, field_validator, model_validator

from ..amounts.fields import Accepts, number_or_text, on_the_shelf, read_amount
from ..amounts.quantities import (
    G_PER_OUNCE,
    LONGEST_AMOUNT,
    ML_PER_CUP,
    MM_PER_INCH,
    UnitSystem,
    show_length,
    show_mass,
    show_volume,
)
from ..amounts.reading import Dimension, amount_at
from ..errors import MeasurementError, QuantityError
from ..ledger.water import HOT_EXPANSION
from ..messages import Message, Shown, say
from .vessels import SHALLOW_MM, Pan

#: Errors at one standard deviation (common practice): a jug's share, a dip's depth, a scale's weight.
JUG_ERROR_SHARE = 0.025
DIP_ERROR_MM = 1.5
SCALE_ERROR_G = 2.0
SCALE_ERROR_SHARE = 0.002
#: A volume that was only looked at. Modelling choice.
EYE_ERROR_SHARE = 0.08

Method = Literal["jug", "dip", "scale", "eye"]

#: What each is called, on a button.
METHOD_WORDS: Mapping[Method, Message] = {
    "dip": say("measuring.dip"),
    "scale": say("measuring.scale"),
    "jug": say("measuring.jug"),
    "eye": say("measuring.eye"),
}

#: What a bare number is read in where nothing is said, as the reader's scales and jugs are marked; and how much it is,
#: mL, mm or g.
READ_IN: Mapping[Method, Mapping[UnitSystem, tuple[str, float]]] = {
    "dip": {"metric": ("mm", 1.0), "us": ("in", MM_PER_INCH)},
    "scale": {"metric": ("g", 1.0), "us": ("oz", G_PER_OUNCE)},
    "jug": {"metric": ("mL", 1.0), "us": ("cups", ML_PER_CUP)},
    "eye": {"metric": ("mL", 1.0), "us": ("cups", ML_PER_CUP)},
}

#: What each method reads, with the unit a bare number is taken in and the range a kitchen can hold.
_READS: dict[str, Accepts] = {
    "jug": Accepts("volume", "mL", low=5.0, high=100_000.0, what="amounts.a_volume"),
    "eye": Accepts("volume", "mL", low=5.0, high=100_000.0, what="amounts.a_volume"),
    "dip": Accepts("length", "mm", low=1.0, high=800.0, what="amounts.a_depth"),
    "scale": Accepts("mass", "g", low=50.0, high=160_000.0, what="amounts.a_gross_weight"),
}


class Measured(BaseModel):
    """One measurement of the pot: mL by jug or by eye, mm by dip, or g gross by scale.

    ``value`` may be written as an amount ("1.4 l", "2 1/8 in"); it is kept as a number.
    ``hot`` says the liquid was straight off the boil, where it takes 3.8 % more room than at 20 °C.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    method: Method
    value: Annotated[float, number_or_text(1.0, 160_000.0)]
    hot: bool = True

    @model_validator(mode="before")
    @classmethod
    def _unit_names_the_method(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict) or not isinstance(data.get("value"), str):
            return data
        method = data.get("method")
        if not isinstance(method, str) or method not in _READS:
            return data
        named = method_named(data["value"], method)
        return data | {"method": named}

    @field_validator("value", mode="before")
    @classmethod
    def _read_value(cls, value: object, info: ValidationInfo) -> float:
        if "method" not in info.data:
            raise QuantityError("value", say("measuring.which_method"))
        return read_amount(value, _READS[info.data["method"]], recorded=on_the_shelf(info))

    @property
    def shown(self) -> Shown:
        """The reading as a cook reads it."""
        show = {"jug": show_volume, "eye": show_volume, "dip": show_length, "scale": show_mass}[self.method]
        return show(self.value)

    @property
    def expansion(self) -> float:
        """Volume as measured over volume at 20 °C."""
        return HOT_EXPANSION if self.hot else 1.0


class Reads(NamedTuple):
    """What each way to measure shows of one pot at one level, straight off the boil: a dip in mm, a jug in mL of hot
    liquid and fat, and a scale in g with the pan; None where the pan was never weighed."""

    dip: float
    jug: float
    scale: float | None

    def shown(self, method: Method) -> Shown:
        """What that one shows; where it shows nothing, a dip."""
        if method == "scale" and self.scale is not None:
            return show_mass(self.scale)
        return show_volume(self.jug) if method == "jug" else show_length(self.dip)


#: What each kind of unit measures with: litres stand in a jug, millimetres on a skewer, grams on a scale.
_BY_UNIT: dict[Dimension, Method] = {"volume": "jug", "length": "dip", "mass": "scale"}

#: A bare depth below this, with a fraction or where no ruler reads, may be told in centimetres. Modelling choice.
MAY_BE_CM = 10.0

#: A bare number up to this, read off a jug, may as well be a depth, mm. Modelling choice.
MAY_BE_DEPTH = 200.0


def method_named(text: str, method: str) -> str:
    """The method that the unit of a reading names, whatever was open; ``method`` where it names none.

    Raises
    ------
    QuantityError : a bare number that is no volume of a pot, but may be a depth, or litres.
    """
    expected = _READS[method].dimension
    if len(text) > LONGEST_AMOUNT:
        return method
    try:
        said = amount_at(" ".join(text.split()), (expected, *_BY_UNIT))
    except QuantityError:
        return method
    if said is None or said.rest.strip(" ."):
        return method
    if said.unit is not None:
        found = _BY_UNIT.get(said.unit.dimension)
        return method if found is None or said.unit.dimension == expected else found
    if expected == "length" and said.count < MAY_BE_CM and (said.count < SHALLOW_MM or said.count % 1.0):
        raise QuantityError("value", say("measuring.mm_or_cm", text=text.strip()))
    if expected == "volume" and said.count <= MAY_BE_DEPTH:
        bare = text.strip()
        if said.count < _READS["jug"].low:
            raise QuantityError("value", say("measuring.litres", text=bare))
        raise QuantityError("value", say("measuring.depth_or_volume", text=bare))
    return method


def gross_to_net_g(pan: Pan, gross_g: float) -> float:
    """What is in the pan when the scale shows ``gross_g``, g.

    Raises
    ------
    MeasurementError : the pan's weight is unknown, or the scale shows no more than the pan weighs.
    """
    if pan.empty_g is None:
        raise MeasurementError("value", say("measuring.weigh_empty", pan=pan.name))
    if gross_g <= pan.empty_g:
        raise MeasurementError(
            "value",
            say("measuring.less_than_pan", empty=show_mass(pan.empty_g), gross=show_mass(gross_g)),
        )
    return gross_g - pan.empty_g


def measured_volume_ml(pan: Pan, measured: Measured) -> float:
    """Liquid and floating fat together, mL at 20 °C, from a jug or a dip.

    Raises
    ------
    MeasurementError : deeper than the pan, or more than it holds.
    """
    if measured.method == "dip":
        try:
            return pan.volume_ml(measured.value) / measured.expansion
        except MeasurementError as error:
            raise MeasurementError("value", error.message) from None
    if measured.value > pan.capacity_ml:
        raise MeasurementError(
            "value",
            say(
                "measuring.does_not_fit",
                pan=pan.name,
                capacity=show_volume(pan.capacity_ml),
                volume=show_volume(measured.value),
            ),
        )
    return measured.value / measured.expansion


def error_ml(pan: Pan, method: Method, volume_ml: float, density_g_ml: float = 1.0) -> float:
    """Standard error of one measurement of about ``volume_ml``, mL (common practice)."""
    if method == "jug":
        return JUG_ERROR_SHARE * volume_ml
    if method == "eye":
        return EYE_ERROR_SHARE * volume_ml
    if method == "dip":
        return pan.area_mm2(pan.depth_mm(min(volume_ml, pan.capacity_ml))) * DIP_ERROR_MM / 1000.0
    gross = volume_ml * density_g_ml + (pan.empty_g or 0.0)
    return max(SCALE_ERROR_G, SCALE_ERROR_SHARE * gross) / density_g_ml
