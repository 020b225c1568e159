"""What settles an open decision in one click: each a changed build-up or joint, with what it rests on checked."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.flow import direction_in
from nimble_shell.core.basis.stations import Direction, Station, asked_R
from nimble_shell.core.errors import DomainError
from nimble_shell.core.joints.joint import ShellJoint
from nimble_shell.core.moisture.monthly.element import element_year
from nimble_shell.core.moisture.verdict.verdict import at_humidity, inwards_of, thicker_steps, with_advice
from nimble_shell.core.moisture.verdict.words import advice_text, layer_name
from nimble_shell.core.quantities.sentence import composed, sentence
from nimble_shell.core.remarks.remark import Remark
from nimble_shell.core.shell.decisions import JudgedPart, RankedSurface, WayOut
from nimble_shell.core.shell.project import Building, Project
from nimble_shell.core.studies.thickness import Study, StudyPoint
from nimble_shell.services.joints import family_of
from nimble_shell.services.remedies import RemedyResults
from nimble_shell.services.verdicts import leak_question

DRIEST = 0.3  #: relative humidity through a winter below which no room is proposed


@dataclass(frozen=True, slots=True, kw_only=True)
class BuiltElement:
    """An element that has a build-up, with what is remarked and studied of it where it stands."""

    element_id: str
    station: Station
    assembly: Assembly
    remarks: tuple[Remark, ...]
    study: Study | None


@dataclass(frozen=True, slots=True)
class Settling:
    """What would settle the decisions of a building, as far as it is known without a search."""

    project: Project  #: as its building sees it
    building: Building
    surfaces: Sequence[RankedSurface]
    judged: Sequence[JudgedPart]
    remedies: RemedyResults | None  #: what was searched for cold joints

    def ways(self, built: Iterable[BuiltElement]) -> dict[str, list[WayOut]]:
        """By key of a decision."""
        found: dict[str, list[WayOut]] = {}
        for key, way in (*self._of_elements(built), *self._of_surfaces(), *self._of_moisture()):
            found.setdefault(key, []).append(way)
        return found

    def searched(self) -> set[str]:
        """Keys of decisions whose changes are known: nothing is left to be searched for them."""
        joints = {one.id: one for one in self.building.as_stored().joints}
        found = {f"surface-{one.id}" for one in self.surfaces if not one.joint or self._has(joints.get(one.id))}
        for part in self.judged:
            by_surface = part.joint and part.verdict is not None and part.verdict.reason == "surface"
            done = self._has(joints.get(part.id)) if by_surface else part.verdict is not None and part.verdict.advice
            if done or (part.joint and not by_surface):
                found.add(f"moisture-{part.id}")
        return found

    def _has(self, joint: ShellJoint | None) -> bool:
        return joint is not None and self.remedies is not None and self.remedies.searched(self.project, joint)

    def _of_elements(self, built: Iterable[BuiltElement]) -> Iterator[tuple[str, WayOut]]:
        for one in built:
            thicker = self._thicker(one)
            if thicker is not None:
                yield f"R-{one.element_id}", thicker
            for code, thinner in (("thickness", self._thinner(one)), ("weight", self._lighter(one))):
                if thinner is not None:
                    yield f"{code}_over_limit-{one.element_id}", thinner
            if one.assembly.substituted:
                yield (
                    f"substitution_open-{one.element_id}",
                    WayOut(text="Put the asked material back", changed=one.assembly.as_asked()),
                )

    def _thicker(self, one: BuiltElement) -> WayOut | None:
        """The next core in stock that reaches what is asked; where none does, the thickness that would."""
        asked, study = asked_R(self.project.basis.targets, one.station), one.study
        if study is None or asked is None or study.met:
            return None
        reach = [point.d for point in study.stock if point.R_clear >= asked and point.d > study.present.d]
        d = min(reach, default=study.d_asked)
        if d is None:
            return None
        words = "A core of {v1}, in stock" if reach else "A core of {v1}"
        return WayOut(text=sentence(words, v1=(d, "length")), changed=one.assembly.with_core(d))

    def _thinner(self, one: BuiltElement) -> WayOut | None:
        most = self.project.basis.limits.thickness
        return None if most is None else self._within(one, lambda point: point.thickness <= most)

    def _lighter(self, one: BuiltElement) -> WayOut | None:
        most = self.project.basis.limits.weight
        return None if most is None else self._within(one, lambda point: point.weight <= most)

    def _within(self, one: BuiltElement, keeps: Callable[[StudyPoint], bool]) -> WayOut | None:
        """The thickest core in stock that keeps a limit, with the R that is left."""
        study = one.study
        if study is None or keeps(study.present):
            return None
        left = [point for point in study.stock if point.d < study.present.d and keeps(point)]
        if not left:
            return None
        best = max(left, key=lambda point: point.d)
        text = sentence("A core of {v1}, in stock: a clear R of {v2}",
                        v1=(best.d, "length"), v2=(best.R_clear, "resistance"))  # fmt: skip
        return WayOut(text=text, changed=one.assembly.with_core(best.d))

    def _of_surfaces(self) -> Iterator[tuple[str, WayOut]]:
        """The changes that keep a cold surface: of a joint where somebody has had them searched."""
        joints = {one.id: one for one in self.building.as_stored().joints}
        for one in self.surfaces:
            if one.margin is None or one.margin >= 0:
                continue
            if one.joint:
                yield from ((f"surface-{one.id}", way) for way in self._keeping(joints[one.id]))
            else:
                yield from ((f"surface-{one.id}", way) for way in self._warmer(one))

    def _keeping(self, joint: ShellJoint) -> list[WayOut]:
        return [] if self.remedies is None else self.remedies.ways(self.project, joint)

    def _warmer(self, one: RankedSurface) -> Iterator[WayOut]:
        """The first thicker core with which an element's own surface keeps what is asked."""
        assembly, direction = self._element(one.id)
        for d, changed in thicker_steps(assembly):
            try:
                year = element_year(changed, self.project.catalogue, self.project.basis, direction)
            except DomainError:
                continue
            if one.asked is not None and year.f_rsi >= one.asked:
                yield WayOut(text=sentence("A core of {v1}", v1=(d, "length")), changed=changed)
                return

    def _of_moisture(self) -> Iterator[tuple[str, WayOut]]:
        for part in self.judged:
            margin = None if part.verdict is None else part.verdict.margin
            if margin is not None and margin < 0:
                ways = self._tighter(part) if part.joint else self._turned(part)
                yield from ((f"moisture-{part.id}", way) for way in (*ways, *self._drier(part)))

    def _drier(self, part: JudgedPart) -> Iterator[WayOut]:
        """The building's room, as dry as it has to be; not drier than anybody keeps one."""
        basis = self.project.basis
        for one in part.verdict.advice if part.verdict else ():
            if one.kind == "room" and one.found and one.amount >= DRIEST:
                indoor = at_humidity(basis, one.amount).indoor
                yield WayOut(text=advice_text(one, "", basis.schools.vapour),
                             changed=replace(self.building.as_stored(), indoor=indoor))  # fmt: skip

    def _turned(self, part: JudgedPart) -> Iterator[WayOut]:
        """The changes of layers that turn a build-up's moisture, where somebody has had them searched."""
        assembly, direction = self._element(part.id)
        project = self.project
        for one in part.verdict.advice if part.verdict else ():
            inwards = inwards_of(assembly, project.basis)
            changed = with_advice(assembly, project.catalogue, project.basis, direction, one, inwards=inwards)
            if changed is not None:
                layer = layer_name(assembly, project.catalogue, one.layer)
                text = advice_text(one, layer, project.basis.schools.vapour)
                if one.kind == "vapour":
                    text = composed(f"{layer_name(changed, project.catalogue, one.layer)}: {{why}}", why=text)
                yield WayOut(text=text, changed=changed)

    def _tighter(self, part: JudgedPart) -> Iterator[WayOut]:
        """What keeps a joint's surface; or the variants of it that leak no more than is safe, with all their seals."""
        joint = next(one for one in self.building.as_stored().joints if one.id == part.id)
        verdict = part.verdict
        if verdict is not None and verdict.reason == "surface":
            yield from self._keeping(joint)
        safe = (
            0.0 if verdict is None else max((one.amount for one in verdict.advice if one.kind == "seal"), default=0.0)
        )
        others = (one for one in family_of(joint).variants if one.key != joint.variant)
        for variant in others if safe > 0 else ():
            changed = replace(joint, variant=variant.key, omitted=())
            try:
                leakage = leak_question(self.project, changed, None).leakage[1]
            except DomainError:
                continue
            if leakage <= safe:
                text = sentence(f"The variant “{variant.text}”: {{v1}} at 50 Pa", v1=(leakage, "joint_flow"))
                yield WayOut(text=text, changed=changed)

    def _element(self, element_id: str) -> tuple[Assembly, Direction]:
        element = next(one for one in self.building.elements if one.id == element_id)
        assembly = next(one for one in self.project.assemblies if one.id == element.assembly_id)
        return assembly, direction_in(self.project.basis, element.station)
