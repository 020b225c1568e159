"""Air through a shell: what leaks at 50 Pa and by nature, fans, fires, and the air that people need.

Flows are in m³/h here, as leakage is told, and H = q/3 W/K: air holds 1200 J/(m³·K).
"""
