"""House dishes: kept from a batch, changed, and what they come to. Every change is a version of its own."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from batches.services import batch_of, log_of, of_house_dish
from django.db import transaction
from django.http import Http404
from kitchens.services import Member
from shared.refusals import RefusedError
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.fold import fold, unworkable
from spissus_core.house_dish import HouseDish as Dish
from spissus_core.house_dish import changes, kept_from
from spissus_core.messages import say

from .models import DishVersion, HouseDish

#: More dishes than any kitchen cooks, and more versions of one than anybody reads. Modelling choices.
MOST_DISHES, MOST_VERSIONS = 300, 200


def dish_of(member: Member, dish_id: UUID) -> HouseDish:
    """A house dish of the member's kitchen. Raises Http404 for any other."""
    found = HouseDish.objects.filter(kitchen=member.kitchen, pk=dish_id).first()
    if found is None:
        raise Http404
    return found


def read(version: DishVersion) -> Dish:
    """A version as it was kept. Raises SpissusError where it cannot be read or worked out any more."""
    try:
        return Dish.recorded(version.people, version.entries, version.version)
    except SpissusError:
        raise
    except Exception as error:  # whatever it is, its row must stay in the list
        raise unworkable(error) from error


def otherwise(before: DishVersion, after: Dish) -> bool:
    """Whether anything that is told of a dish is otherwise; one that cannot be read any more is."""
    try:
        return bool(changes(read(before), after))
    except SpissusError:
        return True


def versions_of(member: Member, dish_id: UUID) -> list[DishVersion]:
    """Every version of a dish, the newest first. Raises Http404 for another kitchen's."""
    rows = DishVersion.objects.filter(kitchen=member.kitchen, house_dish=dish_id)
    found = list(rows.select_related("author").order_by("-number"))
    if not found:
        raise Http404
    return found


def newest_of(member: Member) -> dict[UUID, DishVersion]:
    """The newest version of every dish of the kitchen."""
    rows = DishVersion.objects.filter(kitchen=member.kitchen).order_by("house_dish", "-number")
    return {row.house_dish: row for row in rows.select_related("author").distinct("house_dish")}


@transaction.atomic
def keep(member: Member, dish_id: UUID, name: str, people: int, batch_id: UUID) -> HouseDish:
    """Keep a batch as a house dish, or as a later version of one; the batch is one of that dish from now on.

    Raises
    ------
    SpissusError : nothing can be told of its start.
    RefusedError : there are too many; 409 where the id is another kitchen's.
    Http404 : the batch is not the member's.
    """
    member.require_cook()
    batch = batch_of(member, batch_id)
    dish = kept_from(fold(log_of(batch), stop_of=None), people)
    row = _locked(member, dish_id, name)
    row.name, row.retired = name, False
    row.save(update_fields=["name", "retired"])
    _add(member, row, dish)
    of_house_dish(batch, row.pk)
    return row


def _locked(member: Member, dish_id: UUID, name: str) -> HouseDish:
    """The row, for one change at a time; a new one where there is none of that id."""
    if not HouseDish.objects.filter(pk=dish_id).exists():
        if HouseDish.objects.filter(kitchen=member.kitchen).count() >= MOST_DISHES:
            raise RefusedError(422, say("house_dishes.enough"))
        HouseDish.objects.get_or_create(pk=dish_id, defaults={"kitchen": member.kitchen, "name": name})
    row = HouseDish.objects.select_for_update().get(pk=dish_id)
    if row.kitchen_id != member.kitchen.pk:
        raise RefusedError(409, say("house_dishes.exists_already"))
    return row


def _add(member: Member, row: HouseDish, dish: Dish) -> None:
    """A version more, unless nothing is otherwise than in the newest."""
    last = DishVersion.objects.filter(kitchen=member.kitchen, house_dish=row.pk).order_by("-number").first()
    if last is not None and not otherwise(last, dish):
        return
    number = 1 if last is None else last.number + 1
    if number > MOST_VERSIONS:
        raise RefusedError(422, say("house_dishes.versions_enough"))
    DishVersion.objects.create(
        kitchen=member.kitchen,
        house_dish=row.pk,
        number=number,
        author=member.user,
        people=dish.people,
        version=ev.VERSION,
        entries=dish.entries,
    )


@transaction.atomic
def change(
    member: Member,
    dish_id: UUID,
    *,
    name: str | None = None,
    retired: bool | None = None,
    back_to: int | None = None,
    salt_percent: float | None = None,
    body: int | None = None,
) -> HouseDish:
    """Give a dish another name, put it away or bring it back, wish for another salt or body, or go back to an earlier
    version; what is not said stays.

    Raises
    ------
    SpissusError : nothing was wished for with it, or it cannot be read any more.
    Http404 : the dish is not the member's, or has no such version.
    """
    member.require_cook()
    dish_of(member, dish_id)
    row = _locked(member, dish_id, "")
    row.name = row.name if name is None else name
    row.retired = row.retired if retired is None else retired
    row.save(update_fields=["name", "retired"])
    versions = versions_of(member, dish_id)
    if back_to is not None:
        earlier = next((version for version in versions if version.number == back_to), None)
        if earlier is None:
            raise Http404
        _add(member, row, read(earlier))
    if salt_percent is not None or body is not None:
        _add(member, row, read(versions[0]).wished(salt_percent, body))
    return row


def chosen(member: Member, wanted: Sequence[tuple[UUID, int]]) -> list[tuple[str, Dish]]:
    """Dishes of the kitchen by their names, each for so many people. Raises Http404 for another kitchen's."""
    newest, rows = newest_of(member), {row.pk: row for row in HouseDish.objects.filter(kitchen=member.kitchen)}
    if any(dish_id not in newest or dish_id not in rows for dish_id, _ in wanted):
        raise Http404
    return [(rows[dish_id].name, read(newest[dish_id]).for_people(people)) for dish_id, people in wanted]
