"""One recorded payload of every kind of event, as it stands in the database."""

from __future__ import annotations

from typing import Any

PAN = {
    "name": "24 cm pan", "shape": "round", "base_length_mm": 240.0, "base_width_mm": 240.0, "rim_length_mm": 240.0,
    "rim_width_mm": 240.0, "height_mm": 130.0, "empty_g": 1450.0,
}  # fmt: skip
BURNER = {"name": "middle burner", "net_kw": 1.0, "boils_c": 100.0, "learned": []}
MEASURED = {"method": "jug", "value": 1600.0, "hot": True}

RECORDED: dict[str, dict[str, Any]] = {
    "started": {
        "pan": PAN, "burner": BURNER,
        "liquid": {
            "measured": MEASURED, "fat_ml": 80.0, "salt": {"by": "meter", "percent": 0.6}, "character": "gelatin_rich",
            "solids_g": 0.0,
        },
    },
    "wanted": {"volume_ml": 900.0, "body": 3, "salt_percent": 0.9, "ceiling_percent": 1.3, "fat_g_per_100_ml": 2.0},
    "chosen": {"route": "roux"},
    "skimmed": {"way": "spoon", "fat_ml": 60.0, "kept": True},
    "read": {"measured": {"method": "dip", "value": 30.0, "hot": True}, "gain": None},
    "solids": {"mass_g": 300.0},
    "drawn": {"volume_ml": 500.0, "pan": PAN, "burner": BURNER},
    "returned": {"volume_ml": None},
    "cooling": {"celsius": 88.0, "surroundings_c": 4.0},
    "probed": {"celsius": 60.0},
    "heated": {"heat": "boil", "share": 0.5, "cover": "open", "oven_c": 150.0},
    "moved": {"pan": PAN, "burner": BURNER},
    "split": {"volume_ml": 500.0, "pan": PAN, "burner": BURNER},
    "rejoined": {},
    "metered": {"percent": 0.7},
    "seen": {"sign": "film"},
    "thickened": {"thickener": "white_roux", "dry_g": 20.0},
    "salted": {"salt_g": 2.0, "salt": "table"},
    "added": {"ingredient": "beef_stock_own", "own": None, "mass_g": None, "volume_ml": 50.0},
    "tested": {"of": "body", "verdict": "low"},
    "noted": {"text": "A strip of orange peel."},
    "finished": {"yield_ml": 850.0},
    "dated": {"event": "7d0f6a54-8f5c-4a44-a3a5-6d6b8e1f0a01", "at": "2026-03-14T18:00:00Z"},
    "struck": {"event": "7d0f6a54-8f5c-4a44-a3a5-6d6b8e1f0a01"},
}  # fmt: skip


def recorded(kind: str) -> dict[str, Any]:
    """The payload with its kind."""
    return {"kind": kind, **RECORDED[kind]}
