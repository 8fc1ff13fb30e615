"""The interface for programs as a page to be read: made of its description, without anything from elsewhere."""

from __future__ import annotations

import json
from collections.abc import Iterator
from html import escape
from typing import Any

_STYLE = """
body { font: 14px/1.45 system-ui, sans-serif; margin: 24px auto; max-width: 980px; color: #2a2228; }
h2 { margin: 28px 0 6px; font-size: 17px; } summary { cursor: pointer; padding: 5px 0; }
code, pre { font: 12.5px/1.4 ui-monospace, monospace; } pre { background: #f5f1ec; padding: 8px 10px; overflow: auto; }
.method { display: inline-block; width: 62px; font-weight: 600; color: #5b2a4e; }
details { border-top: 1px solid #e4dcd4; }
"""


def api_page(described: dict[str, Any]) -> str:
    """The page for an OpenAPI description."""
    by_tag: dict[str, list[str]] = {}
    for path, methods in described["paths"].items():
        for method, operation in methods.items():
            by_tag.setdefault(next(iter(operation.get("tags", [])), ""), []).append(_operation(path, method, operation))
    schemas = described.get("components", {}).get("schemas", {})
    rooms = [f"<h2>{escape(tag)}</h2>{''.join(operations)}" for tag, operations in sorted(by_tag.items())]
    shapes = [
        f'<details id="{escape(name, True)}"><summary><code>{escape(name)}</code></summary>{_json(schema)}</details>'
        for name, schema in sorted(schemas.items())
    ]
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{escape(described["info"]["title"])}: for'
        f" programs</title><style>{_STYLE}</style></head><body><h1>For programs</h1><p>The same as <a"
        f' href="openapi.json">openapi.json</a>. What changes something needs the session\'s cookie and its token in'
        f" <code>X-Csrf</code>.</p>{''.join(rooms)}<h2>Shapes</h2>{''.join(shapes)}</body></html>"
    )


def _operation(path: str, method: str, operation: dict[str, Any]) -> str:
    about = escape(operation.get("description") or operation.get("summary", ""))
    parts = "".join(_parts(operation))
    head = f'<span class="method">{method.upper()}</span> <code>{escape(path)}</code> {about.split(chr(10))[0]}'
    return f"<details><summary>{head}</summary>{parts}</details>"


def _parts(operation: dict[str, Any]) -> Iterator[str]:
    for parameter in operation.get("parameters", []):
        name = f"<code>{escape(parameter['name'])}</code> in the {escape(parameter['in'])}"
        yield f"<p>{name}: <code>{escape(json.dumps(parameter['schema']))}</code></p>"
    if "requestBody" in operation:
        yield f"<p>takes</p>{_json(operation['requestBody']['content'])}"
    good = operation.get("responses", {}).get("200", {}).get("content")
    if good:
        yield f"<p>gives</p>{_json(good)}"


def _json(value: Any) -> str:
    return f"<pre>{escape(json.dumps(value, indent=1))}</pre>"
