"""Firm Footing: from ball flight, divot and strike to the footwork behind them."""
