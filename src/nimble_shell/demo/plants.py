"""What the buildings of the demo campus stand on, how tight they are asked to be, and what serves them."""

from __future__ import annotations

from nimble_shell.core.shell.plant import Buffer, Fire, FreshAir, Ground, Loads, Plant, Tightness

#: A target that is missed on paper, a fume hood in a tight room, and a rule that would oversize everything.
PLANTS: dict[str, Plant] = {
    "main-laboratory": Plant(
        ground=Ground(lambda_=1.5, rho_c=3.0e6, edge_depth=0.6, edge_d=0.1, footing=1.4, frost=1.2, gas_pipe="yes",
                      gas_membrane="yes"),
        tightness=Tightness(n50_asked=0.65, services=18),
        air=FreshAir(persons=8, q_person=36.0, q_area=0.7, extract=120.0, eta_t=0.8, eta_x=0.0, sfp=0.42, low_share=0.6,
                     low_factor=0.4, moisture=0.5, apart=3.6),
        fire=Fire(hood=90.0), loads=Loads(gains=6.0, shade=0.5, overhang=0.6, overhang_gap=0.3,
                                          vent_low=0.6, vent_high=0.6, vent_rise=4.0),
    ),
    "boat-workshop": Plant(
        ground=Ground(lambda_=1.5, rho_c=3.0e6, edge_width=0.8, edge_d=0.08, footing=0.9, frost=1.2),
        tightness=Tightness(n50_asked=1.0, services=12),
        air=FreshAir(persons=4, q_person=36.0, extract=200.0, eta_t=0.7, apart=4.0),
        fire=Fire(hood=0.0, flue=True, flue_z=0.6), loads=Loads(gains=4.0),
    ),
    "bunkhouse": Plant(
        tightness=Tightness(n50_asked=0.6, services=22),
        air=FreshAir(persons=12, extract=150.0, eta_t=0.85, eta_x=0.6, moisture=0.9, apart=2.4, low_share=0.5),
        loads=Loads(gains=3.5, shade=0.6),
    ),
    "seed-barn": Plant(
        ground=Ground(lambda_=1.5, rho_c=3.0e6, edge_depth=0.5), buffer=Buffer(H_outwards=24.0, V=36.0, n=1.5),
        tightness=Tightness(services=4), air=FreshAir(persons=1, q_area=0.5, eta_t=0.6, moisture=0.1),
        loads=Loads(gains=1.0),
    ),
    "pump-house": Plant(
        ground=Ground(lambda_=1.5, rho_c=3.0e6), tightness=Tightness(services=6),
        air=FreshAir(persons=0, n_min=0.3, moisture=0.05), loads=Loads(gains=12.0),
    ),
    "sample-cold-store": Plant(
        ground=Ground(lambda_=1.5, rho_c=3.0e6), tightness=Tightness(n50_asked=0.4, services=4),
        air=FreshAir(persons=1, q_area=0.2, moisture=0.05), loads=Loads(gains=2.0, rule_cooling=150.0),
    ),
}  # fmt: skip
