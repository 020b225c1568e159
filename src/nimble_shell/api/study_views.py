"""From results of the studies to responses."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from nimble_shell.api import study_schemas as t
from nimble_shell.core.shell.standard import JointStandard, Standard
from nimble_shell.core.studies.claim import Checked
from nimble_shell.core.studies.day import Day
from nimble_shell.core.studies.variants import Variants
from nimble_shell.core.thermal.figures import Figure
from nimble_shell.core.working import value_of
from nimble_shell.formats.project import AssemblyDoc, ClimateDoc, JointDoc
from nimble_shell.formats.weather import Read
from nimble_shell.services.on_the_whole import OnTheWhole
from nimble_shell.services.practice_standards import Offer
from nimble_shell.services.studies import Foam, Probe, Side
from nimble_shell.store import Kept, Use


def decision(found: Foam) -> t.DecisionOut:
    made = found.decision
    return t.DecisionOut(
        layer=made.layer,
        asked=made.asked,
        cores=[_core(variants) for variants in made.cores],
        cheapest=_pick(made.cheapest),
        least_life=_pick(made.least_life),
        least_beyond=_pick(made.least_beyond),
        step=None if made.step is None else t.NextOut.model_validate(made.step),
        swings=[t.SwingOut.model_validate(swing) for swing in found.swings],
    )


def comparison(sides: list[Side]) -> t.ComparisonOut:
    return t.ComparisonOut(
        sides=[
            t.SideOut(
                assembly=AssemblyDoc.from_core(side.assembly),
                figures=_figures(side.bench.wall.figures),
                counted=side.bench.wall.counted,
                why_not=side.why_not,
            )
            for side in sides
        ]
    )


def on_the_whole(found: list[OnTheWhole]) -> t.OnTheWholesOut:
    return t.OnTheWholesOut(
        rows=[
            t.OnTheWholeOut(
                passes=None if one.verdict is None else one.verdict.passes,
                margin=None if one.verdict is None else one.verdict.margin,
                reason="" if one.verdict is None else one.verdict.reason,
                why_not=one.verdict_why,
                sums=None if one.sums is None else t.WholeSumsOut.model_validate(one.sums),
            )
            for one in found
        ]
    )


def checked(found: Checked) -> t.CheckedOut:
    return t.CheckedOut(
        lambda_claimed=value_of(found.lambda_claimed),
        lambda_aged=value_of(found.lambda_aged),
        lambda_catalogue=found.lambda_catalogue,
        figures=_figures(found.wall.figures),
        remains=value_of(found.remains),
    )


def day(found: Day) -> t.DayOut:
    periodic = found.periodic
    return t.DayOut(
        month=found.month,
        Y12=value_of(periodic.Y12),
        decrement=value_of(periodic.decrement),
        lag_h=value_of(periodic.lag_h),
        kappa_i=value_of(periodic.kappa_i),
        kappa_e=value_of(periodic.kappa_e),
        theta_i=found.theta_i,
        outside=list(found.outside),
        surface=list(found.surface),
        massless=list(found.massless),
        mean_flux=value_of(found.mean_flux),
        peak_flux=value_of(found.peak_flux),
        peak_massless=value_of(found.peak_massless),
        verdict=found.verdict,
    )


def probe(found: Probe) -> t.ProbeOut:
    chase = (
        None
        if found.chase is None
        else t.ChaseOut.model_validate({key: value_of(getattr(found.chase, key)) for key in t.ChaseOut.model_fields})
    )
    return t.ProbeOut(winter=found.winter, coldest=found.coldest, chase=chase)


def weather(read: Read) -> t.WeatherOut:
    site = None if read.weather is None else t.SiteOut.model_validate(
        {key: getattr(read.weather, key) for key in t.SiteOut.model_fields}
    )  # fmt: skip
    return t.WeatherOut(climate=ClimateDoc.from_core(read.climate), site=site)


def standard(kept: Kept[Standard], uses: Sequence[Use]) -> t.StandardOut:
    one = kept.standard
    return t.StandardOut(
        id=one.id,
        version=one.version,
        place=one.place,
        assembly=AssemblyDoc.from_core(one.assembly),
        reason=one.reason,
        source=one.source,
        trusted_since=one.trusted_since,
        saved_at=kept.saved_at,
        withdrawn=kept.withdrawn,
        uses=[t.UseOut.model_validate(use) for use in uses],
    )


def joint_standard(kept: Kept[JointStandard], uses: Sequence[Use]) -> t.JointStandardOut:
    one = kept.standard
    return t.JointStandardOut(
        id=one.id,
        version=one.version,
        joint=JointDoc.from_core(one.joint),
        reason=one.reason,
        source=one.source,
        trusted_since=one.trusted_since,
        saved_at=kept.saved_at,
        withdrawn=kept.withdrawn,
        uses=[t.UseOut.model_validate(use) for use in uses],
    )


def joint_offer(found: Offer[JointStandard]) -> t.JointOfferOut:
    return t.JointOfferOut(
        standard=joint_standard(found.kept, ()),
        differences=[t.DifferenceOut.model_validate(one) for one in found.differences],
    )


def offer(found: Offer[Standard]) -> t.OfferOut:
    return t.OfferOut(
        standard=standard(found.kept, ()),
        differences=[t.DifferenceOut.model_validate(one) for one in found.differences],
    )


def _core(variants: Variants) -> t.CoreOut:
    return t.CoreOut(
        core=variants.core,
        d=variants.d.tolist(),
        columns={
            key: [value if math.isfinite(value) else None for value in values.tolist()]
            for key, values in variants.columns.items()
        },
        stops=[list(stops) for stops in variants.stops],
        stocked=list(variants.stocked),
        present=variants.present,
        exact=variants.exact,
        why_not=variants.why_not,
        knee=variants.knee,
    )


def _pick(pair: tuple[int, int] | None) -> t.Pick | None:
    return None if pair is None else t.Pick(core=pair[0], at=pair[1])


def _figures(figures: Mapping[str, Figure]) -> dict[str, float]:
    return {key: value_of(figure.number) for key, figure in figures.items() if "_at_" not in key}
