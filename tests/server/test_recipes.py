"""Recipes of other programs: what goes into them is read out of what somebody saved, and doubted like any list."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

import pytest
from bs4 import BeautifulSoup
from interchange.recipe import MOST_BYTES, recipe_in
from makers import refused
from pyld import jsonld
from spissus_core.errors import SpissusError

from .conftest import Caller
from .test_archive import full
from .test_batches import field_errors

SHIN = {
    "@context": "https://schema.org",
    "@type": "Recipe",
    "name": "Shin, braised",
    "recipeIngredient": ["1 l beef stock", "1/2 bottle red wine", "2 onions"],
}
LINES = ("1 l beef stock", "1/2 bottle red wine", "2 onions")


def page(*scripts: str, before: str = "") -> bytes:
    """A saved page with documents in it."""
    inside = "".join(f'<script type="application/ld+json">{one}</script>' for one in scripts)
    return f"<!doctype html><html><head>{before}{inside}</head><body><p>1 < 2 & so on<br>".encode()


@pytest.mark.parametrize(
    "text",
    [
        json.dumps(SHIN).encode(),
        json.dumps([{"@type": "WebSite"}, SHIN]).encode(),
        json.dumps({"@graph": [{"@type": "Person", "name": "x"}, {**SHIN, "@type": ["Thing", "Recipe"]}]}).encode(),
        json.dumps({"@type": "WebPage", "mainEntity": {**SHIN, "@type": "http://schema.org/Recipe"}}).encode(),
        page(json.dumps(SHIN)),
        page("{broken", json.dumps({"@type": "BreadcrumbList"}), json.dumps(SHIN)),
        page(json.dumps(SHIN), before='<script>var a = {"@type": "Recipe"}</script>'),
        b"\n  " + page(json.dumps({**SHIN, "recipeIngredient": [f"<b>{line}</b>&nbsp;" for line in LINES]})),
    ],
)
def test_a_recipe_is_found_wherever_it_stands(text: bytes) -> None:
    assert recipe_in(text) == ("Shin, braised", LINES)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (b"", "no recipe"),
        (b"<html><body>Shin with onions</body></html>", "no recipe"),
        (b"[" * 50_000, "no recipe"),
        # What costs a careless reader the square of its length.
        (b"<script" * 500_000, "no recipe"),
        (b"<!" * 1_000_000, "no recipe"),
        (b"[" + b"{}," * 1_000_000 + b"{}]", "no recipe"),
        (b"\xff\xfe\x00", "no recipe"),
        (json.dumps({"@type": "Recipe", "name": "Shin"}).encode(), "no ingredients"),
        (json.dumps({"@type": "Recipe", "recipeIngredient": [{"a": 1}, None, ""]}).encode(), "no ingredients"),
        (b" " * (MOST_BYTES + 1), "8 MB"),
    ],
)
def test_what_holds_no_recipe_is_said(text: bytes, said: str) -> None:
    with refused(SpissusError, said):
        recipe_in(text)


def read(cook: Caller, text: bytes) -> Any:
    return cook.client.post("/api/v1/previews/recipe", text, content_type="text/plain")


def test_its_lines_are_read_with_the_same_doubts_as_a_pasted_list(cook: Caller) -> None:
    answer = read(cook, page(json.dumps(SHIN))).json()
    pasted = cook.send("/previews/list", {"text": "\n".join(LINES)}).json()
    assert answer == pasted | {"name": "Shin, braised"}
    assert "no recipe" in str(field_errors(read(cook, b"<p>nothing")))


def test_a_batch_goes_out_as_a_recipe_and_is_read_again(cook: Caller) -> None:
    batch = full(cook)
    answer = cook.get(f"/batches/{batch}/files/recipe.jsonld?units=metric")
    assert answer["Content-Type"] == "application/ld+json"
    told = json.loads(answer.content)
    assert (told["@context"], told["@type"], told["name"]) == ("https://schema.org", "Recipe", "Shin in stout")
    assert expanded(told)["https://schema.org/name"] == [{"@value": "Shin in stout"}]
    assert {step["@type"] for step in told["recipeInstructions"]} == {"HowToStep"}
    assert any("strained" in one for one in told["recipeIngredient"])
    assert recipe_in(answer.content).lines == tuple(" ".join(one.split()) for one in told["recipeIngredient"])


def test_a_house_dish_goes_out_by_the_same_terms(cook: Caller) -> None:
    dish = str(uuid4())
    cook.send("/house-dishes", {"id": dish, "batch_id": full(cook), "name": "Shin", "people": 4})
    told = json.loads(cook.get(f"/house-dishes/{dish}/files/recipe.jsonld?units=metric").content)
    assert expanded(told)["https://schema.org/recipeYield"] == [{"@value": "4"}]


#: Terms of schema.org's Recipe and what it is a kind of (schema.org, version 29), as far as they are written. A word
#: that is none of them is lost where the document is expanded.
TERMS = (
    *("Recipe", "HowToStep", "name", "description", "dateCreated", "text"),
    *("recipeYield", "totalTime", "cookTime", "recipeIngredient", "recipeInstructions"),
)


def expanded(told: dict[str, Any]) -> dict[str, Any]:
    """The document as another reader understands it: expanded by PyLD, of which nothing may be lost."""
    context = {term: f"https://schema.org/{term}" for term in TERMS}

    def shipped(url: str, _: Any) -> dict[str, Any]:
        assert url == "https://schema.org"
        return {"documentUrl": url, "contextUrl": None, "document": {"@context": context}}

    [found] = jsonld.expand(told, {"documentLoader": shipped})
    assert len(found) == len(told) - 1
    assert found["@type"] == ["https://schema.org/Recipe"]
    for step, word in zip(found["https://schema.org/recipeInstructions"], told["recipeInstructions"], strict=True):
        assert step["https://schema.org/text"] == [{"@value": word["text"]}]
    return dict(found)


def test_another_reader_of_pages_finds_the_same_recipe() -> None:
    """BeautifulSoup, over saved pages of our own making."""
    for before in ("", "<!-- <script> -->", "<style>a > b {}</style>", '<script src="x.js"></script>'):
        saved = page("{broken", json.dumps(SHIN), before=before)
        found = []
        for script in BeautifulSoup(saved, "html.parser").find_all("script", type="application/ld+json"):
            try:
                found.append(json.loads(script.get_text()))
            except ValueError:
                continue
        assert recipe_in(saved).lines == tuple(found[0]["recipeIngredient"])
