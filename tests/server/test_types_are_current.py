"""The page's types are those of the server."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path

from config.api import api

WEB = Path(__file__).resolve().parents[2] / "web"


def test_the_pages_types_are_generated_from_the_api_as_it_is(tmp_path: Path) -> None:
    schema = tmp_path / "openapi.json"
    schema.write_text(json.dumps(api.get_openapi_schema()), encoding="utf-8")
    fresh = tmp_path / "schema.d.ts"
    command = ["npx", "--no-install", "openapi-typescript", str(schema), "-o", str(fresh)]
    subprocess.run(command, cwd=WEB, check=True, capture_output=True)
    kept = (WEB / "src" / "api" / "schema.d.ts").read_text(encoding="utf-8")
    assert fresh.read_text(encoding="utf-8") == kept, "Run ./spissus api."


def test_every_operation_is_described() -> None:
    for path, operations in api.get_openapi_schema()["paths"].items():
        for method, operation in operations.items():
            assert operation.get("summary"), f"{method} {path}"
