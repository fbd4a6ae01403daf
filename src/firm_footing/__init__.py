"""Firm Footing: from ball flight, divot and strike to the footwork behind them."""

import os

# Said before numpy is loaded. The matrices of this work are small: for them threads take longer to
# agree than to compute, 20 ms of the 160 from a touch to the ranking on two cores.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
