"""Burners: added, changed, put away."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict
from shared.shapes import Shape
from spissus_core.amounts.fields import Name, NetKw
from spissus_core.messages import say
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.heating import Burner as BurnerSpec

from .models import Burner
from .rows import added, changed, put_away

router = Router(auth=SessionAuth(), tags=["kitchen"])


#: More burners than any kitchen has.
MOST_BURNERS = 20


class BurnerOut(Shape):
    """A burner; net power into the liquid in kW, and the steam it makes in g/min."""

    id: UUID
    name: str
    net_kw: float
    steam_g_min: float

    @classmethod
    def of(cls, row: Burner) -> BurnerOut:
        spec = BurnerSpec.model_validate(row.spec)
        return cls(id=row.id, name=spec.name, net_kw=spec.net_kw, steam_g_min=boiling_rate_g_min(spec.net_kw).best)


class BurnerIn(Shape):
    """A burner as the kitchen puts it; what was learned of it is kept apart."""

    model_config = ConfigDict(extra="forbid")

    name: Name
    net_kw: NetKw

    def spec(self) -> dict[str, Any]:
        """As it is kept."""
        return BurnerSpec(name=self.name, net_kw=self.net_kw).model_dump(mode="json")


@router.post("/burners", response=BurnerOut)
def add_burner(request: HttpRequest, data: BurnerIn) -> BurnerOut:
    """Add a burner."""
    return BurnerOut.of(added(request, Burner, data.spec(), MOST_BURNERS, say("kitchen.burners_enough")))


@router.put("/burners/{burner_id}", response=BurnerOut)
def change_burner(request: HttpRequest, burner_id: UUID, data: BurnerIn) -> BurnerOut:
    """Change a burner."""
    return BurnerOut.of(changed(request, Burner, burner_id, data.spec()))


@router.delete("/burners/{burner_id}", response={204: None})
def remove_burner(request: HttpRequest, burner_id: UUID) -> Status[None]:
    """Put a burner away."""
    put_away(request, Burner, burner_id)
    return Status(204, None)
