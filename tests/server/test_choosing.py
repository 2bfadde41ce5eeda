"""Another way to thicken, over HTTP: compared, asked for, chosen, and done."""

from __future__ import annotations

from batches.models import Event

from .conftest import Caller

LIKE = "all-taste-corn_starch_own"


def test_schools_are_compared_on_the_pot_and_nothing_is_recorded(cook: Caller) -> None:
    batch = cook.start()
    answer = cook.send(f"/batches/{batch['id']}/schools?like={LIKE}", {"volume_ml": 900, "body": 3})
    assert answer.status_code == 200, answer.content
    found = answer.json()
    fit, unfit = {one["key"]: one for one in found["fit"]}, {one["key"]: one for one in found["unfit"]}
    assert {"white_roux", "arrowroot_own", "kneaded_butter"} <= set(fit)
    assert {"own_fat_roux", "granules"} <= set(unfit)
    assert fit["kneaded_butter"]["brings"] == ["gluten", "milk"]
    assert fit["arrowroot_own"]["kind"] == "all-taste-arrowroot_own"
    assert len(cook.get(f"/batches/{batch['id']}").json()["log"]) == 1


def test_fat_that_was_kept_makes_a_roux(cook: Caller) -> None:
    batch = cook.start(fat_ml="150 ml")["id"]
    assert cook.record(batch, {"kind": "skimmed", "way": "separator", "kept": True}).status_code == 200
    found = cook.send(f"/batches/{batch}/schools?like={LIKE}", {"volume_ml": 900, "body": 3}).json()
    assert "own_fat_roux" in {one["key"] for one in found["fit"]}


def test_a_school_that_is_asked_for_is_among_the_ways_and_so_is_the_one_that_was_taken(cook: Caller) -> None:
    batch = cook.start()["id"]
    wish = {"volume_ml": 900, "body": 3}

    def schools(asked: str = "") -> set[str]:
        answer = cook.send(f"/batches/{batch}/routes{asked}", wish).json()
        return {route["school"] for route in answer["routes"] if route["school"]}

    assert schools() == {"white_roux", "corn_starch_own"}
    assert schools("?asked=arrowroot_own") == {"white_roux", "corn_starch_own", "arrowroot_own"}
    cook.record(batch, {"kind": "wanted", **wish})
    assert cook.record(batch, {"kind": "chosen", "route": "all-taste-tapioca_own"}).status_code == 200
    assert "tapioca_own" in schools()
    assert cook.send(f"/batches/{batch}/routes?asked=sawdust", wish).status_code == 422


def test_the_bar_goes_on_with_the_school_that_was_taken(cook: Caller) -> None:
    batch = cook.start(measured={"method": "jug", "value": "0.8 l", "hot": True}, fat_ml="0 ml", character="thin")["id"]
    cook.record(batch, {"kind": "wanted", "volume_ml": 700, "body": 3, "salt_percent": 1.0})
    done = cook.record(batch, {"kind": "chosen", "route": "all-here-kneaded_butter"}).json()
    for _ in range(6):
        act = done["act"]
        if act["kind"] == "thicken":
            break
        payload = next((a["payload"] for a in act["answers"] if a["payload"]), None)
        assert payload is not None, act
        done = cook.record(batch, payload).json()
    assert act["thickener"] == "kneaded_butter"
    done = cook.record(batch, act["answers"][0]["payload"]).json()
    assert done["log"][-1]["kind"] == "thickened"
    assert "milk" in str(done["serve_cautions"])


def test_what_is_frozen_and_what_no_spoon_measures_is_out_where_that_is_said(cook: Caller) -> None:
    batch = cook.start()["id"]

    def unfit(query: str) -> dict[str, str]:
        found = cook.send(f"/batches/{batch}/schools?like={LIKE}{query}", {"volume_ml": 300, "body": 1}).json()
        return {one["key"]: str(one["reason"]) for one in found["unfit"]}

    assert "corn_starch_own" not in unfit("")
    assert "frozen" in unfit("&frozen=true")["corn_starch_own"]
    assert "scale" in unfit("&by_spoon=true")["xanthan"]


def test_what_the_kitchen_used_last_is_its_habit(cook: Caller) -> None:
    before = cook.start()["id"]
    cook.record(before, {"kind": "thickened", "thickener": "tapioca_own", "dry_g": 10})
    batch = cook.start()["id"]
    found = cook.send(f"/batches/{batch}/schools?like={LIKE}", {"volume_ml": 900, "body": 3}).json()["fit"]
    assert [one["key"] for one in found[:2]] == ["corn_starch_own", "tapioca_own"]
    assert "thickened with last" in str(found[1]["minds"])
    # A batch is no habit of its own.
    own = cook.send(f"/batches/{before}/schools?like={LIKE}", {"volume_ml": 900}).json()["fit"]
    assert "thickened with last" not in str(own)


def test_a_slurry_is_made_in_wine_poured_in_and_what_is_left_is_said(cook: Caller) -> None:
    batch = cook.start(measured={"method": "jug", "value": "0.8 l", "hot": True}, fat_ml="0 ml", character="thin")["id"]
    cook.record(batch, {"kind": "wanted", "volume_ml": 700, "body": 3, "salt_percent": 1.0})
    card = cook.record(batch, {"kind": "chosen", "route": "all-here-corn_starch_own"}).json()["making"]
    assert card["ready"] is False
    assert {one["key"] for one in card["liquids"]} >= {"water", "red_wine"}
    ready = {"kind": "prepared", "thickener": card["school"], "dry_g": "3 tbsp", "stirred_into": "red_wine"}
    told = cook.record(batch, ready).json()
    assert told["making"]["ready"] is True
    assert told["making"]["dry_g"] == 24.0
    assert "red wine" in str(told["making"]["weigh"])
    assert told["pot"] == {**told["pot"], **cook.get(f"/batches/{batch}").json()["pot"]}
    poured = {"kind": "thickened", "thickener": card["school"], "dry_g": 14, "stirred_into": "red_wine"}
    told = cook.record(batch, poured).json()
    assert told["making"]["left"][0]["figure"] == "10\u00a0g"
    assert "stirred into " in str(told["log"][-1])
    # Taken back, it stands ready again; and nobody stirs anything into sawdust.
    undone = cook.record(batch, {"kind": "struck", "event": told["log"][-1]["id"]}).json()
    assert undone["making"]["left"] is None
    refused = cook.record(batch, {**poured, "stirred_into": "sawdust"})
    assert refused.status_code == 422


def thickened(cook: Caller, school: str) -> str:
    batch = str(cook.start()["id"])
    assert cook.record(batch, {"kind": "thickened", "thickener": school, "dry_g": "12 g"}).status_code == 200
    return batch


def first_school(cook: Caller) -> str | None:
    answer = cook.send(f"/batches/{cook.start()['id']}/routes", {"volume_ml": 500, "body": 3}).json()
    return answer["routes"][0]["school"]  # type: ignore[no-any-return]


def test_two_sauces_alike_make_a_habit_that_is_proposed_and_told(cook: Caller, neighbour: Caller) -> None:
    usual = first_school(cook)
    thickened(cook, "arrowroot_own")
    assert first_school(cook) == usual
    thickened(cook, "arrowroot_own")
    assert first_school(cook) == "arrowroot_own"
    assert first_school(neighbour) == usual
    batch = cook.start()["id"]
    wish = {"volume_ml": 500, "body": 3}
    assert all("arrowroot_own" in point["dry"] for point in cook.send(f"/batches/{batch}/routes", wish).json()["trade"])
    shown = cook.record(batch, {"kind": "wanted", **wish}).json()
    take = shown["act"]["answers"][0]["payload"]
    assert take["route"].endswith("arrowroot_own")
    done = cook.record(batch, take).json()
    assert "its last two sauces" in str(done["plan"]["notes"])
    thickened(cook, "tapioca_own")
    assert first_school(cook) == usual


def test_what_was_struck_out_is_no_habit(cook: Caller) -> None:
    usual = first_school(cook)
    thickened(cook, "arrowroot_own")
    batch = thickened(cook, "arrowroot_own")
    entry = cook.get(f"/batches/{batch}").json()["log"][-1]["id"]
    assert cook.record(batch, {"kind": "struck", "event": entry}).status_code == 200
    assert first_school(cook) == usual


def test_an_entry_that_nobody_can_read_is_no_habit_and_no_hindrance(cook: Caller) -> None:
    usual = first_school(cook)
    for spoiled in (["arrowroot_own"], {"kind": "thickened"}, "arrowroot_own"):
        batch = thickened(cook, "arrowroot_own")
        Event.objects.filter(batch=batch, kind="thickened").update(payload=spoiled)
    assert first_school(cook) == usual


def test_a_mixture_of_ones_own_is_a_habit_until_it_is_put_away(cook: Caller) -> None:
    usual = first_school(cook)
    roux = {"name": "house roux", "text": "500 g flour\n500 g butter", "goes_in": "roux"}
    mixture = cook.send("/mixtures", roux).json()
    for _ in range(2):
        thickened(cook, mixture["key"])
    batch = cook.start()["id"]
    shown = cook.record(batch, {"kind": "wanted", "volume_ml": 500, "body": 3}).json()
    take = shown["act"]["answers"][0]["payload"]
    assert take["thickener"] == mixture["key"]
    assert cook.record(batch, take).json()["plan"]["own"] == mixture["key"]
    assert cook.send(f"/mixtures/{mixture['id']}", {}, "delete").status_code == 204
    assert first_school(cook) == usual
