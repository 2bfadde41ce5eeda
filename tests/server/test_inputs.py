"""Every input answers: what is known to have broken once, and what holds of every operation."""

from __future__ import annotations

import base64
import json
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import Any
from uuid import UUID, uuid4

import pytest
from batches.models import Batch
from config.api import api
from django.db import connection
from django.test import Client
from people.models import User

from .conftest import Caller, person

PROBLEM = "application/problem+json"


def is_problem(answer: Any, status: int) -> dict[str, Any]:
    """The problem details of an answer, which must be complete."""
    assert answer.status_code == status, answer.content
    assert answer["Content-Type"] == PROBLEM
    body = answer.json()
    assert body["status"] == status
    assert body["title"]
    assert body["detail"]
    assert isinstance(body["errors"], list)
    return body


# -- one shape for every error -----------------------------------------------------------------------


def test_whatever_goes_wrong_has_one_shape(cook: Caller, client: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    is_problem(cook.get("/nothing/here"), 404)
    is_problem(client.get("/api/nothing"), 404)
    is_problem(client.get("/static/nothing.js"), 404)
    is_problem(cook.get(f"/batches/{uuid4()}"), 404)
    is_problem(cook.get("/batches/not-a-uuid"), 422)
    is_problem(client.get("/api/v1/batches"), 401)
    is_problem(client.get("/api/v1/stream"), 401)
    wrong = cook.client.put("/api/v1/session/demo")
    is_problem(wrong, 405)
    assert wrong["Allow"] == "POST"
    is_problem(cook.client.post("/api/v1/batches", "{nonsense", content_type="application/json"), 400)
    is_problem(cook.client.post("/api/v1/batches", b"\xff\xfe{", content_type="application/json"), 400)
    is_problem(cook.client.post("/api/v1/batches", "x" * 300_000, content_type="application/json"), 413)
    is_problem(Client(enforce_csrf_checks=True).post("/api/v1/session", {}, content_type="application/json"), 403)
    is_problem(client.get("/api/v1/health", headers={"host": "elsewhere.example"}), 400)

    def fail(*_: Any) -> Any:
        raise ZeroDivisionError("nothing there")

    monkeypatch.setattr("batches.services.log_of", fail)
    batch = Batch.objects.create(id=uuid4(), kitchen=cook.member().kitchen, name="x", created_at="2026-01-01T00:00:00Z")
    answer = cook.get(f"/batches/{batch.pk}")
    body = is_problem(answer, 500)
    assert body["instance"] == f"urn:uuid:{answer['X-Request-ID']}"
    assert answer["X-Request-ID"] in body["detail"]


def test_a_fault_outside_the_api_is_a_problem_with_its_number_too(
    cook: Caller, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail(*_: Any, **__: Any) -> Any:
        raise ZeroDivisionError("nothing there")

    monkeypatch.setattr("config.urls.render", fail)
    cook.client.raise_request_exception = False
    answer = cook.client.get("/kitchen")
    assert is_problem(answer, 500)["instance"].endswith(answer["X-Request-ID"])


def test_answers_of_the_api_are_not_stored(cook: Caller) -> None:
    assert cook.get("/kitchen")["Cache-Control"] == "no-store"
    assert cook.get("/nothing")["Cache-Control"] == "no-store"


# -- what broke once ---------------------------------------------------------------------------------


@pytest.mark.parametrize(
    "line",
    [
        "1 l stock, reduced to 0 %",
        "1 l stock, leave 0/5",
        "1 l stock, reduced by 100 %",
        "1 l stock, leave 1/0",
        "9" * 190 + " g salt",
        "9" * 90 + "/" + "9" * 90 + " l stock",
        "1 " + "9" * 150 + "/3 cups stock",
        "3 parts stock to " + "9" * 100 + " parts water, 1 l",
        "9" * 100 + "½ l stock",
        "1 l stock, reduced to " + "9" * 3 + " %",
        "٣ l stock",
        "1 l stock, reduced to ٣/٤",
    ],
)
def test_a_line_that_once_broke_is_read_or_handed_back(cook: Caller, line: str) -> None:
    answer = cook.send("/previews/line", {"text": line})
    assert answer.status_code == 200, answer.content
    for read in answer.json()["lines"]:
        assert read["amount"] or read["problem"]
    assert cook.send("/previews/list", {"text": line}).status_code == 200
    assert cook.send("/previews/sentence", {"text": line}).status_code == 200


HUGE = int("9" * 400)


@pytest.mark.parametrize("amount", [HUGE, "9" * 400, "9" * 50 + "/3 l", -HUGE, "1e999 l", 1e308, 1e-320, "٣ l"])
def test_amounts_without_bound_are_refused_with_a_sentence(cook: Caller, amount: Any) -> None:
    batch = cook.start()["id"]
    for payload in (
        {"kind": "salted", "salt_g": amount},
        {"kind": "read", "measured": {"method": "dip", "value": amount}},
        {"kind": "wanted", "portions": amount, "portion_ml": 60},
        {"kind": "heated", "share": amount},
    ):
        answer = cook.record(batch, payload)
        if answer.status_code != 200:  # "٣ l" is three litres to anyone who writes so
            assert is_problem(answer, 422)["errors"]
    assert cook.get(f"/batches/{batch}").status_code == 200


@pytest.mark.parametrize("body", ['{"value": NaN}', '{"value": Infinity}', '{"value": -Infinity}', '{"value": 1e999}'])
def test_what_is_no_number_does_not_enter(cook: Caller, body: str) -> None:
    is_problem(cook.client.post("/api/v1/previews/concentrate", body, content_type="application/json"), 422)


@pytest.mark.parametrize("text", ["a\x00b", "a\ud800b"])
def test_texts_that_no_database_keeps_stop_at_the_door(cook: Caller, client: Client, text: str) -> None:
    sign_in = {"name": text, "password": "a long enough secret"}
    is_problem(client.post("/api/v1/session", json.dumps(sign_in), content_type="application/json"), 422)
    sign_up = sign_in | {"kitchen": text}
    is_problem(client.post("/api/v1/accounts", json.dumps(sign_up), content_type="application/json"), 422)
    for path in ("line", "list", "sentence"):
        is_problem(cook.send(f"/previews/{path}", {"text": text}), 422)
    batch = cook.start()["id"]
    is_problem(cook.record(batch, {"kind": "noted", "text": text}), 422)
    braise = {"lines": [{"text": "salt", "ingredient": text, "use": "left_out", "mass_g": 5}, {"text": "x"}]}
    is_problem(cook.send("/previews/start", cook.start_body(braise=braise)), 422)
    is_problem(cook.record(batch, {"kind": "noted", text: "x"}), 422)


def test_a_nul_in_a_query_or_a_cookie_is_no_fault(cook: Caller, client: Client) -> None:
    is_problem(cook.client.get("/api/v1/ingredients?q=a%00b"), 422)
    is_problem(cook.client.delete("/api/v1/learned?pan=a%00b&burner=x"), 422)
    spelt = {"cookie": r'sessionid="abcdefgh\000ijkl"'}
    assert client.get("/api/v1/session", headers=spelt).status_code == 200


#: The id of no batch.
SOME = UUID(int=4711)


def _cursor(text: str) -> str:
    return base64.urlsafe_b64encode(text.encode()).decode()


@pytest.mark.parametrize(
    "cursor",
    [
        "x",
        "%00",
        "é",
        _cursor("[]"),
        _cursor("2026-01-01 x"),
        _cursor(f"0001-01-01T00:00:00+14:00 {SOME}"),
        _cursor(f"9999-12-31T23:59:59-14:00 {SOME}"),
        _cursor(f"2026-01-01 {SOME}"),
        _cursor("{" * 60),
        _cursor(f"infinity {SOME}"),
        "A" * 201,
    ],
)
def test_a_hand_made_cursor_is_a_place_or_none(cook: Caller, cursor: str) -> None:
    assert cook.client.get("/api/v1/batches", {"cursor": cursor}).status_code in (200, 422)


@pytest.mark.django_db(transaction=True)
def test_the_same_start_sent_six_times_at_once_is_one_batch() -> None:
    cook = person("cook")
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": "2026-03-14T18:00:00Z", "name": "Shin"}
    body |= {"start": cook.start_body()}

    def send(_: int) -> int:
        try:
            return int(cook.send("/batches", body).status_code)
        finally:
            connection.close()

    with ThreadPoolExecutor(6) as pool:
        assert set(pool.map(send, range(6))) == {200}
    assert Batch.objects.count() == 1
    assert Batch.objects.get().events.count() == 1


# -- names -------------------------------------------------------------------------------------------


def post(client: Client, path: str, body: Any) -> Any:
    return client.post(f"/api/v1{path}", json.dumps(body), content_type="application/json")


def test_a_name_that_normalises_to_a_taken_one_is_taken(client: Client, db: None) -> None:
    sign_up = {"password": "a long enough secret", "kitchen": "Corner"}
    assert post(client, "/accounts", sign_up | {"name": "file"}).status_code == 200
    for same in ("ﬁle", "FILE", "ｆｉｌｅ"):
        assert is_problem(post(Client(), "/accounts", sign_up | {"name": same}), 422)["errors"][0]["field"] == "name"
        entered = post(Client(), "/session", {"name": same, "password": sign_up["password"]})
        assert entered.json()["name"] == "file"


@pytest.mark.django_db(transaction=True)
def test_equal_sign_ups_at_once_open_one_kitchen() -> None:
    body = {"password": "a long enough secret", "kitchen": "Corner"}

    def send(number: int) -> int:
        try:
            return int(post(Client(), "/accounts", body | {"name": "sous" if number % 2 else "Sous"}).status_code)
        finally:
            connection.close()

    with ThreadPoolExecutor(6) as pool:
        assert sorted(pool.map(send, range(6))) == [200, 422, 422, 422, 422, 422]
    assert User.objects.count() == 1


# -- what holds of every operation ---------------------------------------------------------------------


def unbounded(schema: dict[str, Any], where: str, components: dict[str, Any], seen: set[str]) -> Iterator[str]:
    """Places of an input that take a text, a number or a list without end."""
    if "$ref" in schema:
        name = schema["$ref"].rsplit("/", 1)[-1]
        if name not in seen:
            seen.add(name)
            yield from unbounded(components[name], name, components, seen)
        return
    for choice in (*schema.get("anyOf", ()), *schema.get("oneOf", ()), *schema.get("allOf", ())):
        yield from unbounded(choice, where, components, seen)
    if not ("enum" in schema or "const" in schema):
        yield from _without_end(schema, where)
    inner = {f".{name}": one for name, one in schema.get("properties", {}).items()}
    inner |= {"[]": schema.get("items"), "{}": schema.get("additionalProperties")}
    for name, one in inner.items():
        if isinstance(one, dict):
            yield from unbounded(one, f"{where}{name}", components, seen)


def _without_end(schema: dict[str, Any], where: str) -> Iterator[str]:
    kind = schema.get("type")
    if kind == "string" and not ("maxLength" in schema or schema.get("format") in ("uuid", "date-time")):
        yield f"{where}: text"
    if kind in ("number", "integer"):
        low, high = {"minimum", "exclusiveMinimum"}, {"maximum", "exclusiveMaximum"}
        if not (low & schema.keys() and high & schema.keys()):
            yield f"{where}: number"
    if kind == "array" and "maxItems" not in schema:
        yield f"{where}: list"
    if isinstance(schema.get("additionalProperties"), dict) and "maxProperties" not in schema:
        yield f"{where}: map"


def test_every_name_text_and_number_that_comes_in_has_a_bound() -> None:
    document = api.get_openapi_schema()
    components, seen = document["components"]["schemas"], set[str]()
    found: list[str] = []
    for path, operations in document["paths"].items():
        for method, operation in operations.items():
            where = f"{method} {path}"
            for parameter in operation.get("parameters", []):
                found += unbounded(parameter["schema"], f"{where} {parameter['name']}", components, seen)
            for content in operation.get("requestBody", {}).get("content", {}).values():
                found += unbounded(content["schema"], where, components, seen)
    assert "Line" in seen
    assert found == []
