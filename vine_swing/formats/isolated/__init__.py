"""Foreign files are read in a process of their own, with limits on time and memory: `isolated` says how, `readers` what each kind of file becomes."""

from vine_swing.formats.isolated.isolated import prepare, read_isolated
from vine_swing.formats.isolated.readers import Kind, ReadFont, ReadPictures, ReadScene, ReadSound, check_contents

__all__ = ["Kind", "ReadFont", "ReadPictures", "ReadScene", "ReadSound", "check_contents", "prepare", "read_isolated"]
