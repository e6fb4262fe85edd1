"""Print the API's schema, from which the screens' types are generated."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from bendrel.api.app import create_app


def main() -> None:
    """Write the OpenAPI document to standard output."""
    with tempfile.TemporaryDirectory() as folder:
        print(json.dumps(create_app(Path(folder) / "schema.db").openapi(), indent=1))


if __name__ == "__main__":
    main()
