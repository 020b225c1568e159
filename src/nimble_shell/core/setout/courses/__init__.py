"""Courses of insulated concrete form blocks on the runs of a building."""
