"""Build-ups as a designer edits them: layers with their members in `assembly`, points through them in `fixing`.

`systems` has one generator for each kind of shell; `difference` says what changed between two build-ups.
"""
