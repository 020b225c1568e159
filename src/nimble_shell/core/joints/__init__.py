"""The joints of the shell: drawn from the build-ups that meet, solved, and measured against them.

`joint` is what a building stores; `stack` and `drawing` are what a joint is drawn with; `bound` finds its surfaces and
`solved` its ψ. `families` hold one module for each kind of joint, `sealing` what keeps it tight.
"""
