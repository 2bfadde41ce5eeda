"""Whatever arrives, the answer is one a client can use: never a server error, never half a record."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote

import pytest
from batches.door import PayloadIn
from batches.models import Event
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from makers import text_of
from pydantic import TypeAdapter

from .conftest import LIQUID, Caller

scalars = st.one_of(
    st.none(),
    st.booleans(),
    st.integers(min_value=-(10**12), max_value=10**12),
    st.floats(allow_nan=False, allow_infinity=False),
    st.text(max_size=30),
    st.sampled_from(["1.4 l", "300 % ABV", "2 kg", "-3 mm", "½", "1/0 cup", "∞ l", "\u202e1 l", "🍲", "１ l"]),
)
anything = st.recursive(
    scalars,
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=12), inner, max_size=3),
    max_leaves=8,
)
#: Every kind of event that the API takes, and every field of any of them, as its own schema has them.
SCHEMA = TypeAdapter(PayloadIn).json_schema()
KINDS = sorted(SCHEMA["discriminator"]["mapping"])
FIELDS = sorted({name for model in SCHEMA["$defs"].values() for name in model.get("properties", {})} - {"kind"})


def _of_kind(kind: str) -> st.SearchStrategy[dict[str, Any]]:
    """A payload of a kind with some of its own fields, and perhaps one of another's."""
    reference = SCHEMA["discriminator"]["mapping"][kind].rsplit("/", 1)[-1]
    own = [name for name in SCHEMA["$defs"][reference]["properties"] if name != "kind"] or ["text"]
    fields = st.dictionaries(st.sampled_from(own), anything, max_size=5)
    other = st.dictionaries(st.sampled_from(FIELDS), anything, max_size=1)
    return st.builds(lambda mine, theirs: {**theirs, **mine, "kind": kind}, fields, other)


payloads = st.sampled_from(KINDS).flatmap(_of_kind)
many = settings(max_examples=80, suppress_health_check=[HealthCheck.function_scoped_fixture])


@pytest.fixture
def batch_id(cook: Caller) -> str:
    return str(cook.start()["id"])


@settings(many, max_examples=240)
@given(payload=payloads)
def test_any_event_is_recorded_or_refused_with_a_sentence(cook: Caller, batch_id: str, payload: dict[str, Any]) -> None:
    before = Event.objects.count()
    answer = cook.record(batch_id, payload)
    assert answer.status_code in (200, 404, 422), answer.content
    if answer.status_code != 200:
        assert answer.json()["detail"]
        assert Event.objects.count() == before
    assert cook.get(f"/batches/{batch_id}").status_code == 200


@many
@given(payload=st.dictionaries(st.sampled_from(FIELDS), anything, max_size=5))
def test_any_wish_gets_routes_or_a_sentence(cook: Caller, batch_id: str, payload: dict[str, Any]) -> None:
    answer = cook.send(f"/batches/{batch_id}/routes", payload | {"kind": "wanted"})
    assert answer.status_code in (200, 422), answer.content


@many
@given(
    volume=st.floats(min_value=1, max_value=1500),
    body=st.integers(min_value=0, max_value=5),
    salts=st.tuples(st.floats(min_value=0, max_value=3), st.floats(min_value=0, max_value=3)).map(sorted),
)
def test_every_possible_wish_is_answered(
    cook: Caller, batch_id: str, volume: float, body: int, salts: list[float]
) -> None:
    wish = {"kind": "wanted", "volume_ml": volume, "body": body, "salt_percent": salts[0], "ceiling_percent": salts[1]}
    answer = cook.send(f"/batches/{batch_id}/routes", wish)
    assert answer.status_code in (200, 422), answer.content
    if answer.status_code == 200:
        for route in answer.json()["routes"]:
            assert route["feasible"] or text_of(route["reason"])


@many
@given(part=st.sampled_from(sorted(LIQUID)), value=anything)
def test_any_start_is_previewed_or_refused(cook: Caller, batch_id: str, part: str, value: Any) -> None:
    answer = cook.send("/previews/start", cook.start_body(**{part: value}))
    assert answer.status_code in (200, 422), answer.content


@many
@given(
    part=st.sampled_from(["lines", "cover", "heat", "oven_c", "hours", "level", "pieces", "strain", "solids_g"]),
    value=anything,
)
def test_any_braise_is_previewed_or_refused(cook: Caller, batch_id: str, part: str, value: Any) -> None:
    known = [{"text": "1 l stock", "ingredient": "beef_stock_own", "volume_ml": 1000}]
    more = {"solids_g": value} if part == "solids_g" else {}
    braise = {"lines": known} | ({} if more else {part: value})
    answer = cook.send("/previews/start", cook.start_body(braise=braise, salt={"by": "list"}, **more))
    assert answer.status_code in (200, 422), answer.content


@many
@given(text=st.text(max_size=300))
def test_any_words_are_read_or_handed_back(cook: Caller, text: str) -> None:
    for path in ("/previews/list", "/previews/sentence", "/previews/line"):
        answer = cook.send(path, {"text": text})
        assert answer.status_code == 200 or answer.json()["detail"], answer.content
        assert answer.status_code in (200, 422)
    assert cook.get(f"/ingredients?q={quote(text)}").status_code == 200


@many
@given(field=st.sampled_from(["name", "like", "instead", "label", "abv", "sugar", "fat", "gelatin"]), value=anything)
def test_any_ingredient_of_ones_own_is_kept_or_refused(cook: Caller, field: str, value: Any) -> None:
    answer = cook.send("/larder", {"name": "house stock", "like": "beef_stock_own"} | {field: value})
    assert answer.status_code in (200, 422), answer.content
    assert cook.get("/larder").status_code == 200


@many
@given(volume=anything, depth=anything)
def test_any_dip_is_fitted_or_refused(cook: Caller, volume: Any, depth: Any) -> None:
    pan = cook.kitchen()["pans"][0]
    spec = {name: value for name, value in pan.items() if name.endswith(("_mm", "_g")) or name in ("name", "shape")}
    answer = cook.send("/previews/calibration", {"pan": spec, "poured": [{"volume_ml": volume, "depth_mm": depth}]})
    assert answer.status_code in (200, 422), answer.content
