"""Whatever somebody types comes out as it was typed: in the log, in what is said, in print and in the stream."""

from __future__ import annotations

import json
from typing import Any
from xml.etree import ElementTree

import pytest
from batches.models import Batch
from batches.news import tell
from django.db import connection, transaction
from live.services import CHANNEL, unpacked
from shared.shapes import PanShape

from .conftest import Caller, person

NASTY = [
    "{by} {0} {volume!r} {{}}",
    "100 % %s %(name)d %n",
    "<b>fat</b> <script>alert(1)</script> &amp;",
    "مرق لحم \u202e gravy \u202c",
    "cre\u0301me bru\u0302le\u0301e \u0e49\u0e49",
    "“quoted”, 'twice' \\n $HOME `x`",
    "1 500 mL, about 3/4 in",
]


def names_in(thing: Any) -> list[str]:
    """Every name in the sentences of an answer."""
    if isinstance(thing, dict):
        return [thing["name"]] if set(thing) == {"name"} else [n for v in thing.values() for n in names_in(v)]
    return [n for one in thing for n in names_in(one)] if isinstance(thing, list) else []


@pytest.mark.parametrize("text", NASTY)
def test_it_comes_out_as_it_was_typed(cook: Caller, text: str) -> None:
    kitchen = cook.kitchen()
    spec = {field: kitchen["pans"][2][field] for field in PanShape.model_fields if field != "name"}
    pan = cook.send("/pans", spec | {"name": text}).json()
    burner = cook.send("/burners", {"name": text, "net_kw": "1.2 kW"}).json()
    own = cook.send("/larder", {"name": text, "like": "red_wine"}).json()
    mixture = cook.send("/mixtures", {"name": text, "text": "500 g flour", "goes_in": "strewn"}).json()
    batch = cook.start(name=text)
    url = batch["id"]
    assert batch["name"] == text
    for payload in (
        {"kind": "noted", "text": text},
        {"kind": "moved", "pan_id": pan["id"], "burner_id": burner["id"]},
        {"kind": "added", "ingredient": own["ingredient"]["key"], "amount": "20 ml"},
        {"kind": "thickened", "thickener": mixture["key"], "dry_g": "20 g"},
    ):
        answer = cook.record(url, payload)
        assert answer.status_code == 200, answer.content
        batch = answer.json()
        assert text in names_in(batch["log"][-1]["text"])
        # The bar speaks on, and what it says is ours.
        assert batch["act"]["sentence"]
        assert text not in names_in(batch["act"]["sentence"])
    assert [batch["pan"]["name"], batch["burner"]] == [text, text]
    assert cook.get("/batches").json()["items"][0]["name"] == text
    # A pan too small for it is refused by its name.
    small = cook.send("/pans", spec | {"name": text, "height_mm": 20.0}).json()
    refused = cook.record(url, {"kind": "moved", "pan_id": small["id"], "burner_id": burner["id"]})
    assert refused.status_code == 422
    assert f"“{text}” holds only" in refused.json()["errors"][0]["message"]
    # A line that is not understood says so in its own words.
    line = cook.send("/previews/line", {"text": f"3 cups {text}"}).json()["lines"][0]
    assert line["line"]["text"] == f"3 cups {text}"
    for kind in ("svg", "pdf"):
        sheet = cook.get(f"/batches/{url}/files/skewer.{kind}?units=us")
        assert sheet.status_code == 200
        if kind == "svg":
            words = [element.text for element in ElementTree.fromstring(sheet.content).iter() if element.text]
            assert f"{text}: {text}" in words


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("text", NASTY)
def test_it_goes_through_the_stream(text: str) -> None:
    cook = person("herald")
    batch = cook.start(name=text)
    with connection.cursor() as cursor:
        cursor.execute(f"LISTEN {CHANNEL}")
    connection.connection.notifies(timeout=0)
    cook.record(batch["id"], {"kind": "noted", "text": text})
    with transaction.atomic():
        tell(Batch.objects.get().pk)
    heard = [json.loads(n.payload) for n in connection.connection.notifies(timeout=1)]
    packed = "".join(news["live"] for news in heard if news.get("batch") == batch["id"] and news.get("live"))
    assert json.loads(unpacked(packed))["line"]["name"] == text
