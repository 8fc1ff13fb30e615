"""A spec's text as a table: what each source says of each case, and the messages."""

from __future__ import annotations

from dataclasses import asdict

from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.model import Expectation, Source
from obento.core.check.mutation.catch_rate import CatchRate
from obento.core.spec.model import SpecPort
from obento.server.models import MessageView
from obento.server.specs.cases import case_name, expected_values, input_values, port_views, step_place
from obento.server.specs.models import CatchRateView, CoverageView, MissedMistake, SpecPreview, TableRow

_MOST_ROWS = 512


def preview(loaded: LoadedSpec) -> SpecPreview:
    spec, expectation = loaded.spec, loaded.draft
    apart = {d.case for d in expectation.disagreements} if expectation else set()
    return SpecPreview(
        title=spec.title if spec else "",
        unit=spec.unit if spec else "",
        messages=[MessageView(**asdict(m)) for m in loaded.messages],
        is_right=loaded.expectation is not None,
        ports=port_views(spec) if spec else [],
        sources=[s.name for s in expectation.sources] if expectation else [],
        cases=expectation.cases.count if expectation else 0,
        uncovered=expectation.uncovered if expectation else 0,
        rows=[_row(expectation, i, i not in apart) for i in range(min(_MOST_ROWS, expectation.cases.count))]
        if expectation
        else [],
        coverage=CoverageView(**asdict(expectation.coverage)) if expectation and expectation.coverage else None,
        sequences=[s.name for s in expectation.cases.stimulus.sequences]
        if expectation and expectation.cases.stimulus
        else [],
        groups={name: plane.bit_count() for name, plane in expectation.groups.items()} if expectation else {},
    )


def catch_rate_view(found: CatchRate | str) -> CatchRateView:
    if isinstance(found, str):
        return CatchRateView(
            share=None, reference="", telling=0, caught=0, harmless=0, cases=0, compared=0, missed=[], trouble=found
        )
    missed = [MissedMistake(**asdict(m)) for m in found.missed]
    return CatchRateView(
        share=found.share,
        reference=found.reference,
        telling=found.tried - found.harmless,
        caught=found.caught,
        harmless=found.harmless,
        cases=found.cases,
        compared=found.compared,
        missed=missed,
        trouble="",
    )


def _row(expectation: Expectation, case: int, agrees: bool) -> TableRow:
    sources = [[_says(source, p, case) for p in expectation.spec.outputs] for source in expectation.sources]
    return TableRow(
        index=case,
        label=case_name(expectation, case),
        step=step_place(expectation, case),
        inputs=input_values(expectation, case),
        outputs=expected_values(expectation, case),
        sources=sources,
        agrees=agrees,
    )


def _says(source: Source, port: SpecPort, case: int) -> str:
    one = zero = care = 0
    for i in range(port.width - 1, -1, -1):
        bits = source.bits[port.name, i]
        one = one << 1 | (bits.one >> case & 1)
        zero = zero << 1 | (bits.zero >> case & 1)
        care = care << 1 | (bits.care >> case & 1)
    return port.show((one, zero), care)
