"""The job file: SQLite with revisions of the job and an append-only log of records.

Words: a *revision* is the job after one edit; the *log* holds what was done and read; whatever
is *confirmed* survives a crash.
"""

from riktig.core.loading import loaded_when_asked

__getattr__, __dir__, __all__ = loaded_when_asked(__name__, __file__)
