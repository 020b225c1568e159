"""What a question of moisture is made of: only what its answer depends on, so that equal questions are equal."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from nimble_shell.core.assemblies.assembly import Assembly
from nimble_shell.core.basis.basis import Basis
from nimble_shell.core.materials import Material
from nimble_shell.core.shell.project import Project
from nimble_shell.core.thermal.solved import with_solved


def bare_assembly(assembly: Assembly) -> Assembly:
    """The build-up without names, note, points, and what is declared of its layers: none of it moves water."""
    layers = tuple(replace(layer, declared=(), substitution=None, services=False) for layer in assembly.layers)
    return with_solved(
        replace(assembly, id="asked", name="asked", note="", standard=None, layers=layers, fixings=()), {}
    )


_READ = ("site", "climate", "indoor", "schools", "damp", "air")  #: of a Basis; its targets and rates move no water


def bare_basis(basis: Basis) -> Basis:
    """The Basis without targets, rates, limits of thickness and criteria."""
    return Basis(**{name: getattr(basis, name) for name in _READ})


def made_of(project: Project, assembly: Assembly) -> tuple[object, ...]:
    """The objects that a question about a build-up is made of: where all are the same, so is the question."""
    return (assembly, project.catalogue, *(getattr(project.basis, name) for name in _READ))


def materials_of(project: Project, assembly: Assembly, *more: str) -> Mapping[str, Material]:
    """The materials a build-up is made of, and some more."""
    used = {layer.material for layer in assembly.layers} | set(more)
    used |= {member.material for layer in assembly.layers for member in layer.members}
    return {key: project.catalogue[key] for key in sorted(used) if key in project.catalogue}
