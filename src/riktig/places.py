"""Where Riktig keeps what is not a job: as the system has it, or as XDG_CONFIG_HOME and its like say."""

from pathlib import Path

import platformdirs

__all__ = [
    "index_file",
    "jobs_folder",
    "keys_folder",
    "log_folder",
    "media_file",
    "practice_file",
    "server_folder",
    "settings_file",
    "window_file",
]


def settings_file() -> Path:
    """The file of the company standard, in the user's settings."""
    return platformdirs.user_config_path("riktig") / "house.json"


def jobs_folder() -> Path:
    """Where new jobs are kept: ~/Riktig."""
    return Path.home() / "Riktig"


def server_folder() -> Path:
    """What this bench has of jobs of the shop's server, and what it has not handed in yet."""
    return platformdirs.user_data_path("riktig") / "server"


def index_file() -> Path:
    """The index by which jobs are found; it is made anew when it is lost."""
    return platformdirs.user_cache_path("riktig") / "jobs.sqlite"


def media_file() -> Path:
    """The house's own media for labels, in the user's settings."""
    return platformdirs.user_config_path("riktig") / "media.csv"


def window_file() -> Path:
    """Where the window stood when it was closed."""
    return platformdirs.user_config_path("riktig") / "window.ini"


def keys_folder() -> Path:
    """The keys with which the people of this machine sign."""
    return platformdirs.user_data_path("riktig") / "keys"


def practice_file() -> Path:
    """How far whoever uses this machine has come on the practice bench."""
    return platformdirs.user_data_path("riktig") / "practice.json"


def log_folder() -> Path:
    """The log of the program and reports of faults."""
    return platformdirs.user_state_path("riktig")
