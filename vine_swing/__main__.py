"""`python -m vine_swing` is `vine-swing`."""

import sys

from vine_swing.cli import main

sys.exit(main())
