"""The page's types are those of the server."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path

from config.api import api

ROOT = Path(__file__).resolve().parents[2]
WEB, DOCS = ROOT / "web", ROOT / "docs"


def test_the_description_is_the_one_that_was_read() -> None:
    """A change of the API is read in review: it stands in the difference of this file."""
    kept = json.loads((DOCS / "openapi.json").read_text(encoding="utf-8"))
    assert json.loads(json.dumps(api.get_openapi_schema())) == kept, "The API changed. Run ./spissus api, and read it."


def test_the_pages_types_are_generated_from_it(tmp_path: Path) -> None:
    fresh = tmp_path / "schema.d.ts"
    command = ["npx", "--no-install", "openapi-typescript", str(DOCS / "openapi.json"), "-o", str(fresh)]
    subprocess.run(command, cwd=WEB, check=True, capture_output=True)
    kept = (WEB / "src" / "api" / "schema.d.ts").read_text(encoding="utf-8")
    assert fresh.read_text(encoding="utf-8") == kept, "Run ./spissus api."


def test_every_operation_is_described_and_declares_its_errors() -> None:
    for path, operations in api.get_openapi_schema()["paths"].items():
        for method, operation in operations.items():
            assert operation.get("summary"), f"{method} {path}"
            declared = {int(status) for status in operation["responses"]}
            assert {500, 503} <= declared, f"{method} {path}"
            assert ("{" in path) <= (404 in declared), f"{method} {path}"
            assert bool(operation.get("security")) <= (401 in declared), f"{method} {path}"
            assert ("requestBody" in operation) <= (422 in declared), f"{method} {path}"
