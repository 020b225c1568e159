"""Practice standards of joints: keep one, see where it is used, take it or an update on purpose."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nimble_shell.core.assemblies.assembly import StandardRef
from nimble_shell.core.assemblies.difference import Difference
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.standard import JointStandard, joint_differences, stripped
from nimble_shell.formats.things import Key, put_thing
from nimble_shell.services.clock import now
from nimble_shell.services.joints import building_in, joint_in
from nimble_shell.services.projects import ChangeNote, ProjectService, expect, new_id
from nimble_shell.store import Database, JointStandardRepository, Kept, NotFound, ProjectRepository, Stored, Use


@dataclass(frozen=True, slots=True, kw_only=True)
class JointOffer:
    """The newest version of the standard that a joint was taken from."""

    kept: Kept[JointStandard]
    differences: tuple[Difference, ...]  #: from the joint as it is to that version


class JointStandardService:
    """One method per thing a user can do with standards of joints; each is one transaction."""

    def __init__(self, database: Database, projects: ProjectService) -> None:
        self._database, self._projects = database, projects

    def all(self) -> list[tuple[Kept[JointStandard], list[Use]]]:
        """Every standard with where it is used."""
        with self._database.read() as session:
            standards = JointStandardRepository(session)
            uses = standards.uses()
            return [(kept, uses.get(kept.standard.id, [])) for kept in standards.all()]

    def keep(
        self, project_id: str, building_id: str, joint_id: str, *, reason: str, source: str, trusted_since: str
    ) -> Stored:
        """Keep a joint as a standard: a new one, or the next version of the one it was taken from.

        Raises DomainError, NotFound.
        """
        with self._database.write() as session:
            standards, projects = JointStandardRepository(session), ProjectRepository(session)
            joint = joint_in(building_in(projects.get(project_id).project, building_id), joint_id)
            ref = joint.standard
            version = 1 if ref is None else standards.newest(ref.id).standard.version + 1

            def kept(stored: Stored) -> Project:
                standard = JointStandard(
                    id=new_id() if ref is None else ref.id,
                    version=version,
                    joint=stripped(joint),
                    reason=reason,
                    source=source,
                    trusted_since=trusted_since,
                )
                standards.add(standard, now())
                marked = replace(joint, standard=StandardRef(standard.id, version))
                return put_thing(stored.project, Key("joint", building_id, joint_id), marked)

            note = ChangeNote(text=f"{joint.name} kept as a standard, version {version}", zone=f"{joint.station}3")
            return self._projects.edit_in(projects, project_id, kept, note)

    def offer(self, project_id: str, building_id: str, joint_id: str) -> JointOffer | None:
        """The newest version of a joint's standard and what it would change; None without one, or if it is that.

        Raises NotFound.
        """
        joint = joint_in(building_in(self._projects.load(project_id).project, building_id), joint_id)
        if joint.standard is None:
            return None
        with self._database.read() as session:
            try:
                kept = JointStandardRepository(session).newest(joint.standard.id)
            except NotFound:
                return None
        changes = tuple(joint_differences(joint, kept.standard.joint))
        if kept.standard.version == joint.standard.version and not changes:
            return None
        return JointOffer(kept=kept, differences=changes)

    def take(
        self, project_id: str, building_id: str, joint_id: str, standard_id: str, version: int, note: ChangeNote
    ) -> Stored:
        """Build a joint as the newest version of a standard says, as one undoable change. Raises NotFound, Stale."""
        with self._database.read() as session:
            standard = JointStandardRepository(session).newest(standard_id).standard
        key = Key("joint", building_id, joint_id)

        def taken(stored: Stored) -> Project:
            expect(stored, key, version)
            joint = joint_in(building_in(stored.project, building_id), joint_id)
            return put_thing(stored.project, key, standard.put(joint))

        return self._projects.edit(project_id, taken, note)

    def withdraw(self, standard_id: str, *, again: bool = False) -> None:
        """No longer offer a standard, or offer it again. What uses it stays as it is. Raises NotFound."""
        with self._database.write() as session:
            JointStandardRepository(session).withdraw(standard_id, None if again else now())

    def bring_in(self, standards: Sequence[JointStandard]) -> int:
        """Store standards from a file; one that is known gets a next version if it differs. The number stored."""
        stored = 0
        with self._database.write() as session:
            repository = JointStandardRepository(session)
            known = {kept.standard.id: kept.standard for kept in repository.all()}
            for standard in standards:
                before = known.get(standard.id)
                if before is not None and replace(standard, version=before.version) == before:
                    continue
                version = 1 if before is None else before.version + 1
                known[standard.id] = replace(standard, version=version)
                repository.add(known[standard.id], now())
                session.flush()
                stored += 1
        return stored
