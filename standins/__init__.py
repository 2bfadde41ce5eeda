"""Small programs that stand in for a kitchen scale, a probe thermometer and a salt meter.

They know nothing of Spissus but the protocol in docs/devices.md, as a home-made device would; the
standard library is all they need. ``python -m standins.scale --help`` says what each can be told.
"""
