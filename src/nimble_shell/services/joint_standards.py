"""Practice standards of joints: keep one, see where it is used, take it or an update on purpose."""

from __future__ import annotations

from dataclasses import replace

from nimble_shell.core.assemblies.assembly import StandardRef
from nimble_shell.core.shell.project import Project
from nimble_shell.core.shell.standard import JointStandard, joint_differences, stripped
from nimble_shell.formats.things import Key, put_thing
from nimble_shell.services.clock import now
from nimble_shell.services.joints import building_in, joint_in
from nimble_shell.services.practice_standards import Offer, PracticeStandards
from nimble_shell.services.projects import ChangeNote, expect, new_id
from nimble_shell.store import JointStandardRepository, ProjectRepository, Stored


class JointStandardService(PracticeStandards[JointStandard]):
    """Of joints."""

    kept_in = JointStandardRepository

    def keep(
        self, project_id: str, building_id: str, joint_id: str, *, reason: str, source: str, trusted_since: str
    ) -> Stored:
        """Keep a joint as a standard: a new one, or the next version of the one it was taken from.

        Raises DomainError, NotFound.
        """
        with self._database.write() as session:
            standards, projects = JointStandardRepository(session), ProjectRepository(session)
            joint = joint_in(building_in(projects.get(project_id).project, building_id).as_stored(), joint_id)
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

    def offer(self, project_id: str, building_id: str, joint_id: str) -> Offer[JointStandard] | None:
        """The newest version of a joint's standard and what it would change; None without one, or if it is that.

        Raises NotFound.
        """
        joint = joint_in(building_in(self._projects.load(project_id).project, building_id), joint_id)
        if joint.standard is None:
            return None
        return self._offered(
            joint.standard.id, joint.standard.version, lambda standard: joint_differences(joint, standard.joint)
        )

    def take(
        self, project_id: str, building_id: str, joint_id: str, standard_id: str, version: int, note: ChangeNote
    ) -> Stored:
        """Build a joint as the newest version of a standard says, as one undoable change. Raises NotFound, Stale."""
        standard = self.newest(standard_id)
        key = Key("joint", building_id, joint_id)

        def taken(stored: Stored) -> Project:
            expect(stored, key, version)
            joint = joint_in(building_in(stored.project, building_id).as_stored(), joint_id)
            return put_thing(stored.project, key, standard.put(joint))

        return self._projects.edit(project_id, taken, note)
