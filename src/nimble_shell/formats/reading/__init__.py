"""Drawings and models of others: `dxf` and `ifc` make a `reading` of them, `outlines` closes what is drawn in lines."""
